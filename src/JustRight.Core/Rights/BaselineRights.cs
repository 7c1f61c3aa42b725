using JustRight.Core.Rights.Memberships;

namespace JustRight.Core.Rights;

/// <summary>The rights every domain user has: those of Everyone, Authenticated Users, Domain Users and what holds them.</summary>
public sealed class BaselineRights(MembershipGraph graph, GrantIndex index)
{
    private readonly ILookup<string, (int Node, RightTail Tail)> _elsewhere =
        graph.Baseline.Order().SelectMany(n => index.ElsewhereTo(graph.SidOf(n)).Select(t => (Node: n, Tail: t)))
            .ToLookup(t => t.Tail.Right.Key, StringComparer.Ordinal);

    /// <summary>How every domain user comes to a right; empty when not every one does.</summary>
    public IReadOnlyList<(int Node, RightTail Tail)> Of(Right right) => right.OnHost is null
        ? [.. _elsewhere[right.Key]]
        : [.. index.Of(right, s => graph.Baseline.Contains(graph.IndexOf(s))).Select(t => (graph.IndexOf(t.Holder), t))];
}
