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
            UNION SELECT m.role_principal_id FROM database_role_members AS m JOIN held ON m.member_principal_id = held.id WHERE m.db = $1)
        """;

    /// <summary>The login's number.</summary>
    public int Login => login;

    /// <summary>Whether it is in the all-powerful role.</summary>
    public bool RulesAll => InServerRole("sysadmin");

    /// <summary>Whether it is in a role of the instance.</summary>
    public bool InServerRole(string role) => catalog.One($"{Roles} SELECT 1 FROM held JOIN server_principals AS p ON p.principal_id = held.id WHERE p.type = 'R' AND p.name = $2", login, role) is not null;

    /// <summary>Whether it holds a permission of the instance, or the widest one.</summary>
    public bool At(string permission) => RulesAll || Entry(permission) is "G" or "W" || (Entry(permission) != "D" && Entry("CONTROL SERVER") is "G" or "W");

    /// <summary>Whether it may grant a permission of the instance on.</summary>
    public bool MayGrant(string permission) => RulesAll || Entry(permission) == "W" || Entry("CONTROL SERVER") is "G" or "W";

    /// <summary>Whether it sees a definition of the instance that is not its own.</summary>
    public bool SeesDefinitions => At("VIEW ANY DEFINITION");

    /// <summary>Who it is in a database: the number of its user, of dbo, or of guest; null when it does not get in.</summary>
    public int? UserIn(int database)
    {
        var sid = catalog.One("SELECT sid FROM server_principals WHERE principal_id = $1", login);
        if (RulesAll || At("CONTROL SERVER") || catalog.One("SELECT 1 FROM databases WHERE database_id = $1 AND owner_sid = $2", database, sid) is not null) return 1;
        if (catalog.Number("SELECT p.principal_id FROM database_principals AS p JOIN database_permissions AS e ON e.db = p.db AND e.grantee_principal_id = p.principal_id WHERE p.db = $1 AND p.sid = $2 AND e.class = 0 AND e.permission_name = 'CONNECT' AND e.state IN ('G', 'W')", database, sid) is { } user) return user;
        if (catalog.One("SELECT 1 FROM database_permissions WHERE db = $1 AND class = 0 AND grantee_principal_id = 2 AND permission_name = 'CONNECT' AND state IN ('G', 'W')", database) is not null) return 2;
        return At("CONNECT ANY DATABASE") ? 0 : null;
    }

    /// <summary>Whether it is dbo of a database or in its owner role.</summary>
    public bool Owns(int database) => UserIn(database) is { } user && (user == 1 || InDatabaseRole(database, user, "db_owner") || Entry(database, user, "CONTROL") is "G" or "W");

    /// <summary>
    /// Whether it may do something in a database: through a permission, a role that stands for it, or as owner.
    /// </summary>
    public bool In(int database, string permission, params string[] roles) =>
        Owns(database) || (UserIn(database) is { } user && (Entry(database, user, permission) is "G" or "W" || roles.Any(r => InDatabaseRole(database, user, r))));

    /// <summary>Whether it sees definitions in a database.</summary>
    public bool SeesDefinitionsIn(int database) => UserIn(database) is { } user && Entry(database, user, "VIEW DEFINITION") != "D" && (SeesDefinitions || In(database, "VIEW DEFINITION", "db_securityadmin", "db_accessadmin"));

    private string? Entry(string permission) => catalog.One($"{Roles} SELECT e.state FROM server_permissions AS e JOIN held ON held.id = e.grantee_principal_id WHERE e.class = 100 AND e.permission_name = $2 ORDER BY e.state LIMIT 1", login, permission) as string;

    private string? Entry(int database, int user, string permission) => catalog.One($"{DatabaseRoles} SELECT e.state FROM database_permissions AS e JOIN held ON held.id = e.grantee_principal_id WHERE e.db = $1 AND e.class = 0 AND e.permission_name = $3 ORDER BY e.state LIMIT 1", database, user, permission) as string;

    private bool InDatabaseRole(int database, int user, string role) => catalog.One($"{DatabaseRoles} SELECT 1 FROM held JOIN database_principals AS p ON p.db = $1 AND p.principal_id = held.id WHERE p.type = 'R' AND p.name = $3", database, user, role) is not null;
}
