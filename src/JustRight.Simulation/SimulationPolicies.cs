using JustRight.Core.Rights;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;

namespace JustRight.Simulation;

/// <summary>A policy of the simulation.</summary>
public sealed class SimulationPolicy
{
    /// <summary>Identifier in braces.</summary>
    public required string Id { get; set; }

    /// <summary>Name.</summary>
    public required string Name { get; set; }

    /// <summary>Lists of rights by constant, as a template writes them; names stand for SIDs of the simulation.</summary>
    public SortedDictionary<string, List<string>> Lists { get; set; } = [];
}

/// <summary>Where a policy of the simulation is linked.</summary>
public sealed class SimulationPolicyLinks
{
    /// <summary>The container.</summary>
    public required string Dn { get; set; }

    /// <summary>The names of the policies, link number 1 first.</summary>
    public List<string> Policies { get; set; } = [];

    /// <summary>Whether what is linked above is blocked.</summary>
    public bool Blocks { get; set; }
}

/// <summary>The simulated policies: read as a survey holds them, changed, and applied to hosts as a refresh does.</summary>
internal static class SimulationPolicies
{
    /// <summary>What a policy's access list says when nobody changed it: every signed-in computer reads and applies it.</summary>
    private const string Everyone = "O:DAG:DAD:(A;CI;RPLCLORC;;;AU)(OA;CI;CR;edacfd8f-ffb3-11d1-b41d-00a0c968f939;;AU)";

    /// <summary>The policies as a survey holds them.</summary>
    public static PolicySnapshot Read(SimulationState state)
    {
        var ids = state.Policies.ToDictionary(p => p.Name, p => p.Id);
        var linked = state.PolicyLinks.Select(l =>
            new PolicyContainer(
                l.Dn, PolicyLink.Write(l.Policies.Select(p => new PolicyLink(ids[p], false, false)), state.Root), l.Blocks));
        var others = SimulationAccessLists.Containers(state)
            .Where(dn => dn.StartsWith("OU=", StringComparison.OrdinalIgnoreCase)).Append(state.Root)
            .Select(dn => new PolicyContainer(dn, "", false));
        return new PolicySnapshot(
            [.. linked.Concat(others).DistinctBy(c => c.Dn, StringComparer.OrdinalIgnoreCase)], [],
            [.. state.Policies.Select(p =>
                new GroupPolicy(
                    p.Id, p.Name, false, Everyone.Replace("DA", $"{state.DomainSid}-512", StringComparison.Ordinal),
                    [.. p.Lists.Select(l => new PolicyList(l.Key, [.. l.Value.Select(e => Entry(state, e))]))])
                {
                    Groups = [],
                })], null);
    }

    /// <summary>Replaces a policy's list.</summary>
    public static void Change(SimulationState state, string policy, string constant, IReadOnlyList<string> entries) =>
        Find(state, policy).Lists[constant] = [.. entries];

    /// <summary>A policy's list as a template writes it.</summary>
    public static IReadOnlyList<string> ListOf(SimulationState state, string policy, string constant) =>
        [.. (Find(state, policy).Lists.GetValueOrDefault(constant) ?? []).Select(e => Entry(state, e))];

    /// <summary>What a refresh does to a host: each list that a policy decides on replaces the host's whole.</summary>
    public static void Refresh(SimulationState state, SimulationHost host, SurveyView view)
    {
        foreach (var constant in state.Policies.SelectMany(p => p.Lists.Keys).Distinct(StringComparer.Ordinal))
        {
            if (view.Policies.Of(host.Name, constant) is not { List: { } list }) continue;
            host.LogonRights[constant] = [.. list.Entries.Select(e => e.StartsWith('*') ? state.NameOf(e[1..]) : e)];
        }
    }

    private static SimulationPolicy Find(SimulationState state, string policy) =>
        state.Policies.Find(p => string.Equals(p.Id, policy, StringComparison.OrdinalIgnoreCase))
            ?? throw new Connectors.ConnectorException(
                Connectors.ConnectorFailure.NotFound, $"there is no policy {policy} in {state.Domain}.");

    private static string Entry(SimulationState state, string entry) => entry.StartsWith('*') ? entry : $"*{state.SidOf(entry)}";
}
