using JustRight.Core.Directory;
using JustRight.Core.Faults;
using JustRight.Core.Sheets;
using JustRight.Formats.Shapes;
using JustRight.Formats.SignIn;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Sheets;

/// <summary>The section <c>sign-in</c> of a sheet.</summary>
internal static class SignInSection
{
    private static readonly string[] Families = ["ad-like", "inetorgperson"];
    private static readonly string[] Forms = ["list", "ini", "env", "json", "xml", "properties"];

    /// <summary>Its shape.</summary>
    public static readonly Shape.Map Shape = new("how people sign in with their directory account", [
        new(
            "families",
            new Shape.List(
                "the families of directory that the product supports", new Shape.Text("a family", null, null, Families), true),
            true),
        new("bind", new Shape.Map("the bind account", [
            new("account", new Shape.Text("the account of this sheet; without it, the install names one of the directory's own")),
            new("as", new Shape.Text("the form of its name", null, null, ["dn", "upn", "short-name"]), true),
        ]), true),
        new(
            "security",
            new Shape.List(
                "the connections that the product supports, best first",
                new Shape.Text("a way", null, null, WireSecurityWords.All), true),
            true),
        new("bases", new Shape.Text("whether it has separate bases for people and for groups", null, null, ["one", "separate"])),
        new("enter", new Shape.Text("the group of this sheet whose members may sign in")),
        new("nested-groups", new Shape.Text("who follows groups inside groups", null, null, ["no", "by-filter", "by-product"])),
        new("typed-name", new Shape.Text("the product's placeholder for the typed name in its filter")),
        new("groups", new Shape.Map("which groups an administrator sees when choosing one", [
            new("names-start", new Shape.List("what their names start with", new Shape.Text("a beginning"), true)),
            new("built-in", new Shape.YesNo("whether the domain's built-in groups are shown too")),
        ])),
        new(
            "page-size",
            new Shape.Number("the page size of the product's searches; without it, the product does not page", 1, 100_000)),
        new("settings", new Shape.Map("where and how the settings are entered", [
            new("typed-on", new Shape.Text("the host place"), true),
            new("file", new Shape.Text("the file that holds the settings")),
            new("page", new Shape.Text("the page on which the settings are typed")),
            new("form", new Shape.Text("for a file: its format", null, null, Forms)),
            new("fields", new Shape.List("the product's settings, in their order", new Shape.Map("a setting", [
                new(
                    "name",
                    new Shape.Text("the product's own name for it; a slash means a section in ini, an object in json, an element in xml"),
                    true),
                new("is", new Shape.Text("the neutral name of the value")),
                new("text", new Shape.Text("a fixed text")),
                new(
                    "words",
                    new Shape.Named(
                        "the product's own words for some values", "[a-z][a-z-]*", "a value such as start-tls",
                        new Shape.Text("the product's word"))),
            ])
            {
                ExactlyOneOf = ["is", "text"],
            }), true),
        ])
        {
            ExactlyOneOf = ["file", "page"],
        }, true),
    ]);

    /// <summary>Reads it.</summary>
    public static SheetSignIn Read(YamlNode.Mapping map, List<Fault> faults)
    {
        var bind = (YamlNode.Mapping)map["bind"]!;
        return new SheetSignIn(
            [.. map.List("families").Select(f => f == Families[0] ? DirectoryFamily.AdLike : DirectoryFamily.InetOrgPerson)],
            bind.TextOrNull("account"),
            bind.Text("as") switch { "upn" => BindForm.Upn, "short-name" => BindForm.ShortName, _ => BindForm.Dn },
            [.. map.List("security").Select(w => (WireSecurity)WireSecurityWords.All.ToList().IndexOf(w))],
            map.TextOr("bases", "separate") == "one",
            map.TextOrNull("enter"),
            map.TextOr(
                "nested-groups",
                "no") switch
            {
                "by-filter" =>
                    NestedGroups.ByFilter,
                "by-product" => NestedGroups.ByProduct,
                _ => NestedGroups.No
            },
            map.TextOrNull("typed-name"),
            map["groups"] is YamlNode.Mapping groups
                ? new SheetGroupList(groups.List("names-start"), groups.YesNo("built-in"), groups.At)
                : null,
            map.NumberOrNull("page-size"),
            Settings((YamlNode.Mapping)map["settings"]!, faults),
            map.At)
        {
            Lines = Lines(map, "").ToDictionary(),
        };
    }

    private static IEnumerable<KeyValuePair<string, Origin>> Lines(YamlNode.Mapping map, string path) =>
        map.Entries.SelectMany(e =>
            (e.Value is YamlNode.Mapping inner ? Lines(inner, path + e.Key.Text + ".") : [])
                .Prepend(new(path + e.Key.Text, e.Value.At)));

    private static SignInSettings Settings(YamlNode.Mapping map, List<Fault> faults)
    {
        if (map["page"] is not null && map["form"] is { } needless)
            faults.Add(new Fault(
                "needless-key", needless.At, "sign-in.settings.form",
                "A page is a list to type: 'form' is only for a file.")
            { Expected = "file" });
        if (map["file"] is not null && map["form"] is null)
            faults.Add(new Fault(
                "missing-key", map.At, "sign-in.settings.form",
                "The format of the file is missing.")
            { Expected = "form: " + string.Join(", ", Forms.Skip(1)) });
        var form = (SettingsForm)Math.Max(0, Array.IndexOf(Forms, map.TextOr("form", "list")));
        if (SettingsFile.WhatIsWrong(form, [.. map.Maps("fields").Select(f => f.Text("name"))]) is { } wrong)
            faults.Add(new Fault(
                "wrong-value", map["fields"]!.At, "sign-in.settings.fields",
                $"These names cannot be used together in such a file: {wrong}."));
        return new SignInSettings(
            map.Text("typed-on"),
            map.TextOrNull("file") ?? map.Text("page"),
            form,
            [.. map.Maps("fields").Select(f =>
                new SettingsField(
                    f.Text("name"), f.TextOrNull("is"), f.TextOrNull("text"),
                    f.Texts("words").ToDictionary(w => w.Key.Text, w => w.Value.Text), f.At))],
            map.At);
    }
}
