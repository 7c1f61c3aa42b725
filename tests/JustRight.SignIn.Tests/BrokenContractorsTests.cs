using System.DirectoryServices.Protocols;
using System.Net;
using System.Security.Cryptography.X509Certificates;
using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.SignIn.Tests;

/// <summary>Broken directories of the inetOrgPerson family, each a real server: the cause that is told, and its remedy.</summary>
public sealed class BrokenContractorsTests(BrokenContractors servers) : IClassFixture<BrokenContractors>
{
    private const CheckVerdict Fail = CheckVerdict.Fail, Unseen = CheckVerdict.Unseen, Caution = CheckVerdict.Caution;

    private static readonly Broken[] Ways =
    [
        new("the name has no address", "resolve", Fail, SignInCause.NameUnknown, "this machine's DNS")
        {
            Plan = (scene, server) => On(scene, server.Directory with { Host = "fm-ldap77.fennmoor.invalid" }),
        },
        new("a closed port", "connect", Fail, SignInCause.Silent, "is its port")
        {
            Plan = (scene, server) => On(scene, At(server, WireSecurity.Tls, 9)),
        },
        new("LDAPS asked of the plain port", "protection", Fail, SignInCause.PlainPort, "Ask for StartTLS")
        {
            Plan = (scene, server) => On(scene, At(server, WireSecurity.Tls, server.Directory.Offers[WireSecurity.Plain])),
        },
        new("StartTLS asked of the port of LDAPS", "protection", Fail, SignInCause.TlsPort, "Ask for TLS from the start")
        {
            Plan = (scene, server) => On(
                scene, At(server, WireSecurity.StartTls, server.Directory.Offers[WireSecurity.Tls]), WireSecurity.StartTls),
        },
        new("no protection asked of the port of LDAPS", "protection", Fail, SignInCause.TlsPort, "Ask for TLS from the start")
        {
            Plan = (scene, server) => On(
                scene, At(server, WireSecurity.Plain, server.Directory.Offers[WireSecurity.Tls]), WireSecurity.Plain),
        },
        new("a server that greets, asked for LDAPS", "protection", Fail, SignInCause.NotADirectory, "Check the port")
        {
            Plan = (scene, server) => On(scene, At(server, WireSecurity.Tls, OddPort.Greeting().Port)),
        },
        new("a server that greets, asked for StartTLS", "protection", Fail, SignInCause.NotADirectory, "Check the port")
        {
            Plan = (scene, server) => On(
                scene, At(server, WireSecurity.StartTls, OddPort.Greeting().Port), WireSecurity.StartTls),
        },
        new("a server of pages, asked without protection", "protection", Fail, SignInCause.NotADirectory, "Check the port")
        {
            Plan = (scene, server) => On(scene, At(server, WireSecurity.Plain, OddPort.Answering().Port), WireSecurity.Plain),
        },
        new("a server of pages, asked for LDAPS", "protection", Fail, SignInCause.NotADirectory, "Check the port")
        {
            Plan = (scene, server) => On(scene, At(server, WireSecurity.Tls, OddPort.Answering().Port)),
        },
        new("a server that hangs up", "protection", Fail, SignInCause.TlsFailed, "versions of TLS")
        {
            Plan = (scene, server) => On(scene, At(server, WireSecurity.Tls, OddPort.HangingUp().Port)),
        },
        new("a server that says nothing", "protection", Fail, SignInCause.TooSlow, "keeps it from answering")
        {
            Plan = (scene, server) => On(scene, At(server, WireSecurity.StartTls, OddPort.Silent().Port), WireSecurity.StartTls),
        },
        new("no folder of authorities", "protection", Fail, SignInCause.CertificateAuthority, "certificate")
        {
            Plan = (scene, server) => On(scene, server.Directory with { CaFolder = "/no/such/folder" }),
        },
        new("one of two addresses is down", "connect", Fail, SignInCause.AddressSilent, "remove it from DNS")
        {
            Addresses = [IPAddress.Loopback, IPAddress.Parse("127.0.0.77")],
        },
        new("one of two addresses shows another certificate", "certificate", Fail, SignInCause.AddressCertificate, "127.0.0.78")
        {
            Before = server =>
            {
                using var odd = new TestAuthority("Somebody's authority");
                var folder = System.IO.Directory.CreateTempSubdirectory("justright-odd-").FullName;
                var (file, key) = (Path.Combine(folder, "odd.pem"), Path.Combine(folder, "odd.key"));
                odd.Issue(file, key, ["127.0.0.1"], 60);
                using var read = X509Certificate2.CreateFromPemFile(file, key);
                System.IO.Directory.Delete(folder, true);
                OddPort.Showing(
                    IPAddress.Parse("127.0.0.78"), server.Directory.Offers[WireSecurity.Tls],
                    X509CertificateLoader.LoadPkcs12(read.Export(X509ContentType.Pkcs12), null));
                return Task.CompletedTask;
            },
            Addresses = [IPAddress.Loopback, IPAddress.Parse("127.0.0.78")],
        },
        new("one of two addresses is no directory", "protection", Fail, SignInCause.NotADirectory, "Check the port")
        {
            Before = server =>
            {
                OddPort.Greeting(IPAddress.Parse("127.0.0.79"), server.Directory.Offers[WireSecurity.Tls]);
                return Task.CompletedTask;
            },
            Addresses = [IPAddress.Loopback, IPAddress.Parse("127.0.0.79")],
        },
        new("no protection, and no reason", "protection", Fail, SignInCause.Unprotected, "plain-text-because")
        {
            Plan = (scene, _) => scene.Plan(WireSecurity.Plain),
        },
        new("no protection, and no reason: no password", "bind", Unseen, SignInCause.Unprotected, "Fix the failures above")
        {
            Plan = (scene, _) => scene.Plan(WireSecurity.Plain),
        },
    ];

    private static readonly Broken[] SignIns =
    [
        new("a wrong password", "bind", Fail, SignInCause.WrongPassword, "has this password") { Bind = "Aa1-not this one" },
        new("a bind account that does not exist", "bind", Fail, SignInCause.WrongPassword, "Check that the account exists")
        {
            Plan = (scene, server) => scene.Plan(WireSecurity.Tls) with { BindDn = $"uid=nobody,{server.Directory.Root}" },
        },
        new("a bind account by a name that is no DN", "bind", Fail, SignInCause.BadName, "its distinguished name")
        {
            Plan = (scene, _) => scene.Plan(WireSecurity.Tls) with { BindDn = "svc-roster" },
        },
        new("a locked bind account", "bind", Fail, SignInCause.Locked, "Unlock the account")
        {
            Write = (scene, _, connection) => Set(connection, scene.DnOf("locked"), "pwdAccountLockedTime", "000001010000Z"),
            Plan = As("locked"),
            Bind = SignInTestScene.PersonPassword,
        },
        new("a bind account that must change its password", "bind", Fail, SignInCause.MustChangePassword, "without asking")
        {
            Write = (scene, _, connection) => Set(connection, scene.DnOf("reset"), "pwdReset", "TRUE"),
            Plan = As("reset"),
            Bind = SignInTestScene.PersonPassword,
        },
        new("a bind account whose password has expired", "bind", Fail, SignInCause.PasswordExpired, "Set the password again")
        {
            Write = (scene, server, connection) => Expire(connection, scene.DnOf("old"), server, "short"),
            Plan = As("old"),
            Bind = SignInTestScene.PersonPassword,
        },
        new("a bind account whose password has expired, with some tries left", "bind", Fail, SignInCause.PasswordExpired, "again")
        {
            Write = (scene, server, connection) => Expire(connection, scene.DnOf("grace"), server, "grace"),
            Plan = As("grace"),
            Bind = SignInTestScene.PersonPassword,
        },
        new("a wrong password of the person", "person-signs-in", Fail, SignInCause.WrongPassword, "typed correctly")
        {
            Person = "Aa1-not this one",
        },
        new("a person who is locked", "person-signs-in", Fail, SignInCause.Locked, "Unlock the account")
        {
            Write = (scene, _, connection) => Set(connection, scene.DnOf("ben"), "pwdAccountLockedTime", "000001010000Z"),
            Plan = Person("ben"),
        },
        new("a person who must change the password", "person-signs-in", Fail, SignInCause.MustChangePassword, "without asking")
        {
            Write = (scene, _, connection) => Set(connection, scene.DnOf("cleo"), "pwdReset", "TRUE"),
            Plan = Person("cleo"),
        },
        new("a person whose password has expired", "person-signs-in", Fail, SignInCause.PasswordExpired, "Set the password again")
        {
            Write = (scene, server, connection) => Expire(connection, scene.DnOf("dora"), server, "short"),
            Plan = Person("dora"),
        },
    ];

    private static readonly Broken[] Searches =
    [
        new("no branch of people", "bases", Fail, SignInCause.BaseMissing, "Correct the bases")
        {
            Plan = (scene, server) => On(scene, server.Directory with { PeopleIn = Below(server, "ou=Nowhere") }),
        },
        new("no branch of groups", "bases", Fail, SignInCause.BaseMissing, "Correct the bases")
        {
            Plan = (scene, server) => On(scene, server.Directory with { GroupsIn = Below(server, "ou=Nowhere") }),
        },
        new("a base outside the directory", "bases", Fail, SignInCause.BaseMissing, "Correct the bases")
        {
            Plan = (scene, server) => On(
                scene, server.Directory with { PeopleIn = DistinguishedName.Parse("ou=People,dc=other,dc=example") }),
        },
        new("a base that is in another directory", "bases", Fail, SignInCause.BaseElsewhere, "Name the directory that holds")
        {
            Write = (_, server, connection) => Refer(connection, $"ou=Elsewhere,{server.Directory.Root}"),
            Plan = (scene, server) => On(scene, server.Directory with { PeopleIn = Below(server, "ou=Elsewhere") }),
        },
        new("a part of the branch is in another directory", "elsewhere", Caution, SignInCause.PartsElsewhere, "narrower base")
        {
            Write = (_, server, connection) => Refer(connection, $"ou=Part,{server.Directory.PeopleIn}"),
        },
        new("the group does not exist", "enter-group", Fail, SignInCause.GroupMissing, "Create the group") { Plan = NoGroup },
        new("the group does not exist: nobody", "people", Fail, SignInCause.GroupMissing, "Create the group") { Plan = NoGroup },
        new("the group does not exist: the person", "person", Fail, SignInCause.GroupMissing, "Create the group")
        {
            Plan = NoGroup,
        },
        new("nobody is in the group", "people", Fail, SignInCause.GroupEmpty, "Add the people")
        {
            Write = (_, server, connection) => Posix(connection, server, "empty"),
            Plan = (scene, server) => LookedUp(scene, server, "empty", GroupKind.PosixGroup),
        },
        new("a logon name in another case in the group", "person", Fail, SignInCause.NotInGroup, "Put anna into")
        {
            Write = (_, server, connection) => Posix(connection, server, "loud", "ANNA", "ben"),
            Plan = (scene, server) => LookedUp(scene, server, "loud", GroupKind.PosixGroup),
        },
        new("a person not in the group", "person", Fail, SignInCause.NotInGroup, "Put greta into") { Plan = Person("greta") },
        new("a person who does not exist", "person", Fail, SignInCause.NotInDirectory, "how nobody is spelled")
        {
            Plan = Person("nobody"),
        },
        new("a person outside the base", "person", Fail, SignInCause.OutsideBase, "wider base")
        {
            Write = (_, server, connection) => Add(connection, $"uid=olga,ou=Services,{server.Directory.Root}", "olga"),
            Plan = Person("olga"),
        },
        new("a person twice below the base", "person", Fail, SignInCause.TwiceBelowBase, "must be unique")
        {
            Write = (_, server, connection) =>
            {
                Add(connection, $"uid=pia,{server.Directory.PeopleIn}", "pia");
                Add(connection, $"cn=Pia,{server.Directory.PeopleIn}", "pia");
            },
            Plan = Person("pia"),
        },
        new("a person in two places", "person", Caution, SignInCause.InTwoPlaces, "have one of them renamed")
        {
            Write = (_, server, connection) => Add(connection, $"uid=anna,ou=Services,{server.Directory.Root}", "anna"),
            Plan = Person("anna"),
        },
        new("a person in the group through another alone", "person", Fail, SignInCause.OnlyNested, "directly into")
        {
            Plan = Person("emil"),
        },
        new("a person who must not enter does", "kept-out/ben", Fail, SignInCause.Enters, "Remove ben")
        {
            Plan = (scene, _) => scene.Plan(WireSecurity.Tls, i => i with { MayNotEnter = ["ben"] }),
        },
        new("a person whose name the group spells differently", "kept-out/o, quist", Fail, SignInCause.Enters, "Remove o, quist")
        {
            Write = (_, server, connection) =>
            {
                Add(connection, $"uid=o\\, quist,{server.Directory.PeopleIn}", "o, quist");
                connection.Add(
                    $"cn=spelled,{server.Directory.GroupsIn}", ("objectClass", ["groupOfUniqueNames"]),
                    ("uniqueMember", [$"UID=O\\2c  Quist , {server.Directory.PeopleIn}"]));
            },
            Plan = (scene, server) => LookedUp(
                scene, server, "spelled", GroupKind.GroupOfUniqueNames, i => i with { MayNotEnter = ["o, quist"] }),
        },
        new("no such groups", "groups", Fail, SignInCause.NobodyFound, "prefix of the group names")
        {
            Plan = (scene, _) => scene.Plan(WireSecurity.Tls, i => i with { GroupsStart = ["nothing-"] }),
        },
        new("others than expected", "people-expected", Fail, SignInCause.NotAsExpected, "Add the missing people")
        {
            Plan = (scene, _) => scene.Plan(
                WireSecurity.Tls, i => i with { ExpectedNames = ["anna", "greta"], ExpectedPeople = null }),
        },
    ];

    private static readonly (string On, Broken Broken)[] Servers =
    [
        ("old versions of TLS alone", new(
            "no version of TLS in common", "protection", Fail, SignInCause.TlsFailed, "versions of TLS")),
        ("without TLS", new("StartTLS is refused", "protection", Fail, SignInCause.StartTlsRefused, "a certificate")
        {
            Plan = (scene, server) => On(scene, server.Directory, WireSecurity.StartTls),
        }),
        ("encrypted alone", new("no password is taken unencrypted", "bind", Fail, SignInCause.ProtectionRequired, "use TLS")
        {
            Plan = (scene, server) => On(scene, server.Directory, WireSecurity.Plain),
        }),
        ("no simple bind", new("no passwords are taken", "bind", Fail, SignInCause.SignInRefused, "what this answer means")),
        ("no memberOf", new("people carry no groups: nobody", "people", Fail, SignInCause.NoBackLink, "back-link: no")),
        ("no memberOf", new("people carry no groups: the person", "person", Fail, SignInCause.NoBackLink, "back-link: no")),
        ("three at most", new("no paging against a limit", "people", Fail, SignInCause.SizeLimit, "ask page by page")
        {
            Plan = (scene, _) => Unpaged(scene),
        }),
        ("three at most", new("no paging against a limit: groups", "groups", Fail, SignInCause.SizeLimit, "ask page by page")
        {
            Write = (_, server, connection) =>
            {
                for (var i = 0; i < 4; i++) Posix(connection, server, $"roster-{i}");
            },
            Plan = (scene, server) => Unpaged(scene) with
            {
                Directory = server.Directory with { Groups = GroupKind.PosixGroup, BackLink = false },
            },
        }),
        ("no paging", new("paging is refused", "people", Fail, SignInCause.PagingRefused, "Turn paging off")),
        ("small pages", new("pages are too large", "people", Fail, SignInCause.PagingRefused, "Turn paging off")),
        ("hidden people", new("the bind account sees no people", "bases", Fail, SignInCause.BaseMissing, "let the bind account")),
        ("shut people", new("the bind account may not search", "bases", Fail, SignInCause.MayNotSearch, "search this branch")),
        ("open to all", new("anybody reads", "anonymous", Caution, SignInCause.AnonymousReading, "whether that is meant")),
        ("the keeper", new("the bind account can write", "bind-writes", Fail, SignInCause.HoldsMore, "needs only to read")),
    ];

    public static TheoryData<string, string> Rows
    {
        get
        {
            var rows = new TheoryData<string, string>();
            foreach (var broken in Ways) rows.Add("as usual", broken.Name);
            foreach (var broken in SignIns) rows.Add("with rules for passwords", broken.Name);
            foreach (var broken in Searches) rows.Add("as usual", broken.Name);
            foreach (var (on, broken) in Servers) rows.Add(on, broken.Name);
            foreach (var security in new[] { WireSecurity.Tls, WireSecurity.StartTls })
                foreach (var shown in Certificates) rows.Add("showing", $"{shown.Shown} by {security}");
            return rows;
        }
    }

    private static readonly (string Shown, SignInCause Cause, string Remedy)[] Certificates =
    [
        ("ended", SignInCause.CertificateExpired, "Renew the certificate"),
        ("not-yet", SignInCause.CertificateNotYetValid, "the clocks"),
        ("other-name", SignInCause.CertificateName, "a certificate for 127.0.0.1"),
        ("untrusted", SignInCause.CertificateAuthority, "ca-folder"),
    ];

    [Theory]
    [MemberData(nameof(Rows))]
    public async Task The_cause_is_told_with_its_own_remedy(string on, string name)
    {
        var (scene, server) = await servers.OnAsync(on);
        if (on == "showing")
        {
            var (shown, cause, remedy) = Certificates.Single(c => name.StartsWith(c.Shown, StringComparison.Ordinal));
            var security = name.EndsWith("StartTls", StringComparison.Ordinal) ? WireSecurity.StartTls : WireSecurity.Tls;
            await server.ShowAsync(shown);
            await new Broken(name, "certificate", Fail, cause, remedy) { Plan = (s, _) => s.Plan(security) }
                .ShouldBeToldAsync(scene, server);
            return;
        }

        var broken = Ways.Concat(SignIns).Concat(Searches).Concat(Servers.Select(s => s.Broken)).Single(b => b.Name == name);
        if (on == "the keeper")
            broken = broken with
            {
                Plan = (s, at) => s.Plan(WireSecurity.Tls) with { BindDn = at.Keeper },
                Bind = server.KeeperPassword,
            };
        await broken.ShouldBeToldAsync(scene, server);
    }

    [Fact]
    public async Task Where_nobody_may_bind_anonymously_reading_without_a_sign_in_is_refused()
    {
        var (scene, _) = await servers.OnAsync("no anonymous bind");
        var test = await scene.TryAsync(scene.Plan(WireSecurity.Tls));
        test.Checks.Single(c => c.Id == "anonymous").Verdict.ShouldBe(CheckVerdict.Pass);
        test.Checks.Single(c => c.Id == "bind").Verdict.ShouldBe(CheckVerdict.Pass);
    }

    /// <summary>Answers that no directory should give end nothing: they are findings.</summary>
    [Theory]
    [InlineData("refused", SignInCause.WrongPassword)]
    [InlineData("refused, with what only a change is answered", SignInCause.WrongPassword)]
    [InlineData("a result of two octets", SignInCause.Broken)]
    [InlineData("a policy that is none", SignInCause.Broken)]
    [InlineData("an answer to something else", SignInCause.Broken)]
    [InlineData("nothing in a message", SignInCause.Broken)]
    [InlineData("a message that never ends", SignInCause.Broken)]
    [InlineData("no octet at all", SignInCause.Broken)]
    public async Task An_answer_that_no_directory_should_give_is_a_finding(string answer, SignInCause cause)
    {
        using var odd = OddPort.Saying(OddAnswers.Of(answer));
        var (_, server) = await servers.OnAsync("as usual");
        var plain = At(server, WireSecurity.Plain, odd.Port) with { PlainTextBecause = "these are tests" };
        var said = await new LdapPeopleDirectory(plain).TryPasswordAsync(
            WireSecurity.Plain, "cn=x", new NewPassword("Aa1-any"), TestContext.Current.CancellationToken);
        said.Cause.ShouldBe(cause, said.Words);
    }

    private static PlannedSignIn On(SignInTestScene scene, PeopleDirectory directory, WireSecurity security = WireSecurity.Tls) =>
        scene.Plan(security, directory: directory with { PlainTextBecause = "these are tests" });

    private static PeopleDirectory At(IPeopleServer server, WireSecurity security, int port) =>
        server.Directory with { Offers = new Dictionary<WireSecurity, int> { [security] = port } };

    private static DistinguishedName Below(IPeopleServer server, string part) =>
        DistinguishedName.Parse($"{part},{server.Directory.Root}");

    private static Func<SignInTestScene, IPeopleServer, PlannedSignIn> Person(string name) =>
        (scene, _) => scene.Plan(WireSecurity.Tls, i => i with { MayEnter = name });

    private static Func<SignInTestScene, IPeopleServer, PlannedSignIn> As(string name) =>
        (scene, _) => scene.Plan(WireSecurity.Tls) with { BindDn = scene.DnOf(name) };

    private static PlannedSignIn NoGroup(SignInTestScene scene, IPeopleServer server) =>
        scene.Plan(WireSecurity.Tls) with { EnterDn = $"cn=gone,{server.Directory.GroupsIn}", EnterName = "gone" };

    private static PlannedSignIn Unpaged(SignInTestScene scene)
    {
        var plan = scene.Plan(WireSecurity.Tls);
        return plan with { Wants = plan.Wants with { PageSize = null } };
    }

    private static PlannedSignIn LookedUp(
        SignInTestScene scene, IPeopleServer server, string group, GroupKind kind,
        Func<InstallSignIn, InstallSignIn>? change = null)
    {
        var plan = scene.Plan(WireSecurity.Tls, change, server.Directory with { Groups = kind, BackLink = false });
        return plan with
        {
            EnterName = group,
            EnterDn = $"cn={group},{server.Directory.GroupsIn}",
            Wants = plan.Wants with { Nested = NestedGroups.ByProduct },
        };
    }

    private static void Add(LdapConnection connection, string dn, string uid) => connection.Add(
        dn, ("objectClass", ["inetOrgPerson"]), ("uid", [uid]), ("cn", ["Pia"]), ("sn", ["Tester"]));

    private static void Posix(LdapConnection connection, IPeopleServer server, string name, params string[] members) =>
        connection.Add(
            $"cn={name},{server.Directory.GroupsIn}",
            [
                ("objectClass", ["posixGroup"]), ("gidNumber", ["7"]),
                .. members.Length > 0 ? new (string, string[])[] { ("memberUid", members) } : []]);

    private static void Refer(LdapConnection connection, string dn)
    {
        var request = new AddRequest(
            dn, new DirectoryAttribute("objectClass", "referral", "extensibleObject"),
            new DirectoryAttribute("ou", dn.Split(',')[0][3..]),
            new DirectoryAttribute("ref", $"ldap://fm-ldap09.fennmoor.example/{dn}"));
        // as an object of its own [RFC 3296]
        request.Controls.Add(new DirectoryControl("2.16.840.1.113730.3.4.2", null, true, true));
        connection.SendRequest(request);
    }

    private static void Set(LdapConnection connection, string dn, string attribute, string value) =>
        connection.SendRequest(new ModifyRequest(dn, DirectoryAttributeOperation.Replace, attribute, value));

    private static void Expire(LdapConnection connection, string dn, IPeopleServer server, string rules)
    {
        Set(connection, dn, "pwdPolicySubentry", $"cn={rules},ou=Services,{server.Directory.Root}");
        Set(connection, dn, "userPassword", SignInTestScene.PersonPassword);
        Thread.Sleep(TimeSpan.FromSeconds(2.1)); // these rules let a password live for a second
    }
}
