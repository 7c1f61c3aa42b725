using JustRight.Connectors;

namespace JustRight.Simulation;

/// <summary>What the simulation's accounts may do as whoever signed in to them.</summary>
internal static class SimulationDelegation
{
    public static Observation Observe(SimulationState state, string account, string target, bool wanted)
    {
        if (state.Find(account) is not { } found) return Gone(account, wanted);
        var has = found.DelegatesTo?.Contains(target, StringComparer.OrdinalIgnoreCase) == true;
        return new Observation(
            has == wanted ? ObservedState.Done : ObservedState.NotDone,
            has ? $"{account} acts at {target}" : $"{account} does not act at {target}");
    }

    public static Observation ObserveTrust(SimulationState state, string account, bool wanted)
    {
        if (state.Find(account) is not { } found) return Gone(account, wanted);
        var trusted = found.IsTrustedForDelegation;
        return new Observation(
            trusted == wanted ? ObservedState.Done : ObservedState.NotDone,
            $"{account} is {(trusted ? "" : "not ")}trusted for delegation to any service");
    }

    public static void Allow(SimulationPrincipal account, string target)
    {
        if (account.DelegatesTo?.Contains(target, StringComparer.OrdinalIgnoreCase) != true)
            (account.DelegatesTo ??= []).Add(target);
    }

    public static void End(SimulationPrincipal account, string target)
    {
        account.DelegatesTo?.RemoveAll(t => string.Equals(t, target, StringComparison.OrdinalIgnoreCase));
        if (account.DelegatesTo is []) account.DelegatesTo = null;
    }

    private static Observation Gone(string account, bool wanted) =>
        new(wanted ? ObservedState.Impossible : ObservedState.Done, $"{account} does not exist");
}
