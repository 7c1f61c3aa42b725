using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Surveys;
using JustRight.SimulatedInstance.Engine;

namespace JustRight.Databases.Tests.SqlServer;

/// <summary>Everything permissions can be on, through the engine maker's own client library.</summary>
public sealed class SecurableTests
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    /// <summary>One of each class in a database, with a permission on it.</summary>
    public static TheoryData<string, string> InDatabase => new()
    {
        { "ALTER", "USER::guest" },
        { "ALTER", "ROLE::readers" },
        { "REFERENCES", "ASSEMBLY::code" },
        { "CONTROL", "CERTIFICATE::backup copy" },
        { "CONTROL", "ASYMMETRIC KEY::k" },
        { "REFERENCES", "SYMMETRIC KEY::k" },
        { "REFERENCES", "CONTRACT::c" },
        { "REFERENCES", "MESSAGE TYPE::m" },
        { "SEND", "SERVICE::orders" },
        { "ALTER", "ROUTE::r" },
        { "ALTER", "REMOTE SERVICE BINDING::b" },
        { "REFERENCES", "FULLTEXT CATALOG::f" },
        { "REFERENCES", "FULLTEXT STOPLIST::l" },
        { "REFERENCES", "SEARCH PROPERTY LIST::p" },
        { "EXECUTE", "TYPE::dbo.ids" },
        { "EXECUTE", "XML SCHEMA COLLECTION::dbo.x" },
        { "VIEW DEFINITION", "SCHEMA::dbo" },
        { "SELECT", "OBJECT::dbo.Days" },
        { "SELECT", "COLUMN::dbo.Days.a" },
        { "UPDATE", "COLUMN::dbo.Days.\"b.c\"" },
    };

    [Theory]
    [MemberData(nameof(InDatabase))]
    public async Task A_permission_on_anything_in_a_database_is_given_seen_and_taken(string permission, string on)
    {
        using var scene = new SimulatedScene();
        var account = Prepare(scene);
        if (IsMadeApart(on)) scene.Engine.AddThing("Ledger", on);
        var before = scene.Engine.Dump();
        var change = new GrantDatabasePermission(SimulatedScene.Instance, "Ledger", permission, on, account);
        (await scene.Connector.ObserveAsync(change, Stop)).State.ShouldBe(ObservedState.NotDone);
        await scene.Connector.MakeAsync(change, null, Stop);
        (await scene.Connector.ObserveAsync(change, Stop)).State.ShouldBe(ObservedState.Done);
        var ledger = (await scene.ReadAsync()).Databases.Single(d => d.Name == "Ledger");
        ledger.Permissions.ShouldContain(
            new PermissionEntry(permission, PermissionState.Grant, scene.SidOf(account), null) { On = on });
        await scene.Connector.MakeAsync((InstanceChange)change.Inverse!, null, Stop);
        scene.Engine.Dump().ShouldBe(before);
    }

    [Theory]
    [InlineData("IMPERSONATE", "LOGIN::sa")]
    [InlineData("CONTROL", "LOGIN::FENNMOOR\\svc-poll")]
    [InlineData("ALTER", "SERVER ROLE::keepers")]
    [InlineData("CONNECT", "ENDPOINT::mirror")]
    [InlineData("ALTER", "AVAILABILITY GROUP::ag1")]
    public async Task A_permission_on_something_of_the_instance_is_given_seen_and_taken(string permission, string on)
    {
        using var scene = new SimulatedScene();
        var account = Prepare(scene);
        if (on.StartsWith("ENDPOINT", StringComparison.Ordinal) || on.StartsWith("AVAIL", StringComparison.Ordinal))
            scene.Engine.AddAtInstance(on);
        var before = scene.Engine.Dump();
        var change = new GrantInstancePermission(SimulatedScene.Instance, $"{permission} on {on}", account);
        (await scene.Connector.ObserveAsync(change, Stop)).State.ShouldBe(ObservedState.NotDone);
        await scene.Connector.MakeAsync(change, null, Stop);
        (await scene.Connector.ObserveAsync(change, Stop)).State.ShouldBe(ObservedState.Done);
        (await scene.ReadAsync()).Permissions.ShouldContain(
            new PermissionEntry(permission, PermissionState.Grant, scene.SidOf(account), null) { On = on });
        await scene.Connector.MakeAsync((InstanceChange)change.Inverse!, null, Stop);
        scene.Engine.Dump().ShouldBe(before);
    }

    [Fact]
    public async Task Owners_guest_and_principals_of_the_engines_own_are_read()
    {
        using var scene = new SimulatedScene();
        var account = Prepare(scene);
        scene.Engine.AddLogin("boss", "Simulated-Only-2");
        scene.Engine.AddThing("Ledger", "CERTIFICATE::backup");
        scene.Engine.Set("Ledger", contained: true, trusted: true, chained: true);
        scene.Engine.AdmitContained(true);
        scene.Engine.Run($"""
            ALTER SERVER ROLE [securityadmin] ADD MEMBER [boss]; GRANT VIEW SERVER STATE TO [boss];
            ALTER AUTHORIZATION ON SERVER ROLE::[keepers] TO [{account}];
            USE [Ledger]
            GO
            CREATE SCHEMA [sales]
            GO
            CREATE TABLE [sales].[Rounds](a int); CREATE USER [boss] FOR LOGIN [boss]; ALTER ROLE [readers] ADD MEMBER [boss];
            GRANT EXECUTE ON SCHEMA::[sales] TO [boss]; GRANT CONNECT TO [guest]; GRANT SELECT ON SCHEMA::[sales] TO [guest];
            ALTER ROLE [readers] ADD MEMBER [guest];
            ALTER AUTHORIZATION ON SCHEMA::[sales] TO [{account}]; ALTER AUTHORIZATION ON OBJECT::[sales].[Rounds] TO [dbo];
            ALTER AUTHORIZATION ON ROLE::[readers] TO [{account}]; ALTER AUTHORIZATION ON CERTIFICATE::[backup] TO [readers];
            """);
        var read = await scene.ReadAsync();
        var ledger = read.Databases.Single(d => d.Name == "Ledger");
        var own = read.OwnLogins.Single(l => l.Name == "boss");
        own.Roles.ShouldBe(["securityadmin"]);
        own.Permissions.ShouldBe(["VIEW SERVER STATE"]);
        read.OwnLogins.Single(l => l.Name == "sa").Roles.ShouldBe(["sysadmin"]);
        read.Owned.ShouldBe([new OwnedThing("SERVER ROLE::keepers", scene.SidOf(account), null)]);
        var user = ledger.OwnUsers.ShouldHaveSingleItem();
        user.Name.ShouldBe("boss");
        user.Roles.ShouldBe(["readers"]);
        user.Permissions.ShouldBe(["EXECUTE on SCHEMA::sales"]);
        ledger.Owned.ShouldBe(
            [
                new("SCHEMA::sales", scene.SidOf(account), null), new("OBJECT::sales.Rounds", default, "dbo"),
                new("ROLE::readers", scene.SidOf(account), null), new("CERTIFICATE::backup", default, "readers"),
            ],
            ignoreOrder: true);
        ledger.AdmitsGuests.ShouldBeTrue();
        ledger.Permissions.ShouldContain(
            new PermissionEntry("SELECT", PermissionState.Grant, default, "guest") { On = "SCHEMA::sales" });
        ledger.Roles.Single(r => r.Role == "readers").MemberRoles.ShouldBe(["guest"]);
        (read.AdmitsContained, ledger.IsContained, ledger.IsTrusted, ledger.IsChained).ShouldBe((true, true, true, true));
        read.Databases.Single(d => d.Name == "msdb").IsTrusted.ShouldBeTrue();
        read.Databases.Single(d => d.Name == "master").Owned.ShouldBeEmpty();
    }

    /// <summary>Which permissions the instance takes, asked of it one by one: the table says it alone.</summary>
    [Theory]
    [InlineData("13.0")]
    [InlineData("15.0")]
    [InlineData("17.0")]
    public void The_instance_takes_the_permissions_of_the_table_that_its_release_has_and_no_others(string release)
    {
        using var scene = new SimulatedScene(release: release);
        var account = Prepare(scene);
        var number = int.Parse(release.Split('.')[0], System.Globalization.CultureInfo.InvariantCulture);
        foreach (var row in SqlServerPermissions.On(SqlServerClass.Server).Values)
            Takes(scene, $"GRANT {row.Name} TO [{account}]", "102").ShouldBe(row.Since <= number, row.Name);
        foreach (var row in SqlServerPermissions.On(SqlServerClass.Database).Values)
            Takes(scene, $"USE [Ledger]; GRANT {row.Name} TO [{account}]", "102").ShouldBe(row.Since <= number, row.Name);
        foreach (var row in SqlServerPermissions.On(SqlServerClass.Schema).Values)
            Takes(scene, $"USE [Ledger]; GRANT {row.Name} ON SCHEMA::dbo TO [{account}]", "4606")
                .ShouldBe(row.Since <= number, row.Name);
        Takes(scene, $"USE [Ledger]; GRANT SEND ON SCHEMA::dbo TO [{account}]", "4606").ShouldBeFalse();
        Takes(scene, $"USE [Ledger]; GRANT DELETE ([a]) ON OBJECT::dbo.Days TO [{account}]", "1020").ShouldBeFalse();
        Takes(scene, "GRANT VIEW SERVER STATE TO [dbcreator]", "4617").ShouldBeFalse();
        Takes(scene, "USE [Ledger]; GRANT SELECT TO [db_datareader]", "4617").ShouldBeFalse();
    }

    private static bool Takes(SimulatedScene scene, string statement, string refusal)
    {
        try
        {
            scene.Engine.Run(statement);
            return true;
        }
        catch (EngineException e)
        {
            e.Number.ToString(System.Globalization.CultureInfo.InvariantCulture).ShouldBe(refusal, statement);
            return false;
        }
    }

    private static string Prepare(SimulatedScene scene)
    {
        var account = scene.Account("svc-poll");
        scene.Engine.Run($"""
            CREATE LOGIN [{account}] FROM WINDOWS; CREATE SERVER ROLE [keepers]; CREATE DATABASE [Ledger];
            USE [Ledger]; CREATE USER [{account}] FOR LOGIN [{account}]; CREATE ROLE [readers];
            CREATE TABLE [Days](a int, [b.c] int);
            """);
        return account;
    }

    private static bool IsMadeApart(string on) =>
        !new[] { "USER", "ROLE", "SCHEMA", "OBJECT", "COLUMN" }.Contains(on.Split("::")[0], StringComparer.Ordinal);
}
