using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Rights.Memberships;

namespace JustRight.Core.Engines.Directory;

/// <summary>What one account may do in the directory, by its access lists; entries and memberships can be thought away.</summary>
internal sealed class DirectoryHoldings
{
    private readonly Holdings _holdings;
    private readonly Dictionary<string, (BranchAnswer? Answer, string? Unseen)> _answers = new(StringComparer.Ordinal);
    private readonly Dictionary<string, BranchFacts> _facts = new(StringComparer.Ordinal);
    private readonly AccessTree _tree;
    private BranchJudge? _judge;

    private DirectoryHoldings(Holdings holdings, AccessTree tree)
    {
        _holdings = holdings;
        _tree = Without(holdings, tree);
    }

    /// <summary>Of an account, where the access lists were read.</summary>
    public static DirectoryHoldings Of(Holdings holdings) =>
        holdings.Kept(() => new DirectoryHoldings(holdings, holdings.View.Tree!));

    /// <summary>What it may do to the objects below a right's branch; or null with the reason why that cannot be said.</summary>
    public (BranchFacts? Facts, string? Unseen) FactsOf(DirectoryRight right)
    {
        var (answer, unseen) = Of(right);
        if (answer is null) return (null, unseen);
        if (!_facts.TryGetValue(right.Key, out var facts)) _facts[right.Key] = facts = BranchFacts.Of(answer, _tree);
        return (facts, null);
    }

    /// <summary>The right as held on every object, with those through whom it comes; or null.</summary>
    public Held? Held(DirectoryRight right)
    {
        if (Of(right).Answer is not { Holds: true } answer) return null;
        var graph = _holdings.View.Graph;
        var held = new Held(right);
        foreach (var (trustee, at) in answer.Deciders)
        {
            var node = graph.IndexOf(trustee);
            var step = new PathStep(StepKind.Entry, $"access list of {_tree[at].Dn}");
            held.Tails.Add((node < 0 ? _holdings.Account : node, new RightTail(trustee, right, [step], null)));
        }

        if (held.Tails.Count == 0)
            held.Tails.Add((_holdings.Account, new RightTail(graph.SidOf(_holdings.Account), right, [], null)));
        return held;
    }

    private (BranchAnswer? Answer, string? Unseen) Of(DirectoryRight right)
    {
        if (_answers.TryGetValue(right.Key, out var known)) return known;
        var graph = _holdings.View.Graph;
        _judge ??= new BranchJudge(
            new AccessSweep(_tree, AccessTokens.Of(graph, _holdings.Account, _holdings.Without?.Memberships)), graph.DomainSid,
            sid => ProtectedGroups.Holds(graph, sid));
        return _answers[right.Key] = _judge.Judge(right.Below);
    }

    private static AccessTree Without(Holdings holdings, AccessTree tree)
    {
        if (holdings.Without is not { Entries.Count: > 0 } without) return tree;
        var changed = new Dictionary<int, SecurityDescriptor>();
        foreach (var (holder, key) in without.Entries)
        {
            if (holdings.View.Index.To(holder).Select(t => t.Right).OfType<EntryRight>().FirstOrDefault(r => r.Key == key)
                is not { Objects: 1 } entry) continue;
            var at = tree.IndexOf(entry.Where);
            changed[at] = AclEditor.Remove(
                changed.GetValueOrDefault(at) ?? tree.DescriptorOf(at)!, entry.Rule.ToAce(holder)).Descriptor;
        }

        return changed.Count == 0 ? tree : tree.With(changed);
    }
}
