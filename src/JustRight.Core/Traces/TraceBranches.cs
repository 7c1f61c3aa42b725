using JustRight.Core.Rights.Branches;

namespace JustRight.Core.Traces;

/// <summary>A container on the way of a trace, with what was found below it.</summary>
/// <param name="Index">Its index in the tree.</param>
/// <param name="Depth">How far below the top of the drawing.</param>
/// <param name="Inherits">Whether it inherits; null when its list was not read.</param>
/// <param name="Can">How many objects at any depth below grant what is asked.</param>
/// <param name="Cannot">How many refuse it.</param>
/// <param name="Unseen">How many could not be judged.</param>
/// <param name="IsCause">Whether a failure lies here.</param>
public sealed record TraceBranch(int Index, int Depth, bool? Inherits, int Can, int Cannot, int Unseen, bool IsCause);

/// <summary>Draws the tree of a trace: the containers that hold what was judged, with counts.</summary>
public static class TraceBranches
{
    /// <summary>The containers from the top of the domain down, those with nothing judged below them left out.</summary>
    public static IReadOnlyList<TraceBranch> Of(AccessTrace trace)
    {
        var tree = trace.Tree;
        var counts = new Dictionary<int, (int Can, int Cannot, int Unseen)>();
        var refusing = trace.Answer.Failures.Where(f =>
            f.Cause is not (FailureCause.NotUnderstood or FailureCause.MembershipUnread or FailureCause.Unread))
            .SelectMany(f => f.Objects).ToHashSet();
        var unclear = trace.Answer.Failures.SelectMany(f => f.Objects).ToHashSet();
        foreach (var index in trace.Answer.Objects)
        {
            foreach (var above in tree.AtAndAbove(index).Skip(tree.IsContainer(index) ? 0 : 1))
            {
                var (can, cannot, unseen) = counts.GetValueOrDefault(above);
                counts[above] = refusing.Contains(index) ? (can, cannot + 1, unseen)
                    : unclear.Contains(index) ? (can, cannot, unseen + 1)
                    : (can + 1, cannot, unseen);
            }
        }

        var causes = trace.Answer.Failures.SelectMany(f => f.At).ToHashSet();
        var top = Enumerable.Range(0, tree.Count).Where(i => tree.ParentOf(i) < 0);
        return [.. top.SelectMany(t => Walk(t, 0))];

        IEnumerable<TraceBranch> Walk(int index, int depth)
        {
            if (!counts.TryGetValue(index, out var count)) yield break;
            yield return new TraceBranch(
                index, depth, tree.DescriptorOf(index) is { } list ? !list.IsProtected : null, count.Can, count.Cannot,
                count.Unseen, causes.Contains(index));
            foreach (var child in tree.ChildrenOf(index).Where(tree.IsContainer).OrderBy(
                c => tree[c].Dn, StringComparer.OrdinalIgnoreCase))
                foreach (var below in Walk(child, depth + 1)) yield return below;
        }
    }
}
