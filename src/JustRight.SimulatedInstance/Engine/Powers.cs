using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Surveys;

namespace JustRight.SimulatedInstance.Engine;

/// <summary>What a session's login may do, asked anew for each statement.</summary>
internal sealed class Powers(Catalog catalog, int login)
{
    private const string Roles =
        """
        WITH RECURSIVE held(id) AS (
            SELECT $1 UNION SELECT 2
            UNION SELECT m.role_principal_id FROM server_role_members AS m JOIN held ON m.member_principal_id = held.id)
        """;

    private const string DatabaseRoles =
        """
        WITH RECURSIVE held(id) AS (
            SELECT $2 UNION SELECT 0
            UNION SELECT m.role_principal_id FROM database_role_members AS m JOIN held ON m.member_principal_id = held.id
                WHERE m.db = $1)
        """;

    /// <summary>The login's number.</summary>
    public int Login => login;

    /// <summary>Whether it is in the all-powerful role.</summary>
    public bool RulesAll => InServerRole("sysadmin");

    /// <summary>Whether it is in a role of the instance.</summary>
    public bool InServerRole(string role) => catalog.One(
        $"""
        {Roles} SELECT 1 FROM held JOIN server_principals AS p ON p.principal_id = held.id WHERE p.type = 'R' AND p.name = $2
        """,
        login, role) is not null;

    /// <summary>Whether it holds a permission of the instance: by an entry, by one that covers it, or by a fixed role.</summary>
    public bool At(string permission)
    {
        if (RulesAll) return true;
        var enough = SqlServerPermissions.Wider(SqlServerClass.Server, permission).ToList();
        return !enough.Any(p => Entry(p) == "D")
            && (enough.Any(p => Entry(p) is "G" or "W")
                || SqlServerPermissions.InstanceRoles.Any(r => r.Permissions.Any(enough.Contains) && InServerRole(r.Role)));
    }

    /// <summary>Whether it may grant a permission of the instance on.</summary>
    public bool MayGrant(string permission) => RulesAll || Entry(permission) == "W" || Entry("CONTROL SERVER") is "G" or "W";

    /// <summary>Whether it sees a definition of the instance that is not its own.</summary>
    public bool SeesDefinitions => At("VIEW ANY DEFINITION");

    /// <summary>Who it is in a database: the number of its user, of dbo, or of guest; null when it does not get in.</summary>
    public int? UserIn(int database)
    {
        if (catalog.ReadableReplica(database) == false) return null;
        var sid = catalog.One("SELECT sid FROM server_principals WHERE principal_id = $1", login);
        const string owned = "SELECT 1 FROM databases WHERE database_id = $1 AND owner_sid = $2";
        if (RulesAll || At("CONTROL SERVER") || catalog.One(owned, database, sid) is not null) return 1;
        const string enters =
            """
            SELECT p.principal_id FROM database_principals AS p
                JOIN database_permissions AS e ON e.db = p.db AND e.grantee_principal_id = p.principal_id
                WHERE p.db = $1 AND e.class = 0 AND e.permission_name = 'CONNECT' AND e.state IN ('G', 'W')
            """;
        if (catalog.Number($"{enters} AND p.sid = $2", database, sid) is { } user) return user;
        if (catalog.One($"{enters} AND p.principal_id = 2", database) is not null) return 2;
        return At("CONNECT ANY DATABASE") ? 0 : null;
    }

    /// <summary>Whether it is dbo of a database or in its owner role.</summary>
    public bool Owns(int database) => UserIn(database) is { } user
        && (user == 1 || InDatabaseRole(database, user, "db_owner") || Entry(database, user, "CONTROL") is "G" or "W");

    /// <summary>
    /// Whether it may do something in a database: by an entry, by one that covers it there or at the instance, by a fixed role,
    /// or as owner.
    /// </summary>
    public bool In(int database, string permission)
    {
        if (Owns(database)) return true;
        if (UserIn(database) is not { } user) return false;
        var enough = SqlServerPermissions.Wider(SqlServerClass.Database, permission).ToList();
        if (enough.Any(p => Entry(database, user, p) == "D")) return false;
        return enough.Any(p => Entry(database, user, p) is "G" or "W")
            || SqlServerPermissions.DatabaseRoles.Any(r => r.Permissions.Any(enough.Contains) && IsIn(database, r.Role))
            || enough.Any(p => SqlServerPermissions.Of(SqlServerClass.Database, p)?.Above is { } above && At(above));
    }

    /// <summary>Whether it may read a table: by an entry on it, or on the database.</summary>
    public bool Reads(int database, string table) => UserIn(database) is { } user
        && Entry(database, user, "SELECT", table) is var entry && entry != "D" && (entry is "G" or "W" || In(database, "SELECT"));

    /// <summary>Whether it is in a role of a database.</summary>
    public bool IsIn(int database, string role) => UserIn(database) is { } user && InDatabaseRole(database, user, role);

    /// <summary>Whether it sees definitions in a database.</summary>
    public bool SeesDefinitionsIn(int database) => UserIn(database) is { } user
        && Entry(database, user, "VIEW DEFINITION") != "D" && In(database, "VIEW DEFINITION");

    private string? Entry(string permission) => catalog.One(
        $"""
        {Roles} SELECT e.state FROM server_permissions AS e JOIN held ON held.id = e.grantee_principal_id
            WHERE e.class = 100 AND e.permission_name = $2 ORDER BY e.state LIMIT 1
        """,
        login, permission) as string;

    private string? Entry(int database, int user, string permission) => catalog.One(
        $"""
        {DatabaseRoles} SELECT e.state FROM database_permissions AS e JOIN held ON held.id = e.grantee_principal_id
            WHERE e.db = $1 AND e.class = 0 AND e.permission_name = $3 ORDER BY e.state LIMIT 1
        """,
        database, user, permission) as string;

    private string? Entry(int database, int user, string permission, string table) => catalog.One(
        $"""
        {DatabaseRoles} SELECT e.state FROM database_permissions AS e JOIN held ON held.id = e.grantee_principal_id
            JOIN objects AS o ON o.db = e.db AND o.object_id = e.major_id
            WHERE e.db = $1 AND e.class = 1 AND e.minor_id = 0 AND e.permission_name = $3 AND o.name = $4 ORDER BY e.state LIMIT 1
        """,
        database, user, permission, table) as string;

    private bool InDatabaseRole(int database, int user, string role) => catalog.One(
        $"""
        {DatabaseRoles} SELECT 1 FROM held JOIN database_principals AS p ON p.db = $1 AND p.principal_id = held.id
            WHERE p.type = 'R' AND p.name = $3
        """,
        database, user, role) is not null;
}
