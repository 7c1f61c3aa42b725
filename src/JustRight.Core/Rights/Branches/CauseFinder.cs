using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights.Access;

namespace JustRight.Core.Rights.Branches;

/// <summary>
/// Finds why a demand fails on an object: the deny, the place where inheritance stops, or nothing that gives it.
/// </summary>
/// <param name="sweep">The account over the tree.</param>
/// <param name="isProtected">Whether a SID is in a protected group now.</param>
public sealed class CauseFinder(AccessSweep sweep, Func<Sid, bool> isProtected)
{
    private readonly AccessTree _tree = sweep.Tree;

    /// <summary>The cause, where it lies, and for a denial the entry in the list where it stands.</summary>
    public (FailureCause Cause, IReadOnlyList<int> At, int Entry) Find(int index, Demand demand)
    {
        var decision = sweep.Ask(index, demand);
        if (decision.Reason == AccessReason.Unread) return (FailureCause.Unread, [], -1);
        if (decision.Reason == AccessReason.UnreadMembership) return (FailureCause.MembershipUnread, [index], decision.Entry);
        if (decision.Answer == AccessAnswer.Unknown) return (FailureCause.NotUnderstood, [index], decision.Entry);
        if (decision.Reason == AccessReason.Denied)
        {
            var (origin, entry) = EntryOrigin.Of(_tree, index, _tree.DescriptorOf(index)!.Entries[decision.Entry]);
            return (FailureCause.Denied, [origin], entry);
        }

        var closed = _tree.AtAndAbove(index).Where(i => _tree.ParentOf(i) >= 0 && _tree.DescriptorOf(i) is { IsProtected: true })
            .ToList();
        var stops = closed.Where(c => Would(index, demand, [c])).Take(1).ToList();
        if (stops.Count == 0 && closed.Count > 1 && Would(index, demand, [.. closed])) stops = closed;
        // whatever else is missing, nothing given to it would last
        if (_tree[index].IsAdminHeld && isProtected(_tree[index].Sid)) return (FailureCause.ProtectedGroup, [index], -1);
        if (stops.Count == 0) return (FailureCause.NothingGivesIt, [], -1);
        if (stops[0] != index || !_tree[index].IsAdminHeld) return (FailureCause.InheritanceStops, stops, -1);
        return (FailureCause.LeftByProtectedGroup, [index], -1);
    }

    /// <summary>Whether the demand would be met if inheritance were on at the given objects.</summary>
    private bool Would(int index, Demand demand, HashSet<int> opened)
    {
        var self = _tree[index].Sid;
        var list = Opened(index, opened);
        if (AccessCheck.Judge(list, sweep.Token, demand.Question, self).Answer == AccessAnswer.Yes) return true;
        if (demand.OrWrite is { } write && AccessCheck.Judge(list, sweep.Token, write, self).Answer == AccessAnswer.Yes)
            return true;
        return demand.OrOfParent is { } other && _tree.ParentOf(index) is >= 0 and var parent
            && AccessCheck.Judge(Opened(parent, opened), sweep.Token, other, _tree[parent].Sid).Answer == AccessAnswer.Yes;
    }

    private SecurityDescriptor Opened(int index, HashSet<int> opened)
    {
        var own = _tree.DescriptorOf(index)!;
        var parent = _tree.ParentOf(index);
        if (parent < 0 || _tree.DescriptorOf(parent) is null || (own.IsProtected && !opened.Contains(index))) return own;
        // Above the topmost opened object nothing changes.
        if (!_tree.AtAndAbove(index).Any(opened.Contains)) return own;
        var classes = _tree.Schema.Class(_tree[index].Class) is { } found ? new[] { found.Id } : [];
        return Inheritance.Apply(own.WithProtection(false), Opened(parent, opened).Dacl, classes);
    }
}
