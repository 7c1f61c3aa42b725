using JustRight.Core.Rights;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>The fixed roles that hold permissions.</summary>
internal static class SqlServerRoles
{
    private const string Jobs = "msdb";

    private static readonly HashSet<string> OfInstance = new(
        [SqlServerRight.AllPowerful, .. SqlServerPermissions.InstanceRoles.Select(r => r.Role)],
        StringComparer.OrdinalIgnoreCase);

    private static readonly HashSet<string> OfDatabase = new(
        SqlServerPermissions.DatabaseRoles.Select(r => r.Role), StringComparer.OrdinalIgnoreCase);

    /// <summary>The roles that an instance comes with in its database of jobs.</summary>
    private static readonly HashSet<string> OfJobs = new(
        [
            "DatabaseMailUserRole", "db_ssisadmin", "db_ssisltduser", "db_ssisoperator", "dc_admin", "dc_operator", "dc_proxy",
            "PolicyAdministratorRole", "ServerGroupAdministratorRole", "ServerGroupReaderRole", "SQLAgentOperatorRole",
            "SQLAgentReaderRole", "SQLAgentUserRole", "TargetServersRole", "UtilityCMRReader", "UtilityIMRReader",
            "UtilityIMRWriter",
        ],
        StringComparer.OrdinalIgnoreCase);

    /// <summary>Whether an instance comes with a role.</summary>
    public static bool IsFixed(string role) => OfInstance.Contains(role);

    /// <summary>Whether a database comes with a role; those that deny are not among these.</summary>
    public static bool IsFixedIn(string database, string role) => OfDatabase.Contains(role)
        || (string.Equals(database, Jobs, StringComparison.OrdinalIgnoreCase) && OfJobs.Contains(role));

    /// <summary>The fixed roles of an instance that hold one of some permissions at it.</summary>
    public static IEnumerable<Right> With(string instance, IReadOnlyList<InstancePermissionRight> permissions) =>
        from role in SqlServerPermissions.InstanceRoles
        where permissions.Any(p => role.Permissions.Contains(p.Permission))
        select new InstanceRoleRight(instance, role.Role);

    /// <summary>The fixed roles of a database that hold one of some permissions on it as a whole.</summary>
    public static IEnumerable<Right> With(string instance, string database, IReadOnlyList<DatabasePermissionRight> permissions) =>
        from role in SqlServerPermissions.DatabaseRoles
        where permissions.Any(p => p.On is null && role.Permissions.Contains(p.Permission))
        select new DatabaseRoleRight(instance, database, role.Role);
}
