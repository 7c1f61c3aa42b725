using JustRight.Core.Passwords;
using JustRight.Core.Sheets;
using JustRight.Formats.Shapes;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Sheets;

/// <summary>What a sheet says of the password of an account.</summary>
internal static class PasswordSection
{
    public static readonly Shape.Map Shape = new("what is known of its password", [
        new(
            "changed-by",
            new Shape.Text(
                "who changes it: us by default; product only for accounts under which it runs its services", null, null,
                ["us", "product"])),
        new("group-managed", new Shape.Text("whether the product supports a gMSA", null, null, ["can", "cannot"])),
        new("typed-in", new Shape.List("where in the product it is typed, apart from its services and its sign-in settings", new Shape.Map("a place", [
            new("in", new Shape.Text("the file or the page"), true),
            new("setting", new Shape.Text("the product's own name of the setting"), true),
            new("on", new Shape.Text("the host place, if it is typed on each host; otherwise it is typed once")),
            new("read-by", new Shape.Text("the service that reads it only at its start; without this, it is read at each use")),
            new("breaks", new Shape.Text("what stops while the place has another password"), true),
        ]))),
    ]);

    /// <summary>Reads the section of an account.</summary>
    public static SheetPassword Read(YamlNode.Mapping map) => new(
        map.TextOr("changed-by", "us") == "product" ? PasswordKeeper.Product : PasswordKeeper.Us,
        map.TextOrNull("group-managed") is { } managed ? managed == "can" : null,
        [.. map.Maps("typed-in").Select(t =>
            new TypedIn(t.Text("in"), t.Text("setting"), t.TextOrNull("on"), t.TextOrNull("read-by"), t.Text("breaks"), t.At))],
        map.At);
}
