using System.Runtime.InteropServices;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights.Access;
using JustRight.Core.Sheets;

namespace JustRight.Core.Rights.Branches;

/// <summary>Judges what an account may do to every object below a branch, and says of those that refuse why and where.</summary>
/// <param name="sweep">The account over the tree.</param>
/// <param name="domain">The domain's SID, for the descriptors that new objects start with.</param>
/// <param name="isProtected">Whether a SID is in a protected group now.</param>
public sealed class BranchJudge(AccessSweep sweep, Sid domain, Func<Sid, bool> isProtected)
{
    private const int MostDeciders = 8;
    private const string ClassUnread = "the class may not be read";
    private readonly AccessSweep _sweep = sweep;
    private readonly AccessTree _tree = sweep.Tree;
    private readonly CauseFinder _causes = new(sweep, isProtected);

    /// <summary>Everything below the right's branch.</summary>
    /// <returns>The answer; or null with the reason why it cannot be judged.</returns>
    public (BranchAnswer? Answer, string? Unseen) Judge(BranchAsked right)
    {
        var (demands, lacking) = Demands.Of(right, _tree.Schema);
        if (demands is null) return (null, $"the directory's schema has no {lacking}");
        var root = _tree.IndexOf(right.Branch);
        if (root < 0) return (null, $"{right.Branch} was not read: it does not exist, or may not be seen");
        if (_tree.Snapshot.Unread.FirstOrDefault(u => DistinguishedName.IsAtOrBelow(u.Part, right.Branch)) is { } unread)
            return (null, $"{unread.Part} could not be read: {unread.Reason}");
        if (!_tree.Snapshot.WholeBranches.Any(w => DistinguishedName.IsAtOrBelow(right.Branch, w)))
            return (null, $"what is below {right.Branch} was not read");
        return (Judge(demands, right.Of, [.. _tree.AtAndBelow(root)], root), null);
    }

    /// <summary>Everything of a class below an object of the tree.</summary>
    public BranchAnswer Judge(IReadOnlyList<Demand> demands, string of, int root) =>
        Judge(demands, of, [.. _tree.AtAndBelow(root)], root);

    /// <summary>Given objects, each as its own class; where something shall be created in them, as places for it.</summary>
    /// <param name="right">What is asked; its class counts only for what shall be created.</param>
    public BranchAnswer Judge(BranchAsked right, IReadOnlyList<int> objects) => right.Act == DirectoryAct.Create
        ? OfOneClass(right, objects)
        : BranchAnswer.Together(
            [.. objects.GroupBy(i => _tree[i].Class, StringComparer.OrdinalIgnoreCase)
                .Select(g => OfOneClass(right with { Of = g.Key }, [.. g]))]);

    private BranchAnswer OfOneClass(BranchAsked right, IReadOnlyList<int> objects)
    {
        if (right.Of.Length == 0) return BranchAnswer.None(FailureCause.Unread, ClassUnread, objects);
        if (ActOnClass.WhyNot(right, _tree.Schema) is { } why)
            return BranchAnswer.None(FailureCause.NotOfItsClass, why, objects);
        var (demands, lacking) = Demands.Of(right, _tree.Schema);
        if (demands is null)
            return BranchAnswer.None(FailureCause.Unread, $"the directory's schema has no {lacking}", objects);
        // where an object would be created is another place than the object itself
        var asked = right.Act == DirectoryAct.Create ? demands : [.. demands.Where(d => !d.OfContainers)];
        var tally = new Tally(this, asked);
        foreach (var index in objects) tally.Add(index, ofObject: true, ofContainer: true);
        return tally.Answer([]);
    }

    private BranchAnswer Judge(IReadOnlyList<Demand> demands, string of, IReadOnlyList<int> all, int root)
    {
        var tally = new Tally(this, demands);
        var forObjects = demands.Where(d => !d.OfContainers).ToList();
        var anyOfContainers = demands.Any(d => d.OfContainers);
        var isOf = _tree.IsOfClass(of);
        var classless = new List<int>();
        foreach (var index in all)
        {
            if (_tree[index].Class.Length == 0)
            {
                // it may be one of those that count, and it may hold some
                classless.Add(index);
                continue;
            }

            var ofObject = forObjects.Count > 0 && index != root && isOf(index);
            var ofContainer = anyOfContainers && _tree.IsContainer(index);
            if (ofObject || ofContainer) tally.Add(index, ofObject, ofContainer);
        }

        var creator = anyOfContainers ? _sweep.Token.Account : default;
        var known = tally.Answer(forObjects.Count == 0 ? [] : Uncovered(forObjects, of, all, creator));
        return classless.Count == 0
            ? known
            : BranchAnswer.Together([known, BranchAnswer.None(FailureCause.Unread, ClassUnread, classless)]);
    }

    /// <summary>
    /// The containers in which an object created tomorrow would refuse. One below another for the same reason is not named
    /// again.
    /// </summary>
    /// <param name="creator">The account, where it creates them itself; empty for somebody else.</param>
    private List<int> Uncovered(IReadOnlyList<Demand> demands, string of, IReadOnlyList<int> all, Sid creator)
    {
        var uncovered = new List<int>();
        if (_tree.Schema.Class(of) is not { } @class) return uncovered;
        var known = new Dictionary<int, bool>();
        foreach (var index in all.Where(_tree.IsContainer))
        {
            var id = _tree.DescriptorIdOf(index);
            if (id < 0) continue;
            if (!known.TryGetValue(id, out var covered))
            {
                var newborn = _tree.Newborn(index, @class, domain, creator)!;
                known[id] = covered = demands.All(d => Grants(newborn, d.Question)
                    || (d.OrWrite is { } write && Grants(newborn, write))
                    || (d.OrOfParent is { } other && _sweep.Ask(index, other).Answer == AccessAnswer.Yes));
            }

            if (!covered && !uncovered.Contains(_tree.ParentOf(index))) uncovered.Add(index);
        }

        return uncovered;
    }

    private bool Grants(SecurityDescriptor list, in AccessQuestion question) =>
        AccessCheck.Judge(list, _sweep.Token, question).Answer == AccessAnswer.Yes;

    private string Words(FailureCause cause, IReadOnlyList<int> at, int entry, IReadOnlyList<Demand> demands)
    {
        var what = string.Join(" and ", demands.Select(d => d.Words));
        var where = string.Join(" and ", at.Select(i => _tree[i].Dn));
        return cause switch
        {
            FailureCause.InheritanceStops =>
                $"inheritance stops at {where}: the right to {what} comes from above and does not reach further",
            FailureCause.Denied => $"an ACE on {where} denies the right to {what}",
            FailureCause.ProtectedGroup =>
                $"{where} is in a protected group: AdminSDHolder resets its ACL within the hour, so no delegated right lasts on it",
            FailureCause.LeftByProtectedGroup => $"{where} was in a protected group once, and inheritance stayed disabled",
            FailureCause.NotUnderstood => $"ACE {entry + 1} on {where} has an unknown type, and could decide it",
            FailureCause.MembershipUnread =>
                $"{WhyDoubtful(at[0], entry)}, and {(entry < 0 ? "ownership" : $"entry {entry + 1}")} of {where} could decide it",
            FailureCause.Unread => "the ACL could not be read",
            FailureCause.NotOfItsClass => $"objects of its class know no way to {what}",
            FailureCause.NothingGivesIt => $"no ACE here or above gives the right to {what}",
        };
    }

    private string WhyDoubtful(int at, int entry)
    {
        var descriptor = _tree.DescriptorOf(at)!;
        return _sweep.Token.WhyDoubtful!(entry < 0 ? descriptor.Owner : descriptor.Entries[entry].Trustee)
            ?? "its groups could not all be read";
    }

    /// <summary>
    /// Counts objects and gathers failures by cause and place. What is found for one object is kept for those that are alike.
    /// </summary>
    private sealed class Tally(BranchJudge judge, IReadOnlyList<Demand> demands)
    {
        private readonly Func<int, AccessDecision>[] _ask = [.. demands.Select(judge._sweep.For)];
        private readonly Dictionary<string, (
            FailureCause Cause, IReadOnlyList<int> At, int Entry, Demand Demand, List<int> Objects)> _failures = [];
        private readonly Dictionary<(int Parent, int Descriptor), List<int>?[]> _alike = [];
        private ((int Parent, int Descriptor) Key, List<int>?[] Lists) _lastAlike;
        private readonly HashSet<(int Descriptor, int Demand)> _decided = [];
        private readonly Dictionary<Sid, int> _deciders = [];
        private readonly List<int> _objects = [];
        private int _can;
        private int _cannot;
        private int _unseen;

        public void Add(int index, bool ofObject, bool ofContainer)
        {
            _objects.Add(index);
            var worst = AccessAnswer.Yes;
            for (var i = 0; i < _ask.Length; i++)
            {
                if (!(demands[i].OfContainers ? ofContainer : ofObject)) continue;
                var decision = _ask[i](index);
                if (decision.Answer == AccessAnswer.Yes)
                {
                    if (_deciders.Count < MostDeciders && _decided.Add((judge._tree.DescriptorIdOf(index), i)))
                        Decider(index, demands[i], decision);
                    continue;
                }

                if (worst != AccessAnswer.No) worst = decision.Answer;
                Failure(index, i);
            }

            if (worst == AccessAnswer.Yes) _can++;
            else if (worst == AccessAnswer.No) _cannot++;
            else _unseen++;
        }

        public BranchAnswer Answer(IReadOnlyList<int> uncovered) => new(
            _can, _cannot, _unseen,
            [.. Merged().OrderByDescending(f => f.Objects.Count)],
            uncovered, _objects, [.. _deciders.Select(d => (d.Key, d.Value))]);

        /// <summary>Demands that the same objects refuse for the same reason at the same place are one failure.</summary>
        private IEnumerable<FailureGroup> Merged()
        {
            var groups = new List<(
                FailureCause Cause, IReadOnlyList<int> At, int Entry, List<Demand> Demands, List<int> Objects)>();
            foreach (var (cause, at, entry, demand, objects) in _failures.Values)
            {
                var same = groups.FirstOrDefault(g =>
                    g.Cause == cause && g.Entry == entry && g.At.SequenceEqual(at) && g.Objects.SequenceEqual(objects));
                if (same.Demands is not null) same.Demands.Add(demand);
                else groups.Add((cause, at, entry, [demand], objects));
            }

            return groups.Select(g =>
                new FailureGroup(g.Cause, g.At, g.Demands, judge.Words(g.Cause, g.At, g.Entry, g.Demands), g.Objects, g.Entry));
        }

        private void Decider(int index, Demand demand, AccessDecision decision)
        {
            var descriptor = judge._tree.DescriptorOf(index)!;
            var viaParent = demand.OrOfParent is not null
                && judge._sweep.Ask(index, demand.Question).Answer != AccessAnswer.Yes;
            if (viaParent) descriptor = judge._tree.DescriptorOf(judge._tree.ParentOf(index))!;
            var trustee = decision.Entry >= 0 ? descriptor.Entries[decision.Entry].Trustee
                : decision.Reason == AccessReason.Owner ? descriptor.Owner
                : Sid.Everyone;
            if (trustee == Sid.Self) trustee = judge._tree[index].Sid;
            _deciders.TryAdd(trustee == Sid.OwnerRights ? descriptor.Owner : trustee, index);
        }

        private void Failure(int index, int number)
        {
            var tree = judge._tree;
            var key = (tree.ParentOf(index), tree.DescriptorIdOf(index));
            if (_lastAlike.Key != key || _lastAlike.Lists is null)
            {
                ref var lists = ref CollectionsMarshal.GetValueRefOrAddDefault(_alike, key, out _);
                _lastAlike = (key, lists ??= new List<int>?[demands.Count]);
            }

            var alike = !tree[index].IsAdminHeld && tree.DescriptorOf(index) is { IsProtected: false };
            if (alike && _lastAlike.Lists[number] is { } known)
            {
                known.Add(index);
                return;
            }

            var (cause, at, entry) = judge._causes.Find(index, demands[number]);
            var group = $"{cause} {string.Join(',', at)} {entry} {number}";
            if (!_failures.TryGetValue(group, out var failure))
                _failures[group] = failure = (cause, at, entry, demands[number], []);
            failure.Objects.Add(index);
            if (alike && !at.Contains(index)) _lastAlike.Lists[number] = failure.Objects;
        }
    }
}
