using JustRight.Core.Engines;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit.Databases;

/// <summary>How somebody can come to more at an instance than was granted.</summary>
/// <param name="Holder">The account's node.</param>
public sealed record InstanceWay(int Holder, WayToMore Way);

/// <summary>
/// Finds who can come to rule an instance, or a database of it, beyond what was granted: every account and machine that any
/// login reaches.
/// </summary>
public static class InstanceWays
{
    /// <summary>
    /// What could not be read, so that ways over it are not found; null when all was, or the engine has no such.
    /// </summary>
    public static string? WhyNotAll(InstanceSnapshot instance) => instance switch
    {
        { PostgreSql: not null } or { Unread: not null } => null,
        { Agent: null } => "jobs of the agent, which this survey did not ask for",
        { Agent.Unread: { } why } => $"jobs of the agent: {why}",
        _ => null,
    };

    /// <summary>The ways to rights that rule, in order of names.</summary>
    /// <param name="most">The most ways to list.</param>
    /// <returns>The ways, and how many more there are.</returns>
    public static (IReadOnlyList<InstanceWay> Ways, int More) Of(SurveyView view, InstanceSnapshot instance, int most)
    {
        var found = new List<InstanceWay>();
        var more = 0;
        foreach (var node in Enumerable.Range(0, view.Graph.Count).Where(InstanceHolders.LetIn(view, instance))
            .OrderBy(view.Graph.NameOf, StringComparer.OrdinalIgnoreCase))
        {
            foreach (var way in AllEngines.WaysToMore(instance, view.HoldingsOf(node))
                .Where(w => w.Right.Reach.Points >= RightReach.Ruling))
            {
                if (found.Count < most) found.Add(new InstanceWay(node, way));
                else more++;
            }
        }

        return (found, more);
    }
}
