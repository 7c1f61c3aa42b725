using JustRight.Core.Installs;
using JustRight.Formats.Shapes;
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
        new("may-enter", new Shape.Text("the logon name of a person who must be able to sign in")),
        new("may-not-enter", new Shape.List("the logon names of people who must not", new Shape.Text("a logon name"), true)),
    ]);

    /// <summary>Reads it.</summary>
    public static InstallSignIn Read(YamlNode.Mapping map) => new(map.Text("directory"), map.At)
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
        MayEnter = map.TextOrNull("may-enter"),
        MayNotEnter = map.List("may-not-enter"),
    };
}
