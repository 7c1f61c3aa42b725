using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Adoptions;

/// <summary>Says a right that is held in the words of the sheet language: the way from a need to a right, backwards.</summary>
internal static class DraftNeeds
{
    private static readonly string[] UsualClasses = ["user", "group", "computer", "contact", "inetOrgPerson", "organizationalUnit"];

    /// <summary>The needs that ask for a right and for no more, or why there are none.</summary>
    public static (IReadOnlyList<DraftNeed> Needs, string? WhyNot) Of(Right right, Estate estate, DirectorySchema? schema)
    {
        return right switch
        {
            LogonRight r => At(r.Type, PlaceKind.Host, r.Host),
            PrivilegeRight r => At(r.Constant, PlaceKind.Host, r.Host),
            LocalGroupRight r => At(r.Group, PlaceKind.Host, r.Host),
            DomainGroupRight r => ([new DraftNeed(NeedKind.DomainGroup, r.Group, null, "", [], null)], null),
            InstanceRoleRight r => At(r.Role, PlaceKind.Instance, r.Instance),
            InstancePermissionRight r => At(r.Permission, PlaceKind.Instance, r.Instance),
            DatabaseRoleRight r => At(r.Role, PlaceKind.Database, $"{r.Instance}/{r.Database}"),
            DatabaseOwnerRight r => At("yes", PlaceKind.Database, $"{r.Instance}/{r.Database}"),
            DatabasePermissionRight r => At(r.On is null ? r.Permission : $"{r.Permission} on {r.On}", PlaceKind.Database, $"{r.Instance}/{r.Database}"),
            EntryRight r => Entry(r, estate, schema),
            OwnerRight => ([], "a sheet cannot ask for object ownership; it can ask for the acts that the product needs"),
            _ => ([], "a sheet cannot express it"),
        };

        (IReadOnlyList<DraftNeed>, string?) At(string value, PlaceKind kind, string place) => ([new DraftNeed(right.Kind!.Value, value, kind, place, [], null)], null);
    }

    /// <summary>The smallest act that an entry stands for, or the acts that together make up all that it lets change.</summary>
    private static (IReadOnlyList<DraftNeed> Needs, string? WhyNot) Entry(EntryRight entry, Estate estate, DirectorySchema? schema)
    {
        if (schema is null) return ([], "the schema of the directory was not read");
        if (entry.Objects != 1) return ([], $"it is set on each of {entry.Objects} objects, and a sheet asks for one ACE on their branch");
        var branch = estate.Branches.FirstOrDefault(b => Same(b.Name.Text, entry.Where))?.Key ?? (Same(estate.Domain.Root, entry.Where) ? Estate.WholeDomain : null);
        if (branch is null) return ([], $"no branch of the estate is {entry.Where}: name it under 'branches' first");
        var possible = Possible(entry, schema).Where(r => EntryReach.Gives(entry, r, schema)).ToList();
        var whole = possible.FirstOrDefault(r => EntryReach.Beyond(entry, [r], schema) == 0);
        List<DirectoryRight> rights = whole is not null ? [whole] : Together(entry, possible, schema);
        return rights.Count == 0
            ? ([], "it allows more than any act of the sheet language")
            : ([.. rights.Select(r => new DraftNeed(NeedKind.Directory, DirectoryActs.ByAct[r.Act].Words, PlaceKind.Branch, branch, r.Attributes, r.Of))], null);
    }

    /// <summary>What an entry might stand for, the least reach first.</summary>
    private static IEnumerable<DirectoryRight> Possible(EntryRight entry, DirectorySchema schema)
    {
        var classes = entry.Rule.InheritedBy is { } heir ? schema.Classes.Where(c => c.Id == heir).Select(c => c.Name) : UsualClasses.Where(c => schema.Class(c) is not null);
        var attribute = schema.Attributes.FirstOrDefault(a => a.Id == entry.Rule.ObjectType)?.Name;
        return from of in classes
               from act in DirectoryActs.All.OrderBy(a => a.Points)
               where !act.NamesAttributes || attribute is not null && schema.Holds(of, attribute)
               where act.Class is null || schema.IsA(of, act.Class)
               select new DirectoryRight(act.Act, act.NamesAttributes ? [attribute!] : [], of, entry.Where);
    }

    private static List<DirectoryRight> Together(EntryRight entry, List<DirectoryRight> possible, DirectorySchema schema)
    {
        var small = possible.Where(r => r.Act != DirectoryAct.FullControl).ToList();
        if (small.Count == 0 || EntryReach.Beyond(entry, small, schema) != 0) return [];
        foreach (var right in small.ToList())
            if (small.Where(r => r != right).ToList() is { Count: > 0 } rest && EntryReach.Beyond(entry, rest, schema) == 0) small.Remove(right);
        return small;
    }

    private static bool Same(string a, string b) => DistinguishedName.TryParse(a, out var left) && DistinguishedName.TryParse(b, out var right) && left.Equals(right);
}
