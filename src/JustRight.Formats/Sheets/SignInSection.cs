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
    private const string Keeps = "kept", Disables = "disabled", Removes = "removed";
    private static readonly string[] Families = ["ad-like", "inetorgperson"];
    private static readonly string[] WhoBinds = ["account", "person", "certificate"];
    private static readonly string[] BindForms = ["dn", "upn", "short-name"];
    private static readonly string[] Bases = ["separate", "one", "several"];
    private static readonly string[] Nested = ["no", "by-filter", "by-product"];

    /// <summary>Its shape.</summary>
    public static readonly Shape.Map Shape = new("how people sign in with their directory account", [
        new(
            "families",
            new Shape.List(
                "the families of directory that the product supports", new Shape.Text("a family", null, null, Families), true),
            true),
        new("bind", new Shape.Map("as whom the product binds before it searches", [
            new("account", new Shape.Text("the account of this sheet; without it, the install names one of the directory's own")),
            new("as", new Shape.Text("the form of the name", null, null, BindForms), true),
            new(
                "who",
                new Shape.Text(
                    "an account of its own (the default), the person who signs in, or whoever its certificate stands for", null,
                    null, WhoBinds)),
        ]), true),
        new(
            "security",
            new Shape.List(
                "the connections that the product supports, best first",
                new Shape.Text("a way", null, null, WireSecurityWords.All), true),
            true),
        new("servers", new Shape.Text("whether it takes several servers and asks the next one", null, null, ["one", "several"])),
        new("bases", new Shape.Text("what it knows of bases; separate by default", null, null, Bases)),
        new(
            "depth",
            new Shape.List(
                "how far its searches can look; subtree by default",
                new Shape.Text("a depth", null, null, SearchDepthWords.All), true)),
        new("enter", new Shape.Text("the group of this sheet whose members may sign in")),
        new("nested-groups", new Shape.Text("who follows groups inside groups", null, null, Nested)),
        new(
            "primary-group",
            new Shape.Text("whether the primary group counts; not counted by default", null, null, ["counted", "not-counted"])),
        new("only", new Shape.Text("what else people must match: a filter [RFC 4515]")),
        new("without", new Shape.Text("whom the product never lets in: a filter [RFC 4515]")),
        new(
            "people-type",
            new Shape.List(
                "what people may type for their name, most usual first; logon-name by default",
                new Shape.Text("a form", null, null, TypedFormWords.All), true)),
        new("typed-name", new Shape.Text("the product's placeholder for the typed name")),
        new(
            "who-left",
            new Shape.Text(
                "for a product that reads people by a sync, not at each sign-in: what becomes there of people who left", null, null,
                [Keeps, Disables, Removes])),
        new("roles", Words.Named("what people may be in the product, by a key of yours", new Shape.Map("a role", [
            new("called", new Shape.Text("the product's own name for it"), true),
            new("group", new Shape.Text("the group of this sheet whose members have it; without it, the install names groups")),
        ]))),
        new("groups", new Shape.Map("which groups an administrator sees when choosing one", [
            new("names-start", new Shape.List("what their names start with", new Shape.Text("a beginning"), true)),
            new("built-in", new Shape.YesNo("whether the domain's built-in groups are shown too")),
        ])),
        new(
            "page-size",
            new Shape.Number("the page size of the product's searches; without it, the product does not page", 1, 100_000)),
        new("settings", new Shape.List("where and how the settings are entered: a file or a page, or several", SettingsSection.Shape, true), true),
    ]);

    /// <summary>Reads it.</summary>
    public static SheetSignIn Read(YamlNode.Mapping map, List<Fault> faults)
    {
        var bind = (YamlNode.Mapping)map["bind"]!;
        return new SheetSignIn(
            [.. map.List("families").Select(f => f == Families[0] ? DirectoryFamily.AdLike : DirectoryFamily.InetOrgPerson)],
            bind.TextOrNull("account"),
            (BindForm)Array.IndexOf(BindForms, bind.Text("as")),
            [.. map.List("security").Select(w => (WireSecurity)WireSecurityWords.All.ToList().IndexOf(w))],
            (ProductBases)Array.IndexOf(Bases, map.TextOr("bases", Bases[0])),
            map.TextOrNull("enter"),
            (NestedGroups)Array.IndexOf(Nested, map.TextOr("nested-groups", Nested[0])),
            map.TextOrNull("typed-name"),
            map["groups"] is YamlNode.Mapping groups
                ? new SheetGroupList(groups.List("names-start"), groups.YesNo("built-in"), groups.At)
                : null,
            map.NumberOrNull("page-size"),
            SettingsSection.Read(map["settings"]!, faults),
            map.At)
        {
            Lines = Lines(map, "").ToDictionary(),
            BindsAs = (BindsAs)Array.IndexOf(WhoBinds, bind.TextOr("who", WhoBinds[0])),
            SeveralServers = map.TextOr("servers", "one") == "several",
            Depths = map["depth"] is null ? [SearchDepth.Subtree] : [.. map.List("depth").Select(SearchDepthWords.Of)],
            PeopleType = map["people-type"] is null
                ? [TypedForm.LogonName]
                : [.. map.List("people-type").Select(TypedFormWords.Of)],
            CountsPrimaryGroup = map.TextOr("primary-group", "not-counted") == "counted",
            Only = FilterText.Read(map, "only", "sign-in.only", faults),
            Without = FilterText.Read(map, "without", "sign-in.without", faults),
            Reading = map.TextOrNull("who-left") switch
            {
                Keeps => PeopleReading.SyncKeeps,
                Disables => PeopleReading.SyncDisables,
                Removes => PeopleReading.SyncRemoves,
                _ => PeopleReading.AtSignIn,
            },
            Roles = map["roles"] is YamlNode.Mapping roles
                ? [.. roles.Entries.Select(r => Role(r.Key, (YamlNode.Mapping)r.Value))]
                : [],
        };
    }

    private static SheetRole Role(YamlNode.Scalar key, YamlNode.Mapping map) =>
        new(key.Text, map.Text("called"), map.TextOrNull("group"), key.At);

    private static IEnumerable<KeyValuePair<string, Origin>> Lines(YamlNode.Mapping map, string path) =>
        map.Entries.SelectMany(e =>
            (e.Value is YamlNode.Mapping inner ? Lines(inner, path + e.Key.Text + ".") : [])
                .Prepend(new(path + e.Key.Text, e.Value.At)));
}
