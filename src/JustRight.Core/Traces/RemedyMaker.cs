using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;

namespace JustRight.Core.Traces;

/// <summary>
/// Finds the ways to fix each failure of a trace, and works out what each would change, for everybody and every object.
/// </summary>
/// <param name="sweep">The account over the tree.</param>
/// <param name="domain">The domain's short name.</param>
/// <param name="principal">To whom a right on the spot would be given: the account, or the group meant to hold it.</param>
/// <param name="trustee">The SID of that principal.</param>
/// <param name="nameOf">The name of a SID.</param>
public sealed class RemedyMaker(AccessSweep sweep, string domain, string principal, Sid trustee, Func<Sid, string> nameOf)
{
    private readonly AccessTree _tree = sweep.Tree;

    /// <summary>The remedies of one failure.</summary>
    /// <param name="number">The failure's number in its trace.</param>
    /// <param name="below">The branch the trace is about, or -1 when it is about given objects.</param>
    public IReadOnlyList<Remedy> For(FailureGroup failure, int number, int below)
    {
        var remedies = new List<Remedy>();
        switch (failure.Cause)
        {
            case FailureCause.InheritanceStops:
                remedies.Add(Inherit(failure, number, failure.At));
                remedies.Add(Spot(failure, number, failure.At));
                break;
            case FailureCause.LeftByProtectedGroup:
                remedies.Add(Inherit(failure, number, failure.Objects));
                break;
            case FailureCause.Denied:
                remedies.Add(TakeDenialAway(failure, number));
                break;
            case FailureCause.NothingGivesIt when below >= 0:
                remedies.Add(Spot(failure, number, [below]));
                break;
            case FailureCause.NothingGivesIt:
                remedies.Add(Spot(failure, number, failure.Objects));
                break;
        }

        return remedies;
    }

    private Remedy Inherit(FailureGroup failure, int number, IReadOnlyList<int> at)
    {
        var changes = at.Select(i =>
            new SwitchInheritance(domain, _tree[i].Dn, true, DescriptorText.Write(_tree.DescriptorOf(i)!.DaclOnly)))
            .ToList();
        var after = at.ToDictionary(i => i, i => _tree.DescriptorOf(i)!.WithProtection(false));
        return new Remedy($"{number}-inherit", $"enable inheritance at {Places(at)}", changes, Preview(failure, after));
    }

    private Remedy Spot(FailureGroup failure, int number, IReadOnlyList<int> at)
    {
        var changes = new List<DirectoryChange>();
        var after = new Dictionary<int, SecurityDescriptor>();
        foreach (var index in at)
        {
            after[index] = _tree.DescriptorOf(index)!;
            foreach (var demand in failure.Demands)
            {
                var one = failure.Objects.Contains(index) && !demand.OfContainers;
                var of = _tree.Schema.Class(_tree[failure.Objects[0]].Class)!;
                var rule = one ? demand.RuleForOne(principal) : demand.RuleFor(principal, of);
                changes.Add(new AddAccessRule(
                    domain, _tree[index].Dn, rule, AceWords.What(rule.Rights, rule.ObjectType, rule.InheritedBy, _tree.Schema)));
                after[index] = AclEditor.Insert(after[index], rule.ToAce(trustee));
            }
        }

        return new Remedy(
            $"{number}-spot",
            $"give {principal} the right to {string.Join(" and ", failure.Demands.Select(d => d.Words))} on the spot, at {Places(at)}",
            changes, Preview(failure, after));
    }

    private Remedy TakeDenialAway(FailureGroup failure, int number)
    {
        var at = failure.At[0];
        var ace = _tree.DescriptorOf(at)!.Entries[failure.Entry];
        var rule = AccessRule.Of(ace, nameOf(ace.Trustee));
        var (after, position) = AclEditor.Remove(_tree.DescriptorOf(at)!, ace);
        return new Remedy(
            $"{number}-undeny", $"remove the ACE on {_tree[at].Dn} that denies it to {rule.Principal}",
            [new RemoveAccessRule(
                domain, _tree[at].Dn, rule, AceWords.What(rule.Rights, rule.ObjectType, rule.InheritedBy, _tree.Schema),
                position)],
            Preview(failure, new Dictionary<int, SecurityDescriptor> { [at] = after }));
    }

    private string Places(IReadOnlyList<int> at) =>
        at.Count <= 2 ? string.Join(" and ", at.Select(i => _tree[i].Dn)) : $"{at.Count} objects";

    /// <summary>Holds the tree as it would be against the tree as it is.</summary>
    private RemedyPreview Preview(FailureGroup failure, IReadOnlyDictionary<int, SecurityDescriptor> changed)
    {
        var then = _tree.With(changed);
        var after = new AccessSweep(then, sweep.Token);
        var fixedNow = failure.Objects.Count(i => failure.Demands.All(d => after.Ask(i, d).Answer == AccessAnswer.Yes));
        var touched = new List<string>();
        var gained = new Dictionary<(Sid, string, bool), int>();
        var lost = new Dictionary<(Sid, string, bool), int>();
        var known = new Dictionary<(int, int), (List<(Sid, string, bool)> Gained, List<(Sid, string, bool)> Lost)>();
        foreach (var index in changed.Keys.Where(k =>
            !_tree.AtAndAbove(k).Skip(1).Any(changed.ContainsKey)).SelectMany(_tree.AtAndBelow))
        {
            var (before, now) = (_tree.DescriptorIdOf(index), then.DescriptorIdOf(index));
            if (before == now || before < 0) continue;
            touched.Add(_tree[index].Dn);
            if (!known.TryGetValue((before, now), out var flows))
            {
                var (old, fresh) = (Effective(_tree.Distinct(before)), Effective(then.Distinct(now)));
                known[(before, now)] = flows = ([.. fresh.Except(old)], [.. old.Except(fresh)]);
            }

            foreach (var flow in flows.Gained) gained[flow] = gained.GetValueOrDefault(flow) + 1;
            foreach (var flow in flows.Lost) lost[flow] = lost.GetValueOrDefault(flow) + 1;
        }

        return new RemedyPreview(
            touched, fixedNow, failure.Objects.Count - fixedNow, Flows(gained), Flows(lost),
            [.. changed.Keys.Take(3).Select(i =>
                new ListPreview(_tree[i].Dn, Lines(_tree.DescriptorOf(i)!), Lines(then.DescriptorOf(i)!)))]);
    }

    private List<RightFlow> Flows(Dictionary<(Sid Who, string What, bool Denies), int> flows) =>
        [.. flows.Select(f =>
            new RightFlow(nameOf(f.Key.Who), f.Key.What, f.Key.Denies, f.Value)).OrderByDescending(f => f.Objects).ThenBy(
            f => f.Who, StringComparer.OrdinalIgnoreCase).ThenBy(f => f.What, StringComparer.Ordinal)];

    /// <summary>What counts for the object itself, whoever it comes from.</summary>
    private HashSet<(Sid, string, bool)> Effective(SecurityDescriptor descriptor) =>
        [.. descriptor.Entries.Where(a => a.IsEffective && (a.Allows || a.Denies)).Select(a =>
            (a.Trustee, AceWords.What(a.Mask, a.ObjectType, null, _tree.Schema), a.Denies))];

    private List<string> Lines(SecurityDescriptor descriptor) =>
        [.. descriptor.Entries.Select(a => AceWords.Of(a, _tree.Schema, nameOf))];
}
