using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit.Databases;

/// <summary>A right that a principal has at an instance.</summary>
/// <param name="Holder">The principal's node.</param>
/// <param name="Paths">How it comes to it, shortest first.</param>
/// <param name="WhyNot">Why it does not count: it is denied, or nothing lets the principal in; null when it counts.</param>
public sealed record InstanceHolder(int Holder, Right Right, IReadOnlyList<RightPath> Paths, string? WhyNot);

/// <summary>
/// Finds who can do what at a database instance, and by which path: every account and machine of the survey that any login
/// reaches.
/// </summary>
public static class InstanceHolders
{
    /// <summary>
    /// Every right of every account and machine at the instance and in its databases. What every domain user has stands once,
    /// with
    /// the group that has it.
    /// </summary>
    /// <param name="most">The most rights to list.</param>
    /// <returns>The rights in order of names, and how many more there are.</returns>
    public static (IReadOnlyList<InstanceHolder> Holders, int More) Of(SurveyView view, InstanceSnapshot instance, int most)
    {
        var found = new List<InstanceHolder>();
        var more = 0;
        var isLetIn = LetIn(view, instance);
        foreach (var node in Enumerable.Range(0, view.Graph.Count).OrderBy(view.Graph.NameOf, StringComparer.OrdinalIgnoreCase))
        {
            var everybodys = view.Graph.Baseline.Contains(node);
            if (!everybodys && !isLetIn(node)) continue;
            var holdings = view.HoldingsOf(node);
            foreach (var held in everybodys ? Own(view, node, instance) : MereEntrances.Without(
                [.. holdings.All(_ => true).Where(h => IsAt(h.Right, instance))], []))
            {
                if (found.Count < most)
                    found.Add(new InstanceHolder(node, held.Right, holdings.PathsOf(held), WhyNot(view, held.Right, holdings)));
                else more++;
            }
        }

        return (found, more);
    }

    /// <summary>Tells of a node whether it is an account or machine that some login reaches, itself or by a group.</summary>
    internal static Func<int, bool> LetIn(SurveyView view, InstanceSnapshot instance)
    {
        var logins = Reaching(view, instance);
        return node => view.Graph.PrincipalOf(node) is { Kind: not PrincipalKind.Group }
            && (logins.Contains(node) || view.Graph.Closure(node).Any(logins.Contains));
    }

    /// <summary>
    /// The nodes that a login of the instance stands for: its principal, or the members of the local group that it names. In
    /// the PostgreSQL family, whoever signs in as a role.
    /// </summary>
    private static HashSet<int> Reaching(SurveyView view, InstanceSnapshot instance)
    {
        if (instance.PostgreSql is not null)
            return [.. Enumerable.Range(0, view.Graph.Count).Where(n =>
                view.Index.ElsewhereTo(view.Graph.SidOf(n)).Any(t => IsAt(t.Right, instance)))];
        var members = view.Host(instance.Host)?.LocalGroups.ToDictionary(g => g.Sid, g => g.Members) ?? [];
        return [.. instance.Logins.Concat(instance.Databases.SelectMany(d => d.Users)).SelectMany(l =>
            members.GetValueOrDefault(l.Sid, [l.Sid])).Concat(instance.Databases.Select(d => d.Owner)).Select(view.Graph.IndexOf).Where(n => n >= 0)];
    }

    private static IEnumerable<Held> Own(SurveyView view, int node, InstanceSnapshot instance)
    {
        foreach (var tails in view.Index.To(view.Graph.SidOf(node), _ => true).Where(t =>
            IsAt(t.Right, instance)).GroupBy(t => t.Right))
        {
            var held = new Held(tails.Key);
            held.Tails.AddRange(tails.Select(t => (node, t)));
            yield return held;
        }
    }

    private static string? WhyNot(SurveyView view, Right right, Holdings holdings)
    {
        var gate = right.GateFor(view, holdings);
        return gate.State switch
        {
            GateState.Open => null,
            GateState.Shut when gate.Denials is [var first, ..] => $"denied: {first.Tail.Right.Words}{By(first.Node)}",
            GateState.Shut => gate.Why,
            GateState.Unseen => $"not known: {gate.Why}",
        };

        string By(int node) => node == holdings.Account ? "" : $", by {view.Graph.NameOf(node)}";
    }

    private static bool IsAt(Right right, InstanceSnapshot instance) =>
        string.Equals(right.AtInstance, instance.Name, StringComparison.OrdinalIgnoreCase);
}
