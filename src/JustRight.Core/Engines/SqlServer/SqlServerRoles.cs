using JustRight.Core.Rights;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>The fixed roles that hold permissions.</summary>
internal static class SqlServerRoles
{
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
