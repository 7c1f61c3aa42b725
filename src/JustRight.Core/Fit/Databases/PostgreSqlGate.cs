using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Rights;

namespace JustRight.Core.Fit.Databases;

/// <summary>What stands between an account and a right of an instance of the PostgreSQL family that it holds: nothing is ever denied there, but each door must be open.</summary>
internal static class PostgreSqlGate
{
    /// <summary>Why what the account holds does not count, or null when it gets in.</summary>
    public static string? WhyShut(Right right, string instance, Holdings holdings)
    {
        var login = new InstancePermissionRight(instance, RoleAttributeNames.Login);
        if (right != login && holdings.Of(login) is null) return $"it holds the right, and its role at {instance} lacks LOGIN";
        if (holdings.Of(new InstancePermissionRight(instance, RoleAttributeNames.Superuser)) is not null) return null;
        if (right is InstanceRoleRight role && holdings.Of(role) is { } held && held.Tails.All(t => t.Tail.Steps.Any(s => s.Name.StartsWith("SET ROLE ", StringComparison.Ordinal)))) return $"it is in {role.Role}, and has its rights only after SET ROLE";
        var database = right switch { DatabasePermissionRight p => p.Database, DatabaseOwnerRight o => o.Database, _ => null };
        if (database is null) return null;
        var connect = new DatabasePermissionRight(instance, database, SqlServerPermissions.Connect, null);
        if (right != connect && holdings.Of(connect) is null) return $"it holds the right, and lacks CONNECT on {right.Place}";
        return right is DatabasePermissionRight { Within: { } schema } && holdings.Of(new DatabasePermissionRight(instance, database, "USAGE", schema)) is null && holdings.Of(new InstanceRoleRight(instance, "pg_read_all_data")) is null
            ? $"it holds the right, and lacks USAGE on the schema {schema["SCHEMA::".Length..]}"
            : null;
    }
}
