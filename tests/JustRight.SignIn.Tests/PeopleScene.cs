using System.DirectoryServices.Protocols;
using JustRight.Core.Directory;

namespace JustRight.SignIn.Tests;

/// <summary>People and groups to search for, written to a real server: ordinary ones, and some whose names mean something to filters and names.</summary>
internal static class PeopleScene
{
    /// <summary>Names that a careless search takes for something else.</summary>
    public static readonly IReadOnlyList<string> HostileNames =
    [
        "star*star", "open(paren", "close)paren", "back\\slash", "com,ma", "plus+plus", "quo\"te", "less<than", "more>than",
        "semi;colon", "e=qual", "#hash", "mid#hash", "Jürgen Größe", "smile 😀 smile",
        "*", ")(uid=*", "*)(objectClass=*", "a)(|(cn=*", "\\2a", "tab\tbed", "o'neil", "amper&sand", "bang!bang", "pipe|pipe",
        "til~de", "100%", "ctrl\u0001char",
    ];

    private static readonly string[] Given = [
        "Anna", "Ben", "Cleo", "Dora", "Emil", "Fritz", "Greta", "Hugo", "Ida", "Jörg", "Käthe", "Lars"];
    private static readonly string[] Surnames = [
        "Reed", "Möller", "van  Dyke", "Cole", "Stone", "Meadow", "Churn", "O'Brien", "Groß", "Lake"];
    private static readonly string[] Titles = [
        "Driver", "driver", "Dairy  hand", "Keeper", "Simulation (quality)", "Night * shift"];

    /// <summary>Writes the scene below the people of a server: the groups in a branch there, so that one search sees all.</summary>
    public static void Write(IPeopleServer server, LdapConnection connection)
    {
        var adLike = server.Directory.Family == DirectoryFamily.AdLike;
        var people = server.Directory.PeopleIn.Text;
        var groupsIn = $"OU=Groups,{people}";
        if (adLike) connection.Add(people, ("objectClass", ["organizationalUnit"]));
        connection.Add(groupsIn, ("objectClass", ["organizationalUnit"]));

        var random = new Random(6);
        var names = new List<string>();
        for (var i = 0; i < 40; i++)
        {
            var (given, surname) = (Given[i % Given.Length], Surnames[random.Next(Surnames.Length)]);
            var logon = $"p{i:00}";
            var attributes = new List<(string, string[])> { ("sn", [surname]), ("givenName", [given]) };
            if (random.Next(3) > 0)
                attributes.Add((
                    "mail", [$"{given.ToLowerInvariant().Replace('ö', 'o').Replace('ä', 'a')}.{i}@Fennmoor.example"]));
            if (random.Next(3) > 0) attributes.Add(("title", [Titles[random.Next(Titles.Length)]]));
            if (random.Next(4) == 0) attributes.Add(("description", [$"Line {i % 7}"]));
            if (random.Next(2) == 0) attributes.Add(("telephoneNumber", [$"+1 22-33 {i}"]));
            if (random.Next(2) == 0) attributes.Add((adLike ? "employeeID" : "employeeNumber", [$"{i * 3}"]));
            var dn = adLike ? $"CN={given} {i},{people}" : $"uid={logon},{people}";
            if (adLike)
                attributes.AddRange(
                    [
                        ("objectClass", ["user"]), ("sAMAccountName", [logon]),
                        ("userAccountControl", [random.Next(4) == 0 ? "546" : "544"])]);
            else
                attributes.AddRange(
                    [
                        ("objectClass", i % 3 == 0 ? ["inetOrgPerson", "posixAccount"] : ["inetOrgPerson"]), ("uid", [logon]),
                        ("cn", [$"{given} {i}", $"{surname} {i}"]),
                        .. i % 3 == 0
                            ? new (string, string[])[] { ("uidNumber", [$"{i}"]), ("gidNumber", [$"{i % 4}"]), (
                                "homeDirectory", [$"/home/{logon}"]) }
                            : []]);
            if (!adLike && i % 4 == 0)
                attributes.AddRange(
                    [
                        ("cn;lang-de", [$"{given} auf Deutsch"]), ("givenName;lang-de-at", ["Anni"]),
                        ("x121Address", [$"12 {i}"]), ("seeAlso", [$"cn=Ida + sn=Lake,{people}"])]);
            connection.Add(dn, [.. attributes]);
            names.Add(dn);
        }

        if (!adLike)
        {
            names.Add($"cn=Ida+sn=Lake,{people}");
            connection.Add(
                names[^1], ("objectClass", ["inetOrgPerson"]), ("cn", ["Ida"]), ("sn", ["Lake"]), ("uid", ["two.values"]));
        }

        var groups = new List<string>();
        for (var i = 0; i < 10; i++)
        {
            var dn = $"{(adLike ? "CN" : "cn")}=group {i},{groupsIn}";
            string[] members = [
                .. Enumerable.Range(0, 1 + random.Next(6)).Select(_ => names[random.Next(names.Count)]).Distinct(),
                .. groups.Where(_ => random.Next(3) == 0)];
            if (adLike)
                connection.Add(
                    dn, ("objectClass", ["group"]), ("sAMAccountName", [$"group{i}"]),
                    ("groupType", [i % 3 == 0 ? "2" : "-2147483646"]), ("member", members));
            else connection.Add(dn, ("objectClass", ["groupOfNames"]), ("member", members));
            groups.Add(dn);
        }
    }
}
