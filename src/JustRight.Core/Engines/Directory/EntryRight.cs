using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;

namespace JustRight.Core.Engines.Directory;

/// <summary>A right that an entry of an access list gives, found on an object of the directory; no need has this shape.</summary>
/// <param name="words">What it lets its holder do.</param>
/// <param name="where">The distinguished name of the object that carries the entry; or of the branch, when many carry the
/// same.</param>
/// <param name="rule">The entry.</param>
/// <param name="objects">How many objects carry it.</param>
public sealed class EntryRight(string words, string where, AccessRule rule, int objects) : ObjectRight(
    where,
    objects == 1 ? words : $"{words}, by an entry on each of {objects} objects",
    $"entry:{rule.Key}@{(objects == 1 ? "" : "below ")}{where}")
{
    /// <summary>The object that carries the entry, or the branch in which many do.</summary>
    public string Where { get; } = where;

    /// <summary>The entry.</summary>
    public AccessRule Rule { get; } = rule;

    /// <summary>How many objects carry it.</summary>
    public int Objects { get; } = objects;

    /// <inheritdoc/>
    public override string OnObject => Where;

    /// <inheritdoc/>
    public override RightReach Reach => RightReach.NotKnown(Words);

    /// <inheritdoc/>
    public override bool Lets(Right act, SurveyView view) =>
        act.Below is { } asked && view.Tree is { } tree && EntryReach.Gives(this, asked, tree.Schema);

    /// <inheritdoc/>
    public override bool? IsMadeUpBy(IEnumerable<Right> needed, SurveyView view) =>
        EntryReach.Beyond(this, Asked(needed), view.Tree!.Schema) == 0;

    /// <inheritdoc/>
    public override string? WhyBeyond(IReadOnlyList<Right> needed, SurveyView view)
    {
        if (view.Tree is not { } tree) return null;
        var asked = Asked(needed).ToList();
        var beyond = EntryReach.Beyond(this, asked, tree.Schema);
        if (beyond != (Rule.Rights.Mapped() & EntryReach.Changing))
            return $"more than is needed: {AceWords.What(beyond, Rule.ObjectType, null, tree.Schema)}";
        if (!asked.Any(n => DistinguishedName.IsAtOrBelow(n.Branch, Where) && EntryReach.Gives(this, n, tree.Schema)))
            return "nothing needs it";
        return asked.Any(n => DistinguishedName.IsAtOrBelow(Where, n.Branch))
            ? "it gives more than is needed there"
            : "it covers more than the branch that is needed";
    }

    /// <summary>No need has its shape: it is never asked for.</summary>
    public override void Give(Giving giving) => throw new InvalidOperationException($"No need asks for {this}.");

    /// <summary>The step that takes it out of its list, with the place it has there once the steps before are made.</summary>
    public override Taken Take(Taking taking)
    {
        if (Objects != 1 || taking.View.Tree is not { } tree)
            return Taken.Not("it is set on many objects: whoever set it removes it");
        var list = tree.DescriptorOf(tree.IndexOf(Where))!;
        foreach (var earlier in taking.Earlier.OfType<RemoveAccessRule>().Where(c => c.Dn == Where))
        {
            var other = taking.View.Graph.SidOf(taking.View.NodeOf(earlier.Rule.Principal));
            list = AclEditor.Remove(list, earlier.Rule.ToAce(other)).Descriptor;
        }

        var position = AclEditor.Remove(list, Rule.ToAce(taking.Sid)).Position;
        return Taken.By(new RemoveAccessRule(taking.Domain, Where, Rule, Words, position));
    }

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) => EntryDrafts.Of(this, estate, schema);

    private static IEnumerable<BranchAsked> Asked(IEnumerable<Right> needed) => needed.Select(n => n.Below).OfType<BranchAsked>();
}
