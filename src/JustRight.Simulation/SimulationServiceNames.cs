using JustRight.Connectors;

namespace JustRight.Simulation;

/// <summary>Service principal names of the simulation's accounts: each is there once, as in a directory.</summary>
internal static class SimulationServiceNames
{
    public static Observation Observe(SimulationState state, string account, string name, bool wanted)
    {
        if (state.Find(account) is not { } found)
            return new Observation(wanted ? ObservedState.Impossible : ObservedState.Done, $"{account} does not exist");
        var has = Has(found, name);
        if (wanted && !has && Other(state, found, name) is { } other)
            return new Observation(ObservedState.Impossible, $"{other.Name} has {name}: Kerberos sign-in would fail for both");
        return new Observation(
            has == wanted ? ObservedState.Done : ObservedState.NotDone, has ? $"{account} has {name}"
                : $"{account} does not have {name}");
    }

    public static void Add(SimulationState state, SimulationPrincipal account, string name)
    {
        if (Other(state, account, name) is { } other)
            throw new ConnectorException(ConnectorFailure.Conflict, $"{other.Name} has {name}.");
        if (!Has(account, name)) (account.ServiceNames ??= []).Add(name);
    }

    public static void Remove(SimulationPrincipal account, string name)
    {
        account.ServiceNames?.RemoveAll(n => string.Equals(n, name, StringComparison.OrdinalIgnoreCase));
        if (account.ServiceNames is []) account.ServiceNames = null;
    }

    private static bool Has(SimulationPrincipal account, string name) =>
        account.ServiceNames?.Contains(name, StringComparer.OrdinalIgnoreCase) == true;

    private static SimulationPrincipal? Other(SimulationState state, SimulationPrincipal own, string name) =>
        state.Principals.FirstOrDefault(p => p != own && Has(p, name));
}
