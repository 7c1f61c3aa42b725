using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Estates;
using JustRight.Core.Rights;

namespace JustRight.Core.Plans;

/// <summary>
/// What a right at an instance asks of the instances that take over from it. A database comes over with its users, roles and
/// permissions; logins, what is granted at the instance, and the system databases do not.
/// </summary>
internal static class FailoverPartners
{
    private static readonly string[] SystemDatabases = ["master", "model", "msdb"];

    /// <summary>The rights that must hold at the partners of the right's instance, each with the partner; none for a right elsewhere.</summary>
    public static IEnumerable<(Right Right, EstateInstance Partner)> Of(Right right, EstateInstance instance, Estate estate) =>
        estate.PartnersOf(instance).Select(partner => (At(right, partner.Name), partner)).Where(p => p.Item1 is not null).Select(p => (p.Item1!, p.partner));

    private static Right? At(Right right, string partner) => right switch
    {
        InstanceRoleRight r => new InstanceRoleRight(partner, r.Role),
        InstancePermissionRight r => new InstancePermissionRight(partner, r.Permission),
        DatabaseRoleRight r when IsSystem(r.Database) => new DatabaseRoleRight(partner, r.Database, r.Role),
        DatabasePermissionRight r when IsSystem(r.Database) => new DatabasePermissionRight(partner, r.Database, r.Permission, r.On),
        DatabaseRoleRight or DatabasePermissionRight or DatabaseOwnerRight => new InstancePermissionRight(partner, SqlServerPermissions.ConnectSql),
        _ => null,
    };

    private static bool IsSystem(string database) => SystemDatabases.Contains(database, StringComparer.OrdinalIgnoreCase);
}
