using JustRight.Core.Directory;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Bench;

/// <summary>Surveyed people of an AD-like directory, each in two of many groups, with those groups inside others.</summary>
internal sealed class SyntheticPeople(int people)
{
    private const string Syntax = "1.3.6.1.4.1.1466.115.121.1.";
    private const int PeopleInAGroup = 20;

    /// <summary>The group that a tenth of all groups are in.</summary>
    public const string Top = "CN=top,OU=Groups,DC=bench,DC=example";

    /// <summary>The people and groups, laid out for filters; no column is prepared yet.</summary>
    public ObjectTable Table()
    {
        var groups = Math.Max(1, people / PeopleInAGroup);
        var objects = new List<PeopleObject> { One(Top, ("objectClass", ["top", "group"]), ("cn", ["top"])) };
        for (var i = 0; i < groups; i++)
            objects.Add(One(
                Group(i), ("objectClass", ["top", "group"]), ("cn", [$"group {i}"]),
                ("memberOf", i % 10 == 0 ? [Top] : i > 0 && i % 10 == 1 ? [Group(i - 1)] : [])));
        for (var i = 0; i < people; i++)
        {
            objects.Add(One(
                $"CN=Person {i},OU=People,DC=bench,DC=example", (
                    "objectClass", ["top", "person", "organizationalPerson", "user"]), (
                    "objectCategory", ["CN=Person,CN=Schema,CN=Configuration,DC=bench,DC=example"]), ("cn", [$"Person {i}"]),
                ("sAMAccountName", [$"p{i}"]), ("mail", [$"Person.{i}@bench.example"]), (
                    "userAccountControl", [i % 7 == 0 ? "514" : "512"]), (
                    "memberOf", [Group(i % groups), Group(i * 13 % groups)])));
        }

        string[] types = [.. new[] { ("objectClass", "38"), ("cn", "15"), ("sAMAccountName", "15"), ("mail", "15"), (
            "userAccountControl", "27"), ("memberOf", "12"), ("objectCategory", "12") }.Select(
            (a, i) => $"( 1.2.3.{i} NAME '{a.Item1}' SYNTAX '{Syntax}{a.Item2}' )")];
        return new ObjectTable(SchemaDescriptions.Read(DirectoryFamily.AdLike, types, []), objects);
    }

    private static string Group(int i) => $"CN=group {i},OU=Groups,DC=bench,DC=example";

    private static PeopleObject One(string dn, params (string Attribute, string[] Values)[] values) =>
        new(dn, values.ToDictionary(v => v.Attribute, v => (IReadOnlyList<string>)v.Values, StringComparer.OrdinalIgnoreCase));
}
