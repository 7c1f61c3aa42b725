using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Faults;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Tests.Databases;

/// <summary>What the SQL Server family knows of names, of places, and of who rules an instance.</summary>
public sealed class SqlServerEngineTests
{
    private static readonly SqlServerEngine Engine = new();
    private static readonly Origin Line = new("sheet.yaml", 1, 1);

    [Theory]
    [InlineData(NeedKind.InstancePermission, null, "VIEW SERVER STATE", "CREATE TABLE")]
    [InlineData(NeedKind.DatabasePermission, null, "CREATE TABLE", "VIEW SERVER STATE")]
    [InlineData(NeedKind.InstancePermission, "LOGIN::boss", "IMPERSONATE", "SELECT")]
    [InlineData(NeedKind.DatabasePermission, "SCHEMA::s", "SELECT", "IMPERSONATE")]
    [InlineData(NeedKind.DatabasePermission, "USER::u", "IMPERSONATE", "SELECT")]
    public void Permissions_are_known_by_what_they_are_on(NeedKind kind, string? on, string known, string other)
    {
        var names = Engine.NamesFor(kind, on).ShouldNotBeNull();
        names.ShouldContain(known);
        names.ShouldNotContain(other);
    }

    [Theory]
    [InlineData(NeedKind.InstancePermission, "SCHEMA::s")] // which is in a database
    [InlineData(NeedKind.DatabasePermission, "LOGIN::boss")] // which is at the instance
    [InlineData(NeedKind.DatabasePermission, "BANANA::b")]
    public void On_what_is_elsewhere_or_nothing_there_is_no_permission(NeedKind kind, string on) =>
        Engine.NamesFor(kind, on).ShouldBe([]);

    [Theory]
    [InlineData(NeedKind.InstanceRole)]
    [InlineData(NeedKind.DatabaseRole)]
    [InlineData(NeedKind.Logon)]
    public void Names_of_others_kinds_are_not_a_closed_set(NeedKind kind) => Engine.NamesFor(kind, null).ShouldBeNull();

    [Theory]
    [InlineData(null, "role:x@i/S")]
    [InlineData("msdb", "role:x@i/msdb")]
    public void A_need_may_name_another_database_than_its_places(string? database, string right)
    {
        var need = new Need(
            NeedKind.DatabaseRole, "x", "store", database, null, GivenBy.Us, Until.Always, null, null, null, Line);
        var spot = new Spot("h1", "i", "S") { Engine = "sqlserver" };
        var found = Engine.RightOf(need, new AskedAt(spot, "FENNMOOR", "Store")).ShouldBeOfType<DatabaseRoleRight>();
        $"role:{found.Role}@{found.Place}".ShouldBe(right);
        Engine.RightOf(need, new AskedAt(spot with { Engine = "postgresql" }, "FENNMOOR", "Store")).ShouldBeNull();
        Engine.RightOf(need, new AskedAt(null, "FENNMOOR", "Store")).ShouldBeNull();
    }

    [Theory]
    [InlineData("", "")]
    [InlineData("role sysadmin: o a", "a, o")]
    [InlineData("role SECURITYADMIN: o", "o")]
    [InlineData("role dbcreator: o", "")]
    [InlineData("login a; grant control server: a", "a")]
    [InlineData("login a; hand CONTROL SERVER: a", "a")]
    [InlineData("login a; deny CONTROL SERVER: a", "")]
    [InlineData("login a; grant VIEW SERVER STATE: a", "")]
    [InlineData("login a; grant CONTROL SERVER on LOGIN::o: a", "")]
    [InlineData("role sysadmin: a; role securityadmin: a; grant CONTROL SERVER: a", "a")]
    public void Who_rules_an_instance(string facts, string rulers) =>
        string.Join(", ", DatabaseScene.Of(facts).Rulers()).ShouldBe(rulers);
}
