using JustRight.Core.Rights.Directory;

namespace JustRight.Core.Rights;

/// <summary>
/// The rights every domain user has: those of Everyone, Authenticated Users, Domain Users and what holds them. Every host gives
/// some, so they are gathered once for a survey and not again for each account.
/// </summary>
public sealed class BaselineRights
{
    private static readonly IReadOnlyList<(int Node, RightTail Tail)> Nothing = [];
    private readonly Dictionary<string, List<(int Node, RightTail Tail)>> _tails = new(StringComparer.Ordinal);

    /// <summary>Gathers them.</summary>
    public BaselineRights(MembershipGraph graph, GrantIndex index)
    {
        foreach (var node in graph.Baseline.Order())
        {
            foreach (var tail in index.Of(graph.SidOf(node)))
            {
                if (!_tails.TryGetValue(tail.Right.Key, out var tails)) _tails[tail.Right.Key] = tails = [];
                tails.Add((node, tail));
            }
        }
    }

    /// <summary>How every domain user comes to a right; empty when not every one does.</summary>
    public IReadOnlyList<(int Node, RightTail Tail)> Of(Right right) => _tails.TryGetValue(right.Key, out var tails) ? tails : Nothing;
}
