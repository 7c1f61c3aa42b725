using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Formats.Changes;
using JustRight.Formats.Surveys;

namespace JustRight.Formats.Tests;

public sealed class RoundTripTests
{
    private static readonly AccessRule Rule = new(
        @"D\a", false, AccessRights.WriteProperty, Guid.Parse("bf967961-0de6-11d0-a285-00aa003049e2"), null,
        AceFlags.ContainerInherit);

    private static readonly AccessSnapshot Access = new(
        BuiltInSchema.Schema, [Sddl.Read(
            "O:S-1-5-21-1-2-3-512G:S-1-5-21-1-2-3-512D:PAI(OA;CI;WP;bf967961-0de6-11d0-a285-00aa003049e2;;S-1-5-21-1-2-3-1001)")],
        [
            new DirectoryObject("OU=a", "organizationalUnit", default, 0, false),
            new DirectoryObject(
                "CN=b,OU=a", "user", Sid.Parse("S-1-5-21-1-2-3-1001"), -1, true)], ["OU=a"], [new UnreadPart("OU=x", "no")]);

    private static readonly Change[] Samples =
    [
        new CreateBranch("D", "OU=a,DC=x"), new CreateAccount(
            "D", "a", "CN=a", "a@x", "says",
            true), new DescribeAccount("D", "a", "new", true, "old", false), new DisableAccount("D", "a"),
        new CreateGroup("D", "g", "CN=g", GroupScope.DomainLocal, "says"), new AddMember("D", "g", "a"), new AddLocalGroupMember(
            "h", "Administrators", @"D\a"),
        new AllowDelegation("D", "a", "MSSQLSvc/h.example:1433"), new TrustForDelegation("D", "a"),
        new AddServiceName("D", "a", "HTTP/h.example:8443"), new DenyLogon("h", "remote", @"D\a"), new GrantLogonRight("h", "service", @"D\a"), new CreateLogin("i", @"D\a"), new AddInstanceRoleMember(
            "i", "dbcreator", @"D\a"),
        new ChangeDatabaseOwner("i", "db", @"D\a", "sa"), new GrantInstancePermission(
            "i", "VIEW SERVER STATE", @"D\a"), new GrantDatabasePermission(
            "i", "db", "EXECUTE", "SCHEMA::r", @"D\a"), new GrantDatabasePermission("i", "db", "SELECT", null, @"D\a"),
        new AddAccessRule("D", "OU=a,DC=x", Rule, "write mail of user"), new AddAccessRule(
            "D", "OU=a,DC=x", Rule with { Denies = true, ObjectType = null }, "says",
            3), new SwitchInheritance("D", "OU=a,DC=x", true, "D:P(A;;RP;;;WD)"),
        new GrantPrivilege("h", "SeAuditPrivilege", @"D\a"), new SetServiceAccount(
            "h", "S", @"D\a", "LocalSystem"), new SetServiceStart(
            "h", "S", ServiceStart.AutomaticDelayed, ServiceStart.Disabled),
        new SetServiceOrder("h", "S", ["A", "+G"], ["A"]), new ChangePolicyList(
            "D", "{31B2F340-016D-11D2-945F-00C04FB984F9}", "Servers", "SeBatchLogonRight", ["*S-1-5-32-544", @"D\a"],
            ["*S-1-5-32-544"], @"D\a", ["h", "h2"]),
        new CreateDatabaseUser("i", "db", @"D\a"), new AddDatabaseRoleMember("i", "db", "db_owner", @"D\a"), new MapToProductRole(
            "Product", "Sender", @"D\a", ["send", "read"]),
    ];

    private static readonly Change[] Settling =
    [
        new RestartService("h", "S", @"D\a") { Dependents = ["T"] }, new RefreshPolicy("h")
        {
            Expect = [new ExpectedHolder("SeBatchLogonRight", @"D\a", true)],
        },
        new SetPassword(
            "D", "a", DateTimeOffset.UnixEpoch), new GiveServicePassword("h", "S", @"D\a"), new RestartService("h", "S", @"D\a")
        {
            Anew = true,
            RanSince = DateTimeOffset.UnixEpoch,
        },
        new DoTask(Team.Host, "h", "locks", "Change the locks", "the old key is refused"),
    ];

    [Fact]
    public void Every_change_and_its_inverse_survive_being_kept()
    {
        var all = Samples.Concat(Samples.Select(s => s.Inverse!)).Concat(Settling).ToList();
        all.Select(c => c.GetType()).Distinct().Count()
            .ShouldBe(
                typeof(Change).Assembly.GetTypes().Count(t => t.IsSealed && t.IsAssignableTo(typeof(Change))),
                "a kind of change is missing here");
        foreach (var change in all)
            ChangeJson.Write(ChangeJson.Read(ChangeJson.Write(change))).ShouldBe(ChangeJson.Write(change));
        ChangeJson.Write(Settling[0])
            .ShouldBe("{\"change\":\"restart-service\",\"account\":\"D\\\\a\",\"anew\":false,\"ranSince\":null,\"dependents\":[\"T\"],\"service\":\"S\",\"host\":\"h\"}");
        foreach (var change in all) change.ToString().ShouldBe(change.Words); // and not its inverse's inverse's inverse
    }

    [Fact]
    public void An_inverse_of_an_inverse_is_the_change_itself_where_there_is_one()
    {
        foreach (var change in Samples.Where(c => c.Inverse!.Inverse is not null))
            ChangeJson.Write(change.Inverse!.Inverse!).ShouldBe(ChangeJson.Write(change));
    }

    [Fact]
    public void A_schema_survives_being_kept_and_a_survey_names_it_by_its_version()
    {
        var schema = new DirectorySchema(
            "v7", [.. BuiltInSchema.Schema.Attributes], [.. BuiltInSchema.Schema.Classes], [.. BuiltInSchema.Schema.Rights]);
        var read = SchemaJson.Read(SchemaJson.Write(schema));
        SchemaJson.Write(read).ShouldBe(SchemaJson.Write(schema));
        (read.Version, read.Attribute("mail")!.Id, read.Class("user")!.DefaultDescriptor)
            .ShouldBe(("v7", schema.Attribute("mail")!.Id, schema.Class("user")!.DefaultDescriptor));
        var at = DateTimeOffset.UnixEpoch;
        var survey = new Survey(
            "e", at, true,
            new DirectorySnapshot("D", Sid.Parse("S-1-5-21-1-2-3"), "dc", at, [], [], null)
            {
                Access = Access with { Schema = schema },
            },
            [], []);
        SurveyJson.ReadSurvey(
            SurveyJson.Write(survey),
            version => version == "v7"
                ? schema
                : throw new InvalidOperationException(version)).Directory.Access!.Schema.ShouldBe(schema);
    }

    private static DirectorySchema NoSchema(string version) => throw new InvalidDataException(version);

    [Fact]
    public void A_survey_survives_being_kept()
    {
        var sid = Sid.Parse("S-1-5-21-1-2-3-1001");
        var at = new DateTimeOffset(2026, 11, 25, 1, 2, 3, TimeSpan.Zero);
        var survey = new Survey(
            "fennmoor", at, true,
            new DirectorySnapshot(
                "FENNMOOR", Sid.Parse("S-1-5-21-1-2-3"), "dc", at,
                [new DirectoryPrincipal(
                    sid, PrincipalKind.Group, "g",
                    "CN=g") { Members = [sid], MembersUnread = "no", Scope = GroupScope.Universal }],
                ["OU=a"], null)
            {
                Access = Access,
                Policies = new PolicySnapshot(
                    [new PolicyContainer("OU=a", "[LDAP://cn={31B2F340-016D-11D2-945F-00C04FB984F9},cn=policies;2]", true)], [],
                    [new GroupPolicy(
                        "{31B2F340-016D-11D2-945F-00C04FB984F9}", "Servers", true, "D:",
                        [new PolicyList("SeBatchLogonRight", ["*S-1-5-32-544"])]) { QueryFilter = "q" }], null),
            },
            [
                new HostSnapshot(
                    "h", at, null, [new LocalGroup("Administrators", sid, [sid])],
                    [new LogonList(
                        "SeBatchLogonRight", [sid]) { Named = ["x"], Policy = "{31B2F340-016D-11D2-945F-00C04FB984F9}" }],
                    [new UnreadPart("p", "r")])
                {
                    Role = HostRole.Controller,
                    Services = [new HostService(
                        "S", @"D\a", ServiceStart.AutomaticDelayed, true,
                        ["T", "+G"]) { RunsNowAs = @"D\b", RunsNowAsSid = sid, RunsSince = at }],
                    Policies = [new AppliedPolicy("{31B2F340-016D-11D2-945F-00C04FB984F9}", "Servers") { Lists = [] }],
                },
            ],
            [new InstanceSnapshot(
                "i", "sqlserver", at, null, [new InstanceLogin(sid, "g")], [new RoleMembers("r", [sid], ["s"])],
                [new DatabaseSnapshot("d", default, null, [], [])])]);
        var json = SurveyJson.Write(survey);
        SurveyJson.Write(SurveyJson.ReadSurvey(json, NoSchema)).ShouldBe(json);
        var read = SurveyJson.ReadSurvey(json, NoSchema).Directory.Principals[0];
        (read.Sid, read.MembersUnread, read.Scope, read.Members[0]).ShouldBe((sid, "no", GroupScope.Universal, sid));
    }
}
