using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Databases;

/// <summary>
/// The published table of permissions of a database, row by row: what covers one on the database, and what at the instance. Each
/// is asked at the level of the verdict, three ways. Not checked against the text, as the table of the product.
/// </summary>
public sealed class DatabasePermissionTableTests
{
    /// <summary>Permission, covered by, covered at the instance by.</summary>
    private const string Published = """
        ADMINISTER DATABASE BULK OPERATIONS | CONTROL | CONTROL SERVER
        ALTER | CONTROL | ALTER ANY DATABASE
        ALTER ANY APPLICATION ROLE | ALTER | CONTROL SERVER
        ALTER ANY ASSEMBLY | ALTER | CONTROL SERVER
        ALTER ANY ASYMMETRIC KEY | ALTER | CONTROL SERVER
        ALTER ANY CERTIFICATE | ALTER | CONTROL SERVER
        ALTER ANY COLUMN ENCRYPTION KEY | ALTER | CONTROL SERVER
        ALTER ANY COLUMN MASTER KEY | ALTER | CONTROL SERVER
        ALTER ANY CONTRACT | ALTER | CONTROL SERVER
        ALTER ANY DATABASE AUDIT | ALTER | ALTER ANY SERVER AUDIT
        ALTER ANY DATABASE DDL TRIGGER | ALTER | CONTROL SERVER
        ALTER ANY DATABASE EVENT NOTIFICATION | ALTER | ALTER ANY EVENT NOTIFICATION
        ALTER ANY DATABASE SCOPED CONFIGURATION | CONTROL | CONTROL SERVER
        ALTER ANY DATASPACE | ALTER | CONTROL SERVER
        ALTER ANY EXTERNAL DATA SOURCE | ALTER | CONTROL SERVER
        ALTER ANY EXTERNAL FILE FORMAT | ALTER | CONTROL SERVER
        ALTER ANY EXTERNAL LIBRARY | CONTROL | CONTROL SERVER
        ALTER ANY FULLTEXT CATALOG | ALTER | CONTROL SERVER
        ALTER ANY MASK | CONTROL | CONTROL SERVER
        ALTER ANY MESSAGE TYPE | ALTER | CONTROL SERVER
        ALTER ANY REMOTE SERVICE BINDING | ALTER | CONTROL SERVER
        ALTER ANY ROLE | ALTER | CONTROL SERVER
        ALTER ANY ROUTE | ALTER | CONTROL SERVER
        ALTER ANY SCHEMA | ALTER | CONTROL SERVER
        ALTER ANY SECURITY POLICY | CONTROL | CONTROL SERVER
        ALTER ANY SENSITIVITY CLASSIFICATION | CONTROL | CONTROL SERVER
        ALTER ANY SERVICE | ALTER | CONTROL SERVER
        ALTER ANY SYMMETRIC KEY | ALTER | CONTROL SERVER
        ALTER ANY USER | ALTER | CONTROL SERVER
        AUTHENTICATE | CONTROL | AUTHENTICATE SERVER
        BACKUP DATABASE | CONTROL | CONTROL SERVER
        BACKUP LOG | CONTROL | CONTROL SERVER
        CHECKPOINT | CONTROL | CONTROL SERVER
        CONNECT | CONNECT REPLICATION | CONNECT ANY DATABASE
        CONNECT REPLICATION | CONTROL | CONTROL SERVER
        CREATE AGGREGATE | ALTER | CONTROL SERVER
        CREATE ASSEMBLY | ALTER ANY ASSEMBLY | CONTROL SERVER
        CREATE ASYMMETRIC KEY | ALTER ANY ASYMMETRIC KEY | CONTROL SERVER
        CREATE CERTIFICATE | ALTER ANY CERTIFICATE | CONTROL SERVER
        CREATE CONTRACT | ALTER ANY CONTRACT | CONTROL SERVER
        CREATE DATABASE | CONTROL | CREATE ANY DATABASE
        CREATE DATABASE DDL EVENT NOTIFICATION | ALTER ANY DATABASE EVENT NOTIFICATION | CREATE DDL EVENT NOTIFICATION
        CREATE DEFAULT | ALTER | CONTROL SERVER
        CREATE FULLTEXT CATALOG | ALTER ANY FULLTEXT CATALOG | CONTROL SERVER
        CREATE FUNCTION | ALTER | CONTROL SERVER
        CREATE MESSAGE TYPE | ALTER ANY MESSAGE TYPE | CONTROL SERVER
        CREATE PROCEDURE | ALTER | CONTROL SERVER
        CREATE QUEUE | ALTER | CONTROL SERVER
        CREATE REMOTE SERVICE BINDING | ALTER ANY REMOTE SERVICE BINDING | CONTROL SERVER
        CREATE ROLE | ALTER ANY ROLE | CONTROL SERVER
        CREATE ROUTE | ALTER ANY ROUTE | CONTROL SERVER
        CREATE RULE | ALTER | CONTROL SERVER
        CREATE SCHEMA | ALTER ANY SCHEMA | CONTROL SERVER
        CREATE SERVICE | ALTER ANY SERVICE | CONTROL SERVER
        CREATE SYMMETRIC KEY | ALTER ANY SYMMETRIC KEY | CONTROL SERVER
        CREATE SYNONYM | ALTER | CONTROL SERVER
        CREATE TABLE | ALTER | CONTROL SERVER
        CREATE TYPE | ALTER | CONTROL SERVER
        CREATE USER | ALTER ANY USER | CONTROL SERVER
        CREATE VIEW | ALTER | CONTROL SERVER
        CREATE XML SCHEMA COLLECTION | ALTER | CONTROL SERVER
        DELETE | CONTROL | CONTROL SERVER
        EXECUTE | CONTROL | CONTROL SERVER
        EXECUTE ANY EXTERNAL SCRIPT | CONTROL | CONTROL SERVER
        INSERT | CONTROL | CONTROL SERVER
        KILL DATABASE CONNECTION | CONTROL | ALTER ANY CONNECTION
        REFERENCES | CONTROL | CONTROL SERVER
        SELECT | CONTROL | SELECT ALL USER SECURABLES
        SHOWPLAN | CONTROL | ALTER TRACE
        SUBSCRIBE QUERY NOTIFICATIONS | CONTROL | CONTROL SERVER
        TAKE OWNERSHIP | CONTROL | CONTROL SERVER
        UNMASK | CONTROL | CONTROL SERVER
        UPDATE | CONTROL | CONTROL SERVER
        VIEW ANY COLUMN ENCRYPTION KEY DEFINITION | CONTROL | VIEW ANY DEFINITION
        VIEW ANY COLUMN MASTER KEY DEFINITION | CONTROL | VIEW ANY DEFINITION
        VIEW ANY SENSITIVITY CLASSIFICATION | CONTROL | VIEW ANY DEFINITION
        VIEW CRYPTOGRAPHICALLY SECURED DEFINITION | CONTROL | VIEW ANY CRYPTOGRAPHICALLY SECURED DEFINITION
        VIEW DATABASE PERFORMANCE STATE | VIEW DATABASE STATE | VIEW SERVER PERFORMANCE STATE
        VIEW DATABASE SECURITY STATE | VIEW DATABASE STATE | VIEW SERVER SECURITY STATE
        VIEW DATABASE STATE | CONTROL | VIEW SERVER STATE
        VIEW DEFINITION | CONTROL | VIEW ANY DEFINITION
        VIEW PERFORMANCE DEFINITION | VIEW DEFINITION | VIEW ANY PERFORMANCE DEFINITION
        VIEW SECURITY DEFINITION | VIEW DEFINITION | VIEW ANY SECURITY DEFINITION
        VIEW LEDGER CONTENT | CONTROL | CONTROL SERVER
        VIEW DATABASE SECURITY AUDIT | CONTROL | VIEW SERVER SECURITY AUDIT
        GENERATE LEDGER DIGEST | CONTROL | CONTROL SERVER
        EXECUTE ANY EXTERNAL ENDPOINT | CONTROL | CONTROL SERVER
        ENABLE LEDGER | CONTROL | CONTROL SERVER
        DROP ANY DATABASE EVENT SESSION | ALTER ANY DATABASE EVENT SESSION | DROP ANY EVENT SESSION
        CREATE EXTERNAL MODEL | ALTER ANY EXTERNAL MODEL | CONTROL SERVER
        CREATE EXTERNAL LIBRARY | ALTER ANY EXTERNAL LIBRARY | CONTROL SERVER
        CREATE EXTERNAL LANGUAGE | ALTER ANY EXTERNAL LANGUAGE | CONTROL SERVER
        CREATE ANY DATABASE EVENT SESSION | ALTER ANY DATABASE EVENT SESSION | CREATE ANY EVENT SESSION
        ALTER LEDGER CONFIGURATION | CONTROL | CONTROL SERVER
        ALTER LEDGER | CONTROL | CONTROL SERVER
        ALTER ANY EXTERNAL MODEL | ALTER | CONTROL SERVER
        ALTER ANY EXTERNAL LANGUAGE | CONTROL | CONTROL SERVER
        ALTER ANY DATABASE EVENT SESSION | ALTER | ALTER ANY EVENT SESSION
        """;

    private static readonly string[][] Table =
        [.. Published.Split('\n').Select(l => l.Split('|', StringSplitOptions.TrimEntries))];

    /// <summary>The rows.</summary>
    public static TheoryData<string, string, string> Rows
    {
        get
        {
            var rows = new TheoryData<string, string, string>();
            foreach (var row in Table) rows.Add(row[0], row[1], row[2]);
            return rows;
        }
    }

    [Theory]
    [MemberData(nameof(Rows))]
    public void What_covers_a_permission_brings_it_along_and_denied_denies_it(string permission, string covering, string above)
    {
        var asked = $"S. {permission}";
        DatabaseScene.Of($"login a; S.user a; S.grant {permission}: a").Ask(asked).ShouldBe("held");
        if (permission == SqlServerPermissions.Connect) return; // with the user it is held
        DatabaseScene.Of($"login a; S.user a; S.grant {covering}: a").Ask(asked).ShouldBe($"by {covering}");
        DatabaseScene.Of($"login a; S.user a; grant {above}: a").Ask(asked).ShouldBe($"by {above}");
        DatabaseScene.Of($"login a; S.user a; S.grant {permission}: a; S.deny {covering}: a").Ask(asked).ShouldBe("denied");
    }

    [Fact]
    public void The_product_knows_the_table_and_no_more() =>
        SqlServerPermissions.On(SqlServerClass.Database).Keys.Except([SqlServerPermissions.Control])
            .ShouldBe(Table.Select(r => r[0]), ignoreOrder: true);

    [Fact]
    public void What_covers_stands_in_the_table_and_leads_up_to_all_of_the_instance()
    {
        foreach (var kind in Enum.GetValues<SqlServerClass>())
        {
            var outer = SqlServerPermissions.Around(kind);
            foreach (var row in SqlServerPermissions.On(kind).Values)
            {
                if (row.CoveredBy is { } wider) SqlServerPermissions.Of(kind, wider).ShouldNotBeNull($"{kind}: {row.Name}");
                if (outer is { } above) SqlServerPermissions.Of(above, row.Above!).ShouldNotBeNull($"{kind}: {row.Name}");
                if (row.Points is null)
                    SqlServerPermissions.Of(SqlServerClass.Database, row.Name)
                        .ShouldNotBeNull($"{kind}: {row.Name} has no reach");
                row.Since.ShouldBeInRange(13, 17);
                if (kind is SqlServerClass.Server && row.Name == SqlServerPermissions.ControlServer) continue;
                SqlServerCovering.Of(kind, row.Name, null)
                    .ShouldContain((SqlServerClass.Server, SqlServerPermissions.ControlServer, null), $"{kind}: {row.Name}");
            }
        }
    }

    [Fact]
    public void Fixed_roles_have_permissions_of_the_table()
    {
        SqlServerPermissions.InstanceRoles.SelectMany(r => r.Permissions)
            .Where(p => SqlServerPermissions.Of(SqlServerClass.Server, p) is null).ShouldBeEmpty();
        SqlServerPermissions.DatabaseRoles.Concat(SqlServerPermissions.DenyingRoles).SelectMany(r => r.Permissions)
            .Where(p => SqlServerPermissions.Of(SqlServerClass.Database, p) is null).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("ALTER ANY ASSEMBLY", true)] // Database-level roles: the permissions of the fixed roles
    [InlineData("CREATE ASSEMBLY", true)]
    [InlineData("CREATE QUEUE", true)]
    [InlineData("CREATE XML SCHEMA COLLECTION", true)]
    [InlineData("ALTER ANY ROLE", false)]
    [InlineData("ALTER ANY MASK", false)]
    [InlineData("ALTER", false)]
    public void Who_changes_the_structure_may(string permission, bool may) =>
        DatabaseScene.Of("login a; S.user a; S.role db_ddladmin: a").Ask($"S. {permission}")
            .ShouldBe(may ? "by db_ddladmin" : "lacks");
}
