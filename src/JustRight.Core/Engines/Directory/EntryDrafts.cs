using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Directory;

/// <summary>Says an entry of an access list in the acts of the sheet language.</summary>
internal static class EntryDrafts
{
    private static readonly string[] UsualClasses =
        ["user", "group", "computer", "contact", "inetOrgPerson", "organizationalUnit"];

    /// <summary>The smallest act that an entry stands for, or the acts that together make up all that it lets change.</summary>
    public static Drafted Of(EntryRight entry, Estate estate, DirectorySchema? schema)
    {
        if (schema is null) return Drafted.Not("the schema of the directory was not read");
        if (entry.Objects != 1)
            return Drafted.Not($"it is set on each of {entry.Objects} objects, and a sheet asks for one ACE on their branch");
        if (BranchOf(entry, estate) is not { } branch)
            return Drafted.Not($"no branch of the estate is {entry.Where}: name it under 'branches' first");
        var possible = Possible(entry, schema).Where(r => EntryReach.Gives(entry, r, schema)).ToList();
        var whole = possible.FirstOrDefault(r => EntryReach.Beyond(entry, [r], schema) == 0);
        List<BranchAsked> acts = whole is not null ? [whole] : Together(entry, possible, schema);
        return acts.Count == 0
            ? Drafted.Not("it allows more than any act of the sheet language")
            : new Drafted([.. acts.Select(a => Need(a, branch))], null);
    }

    private static DraftNeed Need(BranchAsked act, string branch) =>
        new(NeedKind.Directory, DirectoryActs.ByAct[act.Act].Words, PlaceKind.Branch, branch, act.Attributes, act.Of);

    private static string? BranchOf(EntryRight entry, Estate estate) =>
        estate.Branches.FirstOrDefault(b => Same(b.Name.Text, entry.Where))?.Key
        ?? (Same(estate.Domain.Root, entry.Where) ? Estate.WholeDomain : null);

    /// <summary>What an entry might stand for, the least reach first.</summary>
    private static IEnumerable<BranchAsked> Possible(EntryRight entry, DirectorySchema schema)
    {
        var classes = entry.Rule.InheritedBy is { } heir
            ? schema.Classes.Where(c => c.Id == heir).Select(c => c.Name)
            : UsualClasses.Where(c => schema.Class(c) is not null);
        var attribute = schema.Attributes.FirstOrDefault(a => a.Id == entry.Rule.ObjectType)?.Name;
        return from of in classes
               from act in DirectoryActs.All.OrderBy(a => a.Points)
               where !act.NamesAttributes || attribute is not null && schema.Holds(of, attribute)
               where act.Class is null || schema.IsA(of, act.Class)
               select new BranchAsked(act.Act, act.NamesAttributes ? [attribute!] : [], of, entry.Where);
    }

    private static List<BranchAsked> Together(EntryRight entry, List<BranchAsked> possible, DirectorySchema schema)
    {
        var small = possible.Where(r => r.Act != DirectoryAct.FullControl).ToList();
        if (small.Count == 0 || EntryReach.Beyond(entry, small, schema) != 0) return [];
        foreach (var act in small.ToList())
            if (small.Where(r => r != act).ToList() is { Count: > 0 } rest && EntryReach.Beyond(entry, rest, schema) == 0)
                small.Remove(act);
        return small;
    }

    private static bool Same(string a, string b) =>
        DistinguishedName.TryParse(a, out var left) && DistinguishedName.TryParse(b, out var right) && left.Equals(right);
}
