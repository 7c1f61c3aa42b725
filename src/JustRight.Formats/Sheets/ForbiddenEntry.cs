using JustRight.Core.Faults;
using JustRight.Core.Sheets;
using JustRight.Formats.Shapes;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Sheets;

/// <summary>An entry of <c>forbidden</c>, in a sheet or among the rules of an estate.</summary>
internal static class ForbiddenEntry
{
    /// <summary>Its shape.</summary>
    /// <param name="withReason">Whether it must say why.</param>
    public static Shape.Map ShapeOf(bool withReason) => new("something forbidden", [
        new("domain-group", new Shape.Text("a domain group that it must not be in")),
        new(
            "directory",
            new Shape.Text("an act that no ACE may allow it", null, null, [.. DirectoryActs.All.Select(a => a.Words)])),
        new(
            "of",
            new Shape.Text(
                "for what is forbidden in the directory: the class of object", "[A-Za-z][A-Za-z0-9-]{0,63}",
                "the name of a class, such as user")),
        new(
            "attributes",
            new Shape.List(
                "for what is forbidden in the directory: the attributes",
                new Shape.Text("an attribute", "[A-Za-z][A-Za-z0-9-]{0,63}", "the name of an attribute, such as mail"))),
        new("why", new Shape.Text("the reason"), withReason),
    ])
    {
        ExactlyOneOf = ["domain-group", "directory"],
    };

    /// <summary>Reads it.</summary>
    public static ForbiddenHolding Read(YamlNode.Mapping map, string field, List<Fault> faults)
    {
        var act = map.TextOrNull("directory") is { } words ? DirectoryActs.Of(words) : null;
        var holding = new ForbiddenHolding(
            map.TextOrNull("domain-group"), act, map.List("attributes"), map.TextOrNull("of"),
            map.TextOr("why", "the sheet forbids it"), map.At);
        if (act is not null)
        {
            faults.AddRange(SheetRules.CheckAct(act, holding.Attributes, holding.Of, map.At, field));
            return holding;
        }

        foreach (var key in new[] { "of", "attributes" }.Where(k => map[k] is not null))
            faults.Add(new Fault(
                "needless-key", map[key]!.At, $"{field}.{key}",
                $"'domain-group' does not go with '{key}'.")
            { Expected = "an entry with 'directory'" });
        return holding;
    }
}
