using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Engines;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Simulation;

/// <summary>The simulated hosts.</summary>
public sealed class SimulationHosts(SimulationFile file, TimeProvider time) : IHostConnector
{
    /// <inheritdoc/>
    public Task<HostSnapshot> ReadAsync(string host, CancellationToken cancel)
    {
        if (file.Read(s => Find(s, host).Unreachable) is { } reason)
        {
            file.Change(s => Find(s, host).MissedOnce());
            throw new ConnectorException(ConnectorFailure.Unreachable, reason);
        }

        return Task.FromResult(file.Read(state => Snapshot(state, Find(state, host), time.GetUtcNow())));
    }

    private static HostSnapshot Snapshot(SimulationState state, SimulationHost host, DateTimeOffset now) => new(
        host.Name, now, null,
        [.. host.LocalGroups.Select(g => new LocalGroup(g.Name, Sid.Parse(g.Sid), state.Sids(g.Members)))],
        [.. host.LogonRights.Select(r => new LogonList(r.Key, state.Sids(r.Value)))],
        [])
    {
        Services = SimulationServices.Read(state, host),
        Runners =
        [
            .. host.Tasks.Select(t => new HostRunner(RunnerKind.Task, t.Name, t.Account, t.KeepsPassword)),
            .. host.Pools.Select(p => new HostRunner(RunnerKind.Pool, p.Name, p.Account, p.KeepsPassword)),
        ],
    };

    /// <inheritdoc/>
    public Task<Observation> ObserveAsync(HostChange change, CancellationToken cancel) => Task.FromResult(file.Read(state =>
    {
        var host = Answering(state, change.Host);
        return change switch
        {
            AddLocalGroupMember c => Observe(Members(host, c.Group), c.Principal, true, $"{c.Host}\\{c.Group}"),
            RemoveLocalGroupMember c => Observe(Members(host, c.Group), c.Principal, false, $"{c.Host}\\{c.Group}"),
            GrantPrivilege c => Observe(Held(host, c.Constant), c.Principal, true, c.Constant),
            RevokePrivilege c => Observe(Held(host, c.Constant), c.Principal, false, c.Constant),
            ServiceChange c => SimulationServices.Observe(host, c),
            RefreshPolicy c => Refreshed(state, host, c),
            DenyLogon c => Observe(Held(host, Denial(c.Type)), c.Principal, true, Denial(c.Type)),
            LiftLogonDenial c => Observe(Held(host, Denial(c.Type)), c.Principal, false, Denial(c.Type)),
            GrantLogonRight c => Observe(Holders(host, c.Type), c.Principal, true, LogonRights.Constant(c.Type)),
            RevokeLogonRight c => Observe(Holders(host, c.Type), c.Principal, false, LogonRights.Constant(c.Type)),
            _ => throw new InvalidOperationException($"Unknown change {change.GetType().Name}."),
        };

        Observation Observe(List<string> names, string principal, bool wanted, string list) =>
            SimulationLists.Observe(state, names, principal, wanted, list);
    }));

    /// <inheritdoc/>
    public Task MakeAsync(HostChange change, NewPassword? password, CancellationToken cancel)
    {
        file.Change(state =>
        {
            var host = Answering(state, change.Host);
            switch (change)
            {
                case AddLocalGroupMember c:
                    SimulationLists.Add(state, Members(host, c.Group), c.Principal);
                    break;
                case RemoveLocalGroupMember c:
                    state.TakeOff(Members(host, c.Group), c.Principal);
                    break;
                case GrantLogonRight c:
                    PutOn(state, host, LogonRights.Constant(c.Type), c.Principal);
                    break;
                case RevokeLogonRight c:
                    state.TakeOff(Holders(host, c.Type), c.Principal);
                    break;
                case GrantPrivilege c:
                    PutOn(state, host, c.Constant, c.Principal);
                    break;
                case DenyLogon c:
                    PutOn(state, host, Denial(c.Type), c.Principal);
                    break;
                case LiftLogonDenial c:
                    state.TakeOff(Held(host, Denial(c.Type)), c.Principal);
                    break;
                case RevokePrivilege c:
                    state.TakeOff(Held(host, c.Constant), c.Principal);
                    break;
                case ServiceChange c:
                    SimulationServices.Make(state, host, c, password, View(state), time.GetUtcNow());
                    break;
                case RefreshPolicy:
                    SimulationPolicies.Refresh(state, host, View(state));
                    break;
                default:
                    throw new InvalidOperationException($"Unknown change {change.GetType().Name}.");
            }
        });
        return Task.CompletedTask;
    }

    private static List<string> Members(SimulationHost host, string group) =>
        host.LocalGroups.Find(g => string.Equals(g.Name, group, StringComparison.OrdinalIgnoreCase))?.Members
        ?? throw new ConnectorException(ConnectorFailure.NotFound, $"there is no local group {group} on {host.Name}.");

    private static void PutOn(SimulationState state, SimulationHost host, string constant, string principal)
    {
        var held = Held(host, constant);
        SimulationLists.Add(state, held, principal);
        host.LogonRights[constant] = held;
    }

    private static string Denial(string type) => LogonRights.DenyConstant(type);

    private static List<string> Holders(SimulationHost host, string type) => Held(host, LogonRights.Constant(type));

    private static List<string> Held(SimulationHost host, string constant) => host.LogonRights.GetValueOrDefault(constant) ?? [];

    /// <summary>A refresh is done when the lists hold whom they should.</summary>
    private static Observation Refreshed(SimulationState state, SimulationHost host, RefreshPolicy change)
    {
        var behind = change.Expect.Where(e => state.Holds(Held(host, e.Constant), e.Principal) != e.Holds)
            .Select(e => $"{e.Constant} for {e.Principal}").ToList();
        return behind.Count == 0
            ? new Observation(ObservedState.Done, "as the policies have it")
            : new Observation(ObservedState.NotDone, $"not yet as the policies set it: {string.Join(", ", behind)}");
    }

    private SurveyView View(SimulationState state) =>
        AllEngines.View(new Survey(
            "simulation", time.GetUtcNow(), true, SimulationDirectory.Snapshot(state, true, time.GetUtcNow()),
            [.. state.Hosts.Select(h => Snapshot(state, h, time.GetUtcNow()))], []));

    private static SimulationHost Answering(SimulationState state, string name)
    {
        var host = Find(state, name);
        return host.Unreachable is null ? host : throw new ConnectorException(ConnectorFailure.Unreachable, host.Unreachable);
    }

    private static SimulationHost Find(SimulationState state, string name) =>
        state.Hosts.Find(h => string.Equals(h.Name, name, StringComparison.OrdinalIgnoreCase))
        ?? throw new ConnectorException(ConnectorFailure.Unreachable, $"the simulation has no host {name}.");
}

/// <summary>Lists of principals, as hosts and instances keep them.</summary>
internal static class SimulationLists
{
    /// <summary>Whether a principal is on a list.</summary>
    public static Observation Observe(
        SimulationState state, IEnumerable<string> names, string principal, bool wanted, string list)
    {
        if (state.Find(principal) is null)
            return new Observation(wanted ? ObservedState.Impossible : ObservedState.Done, $"{principal} does not exist");
        var holds = state.Holds(names, principal);
        return new Observation(
            holds == wanted ? ObservedState.Done : ObservedState.NotDone,
            holds ? $"{principal} is in {list}" : $"{principal} is not in {list}");
    }

    /// <summary>Puts a principal that exists on a list.</summary>
    public static void Add(SimulationState state, List<string> names, string principal)
    {
        var found = state.Find(principal)
            ?? throw new ConnectorException(ConnectorFailure.NotFound, $"there is no {principal} in {state.Domain}.");
        if (!state.Holds(names, found.Name)) names.Add(found.Name);
    }
}
