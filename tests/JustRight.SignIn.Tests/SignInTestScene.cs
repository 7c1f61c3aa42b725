using System.DirectoryServices.Protocols;
using System.Net;
using System.Text;
using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.SignIn.Tests;

/// <summary>A roster that people sign in to, on either family: six on the roster, one of them through a group inside, one disabled, one elsewhere.</summary>
public sealed class SignInTestScene(IPeopleServer server) : ISignInTestObserver
{
    public const string PersonPassword = "Aa1-cold store", BindPassword = "Aa1-reads people";
    private static readonly Origin Here = new("test", 1, 1);

    /// <summary>How far counting came, by what is counted.</summary>
    public List<(string What, int Sofar)> Counted { get; } = [];

    public string Bind { get; private set; } = "";

    public string Enter => $"{Cn}=roster-staff,{server.Directory.GroupsIn.Text}";

    private bool AdLike => server.Directory.Family == DirectoryFamily.AdLike;

    private string Cn => AdLike ? "CN" : "cn";

    public void Asking(string asks)
    {
    }

    public void Said(SignInCheck check)
    {
    }

    public void Counting(string what, int sofar) => Counted.Add((what, sofar));

    /// <summary>Writes people, groups and the bind account.</summary>
    public void Write(LdapConnection connection)
    {
        var directory = server.Directory;
        if (AdLike)
        {
            connection.Add(directory.PeopleIn.Text, ("objectClass", ["organizationalUnit"]));
            connection.Add(directory.GroupsIn.Text, ("objectClass", ["organizationalUnit"]));
            Bind = $"CN=svc-roster,{directory.Root.Text}";
        }
        else
        {
            Bind = $"uid=roster-reader,ou=Services,{directory.Root.Text}";
        }

        Person("svc-roster", "Roster", Bind, BindPassword, true);
        foreach (var name in new[] { "anna", "ben", "cleo", "dora", "emil", "fritz", "greta" })
            Person(name, char.ToUpperInvariant(name[0]) + name[1..], null, PersonPassword, name != "fritz");
        Group("roster-drivers", "emil");
        Group("roster-staff", "anna", "ben", "cleo", "dora", "fritz", "=roster-drivers");
        Group("other", "greta");

        void Person(string name, string surname, string? dn, string password, bool enabled)
        {
            dn ??= DnOf(name);
            if (AdLike)
            {
                connection.SendRequest(new AddRequest(dn, new DirectoryAttribute("objectClass", "user"), new DirectoryAttribute(
                    "sAMAccountName", name), new DirectoryAttribute("sn", surname), new DirectoryAttribute(
                    "userAccountControl", enabled ? "66048" : "66050"),
                    // [MS-ADTS 3.1.1.3.1.5.1]
                    new DirectoryAttribute("unicodePwd", Encoding.Unicode.GetBytes($"\"{password}\""))));
            }
            else
            {
                connection.Add(
                    dn, ("objectClass", ["inetOrgPerson"]), ("uid", [name]), ("cn", [surname]), ("sn", [surname]),
                    ("userPassword", [password]));
            }
        }

        void Group(string name, params string[] members)
        {
            string[] dns = [.. members.Select(m => m[0] == '=' ? $"{Cn}={m[1..]},{directory.GroupsIn.Text}" : DnOf(m))];
            if (AdLike)
                connection.Add(
                    $"CN={name},{directory.GroupsIn.Text}", ("objectClass", ["group"]), ("sAMAccountName", [name]),
                    ("member", dns));
            else connection.Add($"cn={name},{directory.GroupsIn.Text}", ("objectClass", ["groupOfNames"]), ("member", dns));
        }
    }

    public string DnOf(string name) =>
        AdLike ? $"CN={name},{server.Directory.PeopleIn.Text}" : $"uid={name},{server.Directory.PeopleIn.Text}";

    /// <summary>Who binds, where the people were written by another scene.</summary>
    public void BindIs(string dn) => Bind = dn;

    public string GroupDn(string name) => $"{Cn}={name},{server.Directory.GroupsIn.Text}";

    /// <summary>Writes somebody, with whatever else is told of them, into a branch.</summary>
    /// <param name="below">The branch; null for that of people.</param>
    public void WritePerson(
        LdapConnection connection, string name, string? below = null, params (string Attribute, string Value)[] more)
    {
        var dn = $"{(AdLike ? "CN" : "uid")}={DistinguishedName.Escape(name)},{below ?? server.Directory.PeopleIn.Text}";
        var request = AdLike
            ? new AddRequest(
                dn, new DirectoryAttribute("objectClass", "user"), new DirectoryAttribute("sAMAccountName", name),
                new DirectoryAttribute("sn", name), new DirectoryAttribute("userAccountControl", "66048"),
                // [MS-ADTS 3.1.1.3.1.5.1]
                new DirectoryAttribute("unicodePwd", Encoding.Unicode.GetBytes($"\"{PersonPassword}\"")))
            : new AddRequest(
                dn, new DirectoryAttribute("objectClass", "inetOrgPerson"), new DirectoryAttribute("uid", name),
                new DirectoryAttribute("cn", name), new DirectoryAttribute("sn", name),
                new DirectoryAttribute("userPassword", PersonPassword));
        foreach (var one in more.GroupBy(m => m.Attribute))
            request.Attributes.Add(new DirectoryAttribute(one.Key, (object[])[.. one.Select(m => m.Value)]));
        connection.SendRequest(request);
    }

    /// <summary>Writes a branch.</summary>
    public void WriteBranch(LdapConnection connection, string dn) =>
        connection.Add(dn, ("objectClass", ["organizationalUnit"]));

    /// <summary>The planned sign-in of the roster.</summary>
    public PlannedSignIn Plan(
        WireSecurity security, Func<InstallSignIn, InstallSignIn>? change = null, PeopleDirectory? directory = null,
        params IReadOnlyList<SettingsField> fields)
    {
        var wants = new SheetSignIn(
            [server.Directory.Family], null, BindForm.Dn, [security], ProductBases.Separate, "staff", AdLike
                ? NestedGroups.ByFilter
                : NestedGroups.No, "{0}", new SheetGroupList(["roster-"], false, Here), 3,
            [new SheetSettings("web", "roster.conf", SettingsForm.Ini, fields, Here)], Here);
        var here = new InstallSignIn("people", Here)
        {
            ExpectedNames = AdLike ? ["anna", "ben", "cleo", "dora", "emil"] : ["anna", "ben", "cleo", "dora", "fritz"],
            ExpectedPeople = 5,
            ExpectedGroups = ["roster-staff", "roster-drivers"],
            MayEnter = "anna",
            MayNotEnter = ["greta"],
        };
        return new PlannedSignIn(directory ?? server.Directory, wants, change?.Invoke(here) ?? here, security)
        {
            HostsOfPlaces = new Dictionary<string, IReadOnlyList<string>> { ["web"] = ["fm-web01"] },
            Domain = new Domain("fennmoor.example", "FENNMOOR"),
            BindDn = Bind,
            BindLogonName = "svc-roster",
            EnterName = "roster-staff",
            EnterDn = Enter,
        };
    }

    /// <summary>Runs the sign-in test.</summary>
    public Task<SignInTest> TryAsync(
        PlannedSignIn plan, string bindPassword = BindPassword, string? personPassword = PersonPassword,
        TimeSpan? longest = null, Func<string, CancellationToken, Task<IPAddress[]>>? resolve = null) =>
        SignInTestRunner.RunAsync(
            "roster", false, plan, new LdapPeopleDirectory(plan.Directory, resolve),
            new SignInTestPasswords(
                new NewPassword(bindPassword), personPassword is null ? null : new NewPassword(personPassword)),
            TimeProvider.System, this, CancellationToken.None, longest,
            host => new LdapPeopleDirectory(plan.Directory with { Host = host }, resolve));
}
