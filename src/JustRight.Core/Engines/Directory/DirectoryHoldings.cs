using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Rights.Memberships;

namespace JustRight.Core.Engines.Directory;

/// <summary>What one account may do in the directory, by its access lists; entries and memberships can be thought away.</summary>
internal sealed class DirectoryHoldings(AccessTree tree, MembershipGraph graph, GrantIndex index, int account, Cuts? without)
{
    private readonly Dictionary<string, (BranchAnswer?, string?)> _answers = new(StringComparer.Ordinal);
    private BranchJudge? _judge;
    private AccessTree? _tree;

    /// <summary>The tree it is judged on.</summary>
    public AccessTree Tree => _tree ??= Without();

    /// <summary>What it may do to the objects below a right's branch; or null with the reason why that cannot be said.</summary>
    public (BranchAnswer? Answer, string? Unseen) Of(DirectoryRight right)
    {
        if (_answers.TryGetValue(right.Key, out var known)) return known;
        _judge ??= new BranchJudge(new AccessSweep(Tree, AccessTokens.Of(graph, account, without?.Memberships)), graph.DomainSid, sid => ProtectedGroups.Holds(graph, sid));
        return _answers[right.Key] = _judge.Judge(right);
    }

    /// <summary>The right as held on every object, with those through whom it comes; or null.</summary>
    public Held? Held(DirectoryRight right)
    {
        if (Of(right).Answer is not { Holds: true } answer) return null;
        var held = new Held(right);
        foreach (var (trustee, at) in answer.Deciders)
        {
            var node = graph.IndexOf(trustee);
            held.Tails.Add((node < 0 ? account : node, new RightTail(trustee, right, [new PathStep(StepKind.Entry, $"access list of {Tree[at].Dn}")], null)));
        }

        if (held.Tails.Count == 0) held.Tails.Add((account, new RightTail(graph.SidOf(account), right, [], null)));
        return held;
    }

    private AccessTree Without()
    {
        if (without is null || without.Entries.Count == 0) return tree;
        var changed = new Dictionary<int, SecurityDescriptor>();
        foreach (var (holder, key) in without.Entries)
        {
            if (index.To(holder).Select(t => t.Right).OfType<EntryRight>().FirstOrDefault(r => r.Key == key) is not { Objects: 1 } entry) continue;
            var at = tree.IndexOf(entry.Where);
            changed[at] = AclEditor.Remove(changed.GetValueOrDefault(at) ?? tree.DescriptorOf(at)!, entry.Rule.ToAce(holder)).Descriptor;
        }

        return changed.Count == 0 ? tree : tree.With(changed);
    }
}
