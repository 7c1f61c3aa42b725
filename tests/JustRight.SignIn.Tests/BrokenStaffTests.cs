using System.DirectoryServices.Protocols;
using System.Globalization;
using System.Text;
using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Core.Directory;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.SignIn.Tests;

/// <summary>What is broken on an AD-like controller, a real one: the cause that is told, and its remedy.</summary>
[Collection("the controller's address")]
public sealed class BrokenStaffTests(SceneOn<StaffServer> on) : IClassFixture<SceneOn<StaffServer>>
{
    private const CheckVerdict Fail = CheckVerdict.Fail, Caution = CheckVerdict.Caution;
    private const string Wrong = "Aa1-not this one", Normal = "66048", ThatDisabled = "66050";

    private static readonly Broken[] Rows =
    [
        new("a wrong password", "bind", Fail, SignInCause.WrongPassword, "has this password") { Bind = Wrong },
        new("a locked bind account", "bind", Fail, SignInCause.Locked, "Unlock the account")
        {
            Write = (scene, server, connection) => Add(scene, connection, "b.locked"),
            Plan = (scene, server) =>
            {
                Lock(scene, server, "b.locked");
                return scene.Plan(WireSecurity.Tls) with { BindDn = scene.DnOf("b.locked") };
            },
            Bind = SignInTestScene.PersonPassword,
        },
        new("a disabled bind account", "bind", Fail, SignInCause.Disabled, "Enable the account")
        {
            Write = (scene, _, connection) => Add(scene, connection, "b.disabled", ThatDisabled),
            Plan = As("b.disabled"),
            Bind = SignInTestScene.PersonPassword,
        },
        new("a bind account that has expired", "bind", Fail, SignInCause.AccountExpired, "a later end")
        {
            Write = (scene, _, connection) => Add(scene, connection, "b.ended", Normal, ("accountExpires", Yesterday)),
            Plan = As("b.ended"),
            Bind = SignInTestScene.PersonPassword,
        },
        new("a bind account that must change its password", "bind", Fail, SignInCause.MustChangePassword, "without asking")
        {
            Write = (scene, _, connection) => Add(scene, connection, "b.new", "512", ("pwdLastSet", "0")),
            Plan = As("b.new"),
            Bind = SignInTestScene.PersonPassword,
        },
        new("a wrong password of the person", "person-signs-in", Fail, SignInCause.WrongPassword, "typed correctly")
        {
            Person = Wrong,
        },
        new("a person who is locked", "person-signs-in", Fail, SignInCause.Locked, "Unlock the account")
        {
            Write = (scene, _, connection) => Add(scene, connection, "p.locked", within: true),
            Plan = (scene, server) =>
            {
                Lock(scene, server, "p.locked");
                return Person("p.locked")(scene, server);
            },
        },
        new("a person who has expired", "person-signs-in", Fail, SignInCause.AccountExpired, "a later end")
        {
            Write = (scene, _, connection) =>
                Add(scene, connection, "p.ended", Normal, ("accountExpires", Yesterday), within: true),
            Plan = Person("p.ended"),
        },
        new("a person who may not sign in at this hour", "person-signs-in", Fail, SignInCause.NotHereOrNow, "the hours")
        {
            Write = (scene, _, connection) =>
            {
                Add(scene, connection, "p.hours", within: true);
                connection.SendRequest(new ModifyRequest(
                    scene.DnOf("p.hours"), DirectoryAttributeOperation.Replace, "logonHours", new byte[21]));
            },
            Plan = Person("p.hours"),
        },
        new("a person who may sign in from another machine alone", "person-signs-in", Fail, SignInCause.NotHereOrNow, "machines")
        {
            Write = (scene, _, connection) =>
                Add(scene, connection, "p.machine", Normal, ("userWorkstations", "FM-OTHER"), within: true),
            Plan = Person("p.machine"),
        },
        new("a person who must change the password", "person-signs-in", Fail, SignInCause.MustChangePassword, "without asking")
        {
            Write = (scene, _, connection) => Add(scene, connection, "p.new", "512", ("pwdLastSet", "0"), within: true),
            Plan = Person("p.new"),
        },
        new("a person who is disabled", "person", Fail, SignInCause.Disabled, "Enable the account") { Plan = Person("fritz") },
        new("the group is the person's primary group", "person", Fail, SignInCause.PrimaryGroup, "another primary group")
        {
            Write = (scene, server, connection) =>
            {
                Add(scene, connection, "p.primary", within: true);
                connection.SendRequest(new ModifyRequest(
                    scene.DnOf("p.primary"), DirectoryAttributeOperation.Replace, "primaryGroupID",
                    Token(server, scene.Enter).ToString(CultureInfo.InvariantCulture)));
            },
            Plan = Person("p.primary"),
        },
        new("a person in the group through another alone", "person", Fail, SignInCause.OnlyNested, "directly into")
        {
            Plan = (scene, _) =>
            {
                var plan = scene.Plan(WireSecurity.Tls, i => i with { MayEnter = "emil" });
                return plan with { Wants = plan.Wants with { Nested = NestedGroups.No } };
            },
        },
        new("a person not in the group", "person", Fail, SignInCause.NotInGroup, "Put greta into") { Plan = Person("greta") },
        new("a person who does not exist", "person", Fail, SignInCause.NotInDirectory, "how nobody is spelled")
        {
            Plan = Person("nobody"),
        },
        new("a person outside the base", "person", Fail, SignInCause.OutsideBase, "wider base")
        {
            Plan = Person("Administrator"),
        },
        new("nobody is in the group", "people", Fail, SignInCause.GroupEmpty, "Add the people")
        {
            Write = (_, server, connection) => connection.Add(
                $"CN=empty,{server.Directory.GroupsIn}", ("objectClass", ["group"]), ("sAMAccountName", ["empty"])),
            Plan = (scene, server) =>
                scene.Plan(WireSecurity.Tls) with { EnterName = "empty", EnterDn = $"CN=empty,{server.Directory.GroupsIn}" },
        },
        new("the group does not exist", "enter-group", Fail, SignInCause.GroupMissing, "Create the group")
        {
            Plan = (scene, server) =>
                scene.Plan(WireSecurity.Tls) with { EnterName = "gone", EnterDn = $"CN=gone,{server.Directory.GroupsIn}" },
        },
        new("no branch of people", "bases", Fail, SignInCause.BaseMissing, "Correct the bases")
        {
            Plan = (scene, server) => scene.Plan(
                WireSecurity.Tls,
                directory: server.Directory with { PeopleIn = DistinguishedName.Parse($"OU=Nowhere,{server.Directory.Root}") }),
        },
        new("a base with other parts of the forest below", "elsewhere", Caution, SignInCause.PartsElsewhere, "catalog of the")
        {
            Plan = (scene, server) => scene.Plan(
                WireSecurity.Tls, directory: server.Directory with { PeopleIn = server.Directory.Root }),
        },
        new("built-in groups in the list", "built-in-groups", Fail, SignInCause.BuiltInGroups, "built-in: no")
        {
            Plan = (scene, server) =>
            {
                var plan = scene.Plan(WireSecurity.Tls, directory: server.Directory with { GroupsIn = server.Directory.Root });
                return plan with { Wants = plan.Wants with { Groups = new SheetGroupList([], true, plan.Wants.At) } };
            },
        },
    ];

    private static string Yesterday => DateTime.UtcNow.AddDays(-1).ToFileTimeUtc().ToString(CultureInfo.InvariantCulture);

    public static TheoryData<string> Names => [.. Rows.Select(r => r.Name)];

    [Theory]
    [MemberData(nameof(Names))]
    public Task The_cause_is_told_with_its_own_remedy(string name) =>
        Rows.Single(r => r.Name == name).ShouldBeToldAsync(on.Scene, on.Server);

    private static Func<SignInTestScene, IPeopleServer, PlannedSignIn> As(string name) =>
        (scene, _) => scene.Plan(WireSecurity.Tls) with { BindDn = scene.DnOf(name) };

    private static Func<SignInTestScene, IPeopleServer, PlannedSignIn> Person(string name) =>
        (scene, _) => scene.Plan(WireSecurity.Tls, i => i with { MayEnter = name });

    private static void Add(
        SignInTestScene scene, LdapConnection connection, string name, string control = Normal,
        (string Attribute, string Value)? more = null, bool within = false)
    {
        connection.SendRequest(new AddRequest(
            scene.DnOf(name), new DirectoryAttribute("objectClass", "user"), new DirectoryAttribute("sAMAccountName", name),
            new DirectoryAttribute("userAccountControl", control),
            new DirectoryAttribute("unicodePwd", Encoding.Unicode.GetBytes($"\"{SignInTestScene.PersonPassword}\""))));
        if (more is { } change)
            connection.SendRequest(new ModifyRequest(
                scene.DnOf(name), DirectoryAttributeOperation.Replace, change.Attribute, change.Value));
        if (within)
            connection.SendRequest(new ModifyRequest(
                scene.Enter, DirectoryAttributeOperation.Add, "member", scene.DnOf(name)));
    }

    /// <summary>Locks an account as it happens: by wrong passwords, under a rule that the domain has for that long.</summary>
    private static void Lock(SignInTestScene scene, IPeopleServer server, string name)
    {
        using var connection = server.Write();
        Threshold("3");
        var people = new LdapPeopleDirectory(server.Directory);
        for (var i = 0; i < 4; i++)
            people.TryPasswordAsync(WireSecurity.Tls, scene.DnOf(name), new NewPassword(Wrong), CancellationToken.None)
                .GetAwaiter().GetResult();

        void Threshold(string most) => connection.SendRequest(new ModifyRequest(
            server.Directory.Root.Text, DirectoryAttributeOperation.Replace, "lockoutThreshold", most));
    }

    private static int Token(IPeopleServer server, string group)
    {
        using var session = server.KeeperAsync().GetAwaiter().GetResult();
        return int.Parse(session.Read(group, "primaryGroupToken")!.First("primaryGroupToken")!, CultureInfo.InvariantCulture);
    }
}
