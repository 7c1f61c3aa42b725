using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Formats.Shapes;
using JustRight.Formats.SignIn;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Installs;

/// <summary>The section <c>sign-in</c> of an install.</summary>
internal static class InstallSignInSection
{
    /// <summary>Its shape.</summary>
    public static readonly Shape.Map Shape = new("the directory with which people sign in here, and what is expected", [
        new("directory", Words.Key("the estate's key of the directory"), true),
        new("bind-as", new Shape.Text("an existing bind account, if the plan creates none: its DN")),
        new("bind-secret", Words.Key("the secret with the bind account's password")),
        new("enter-through", new Shape.Text("an existing group whose members may sign in, if the plan creates none: its DN")),
        new(
            "enter-members",
            new Shape.List(
                "groups and people of the domain that belong in the planned group for sign-in, by logon name",
                new Shape.Text("a group or a person"), true)),
        new(
            "groups-start",
            new Shape.List(
                "the prefix of group names that an administrator sees; by default the sheet's", new Shape.Text("a beginning"),
                true)),
        new("expected-people", new Shape.Number("how many people are expected", 0, 10_000_000)),
        new("expected-names", new Shape.List("the logon names of the people expected", new Shape.Text("a logon name"))),
        new(
            "expected-groups",
            new Shape.List("the names of the groups that an administrator should see", new Shape.Text("a group"))),
        new("catalog", new Shape.YesNo("whether the product asks the catalog of the forest")),
        new(
            "people-in",
            new Shape.List(
                "the branches of people for this product; by default those of the directory", new Shape.Text("a DN"), true)),
        new(
            "people-type",
            new Shape.List(
                "what people type here; by default the first form that the product and the directory know",
                new Shape.Text("a form", null, null, TypedFormWords.All), true)),
        new("only", new Shape.Text("what else people must match here: a filter [RFC 4515]")),
        new("without", new Shape.Text("whom the product never lets in here: a filter [RFC 4515]")),
        new("roles", Words.Named("who has which role of the product", new Shape.Map("a role", [
            new("groups", new Shape.List("existing groups whose members have it, by DN", new Shape.Text("a DN"), true)),
            new(
                "members",
                new Shape.List(
                    "groups and people of the domain that belong in the planned group, by logon name",
                    new Shape.Text("a group or a person"), true)),
            new("person", new Shape.Text("the logon name of somebody who must have the role")),
        ]))),
        new("client-certificate", new Shape.Text("for a product that binds with a certificate: its file, on the product's host")),
        new("client-key", new Shape.Text("the file of its private key")),
        new("may-enter", new Shape.Text("the logon name of a person who must be able to sign in")),
        new("may-not-enter", new Shape.List("the logon names of people who must not", new Shape.Text("a logon name"), true)),
    ]);

    /// <summary>Reads it.</summary>
    public static InstallSignIn Read(YamlNode.Mapping map, List<Fault> faults) => new(map.Text("directory"), map.At)
    {
        Lines = map.Entries.ToDictionary(e => e.Key.Text, e => e.Value.At),
        BindAs = map.TextOrNull("bind-as"),
        BindSecret = map.TextOrNull("bind-secret"),
        EnterThrough = map.TextOrNull("enter-through"),
        EnterMembers = map.List("enter-members"),
        GroupsStart = map.List("groups-start"),
        ExpectedPeople = map.NumberOrNull("expected-people")
            ?? (map["expected-names"] is null ? null : map.List("expected-names").Count),
        ExpectedNames = map.List("expected-names"),
        ExpectedGroups = map.List("expected-groups"),
        Catalog = map.YesNo("catalog"),
        PeopleIn = [.. BranchNames.Read(map, "people-in", "sign-in.people-in", faults)],
        PeopleType = [.. map.List("people-type").Select(TypedFormWords.Of)],
        Only = FilterText.Read(map, "only", "sign-in.only", faults),
        Without = FilterText.Read(map, "without", "sign-in.without", faults),
        Roles = map["roles"] is YamlNode.Mapping roles
            ? [.. roles.Entries.Select(r => Role(r.Key, (YamlNode.Mapping)r.Value))]
            : [],
        ClientCertificate = map.TextOrNull("client-certificate"),
        ClientKey = map.TextOrNull("client-key"),
        MayEnter = map.TextOrNull("may-enter"),
        MayNotEnter = map.List("may-not-enter"),
    };

    private static InstallRole Role(YamlNode.Scalar key, YamlNode.Mapping map) =>
        new(key.Text, map.List("groups"), map.List("members"), map.TextOrNull("person"), key.At);
}
