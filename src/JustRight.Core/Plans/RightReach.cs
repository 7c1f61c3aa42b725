using JustRight.Core.Engines.Person;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Plans;

/// <summary>
/// What else an account could do with a right: the measure by which the plan prefers one alternative to another. Points say
/// only which is more; the reason says why.
/// </summary>
public static class RightReach
{
    /// <summary>From so many points on a right lets its holder become whatever there is in its database, or wider.</summary>
    public const int Ruling = 75;

    private static readonly Dictionary<string, (int Points, string Reason)> InstanceRoles = new(StringComparer.OrdinalIgnoreCase)
    {
        ["sysadmin"] = (800, "sysadmin can do anything on its instance, in every database"),
        ["securityadmin"] = (790, "securityadmin can make itself sysadmin"),
        ["serveradmin"] = (300, "serveradmin can stop and reconfigure the instance"),
        ["setupadmin"] = (250, "setupadmin can add linked servers"),
        ["processadmin"] = (250, "processadmin can end any session"),
        ["dbcreator"] = (200, "dbcreator can create, alter and restore databases"),
        ["diskadmin"] = (100, "diskadmin manages the instance's files"),
        ["bulkadmin"] = (100, "bulkadmin can load files the instance can read"),
    };

    private static readonly Dictionary<string, (int Points, string Reason)> DatabaseRoles = new(StringComparer.OrdinalIgnoreCase)
    {
        ["db_owner"] = (80, "db_owner can do anything in its database"),
        ["db_securityadmin"] = (75, "db_securityadmin can grant itself any right in its database"),
        ["db_accessadmin"] = (40, "db_accessadmin lets others in"),
        ["db_ddladmin"] = (40, "db_ddladmin changes the database's structure"),
    };

    private static readonly string[] DomainWide = ["Domain Admins", "Enterprise Admins", "Schema Admins", "Administrators", "Account Operators", "Server Operators", "Backup Operators"];

    /// <summary>The points of one right, and the reason.</summary>
    public static (int Points, string Reason) Of(Right right) => right switch
    {
        DomainGroupRight r when DomainWide.Contains(r.Group, StringComparer.OrdinalIgnoreCase) => (1000, $"{r.Group} controls the whole domain"),
        DomainGroupRight r => (50, $"the rights of {r.Group} are not known here"),
        InstanceRoleRight r when RoleAttributeNames.PredefinedRoles.TryGetValue(r.Role, out var predefined) => predefined,
        InstanceRoleRight r => InstanceRoles.GetValueOrDefault(r.Role, (60, $"{r.Role} is a role of the instance")),
        InstancePermissionRight r when RoleAttributeNames.All.TryGetValue(r.Permission, out var attribute) => (attribute.Points, $"{r.Permission} lets it {attribute.Lets}"),
        InstancePermissionRight r => SqlServerPermissions.OfInstance(r.Permission) is { } known ? (known.Points, $"{r.Permission} lets it {known.Lets}") : (100, $"the reach of {r.Permission} is not known here"),
        DatabasePermissionRight r => SqlServerPermissions.OfDatabase(r.Permission) is { } known ? (r.On is null ? known.Points : Math.Max(1, known.Points / 2), $"{r.Permission} lets it {known.Lets}{(r.On is null ? "" : $", on {r.On} only")}") : PrivilegeReach(r),
        DatabaseOwnerRight { Database: "msdb" } => (780, "the owner of msdb can run jobs as sysadmin"),
        DatabaseOwnerRight => (80, "the owner of a database can do anything in it, and drop it"),
        DatabaseRoleRight { Database: "msdb", Role: "db_owner" } => (780, "db_owner of msdb can run jobs as sysadmin"),
        DatabaseRoleRight r => DatabaseRoles.GetValueOrDefault(r.Role, (10, $"{r.Role} stays within its database")),
        LocalGroupRight r when string.Equals(r.Group, "Administrators", StringComparison.OrdinalIgnoreCase) => (500, "Administrators can do anything on its host"),
        LocalGroupRight r => (40, $"{r.Group} stays within its host"),
        DirectoryRight r => (DirectoryActs.ByAct[r.Act].Points, $"{r.Words} stays below {r.Branch}"),
        PrivilegeRight r => (Privileges.Points(r.Constant), $"{r.Constant} lets it {r.Words}"),
        ProductRoleRight r => (30, r.Lets.Count == 0 ? $"the rights of '{r.Identity}' are known only inside {r.Place}" : $"'{r.Identity}' lets it {string.Join(", ", r.Lets)} inside {r.Place}"),
        ServiceRight r => (5, $"{r.Service} is a service of its host"),
        LogonRight r => (5, $"{r.Words} stays within its host"),
        _ => (100, $"the reach of {right.Words} is not known here"),
    };

    private static (int Points, string Reason) PrivilegeReach(DatabasePermissionRight r) =>
        RoleAttributeNames.Privileges.TryGetValue(r.Permission, out var known) ? (known.Points, $"{r.Permission} lets it {known.Lets}{(r.On is null ? "" : $", on {r.On} only")}") : (20, $"{r.Words} stays within its database");

    /// <summary>The reach of several rights together: the widest counts first, the others only among equals.</summary>
    public static (int Points, string Reason) Of(IReadOnlyList<Right> rights)
    {
        if (rights.Count == 0) return (0, "nothing is needed");
        var each = rights.Select(Of).OrderByDescending(r => r.Points).ToList();
        return ((each[0].Points * 100) + Math.Min(99, each.Skip(1).Sum(r => r.Points) / 10), each[0].Reason);
    }
}
