using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Rights;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>Which stronger right brings a weaker one along.</summary>
public static class Implication
{
    /// <summary>The instance role that may do everything and cannot be denied anything.</summary>
    public const string AllPowerful = "sysadmin";
    private static readonly string[] AgentRoles = ["SQLAgentUserRole", "SQLAgentReaderRole", "SQLAgentOperatorRole"];

    /// <summary>
    /// The rights that would bring <paramref name="needed"/> along, weakest first. The all-powerful instance role implies every
    /// role and permission of its instance and its databases; a database's owner role implies the other fixed roles but the
    /// denying ones; of the three agent roles each holds the one before; permissions are implied by those that cover them and by
    /// the fixed roles that hold one of these.
    /// </summary>
    public static IReadOnlyList<Right> Above(Right needed) => needed.Above ??= FindAbove(needed);

    private static IReadOnlyList<Right> FindAbove(Right needed) => needed switch
    {
        InstanceRoleRight r when !Same(r.Role, AllPowerful) => [new InstanceRoleRight(r.Instance, AllPowerful), .. SqlServerPermissions.InstanceRoles.Any(f => Same(f.Role, r.Role)) ? [] : new Right[] { new InstancePermissionRight(r.Instance, RoleAttributeNames.Superuser) }],
        InstancePermissionRight r when RoleAttributeNames.All.ContainsKey(r.Permission) => r.Permission is RoleAttributeNames.Superuser or RoleAttributeNames.Login ? [] : [new InstancePermissionRight(r.Instance, RoleAttributeNames.Superuser)],
        DatabaseOwnerRight r => [new InstancePermissionRight(r.Instance, RoleAttributeNames.Superuser)],
        DatabaseRoleRight r =>
        [
            .. AgentRolesAbove(r),
            .. Same(r.Role, "db_owner") || r.Role.StartsWith("db_deny", StringComparison.OrdinalIgnoreCase) ? [] : new Right[] { new DatabaseRoleRight(r.Instance, r.Database, "db_owner") },
            new InstanceRoleRight(r.Instance, AllPowerful),
        ],
        DatabasePermissionRight r => [.. Covering(r), .. RolesWith([r, .. Covering(r)]), .. AllDataRoles(r), new InstancePermissionRight(r.Instance, RoleAttributeNames.Superuser)],
        InstancePermissionRight => [.. Covering(needed), .. RolesWith([needed, .. Covering(needed)])],
        _ => [],
    };

    /// <summary>
    /// The permissions that cover one, nearest first: whoever is granted one of them has it too, and whoever is denied one of them
    /// is denied it too. For one on an object: the same on its schema and on the database; then the wider ones; then those of the instance.
    /// </summary>
    public static IReadOnlyList<Right> Covering(Right needed) => needed.Covering ??= FindCovering(needed);

    private static List<Right> FindCovering(Right needed)
    {
        if (needed is InstancePermissionRight at) return [.. SqlServerPermissions.AboveAtInstance(at.Permission).Select(p => new InstancePermissionRight(at.Instance, p))];
        if (needed is not DatabasePermissionRight r) return [];
        var found = new List<Right>();
        for (var on = r.On; on is not null; on = new DatabasePermissionRight(r.Instance, r.Database, r.Permission, on).Within)
        {
            if (on != r.On) found.Add(In(r.Permission, on));
            if (!Same(r.Permission, SqlServerPermissions.Control)) found.Add(In(SqlServerPermissions.Control, on));
        }

        if (r.On is not null) found.Add(In(r.Permission, null));
        var wider = SqlServerPermissions.AboveInDatabase(r.Permission).ToList();
        found.AddRange(wider.Select(p => In(p, null)));
        var atInstance = wider.Prepend(r.Permission).Select(p => SqlServerPermissions.OfDatabase(p)?.Above ?? SqlServerPermissions.ControlServer);
        found.AddRange(atInstance.SelectMany(p => SqlServerPermissions.AboveAtInstance(p).Prepend(p)).Distinct().Select(p => new InstancePermissionRight(r.Instance, p)));
        return found;

        DatabasePermissionRight In(string permission, string? on) => new(r.Instance, r.Database, permission, on);
    }

    /// <summary>What lets an account in where a right of a database instance holds: without it the right is of no use. The way into the instance first.</summary>
    public static IReadOnlyList<Right> Entrances(Right right) => right.Entrances ??= FindEntrances(right);

    private static IReadOnlyList<Right> FindEntrances(Right right) => right switch
    {
        InstanceRoleRight r => [new InstancePermissionRight(r.Instance, SqlServerPermissions.ConnectSql)],
        InstancePermissionRight r => [new InstancePermissionRight(r.Instance, SqlServerPermissions.ConnectSql)],
        DatabaseOwnerRight r => [new InstancePermissionRight(r.Instance, SqlServerPermissions.ConnectSql)],
        DatabaseRoleRight r => [new InstancePermissionRight(r.Instance, SqlServerPermissions.ConnectSql), new DatabasePermissionRight(r.Instance, r.Database, SqlServerPermissions.Connect, null)],
        DatabasePermissionRight r => [new InstancePermissionRight(r.Instance, SqlServerPermissions.ConnectSql), new DatabasePermissionRight(r.Instance, r.Database, SqlServerPermissions.Connect, null)],
        _ => [],
    };

    /// <summary>The predefined roles of the PostgreSQL family that stand for privileges on every table and schema.</summary>
    private static IEnumerable<Right> AllDataRoles(DatabasePermissionRight r)
    {
        if (r.On is null) yield break;
        if (r.Permission is "SELECT" or "USAGE") yield return new InstanceRoleRight(r.Instance, "pg_read_all_data");
        if (r.Permission is "INSERT" or "UPDATE" or "DELETE" or "USAGE") yield return new InstanceRoleRight(r.Instance, "pg_write_all_data");
    }

    /// <summary>The fixed roles that hold one of the permissions, then the all-powerful one.</summary>
    private static IEnumerable<Right> RolesWith(IReadOnlyList<Right> permissions)
    {
        foreach (var d in permissions.OfType<DatabasePermissionRight>().Take(1))
            foreach (var (role, holds) in SqlServerPermissions.DatabaseRoles)
                if (permissions.OfType<DatabasePermissionRight>().Any(p => p.On is null && holds.Contains(p.Permission))) yield return new DatabaseRoleRight(d.Instance, d.Database, role);
        foreach (var (role, holds) in SqlServerPermissions.InstanceRoles)
            if (permissions.OfType<InstancePermissionRight>().FirstOrDefault(p => holds.Contains(p.Permission)) is { } found) yield return new InstanceRoleRight(found.Instance, role);
        yield return new InstanceRoleRight(permissions[0] is InstancePermissionRight at ? at.Instance : ((DatabasePermissionRight)permissions[0]).Instance, AllPowerful);
    }

    private static IEnumerable<Right> AgentRolesAbove(DatabaseRoleRight r)
    {
        var at = Array.FindIndex(AgentRoles, a => Same(a, r.Role));
        return at < 0 ? [] : AgentRoles.Skip(at + 1).Select(a => new DatabaseRoleRight(r.Instance, r.Database, a));
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
