using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Core.Replicas;
using JustRight.Core.Surveys;

namespace JustRight.Connectors;

/// <summary>What to read of a directory.</summary>
/// <param name="Branches">The estate's branches: everything below them is read.</param>
/// <param name="Names">Logon names that matter wherever they are: planned accounts and groups, forbidden groups.</param>
public sealed record DirectoryScope(IReadOnlyList<string> Branches, IReadOnlyList<string> Names)
{
    /// <summary>Service principal names whose holders matter, whoever they are.</summary>
    public IReadOnlyList<string> ServiceNames { get; init; } = [];

    /// <summary>Whether to read the policies that govern hosts.</summary>
    public bool Policies { get; init; }

    /// <summary>What to read of access lists, or null for nothing.</summary>
    public AccessScope? Access { get; init; }
}

/// <summary>What to read of the access lists of a directory; what lies above is always read along.</summary>
/// <param name="Branches">Branches below which every object is read.</param>
/// <param name="Objects">Objects to read by themselves.</param>
/// <param name="AllContainers">Whether to read every container of the domain, to find what was delegated anywhere.</param>
public sealed record AccessScope(IReadOnlyList<string> Branches, IReadOnlyList<string> Objects, bool AllContainers);

/// <summary>Reads and changes a directory.</summary>
public interface IDirectoryConnector : IChangeMaker<DirectoryChange>
{
    /// <summary>Reads accounts, groups and memberships within the scope, and every group that holds them through any nesting.</summary>
    Task<DirectorySnapshot> ReadAsync(DirectoryScope scope, CancellationToken cancel);

    /// <summary>The schema of the directory.</summary>
    Task<DirectorySchema> SchemaAsync(CancellationToken cancel);

    /// <summary>Reads one object from every controller of the domain, to see whether they agree.</summary>
    Task<IReadOnlyList<ReplicaObject>> ReadReplicasAsync(string dn, CancellationToken cancel);

    /// <summary>When an account last signed in, asked of every controller: none of them knows what the others know.</summary>
    Task<AccountUse> ReadUseAsync(string account, CancellationToken cancel);

    /// <summary>What is told of an account's password before it is tried or set.</summary>
    Task<PasswordFacts> ReadPasswordAsync(string account, CancellationToken cancel) =>
        throw new ConnectorException(ConnectorFailure.NotAllowed, "this directory cannot be asked about passwords.");

    /// <summary>Signs in as an account, at the controller that <see cref="ReadPasswordAsync"/> asked. A wrong password is counted there: whether one may be spent is for the caller to know.</summary>
    Task<PasswordTry> TryPasswordAsync(string account, NewPassword password, CancellationToken cancel) =>
        throw new ConnectorException(ConnectorFailure.NotAllowed, "this directory cannot be asked about passwords.");

    /// <summary>Whether a logon name is in use anywhere in the domain.</summary>
    Task<IReadOnlySet<string>> NamesInUseAsync(IReadOnlyCollection<string> names, CancellationToken cancel);
}

/// <summary>Reads and changes hosts.</summary>
public interface IHostConnector : IChangeMaker<HostChange>
{
    /// <summary>Reads a host.</summary>
    Task<HostSnapshot> ReadAsync(string host, CancellationToken cancel);
}

/// <summary>Reads and changes database instances.</summary>
public interface IInstanceConnector : IChangeMaker<InstanceChange>
{
    /// <summary>Reads an instance.</summary>
    Task<InstanceSnapshot> ReadAsync(EstateInstance instance, CancellationToken cancel);
}

/// <summary>The connectors of one estate.</summary>
public sealed record EstateConnectors(IDirectoryConnector Directory, IHostConnector Hosts, IInstanceConnector Instances)
{
    /// <summary>Reads whether a change is already true.</summary>
    public Task<Observation> ObserveAsync(Change change, CancellationToken cancel) => change switch
    {
        DirectoryChange c => Directory.ObserveAsync(c, cancel),
        HostChange c => Hosts.ObserveAsync(c, cancel),
        InstanceChange c => Instances.ObserveAsync(c, cancel),
        _ => throw new InvalidOperationException($"Unknown change {change.GetType().Name}."),
    };

    /// <summary>Makes a change.</summary>
    public Task MakeAsync(Change change, NewPassword? password, CancellationToken cancel) => change switch
    {
        DirectoryChange c => Directory.MakeAsync(c, password, cancel),
        HostChange c => Hosts.MakeAsync(c, password, cancel),
        InstanceChange c => Instances.MakeAsync(c, password, cancel),
        _ => throw new InvalidOperationException($"Unknown change {change.GetType().Name}."),
    };
}
