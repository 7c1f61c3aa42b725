using JustRight.Core.Directory;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>
/// Entries of a database instance whose holder may hand the right on (<c>WITH GRANT OPTION</c>, <c>WITH ADMIN OPTION</c>). Taking one away takes
/// from others too what was handed on, or is refused; and giving it back would not bring those back. No step of ours does that.
/// </summary>
internal static class GrantedOn
{
    /// <summary>Whether the principal's own entry for a right is such a one.</summary>
    /// <param name="holder">The principal that the entry is for.</param>
    /// <param name="role">In the PostgreSQL family: the role that it is for.</param>
    public static bool Is(Right right, InstanceSnapshot instance, Sid holder, string? role) => instance.PostgreSql is { } catalog
        ? role is not null && Is(right, catalog, role)
        : right switch
        {
            InstancePermissionRight r => instance.Permissions.Any(p => IsEntry(p, holder, r.Permission, null)),
            DatabasePermissionRight r => instance.Databases.FirstOrDefault(d => Same(d.Name, r.Database))?.Permissions.Any(p => IsEntry(p, holder, r.Permission, r.On)) == true,
            _ => false,
        };

    private static bool Is(Right right, PostgreSqlCatalog catalog, string role) => right switch
    {
        InstanceRoleRight r => catalog.Memberships.Any(m => m.Member == role && m.Role == r.Role && m.Admin),
        DatabasePermissionRight r => catalog.Databases.FirstOrDefault(d => d.Name == r.Database) is { } database && EntriesOn(database, r.On).Any(e => e.Grantee == role && e.GrantOn && Same(e.Privilege, r.Permission)),
        _ => false,
    };

    private static IEnumerable<PrivilegeEntry> EntriesOn(PostgreSqlDatabase database, string? on) => on is null
        ? database.Entries
        : database.Schemas.Where(s => Same($"SCHEMA::{s.Name}", on)).SelectMany(s => s.Entries).Concat(database.Tables.Where(t => Same($"OBJECT::{t.Schema}.{t.Name}", on)).SelectMany(t => t.Entries));

    private static bool IsEntry(PermissionEntry entry, Sid holder, string permission, string? on) =>
        entry.State == PermissionState.GrantOn && entry.Role is null && entry.Holder == holder && Same(entry.Permission, permission) && (on is null ? entry.On is null : entry.On is not null && Same(entry.On, on));

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
