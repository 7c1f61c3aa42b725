using JustRight.Core.Directory;
using JustRight.Core.Surveys;
using JustRight.Simulation;

namespace JustRight.SimulatedInstance.Engine;

/// <summary>What the instance asks its domain: whose name this is.</summary>
/// <param name="Sid">The principal.</param>
/// <param name="IsGroup">Whether it is a group.</param>
public sealed record DomainPrincipal(Sid Sid, bool IsGroup);

/// <summary>The domain of a simulated instance: the simulation's, read from its file whenever a name is asked for.</summary>
public static class DomainNames
{
    /// <summary>Looks <c>DOMAIN\name</c> up in the simulation's file; null when there is none.</summary>
    public static Func<string, DomainPrincipal?> Of(SimulationFile file) => name => file.Read(state =>
    {
        if (name.Split('\\') is not [var domain, var bare]
            || !string.Equals(domain, state.Domain, StringComparison.OrdinalIgnoreCase))
            return null;
        return state.Principals.TryGetValue(bare, out var found)
            ? new DomainPrincipal(Sid.Parse(state.DomainSid).Append(found.Rid), found.Kind == PrincipalKind.Group)
            : null;
    });
}
