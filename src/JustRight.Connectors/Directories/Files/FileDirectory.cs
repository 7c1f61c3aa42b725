using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Replicas;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.Directories.Files;

/// <summary>A directory that no connection is allowed to: it is read from a file, and never changed.</summary>
/// <param name="readAt">When the file was read from the directory.</param>
public sealed class FileDirectory(DirectoryFile file, Domain domain, DirectorySchemas schemas, DateTimeOffset readAt)
    : IDirectoryConnector
{
    /// <summary>What is said when something is to be changed.</summary>
    public const string ReadOnly = "the directory is read from a file (reach: file): it cannot be changed from here. Print the changes with justright ldif, and have them applied.";

    private static readonly TimeProvider Clock = TimeProvider.System;

    /// <inheritdoc/>
    public Task<DirectorySnapshot> ReadAsync(DirectoryScope scope, CancellationToken cancel) =>
        Task.Run(() => Read(scope, cancel), cancel);

    /// <inheritdoc/>
    public Task<DirectorySchema> SchemaAsync(CancellationToken cancel) => Task.FromResult(schemas.Read(file));

    /// <inheritdoc/>
    public Task<IReadOnlyList<ReplicaObject>> ReadReplicasAsync(string dn, CancellationToken cancel) =>
        Task.FromResult<IReadOnlyList<ReplicaObject>>(
            [ReplicaObject.NotRead(
                file.Controller, "the directory is read from a file (reach: file): no domain controller can be asked")]);

    /// <inheritdoc/>
    public Task<AccountUse> ReadUseAsync(string account, CancellationToken cancel) => Task.FromResult(new AccountUse(account,
        [new ControllerLogon(
            file.Controller, "the directory is read from a file (reach: file): no domain controller can be asked", null)]));

    /// <inheritdoc/>
    public Task<IReadOnlySet<string>> NamesInUseAsync(IReadOnlyCollection<string> names, CancellationToken cancel) =>
        Task.FromResult<IReadOnlySet<string>>(
            names.Where(n => file.Find(n) is not null).ToHashSet(StringComparer.OrdinalIgnoreCase));

    /// <inheritdoc/>
    public Task<Observation> ObserveAsync(DirectoryChange change, CancellationToken cancel) =>
        throw new ConnectorException(ConnectorFailure.NotAllowed, ReadOnly);

    /// <inheritdoc/>
    public Task MakeAsync(DirectoryChange change, NewPassword? password, CancellationToken cancel) =>
        throw new ConnectorException(ConnectorFailure.NotAllowed, ReadOnly);

    private DirectorySnapshot Read(DirectoryScope scope, CancellationToken cancel)
    {
        var snapshot = new PrincipalSurvey(file, domain, schemas, Clock).Read(scope, cancel) with { ReadAt = readAt };
        var remarks = new List<string> { $"The directory was read from the file {file.Name}: later changes are not in it." };
        if (file.SchemaRoot.Length == 0)
            remarks.Add("The file holds no schema: only the attributes, classes and rights that every such directory has are known.");
        return snapshot with
        {
            Remarks = remarks,
            Access = snapshot.Access is { } access ? access with { Unread = [.. access.Unread, .. Missing(access)] } : null,
        };
    }

    /// <summary>What may be missing from the file without showing.</summary>
    private IEnumerable<UnreadPart> Missing(AccessSnapshot access)
    {
        foreach (var container in file.MissingContainers())
            yield return new UnreadPart(container, "it is not in the file, although objects below it are");
        if (file.SaysWhoRead) yield break;
        foreach (var branch in access.WholeBranches)
            yield return new UnreadPart(
                branch,
                "the file does not say who exported it (tokenGroups of the root entry): objects that this account may not list are missing, and that does not show");
    }
}
