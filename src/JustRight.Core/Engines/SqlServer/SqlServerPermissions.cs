using System.Collections.Frozen;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>A permission of the SQL Server family.</summary>
/// <param name="Name">In capitals, as the catalog writes it.</param>
/// <param name="CoveredBy">The permission at the same level that brings it along; null for the widest.</param>
/// <param name="Above">For one of a database: the permission of the instance that brings it along in every database.</param>
/// <param name="Points">How far it reaches, on the scale of <see cref="Rights.RightReach"/>.</param>
/// <param name="Lets">What it lets its holder do.</param>
public sealed record SqlServerPermission(string Name, string? CoveredBy, string? Above, int Points, string Lets);

/// <summary>
/// The permissions of the SQL Server family and what implies what, as its documentation tables them
/// (<c>sys.fn_builtin_permissions</c>,
/// columns covering and parent covering permission), and what its fixed roles hold. A permission that is not listed here is
/// implied by the widest one of its level alone.
/// </summary>
public static class SqlServerPermissions
{
    /// <summary>What lets a login in.</summary>
    public const string ConnectSql = "CONNECT SQL";

    /// <summary>The widest permission at an instance.</summary>
    public const string ControlServer = "CONTROL SERVER";

    /// <summary>The widest permission in a database.</summary>
    public const string Control = "CONTROL";

    /// <summary>What lets a user into a database.</summary>
    public const string Connect = "CONNECT";

    private static readonly FrozenDictionary<string, SqlServerPermission> AtInstance = Table(
        At(ControlServer, null, 795, "do nearly everything on the instance, and give itself more rights"),
        At(ConnectSql, ControlServer, 1, "connect"),
        At("ADMINISTER BULK OPERATIONS", ControlServer, 100, "load files that the instance can read"),
        At("ALTER ANY AVAILABILITY GROUP", ControlServer, 200, "reshape failover groups"),
        At("ALTER ANY CONNECTION", ControlServer, 150, "end any session"),
        At("ALTER ANY CREDENTIAL", ControlServer, 400, "change stored credentials"),
        At("ALTER ANY DATABASE", ControlServer, 200, "alter, detach and drop any database"),
        At("ALTER ANY ENDPOINT", ControlServer, 200, "change how the instance is reached"),
        At("ALTER ANY EVENT NOTIFICATION", ControlServer, 60, "change event notifications"),
        At("ALTER ANY EVENT SESSION", ControlServer, 120, "record what all sessions do"),
        At("ALTER ANY LINKED SERVER", ControlServer, 250, "add linked servers"),
        At("ALTER ANY LOGIN", ControlServer, 700, "change logins and their passwords, except those of administrators"),
        At("ALTER ANY SERVER AUDIT", ControlServer, 200, "change what is audited"),
        At("ALTER ANY SERVER ROLE", ControlServer, 400, "change roles of the instance"),
        At("ALTER RESOURCES", ControlServer, 100, "manage the instance's resources"),
        At("ALTER SERVER STATE", ControlServer, 200, "clear caches and end sessions of others"),
        At("ALTER SETTINGS", ControlServer, 250, "change settings of the instance"),
        At("ALTER TRACE", ControlServer, 150, "trace what all sessions send"),
        At("AUTHENTICATE SERVER", ControlServer, 300, "vouch for another across databases"),
        At("CONNECT ANY DATABASE", ControlServer, 30, "connect to every database, including future ones"),
        At("CREATE ANY DATABASE", "ALTER ANY DATABASE", 120, "create and restore databases"),
        At("CREATE ANY EVENT SESSION", "ALTER ANY EVENT SESSION", 100, "create event sessions"),
        At("CREATE AVAILABILITY GROUP", "ALTER ANY AVAILABILITY GROUP", 120, "create failover groups"),
        At("CREATE DDL EVENT NOTIFICATION", "ALTER ANY EVENT NOTIFICATION", 40, "receive notifications of structure changes"),
        At("CREATE ENDPOINT", "ALTER ANY ENDPOINT", 150, "add endpoints to the instance"),
        At("CREATE LOGIN", "ALTER ANY LOGIN", 150, "create logins"),
        At("CREATE SERVER ROLE", "ALTER ANY SERVER ROLE", 60, "create roles of the instance"),
        At("CREATE TRACE EVENT NOTIFICATION", "ALTER ANY EVENT NOTIFICATION", 40, "be notified of trace events"),
        At("EXTERNAL ACCESS ASSEMBLY", "UNSAFE ASSEMBLY", 350, "run code outside the instance"),
        At("IMPERSONATE ANY LOGIN", ControlServer, 790, "act as any login, including administrators"),
        At("SELECT ALL USER SECURABLES", ControlServer, 350, "read all data of every database it can enter"),
        At("SHUTDOWN", ControlServer, 150, "stop the instance"),
        At("UNSAFE ASSEMBLY", ControlServer, 780, "run any code as the instance's own account"),
        At("VIEW ANY CRYPTOGRAPHICALLY SECURED DEFINITION", ControlServer, 150, "see secured definitions"),
        At("VIEW ANY DATABASE", "VIEW ANY DEFINITION", 5, "see the names of all databases"),
        At("VIEW ANY DEFINITION", ControlServer, 40, "see the definition of everything on the instance"),
        At("VIEW ANY PERFORMANCE DEFINITION", "VIEW ANY DEFINITION", 20, "see definitions for performance"),
        At("VIEW ANY SECURITY DEFINITION", "VIEW ANY DEFINITION", 30, "see who holds what on the instance"),
        At("VIEW SERVER PERFORMANCE STATE", "VIEW SERVER STATE", 20, "see how the instance performs"),
        At("VIEW SERVER SECURITY STATE", "VIEW SERVER STATE", 30, "see the instance's security state"),
        At("VIEW SERVER STATE", "ALTER SERVER STATE", 40, "see the state of the instance and the statements others run"));

    private static readonly FrozenDictionary<string, SqlServerPermission> InDatabase =
        Table([.. SqlServerDatabasePermissions.Rows]);

    /// <summary>Those of what lies in a database, which no database has: they are no slips of the pen.</summary>
    private static readonly string[] OfThings = ["CREATE SEQUENCE", "IMPERSONATE", "RECEIVE", "SEND", "VIEW CHANGE TRACKING"];

    /// <summary>The names of those at an instance.</summary>
    public static IReadOnlyList<string> NamesOfInstance => AtInstance.Keys;

    /// <summary>The names of those in a database.</summary>
    public static IReadOnlyList<string> NamesOfDatabase { get; } = [.. InDatabase.Keys, .. OfThings];

    /// <summary>The permissions that the fixed roles of an instance hold, but for the one that holds all of them.</summary>
    public static IReadOnlyList<(string Role, IReadOnlyList<string> Permissions)> InstanceRoles { get; } =
    [
        ("##MS_ServerPerformanceStateReader##", ["VIEW SERVER PERFORMANCE STATE"]),
        ("##MS_ServerSecurityStateReader##", ["VIEW SERVER SECURITY STATE"]),
        ("##MS_ServerStateReader##", ["VIEW SERVER STATE"]),
        ("##MS_PerformanceDefinitionReader##", ["VIEW ANY PERFORMANCE DEFINITION"]),
        ("##MS_SecurityDefinitionReader##", ["VIEW ANY SECURITY DEFINITION"]),
        ("##MS_DefinitionReader##", ["VIEW ANY DATABASE", "VIEW ANY DEFINITION"]),
        ("##MS_DatabaseConnector##", ["CONNECT ANY DATABASE"]),
        ("##MS_ServerStateManager##", ["ALTER SERVER STATE"]),
        ("##MS_DatabaseManager##", ["ALTER ANY DATABASE", "CREATE ANY DATABASE"]),
        ("##MS_LoginManager##", ["ALTER ANY LOGIN", "CREATE LOGIN"]),
        ("bulkadmin", ["ADMINISTER BULK OPERATIONS"]),
        ("diskadmin", ["ALTER RESOURCES"]),
        ("dbcreator", ["ALTER ANY DATABASE", "CREATE ANY DATABASE"]),
        ("processadmin", ["ALTER ANY CONNECTION", "ALTER SERVER STATE"]),
        ("setupadmin", ["ALTER ANY LINKED SERVER"]),
        (
            "serveradmin",
            ["ALTER ANY ENDPOINT", "ALTER RESOURCES", "ALTER SERVER STATE", "ALTER SETTINGS", "SHUTDOWN", "VIEW SERVER STATE"]),
        ("securityadmin", ["ALTER ANY LOGIN"]),
    ];

    /// <summary>The permissions that the fixed roles of a database hold.</summary>
    public static IReadOnlyList<(string Role, IReadOnlyList<string> Permissions)> DatabaseRoles { get; } =
    [
        ("db_datareader", ["SELECT"]),
        ("db_datawriter", ["DELETE", "INSERT", "UPDATE"]),
        ("db_backupoperator", ["BACKUP DATABASE", "BACKUP LOG", "CHECKPOINT"]),
        ("db_accessadmin", ["ALTER ANY USER", Connect, "CREATE SCHEMA"]),
        (
            "db_ddladmin",
            [
                "ALTER ANY ASSEMBLY", "ALTER ANY ASYMMETRIC KEY", "ALTER ANY CERTIFICATE", "ALTER ANY CONTRACT",
                "ALTER ANY DATABASE DDL TRIGGER", "ALTER ANY DATABASE EVENT NOTIFICATION", "ALTER ANY DATASPACE",
                "ALTER ANY FULLTEXT CATALOG", "ALTER ANY MESSAGE TYPE", "ALTER ANY REMOTE SERVICE BINDING", "ALTER ANY ROUTE",
                "ALTER ANY SCHEMA", "ALTER ANY SERVICE", "ALTER ANY SYMMETRIC KEY", "CHECKPOINT", "CREATE AGGREGATE",
                "CREATE DEFAULT", "CREATE FUNCTION", "CREATE PROCEDURE", "CREATE QUEUE", "CREATE RULE", "CREATE SYNONYM",
                "CREATE TABLE", "CREATE TYPE", "CREATE VIEW", "CREATE XML SCHEMA COLLECTION", "REFERENCES"]),
        ("db_securityadmin", ["ALTER ANY APPLICATION ROLE", "ALTER ANY ROLE", "CREATE SCHEMA", "VIEW DEFINITION"]),
        ("db_owner", [Control]),
    ];

    /// <summary>The permissions that the denying roles of a database deny.</summary>
    public static IReadOnlyList<(string Role, IReadOnlyList<string> Permissions)> DenyingRoles { get; } =
    [
        ("db_denydatareader", ["SELECT"]),
        ("db_denydatawriter", ["DELETE", "INSERT", "UPDATE"]),
    ];

    /// <summary>A permission at an instance, or null when it is not listed.</summary>
    public static SqlServerPermission? OfInstance(string name) => AtInstance.GetValueOrDefault(name);

    /// <summary>A permission in a database, or null when it is not listed.</summary>
    public static SqlServerPermission? OfDatabase(string name) => InDatabase.GetValueOrDefault(name);

    /// <summary>The permissions at an instance that bring one along, nearest first; not itself.</summary>
    public static IEnumerable<string> AboveAtInstance(string name) => Chain(AtInstance, name, ControlServer);

    /// <summary>The permissions in a database that bring one along, nearest first; not itself.</summary>
    public static IEnumerable<string> AboveInDatabase(string name) => Chain(InDatabase, name, Control);

    private static IEnumerable<string> Chain(FrozenDictionary<string, SqlServerPermission> table, string name, string widest)
    {
        var at = name.ToUpperInvariant();
        while (at != widest)
        {
            at = table.GetValueOrDefault(at)?.CoveredBy ?? widest;
            yield return at;
        }
    }

    private static FrozenDictionary<string, SqlServerPermission> Table(params SqlServerPermission[] rows) =>
        rows.ToFrozenDictionary(r => r.Name, StringComparer.OrdinalIgnoreCase);

    private static SqlServerPermission At(string name, string? coveredBy, int points, string lets) =>
        new(name, coveredBy, null, points, lets);
}
