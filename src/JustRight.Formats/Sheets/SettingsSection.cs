using JustRight.Core.Faults;
using JustRight.Core.Sheets;
using JustRight.Formats.Shapes;
using JustRight.Formats.SignIn;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Sheets;

/// <summary>The files and pages of settings in the section <c>sign-in</c> of a sheet.</summary>
internal static class SettingsSection
{
    private static readonly string[] Forms = ["list", "ini", "env", "json", "xml", "properties", "yaml"];
    private static readonly string[] Kinds = ["text", "number", "boolean", "list"];
    private static readonly string[] Interpolations = ["none", "percent", "dollar"];

    /// <summary>The shape of one.</summary>
    public static readonly Shape.Map Shape = new("a file or a page of settings", [
        new("typed-on", new Shape.Text("the host place"), true),
        new("file", new Shape.Text("the file that holds the settings")),
        new("page", new Shape.Text("the page on which the settings are typed")),
        new("form", new Shape.Text("for a file: its format", null, null, Forms)),
        new("ini", new Shape.Map("for an ini file: how the product reads it", [
            new("inline-comments", new Shape.YesNo("whether ; or # behind a blank begins a comment")),
            new(
                "interpolation",
                new Shape.Text("which character begins a reference to another value", null, null, Interpolations)),
            new("quotes", new Shape.YesNo("whether a value may stand in double quotes")),
        ])),
        new("fields", new Shape.List("the product's settings, in their order", new Shape.Map("a setting", [
            new(
                "name",
                new Shape.Text(
                    "the product's own name for it; a slash means a section in ini, an object in json and yaml (a number there: "
                    + "a place in a list), an element in xml"),
                true),
            new("is", new Shape.Text("the neutral name of the value")),
            new("text", new Shape.Text("a fixed text")),
            new("role", new Shape.Text("for role-group, role-group-name and role-name: the role")),
            new("as", new Shape.Text("for json and yaml: what the value is; text by default", null, null, Kinds)),
            new("separator", new Shape.Text("what stands between several values where there are no lists; ; by default")),
            new("unit", new Shape.Text("for a number of seconds: its unit", null, null, ["seconds", "milliseconds"])),
            new("case", new Shape.Text("whether the value is written in lower case", null, null, ["as-written", "lower"])),
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
    };

    /// <summary>Reads one, or several.</summary>
    public static IReadOnlyList<SheetSettings> Read(YamlNode node, List<Fault> faults)
    {
        if (node is YamlNode.Mapping one) return [Of(one, "sign-in.settings", faults)];
        var items = ((YamlNode.Sequence)node).Items;
        if (items.Count == 0)
            faults.Add(new Fault("missing-key", node.At, "sign-in.settings", "There is no file and no page."));
        SheetSettings[] all = [.. items.Select((m, i) =>
            Of((YamlNode.Mapping)m, string.Create(
                System.Globalization.CultureInfo.InvariantCulture, $"sign-in.settings[{i}]"), faults))];
        foreach (var twice in all.GroupBy(s => (s.TypedOn, s.Where)).Where(g => g.Count() > 1))
            faults.Add(new Fault(
                "twice", twice.Last().At, "sign-in.settings", $"{twice.Key.Where} on {twice.Key.TypedOn} stands twice."));
        return all;
    }

    private static SheetSettings Of(YamlNode.Mapping map, string at, List<Fault> faults)
    {
        if (map["page"] is not null && map["form"] is { } needless)
            faults.Add(new Fault(
                "needless-key", needless.At, $"{at}.form", "A page is a list to type: 'form' is only for a file.")
            { Expected = "file" });
        if (map["file"] is not null && map["form"] is null)
            faults.Add(new Fault("missing-key", map.At, $"{at}.form", "The format of the file is missing.")
            {
                Expected = "form: " + string.Join(", ", Forms.Skip(1)),
            });
        var form = (SettingsForm)Math.Max(0, Array.IndexOf(Forms, map.TextOr("form", "list")));
        if (map["ini"] is { } dialect && form != SettingsForm.Ini)
            faults.Add(new Fault("needless-key", dialect.At, $"{at}.ini", "'ini' goes only with form: ini."));
        if (SettingsFile.WhatIsWrong(form, [.. map.Maps("fields").Select(f => f.Text("name"))]) is { } wrong)
            faults.Add(new Fault(
                "wrong-value", map["fields"]!.At, $"{at}.fields",
                $"These names cannot be used together in such a file: {wrong}."));
        return new SheetSettings(
            map.Text("typed-on"), map.TextOrNull("file") ?? map.Text("page"), form, [.. map.Maps("fields").Select(Field)], map.At)
        {
            Lines = map.Entries.ToDictionary(e => e.Key.Text, e => e.Value.At),
            Ini = map["ini"] is YamlNode.Mapping ini
                ? new IniReader(
                    ini.YesNo("inline-comments"),
                    (IniInterpolation)Array.IndexOf(Interpolations, ini.TextOr("interpolation", Interpolations[0])),
                    ini.YesNo("quotes"))
                : null,
        };
    }

    private static SettingsField Field(YamlNode.Mapping map) => new(
        map.Text("name"), map.TextOrNull("is"), map.TextOrNull("text"),
        map.Texts("words").ToDictionary(w => w.Key.Text, w => w.Value.Text), map.At)
    {
        Role = map.TextOrNull("role"),
        As = (ValueKind)Array.IndexOf(Kinds, map.TextOr("as", Kinds[0])),
        Separator = map.TextOr("separator", ";"),
        Milliseconds = map.TextOr("unit", "seconds") == "milliseconds",
        LowerCase = map.TextOr("case", "as-written") == "lower",
    };
}
