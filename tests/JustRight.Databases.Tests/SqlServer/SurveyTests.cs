using JustRight.Connectors;
using JustRight.Core.Surveys;
using JustRight.SimulatedInstance.Wire;

namespace JustRight.Databases.Tests.SqlServer;

/// <summary>Surveys of a simulated instance through the engine maker's own client library.</summary>
public sealed class SurveyTests
{
    [Fact]
    public async Task Logins_roles_permissions_and_databases_are_read_as_they_stand()
    {
        using var scene = new SimulatedScene();
        var (poller, team, gone) = (scene.Account("svc-poll"), scene.Account("app-operators", isGroup: true), scene.Account("svc-gone"));
        scene.Engine.Run($"""
            CREATE LOGIN [{poller}] FROM WINDOWS; CREATE LOGIN [{team}] FROM WINDOWS; CREATE LOGIN [{gone}] FROM WINDOWS;
            CREATE SERVER ROLE [keepers]; ALTER SERVER ROLE [keepers] ADD MEMBER [{team}]; ALTER SERVER ROLE [securityadmin] ADD MEMBER [keepers];
            GRANT VIEW SERVER STATE TO [{poller}] WITH GRANT OPTION; DENY ALTER TRACE TO [keepers]; ALTER LOGIN [{team}] DISABLE; REVOKE CONNECT SQL FROM [{poller}];
            CREATE DATABASE [Ledger];
            GO
            USE [Ledger]
            GO
            CREATE SCHEMA [reports]
            GO
            CREATE TABLE [reports].[Days](a int); CREATE ROLE [readers];
            CREATE USER [{poller}] FOR LOGIN [{poller}]; CREATE USER [{gone}] FOR LOGIN [{gone}]; ALTER ROLE [readers] ADD MEMBER [{poller}]; ALTER ROLE [db_datareader] ADD MEMBER [readers];
            GRANT EXECUTE ON SCHEMA::[reports] TO [{poller}]; DENY SELECT ON OBJECT::[reports].[Days] TO [readers]; GRANT CONNECT TO [guest];
            USE [master]; DROP LOGIN [{gone}]; ALTER AUTHORIZATION ON DATABASE::[Ledger] TO [{team}];
            """);
        var read = await scene.ReadAsync();
        read.Unread.ShouldBeNull();
        (read.Release, read.ReadBy, read.Host).ShouldBe(("16.0.1000.0, simulated", SimulatedScene.Reader, "fm-sql01"));
        read.Logins.ShouldBe([new InstanceLogin(scene.SidOf(poller), poller) { MayConnect = false }, new InstanceLogin(scene.SidOf(team), team) { Disabled = true }]);
        Role(read.Roles, "keepers").Members.ShouldBe([scene.SidOf(team)]);
        Role(read.Roles, "securityadmin").MemberRoles.ShouldBe(["keepers"]);
        read.Roles.ShouldNotContain(r => r.Role == "public");
        read.Permissions.ShouldBe([new("VIEW ANY DATABASE", PermissionState.Grant, default, "public"), new("VIEW SERVER STATE", PermissionState.GrantOn, scene.SidOf(poller), null), new("ALTER TRACE", PermissionState.Deny, default, "keepers")], ignoreOrder: true);
        read.Databases.Select(d => d.Name).ShouldBe(["master", "tempdb", "model", "msdb", "Ledger"], ignoreOrder: true);
        Role(Database(read, "msdb").Roles, "SQLAgentUserRole").MemberRoles.ShouldBe(["SQLAgentReaderRole"]);
        Database(read, "msdb").AdmitsGuests.ShouldBeTrue();
        Database(read, "model").AdmitsGuests.ShouldBeFalse();
        var ledger = Database(read, "Ledger");
        (ledger.Owner, ledger.Unread, ledger.AdmitsGuests).ShouldBe((scene.SidOf(team), null, true));
        ledger.Users.Select(u => u.Name).ShouldBe([poller, gone]);
        Role(ledger.Roles, "readers").Members.ShouldBe([scene.SidOf(poller)]);
        Role(ledger.Roles, "db_owner").Members.ShouldBeEmpty();
        ledger.Permissions.ShouldContain(new PermissionEntry("EXECUTE", PermissionState.Grant, scene.SidOf(poller), null) { On = "SCHEMA::reports" });
        ledger.Permissions.ShouldContain(new PermissionEntry("SELECT", PermissionState.Deny, default, "readers") { On = "OBJECT::reports.Days" });
    }

    [Fact]
    public async Task The_least_a_reader_needs_is_enough_and_it_can_change_nothing()
    {
        using var scene = new SimulatedScene(reader: $"GRANT VIEW ANY DEFINITION TO [{SimulatedScene.Reader}]; GRANT CONNECT ANY DATABASE TO [{SimulatedScene.Reader}]; CREATE DATABASE [Ledger]");
        var account = scene.Account("svc-poll");
        scene.Engine.Run($"CREATE LOGIN [{account}] FROM WINDOWS; USE [Ledger]; CREATE USER [{account}] FOR LOGIN [{account}]");
        var read = await scene.ReadAsync();
        read.Databases.ShouldAllBe(d => d.Unread == null);
        Database(read, "Ledger").Users.ShouldHaveSingleItem().Name.ShouldBe(account);
        var before = scene.Engine.Dump();
        foreach (var statement in new[] { $"DROP LOGIN [{account}]", $"ALTER SERVER ROLE [sysadmin] ADD MEMBER [{account}]", $"GRANT CONTROL SERVER TO [{account}]", $"USE [Ledger]; ALTER ROLE [db_owner] ADD MEMBER [{account}]", "CREATE DATABASE [Other]" })
            Should.Throw<SimulatedInstance.Engine.EngineException>(() => scene.Engine.Run(statement, SimulatedScene.Reader));
        scene.Engine.Dump().ShouldBe(before);
    }

    [Fact]
    public async Task A_reader_who_is_shown_only_some_logins_reads_nothing()
    {
        using var scene = new SimulatedScene(reader: $"GRANT CONNECT ANY DATABASE TO [{SimulatedScene.Reader}]");
        var e = await Should.ThrowAsync<ConnectorException>(scene.ReadAsync);
        e.Failure.ShouldBe(ConnectorFailure.NotAllowed);
        e.Message.ShouldContain("GRANT VIEW ANY DEFINITION");
    }

    [Fact]
    public async Task A_database_the_reader_does_not_get_into_is_unread_and_the_others_are_read()
    {
        using var scene = new SimulatedScene(reader: $"GRANT VIEW ANY DEFINITION TO [{SimulatedScene.Reader}]; CREATE DATABASE [Ledger]; CREATE DATABASE [Shut]; USE [Ledger]; CREATE USER [r] FOR LOGIN [{SimulatedScene.Reader}]; USE [Shut]; CREATE USER [r] FOR LOGIN [{SimulatedScene.Reader}]; DENY VIEW DEFINITION TO [r]; USE [master]; CREATE DATABASE [Far]");
        var read = await scene.ReadAsync();
        Database(read, "Ledger").Unread.ShouldBeNull();
        Database(read, "Far").Unread.ShouldBe($"{SimulatedScene.Reader} may not enter it: GRANT CONNECT ANY DATABASE TO the reader");
        Database(read, "Shut").Unread.ShouldBe($"{SimulatedScene.Reader} may not see its definitions");
    }

    [Fact]
    public async Task Roles_told_apart_by_case_alone_leave_their_database_unread()
    {
        using var scene = new SimulatedScene(caseSensitive: true);
        scene.Engine.Run("CREATE DATABASE [Ledger]; CREATE DATABASE [Days]; CREATE DATABASE [days]; USE [Ledger]; CREATE ROLE [Readers]; CREATE ROLE [readers]");
        var read = await scene.ReadAsync();
        Database(read, "Ledger").Unread.ShouldBe("it has the roles Readers and readers, which differ only by case: a need cannot say which one it means");
        read.Databases.Where(d => d.Name is "Days" or "days").ShouldAllBe(d => d.Unread!.EndsWith("differs only by case"));
        Database(read, "master").Unread.ShouldBeNull();
    }

    [Theory]
    [InlineData("wrong password", ConnectorFailure.SignIn, "refuses the login jr_reader")]
    [InlineData("no secret", ConnectorFailure.SignIn, "there is no secret 'sql'")]
    [InlineData("switched off", ConnectorFailure.SignIn, "the login is disabled")]
    [InlineData("nobody there", ConnectorFailure.Unreachable, "did not answer")]
    [InlineData("not trusted", ConnectorFailure.NotTrusted, "no authority that this machine trusts")]
    [InlineData("another certificate", ConnectorFailure.NotTrusted, "it is not the one in")]
    [InlineData("no such file", ConnectorFailure.NotTrusted, "there is no certificate")]
    public async Task What_keeps_us_out_is_told_in_one_sentence_that_holds_no_secret(string why, ConnectorFailure failure, string says)
    {
        using var scene = new SimulatedScene();
        using var other = SimulatedCertificate.New();
        var file = Path.Combine(Path.GetDirectoryName(scene.CertificateFile)!, "other.pem");
        File.WriteAllText(file, other.ExportCertificatePem());
        if (why == "switched off") scene.Engine.Run($"ALTER LOGIN [{SimulatedScene.Reader}] DISABLE");
        var connector = why switch
        {
            "wrong password" => scene.ConnectorTo(scene.Estate, "not-the-password"),
            "no secret" => scene.ConnectorTo(scene.Estate, null),
            "nobody there" => scene.ConnectorTo(scene.EstateOf(scene.CertificateFile, "localhost", 9)),
            "not trusted" => scene.ConnectorTo(scene.EstateOf(null, "localhost")),
            "another certificate" => scene.ConnectorTo(scene.EstateOf(file, "localhost")),
            "no such file" => scene.ConnectorTo(scene.EstateOf(file + "x", "localhost")),
            _ => scene.Connector,
        };
        var e = await Should.ThrowAsync<ConnectorException>(() => connector.ReadAsync(scene.Estate.Instances[0], TestContext.Current.CancellationToken));
        e.Failure.ShouldBe(failure, e.ToString());
        e.Message.ShouldContain(says);
        e.Message.ShouldNotContain("\n");
        e.ToString().ShouldNotContain("not-the-password");
        e.ToString().ShouldNotContain("Simulated-Only");
    }

    private static RoleMembers Role(IReadOnlyList<RoleMembers> roles, string name) => roles.Single(r => r.Role == name);

    private static DatabaseSnapshot Database(InstanceSnapshot instance, string name) => instance.Databases.Single(d => d.Name == name);
}
