using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Directory;

/// <summary>A right over objects of one class below a branch of the directory.</summary>
public sealed class DirectoryRight(BranchAsked asked)
    : ObjectRight(asked.Branch, asked.Words, $"directory:{asked.Words}@{asked.Branch}")
{
    private const string Stopped = "its ACEs are on the branch, but do not reach everything below: trace it, and choose a fix";

    /// <summary>What is asked.</summary>
    public override BranchAsked Below { get; } = asked;

    /// <inheritdoc/>
    public override JudgedBy JudgedBy => JudgedBy.Branch;

    /// <inheritdoc/>
    public override RightReach Reach => new(DirectoryActs.ByAct[Below.Act].Points, $"{Words} stays below {Below.Branch}");

    /// <inheritdoc/>
    public override string ToString() => $"{Words} below {Below.Branch}";

    /// <inheritdoc/>
    public override (BranchFacts? Facts, string? Unseen) BranchIn(Holdings holdings) =>
        holdings.View.Tree is null
            ? (null, "the ACLs of the directory were not surveyed")
            : DirectoryHoldings.Of(holdings).FactsOf(this);

    /// <summary>
    /// The smallest entries on the branch that give it over all below. Where they stand already and something below refuses all
    /// the same, a person must decide.
    /// </summary>
    public override void Give(Giving giving)
    {
        var view = giving.View;
        if (view.Tree is not { } tree || Demands.Of(Below, tree.Schema).Demands is not { } demands) return;
        if (tree.IndexOf(Below.Branch) is var at && at < 0) return;
        var node = view.Graph.IndexOf(giving.Holder);
        var there = tree.DescriptorOf(at)?.Entries ?? [];
        var of = tree.Schema.Class(Below.Of)!;
        var missing = demands
            .Select(d => d.RuleFor(giving.Principal, of)).DistinctBy(r => r.Key)
            .Where(r => node < 0 || !there.Contains(r.ToAce(view.Graph.SidOf(node))))
            .ToList();
        foreach (var rule in missing)
        {
            var says = AceWords.What(rule.Rights, rule.ObjectType, rule.InheritedBy, tree.Schema);
            giving.Add(StepOrder.HostsAndBranches, new AddAccessRule(giving.Domain, Below.Branch, rule, says));
        }

        if (missing.Count == 0 && giving.State == GivenState.Missing) giving.LeaveToPerson(Stopped);
    }

    /// <summary>It is made up of entries, which are taken away one by one.</summary>
    public override Taken Take(Taking taking) => Taken.NoStep;

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) => Drafted.NoWords;

    internal override Held? HeldIn(Holdings holdings, IReadOnlyList<string> logons) =>
        holdings.View.Tree is null ? null : DirectoryHoldings.Of(holdings).Held(this);
}
