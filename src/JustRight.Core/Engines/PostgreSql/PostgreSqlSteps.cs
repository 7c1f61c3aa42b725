using JustRight.Core.Changes;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>The changes that give a right at an instance of the PostgreSQL family, and that take it away: to the role as which the account signs in.</summary>
internal static class PostgreSqlSteps
{
    /// <summary>Why no role can be made for an account that no rule of sign-in lets in.</summary>
    public static string NoWayIn(PlannedAccount account) => $"no sign-in rule of the server lets {account.Name} in by Kerberos or directory password: the DBA adds one first (pg_hba.conf and the name map)";

    /// <summary>The changes in order, each with the place it has among the steps; the role's name is empty when there can be none.</summary>
    public static IEnumerable<(int Order, InstanceChange Change, string? Why)> For(Right right, PostgreSqlCatalog catalog, PlannedAccount account, SurveyView view)
    {
        var instance = right.AtInstance!;
        var authority = new RoleAuthority(catalog);
        var names = new SignInNames(catalog, authority);
        var realm = view.Graph.IndexOf(account.Name) is >= 0 and var node && view.Graph.PrincipalOf(node) is { } found ? PostgreSqlGrants.RealmOf(found) : PostgreSqlGrants.RealmOf(account.Dn ?? "");
        var existing = names.Of(account.Name, realm).Select(n => n.Role).FirstOrDefault();
        var wanted = existing is null ? names.ForNewRole(account.Name, realm) : null;
        var role = existing ?? wanted?.Role ?? "";
        // A role that is there already is let in, and undoing shuts it out again: it is never dropped.
        if (!authority.Has(role, RoleAttributes.Login))
        {
            yield return catalog.Roles.Any(r => r.Name == role)
                ? (5, new GrantInstancePermission(instance, RoleAttributeNames.Login, role), "the role exists and may not sign in")
                : (5, new CreateLogin(instance, role), null);
        }

        if (role.Length == 0) yield break;
        if (wanted?.Into is { } into) yield return (6, new AddInstanceRoleMember(instance, into, role), "only its members may sign in");

        switch (right)
        {
            case InstanceRoleRight r:
                yield return (6, new AddInstanceRoleMember(instance, r.Role, role), null);
                break;
            case InstancePermissionRight { Permission: not RoleAttributeNames.Login } r:
                yield return (6, new GrantInstancePermission(instance, r.Permission, role), null);
                break;
            case DatabaseOwnerRight r:
                yield return (7, new ChangeDatabaseOwner(instance, r.Database, role, catalog.Databases.FirstOrDefault(d => d.Name == r.Database)?.Owner), null);
                break;
            case DatabasePermissionRight r:
                var database = catalog.Databases.FirstOrDefault(d => string.Equals(d.Name, r.Database, StringComparison.OrdinalIgnoreCase));
                if (database is not null && r.Permission != SqlServerPermissions.Connect && !authority.OnDatabase(role, database, SqlServerPermissions.Connect))
                    yield return (6, new GrantDatabasePermission(instance, database.Name, SqlServerPermissions.Connect, null, role), "without it nothing else there can be used");
                if (r.Within is { } schema && database?.Schemas.FirstOrDefault(s => $"SCHEMA::{s.Name}" == schema) is { } known && !authority.OnSchema(role, database, known, "USAGE"))
                    yield return (6, new GrantDatabasePermission(instance, database.Name, "USAGE", schema, role), "without it nothing in the schema can be used");
                yield return (7, new GrantDatabasePermission(instance, database?.Name ?? r.Database, r.Permission, r.On, role), null);
                break;
        }
    }

    /// <summary>What takes a right away from the role itself; null when it comes through another role, or by everybody's right.</summary>
    public static Change? TakeAway(Right right, string role, RightPath path)
    {
        if (path.Steps.Any(s => s.Kind == StepKind.Role && !s.Name.StartsWith("SET ROLE ", StringComparison.Ordinal))) return null;
        return right switch
        {
            InstanceRoleRight r => new RemoveInstanceRoleMember(r.Instance, r.Role, role),
            InstancePermissionRight r => new RevokeInstancePermission(r.Instance, r.Permission, role),
            DatabasePermissionRight r => new RevokeDatabasePermission(r.Instance, r.Database, r.Permission, r.On, role),
            _ => null,
        };
    }
}
