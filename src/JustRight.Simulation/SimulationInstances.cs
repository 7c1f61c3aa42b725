using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Surveys;

namespace JustRight.Simulation;

/// <summary>The simulated database instances.</summary>
public sealed class SimulationInstances(SimulationFile file, TimeProvider time) : IInstanceConnector
{
    /// <inheritdoc/>
    public Task<InstanceSnapshot> ReadAsync(EstateInstance instance, CancellationToken cancel)
    {
        if (file.Read(s => Find(s, instance.Name).Unreachable) is not { } reason)
            return Task.FromResult(file.Read(state => Snapshot(state, Find(state, instance.Name), instance)));
        file.Change(s => Find(s, instance.Name).MissedOnce());
        throw new ConnectorException(ConnectorFailure.Unreachable, reason);
    }

    private InstanceSnapshot Snapshot(SimulationState state, SimulationInstance found, EstateInstance instance)
    {
        return new InstanceSnapshot(
            found.Name,
            instance.Engine,
            time.GetUtcNow(),
            null,
            Logins(state, found.Logins),
            state.RoleMembers(found.Roles),
            [.. found.Databases.Select(d =>
                new DatabaseSnapshot(
                    d.Name, d.Owner is null ? default : state.SidOf(d.Owner), null, Logins(state, d.Users),
                    state.RoleMembers(d.Roles))
                {
                    Permissions = Permissions(state, d.Permissions),
                    IsTrusted = string.Equals(d.Name, Jobs, StringComparison.OrdinalIgnoreCase), // as an instance comes
                    OwnerName = d.Owner is null ? Nobody
                        : state.Find(d.Owner) is { } owner ? $"{state.Domain}\\{owner.Name}"
                        : d.Owner,
                })])
        {
            Host = instance.Host,
            Release = instance.Release?.ToString() ?? "",
            Permissions = Permissions(state, found.Permissions),
            Agent = new AgentJobs(null, []),
            OwnLogins = [new OwnPrincipal(Nobody, ["sysadmin"], [])],
        };
    }

    /// <inheritdoc/>
    public Task<Observation> ObserveAsync(InstanceChange change, CancellationToken cancel) => Task.FromResult(file.Read(state =>
    {
        var instance = Answering(state, change.Instance);
        return change switch
        {
            CreateLogin c => Observe(instance.Logins, true, $"the logins of {c.Instance}"),
            DropLogin c => Observe(instance.Logins, false, $"the logins of {c.Instance}"),
            AddInstanceRoleMember c => Observe(Role(instance.Roles, c.Role), true, $"{c.Role} of {c.Instance}"),
            RemoveInstanceRoleMember c => Observe(Role(instance.Roles, c.Role), false, $"{c.Role} of {c.Instance}"),
            CreateDatabaseUser c =>
                Observe(Database(instance, c.Database).Users, true, $"the users of {c.Instance}/{c.Database}"),
            DropDatabaseUser c => Observe(Database(instance, c.Database).Users, false, $"the users of {c.Instance}/{c.Database}"),
            AddDatabaseRoleMember c =>
                Observe(Role(Database(instance, c.Database).Roles, c.Role), true, $"{c.Role} in {c.Instance}/{c.Database}"),
            RemoveDatabaseRoleMember c =>
                Observe(Role(Database(instance, c.Database).Roles, c.Role), false, $"{c.Role} in {c.Instance}/{c.Database}"),
            GrantInstancePermission c =>
                Observe(Granted(instance.Permissions, c.Permission), true, $"{c.Permission} on {c.Instance}"),
            RevokeInstancePermission c =>
                Observe(Granted(instance.Permissions, c.Permission), false, $"{c.Permission} on {c.Instance}"),
            ChangeDatabaseOwner c => Owned(state, Database(instance, c.Database), c),
            GrantDatabasePermission c =>
                Observe(
                    Granted(Database(instance, c.Database).Permissions, Key(c.Permission, c.On)), true,
                    $"{c.Permission} in {c.Instance}/{c.Database}"),
            RevokeDatabasePermission c =>
                Observe(
                    Granted(Database(instance, c.Database).Permissions, Key(c.Permission, c.On)), false,
                    $"{c.Permission} in {c.Instance}/{c.Database}"),
            _ => throw new InvalidOperationException($"Unknown change {change.GetType().Name}."),
        };

        Observation Observe(List<string> names, bool wanted, string list) =>
            SimulationLists.Observe(state, names, change.Principal, wanted, list);
    }));

    /// <inheritdoc/>
    public Task MakeAsync(InstanceChange change, NewPassword? password, CancellationToken cancel)
    {
        file.Change(state => Make(state, Answering(state, change.Instance), change));
        return Task.CompletedTask;
    }

    private static void Make(SimulationState state, SimulationInstance instance, InstanceChange change)
    {
        switch (change)
        {
            case CreateLogin c:
                SimulationLists.Add(state, instance.Logins, c.Principal);
                break;
            case DropLogin c:
                state.TakeOff(instance.Logins, c.Principal);
                break;
            case AddInstanceRoleMember c:
                if (!state.Holds(instance.Logins, c.Principal))
                    throw new ConnectorException(ConnectorFailure.NotFound, $"{c.Principal} has no login on {c.Instance}.");
                SimulationLists.Add(state, instance.Roles[c.Role] = Role(instance.Roles, c.Role), c.Principal);
                break;
            case RemoveInstanceRoleMember c:
                state.TakeOff(Role(instance.Roles, c.Role), c.Principal);
                break;
            case CreateDatabaseUser c:
                if (!state.Holds(instance.Logins, c.Principal))
                    throw new ConnectorException(ConnectorFailure.NotFound, $"{c.Principal} has no login on {c.Instance}.");
                SimulationLists.Add(state, Database(instance, c.Database).Users, c.Principal);
                break;
            case DropDatabaseUser c:
                state.TakeOff(Database(instance, c.Database).Users, c.Principal);
                break;
            case AddDatabaseRoleMember c:
                var database = Database(instance, c.Database);
                if (!state.Holds(database.Users, c.Principal))
                    throw new ConnectorException(
                        ConnectorFailure.NotFound, $"{c.Principal} is not a user of {c.Instance}/{c.Database}.");
                SimulationLists.Add(state, database.Roles[c.Role] = Role(database.Roles, c.Role), c.Principal);
                break;
            case RemoveDatabaseRoleMember c:
                state.TakeOff(Role(Database(instance, c.Database).Roles, c.Role), c.Principal);
                break;
            case GrantInstancePermission c:
                if (!state.Holds(instance.Logins, c.Principal))
                    throw new ConnectorException(ConnectorFailure.NotFound, $"{c.Principal} has no login on {c.Instance}.");
                SimulationLists.Add(
                    state, instance.Permissions[c.Permission] = Granted(instance.Permissions, c.Permission), c.Principal);
                break;
            case RevokeInstancePermission c:
                state.TakeOff(Granted(instance.Permissions, c.Permission), c.Principal);
                break;
            case ChangeDatabaseOwner c:
                var owned = Database(instance, c.Database);
                if (state.Holds(owned.Users, c.Principal))
                    throw new ConnectorException(
                        ConnectorFailure.Conflict,
                        $"{c.Principal} is a user of {c.Instance}/{c.Database} already, and an owner may not be one.");
                owned.Owner = c.Principal == Nobody ? null : LogonNameOf(state, c.Principal);
                break;
            case GrantDatabasePermission c:
                var of = Database(instance, c.Database);
                if (!state.Holds(of.Users, c.Principal))
                    throw new ConnectorException(
                        ConnectorFailure.NotFound, $"{c.Principal} is not a user of {c.Instance}/{c.Database}.");
                SimulationLists.Add(
                    state, of.Permissions[Key(c.Permission, c.On)] = Granted(of.Permissions, Key(c.Permission, c.On)),
                    c.Principal);
                break;
            case RevokeDatabasePermission c:
                state.TakeOff(Granted(Database(instance, c.Database).Permissions, Key(c.Permission, c.On)), c.Principal);
                break;
            default:
                throw new InvalidOperationException($"Unknown change {change.GetType().Name}.");
        }
    }

    private static List<string> Role(SortedDictionary<string, List<string>> roles, string role) =>
        roles.FirstOrDefault(r => string.Equals(r.Key, role, StringComparison.OrdinalIgnoreCase)).Value ?? [];

    /// <summary>What an instance's own login, which owns what no account of the domain does, is called.</summary>
    private const string Nobody = "sa";

    private const string Jobs = "msdb";

    private static string LogonNameOf(SimulationState state, string principal) =>
        state.Find(principal)?.Name
            ?? throw new ConnectorException(ConnectorFailure.NotFound, $"there is no {principal} in the domain.");

    private static Observation Owned(SimulationState state, SimulationDatabase database, ChangeDatabaseOwner change)
    {
        var done = change.Principal == Nobody
            ? database.Owner is null
            : database.Owner is not null && state.Find(change.Principal) is { } principal
                && state.SidOf(database.Owner) == state.SidOf(principal.Name);
        return new Observation(
            done ? ObservedState.Done : ObservedState.NotDone, $"{database.Name} is owned by {database.Owner ?? Nobody}");
    }

    private static List<string> Granted(SortedDictionary<string, List<string>> permissions, string key) => Role(permissions, key);

    private static string Key(string permission, string? on) => on is null ? permission : $"{permission} on {on}";

    /// <summary>The simulation writes an entry as <c>VIEW SERVER STATE</c>, <c>EXECUTE on SCHEMA::reports</c>, or with <c>deny </c> before it.</summary>
    private static IReadOnlyList<PermissionEntry> Permissions(
        SimulationState state, SortedDictionary<string, List<string>> permissions) =>
    [
        .. permissions.SelectMany(p => p.Value.Select(holder =>
        {
            var denies = p.Key.StartsWith("deny ", StringComparison.OrdinalIgnoreCase);
            var words = (denies ? p.Key[5..] : p.Key).Split(" on ", 2);
            var role = SimulationNames.IsRole(holder) ? holder[SimulationNames.RolePrefix.Length..] : null;
            return new PermissionEntry(
                words[0], denies ? PermissionState.Deny : PermissionState.Grant, role is null ? state.SidOf(holder) : default,
                role)
            {
                On = words.Length > 1 ? words[1] : null,
            };
        })),
    ];

    private static SimulationDatabase Database(SimulationInstance instance, string name) =>
        instance.Databases.Find(d => string.Equals(d.Name, name, StringComparison.OrdinalIgnoreCase))
        ?? throw new ConnectorException(ConnectorFailure.NotFound, $"there is no database {name} on {instance.Name}.");

    private static IReadOnlyList<InstanceLogin> Logins(SimulationState state, IEnumerable<string> names) =>
        [.. names.Select(n => new InstanceLogin(state.SidOf(n), state.Find(n) is { } p ? $"{state.Domain}\\{p.Name}" : n))];

    private static SimulationInstance Answering(SimulationState state, string name)
    {
        var instance = Find(state, name);
        return instance.Unreachable is null
            ? instance
            : throw new ConnectorException(ConnectorFailure.Unreachable, instance.Unreachable);
    }

    private static SimulationInstance Find(SimulationState state, string name) =>
        state.Instances.Find(i => string.Equals(i.Name, name, StringComparison.OrdinalIgnoreCase))
        ?? throw new ConnectorException(ConnectorFailure.Unreachable, $"the simulation has no instance {name}.");
}
