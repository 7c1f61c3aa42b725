using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Replicas;
using JustRight.Core.Surveys;

namespace JustRight.Hosts.Tests;

/// <summary>A directory that does not answer: these tests are about hosts.</summary>
internal sealed class NoDirectory : IDirectoryConnector
{
    private static ConnectorException Refusal => new(ConnectorFailure.Unreachable, "no directory here");

    public Task<DirectorySnapshot> ReadAsync(DirectoryScope scope, CancellationToken cancel) => throw Refusal;

    public Task<DirectorySchema> SchemaAsync(CancellationToken cancel) => throw Refusal;

    public Task<IReadOnlyList<ReplicaObject>> ReadReplicasAsync(string dn, CancellationToken cancel) => throw Refusal;

    public Task<AccountUse> ReadUseAsync(string account, CancellationToken cancel) => throw Refusal;

    public Task<IReadOnlySet<string>> NamesInUseAsync(
        IReadOnlyCollection<string> names, CancellationToken cancel) => throw Refusal;

    public Task<Observation> ObserveAsync(DirectoryChange change, CancellationToken cancel) => throw Refusal;

    public Task MakeAsync(DirectoryChange change, NewPassword? password, CancellationToken cancel) => throw Refusal;
}
