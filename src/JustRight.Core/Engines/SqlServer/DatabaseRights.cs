using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>Membership of a role of a database instance.</summary>
public sealed class InstanceRoleRight(string instance, string role) : Right(NeedKind.InstanceRole, instance, role, $"instance-role:{role}@{instance}")
{
    /// <summary>The instance.</summary>
    public string Instance { get; } = instance;

    /// <summary>The role.</summary>
    public string Role { get; } = role;
}

/// <summary>Membership of a role in a database.</summary>
public sealed class DatabaseRoleRight(string instance, string database, string role)
    : Right(NeedKind.DatabaseRole, $"{instance}/{database}", role, $"database-role:{role}@{instance}/{database}")
{
    /// <summary>The instance.</summary>
    public string Instance { get; } = instance;

    /// <summary>The database.</summary>
    public string Database { get; } = database;

    /// <summary>The role.</summary>
    public string Role { get; } = role;
}

/// <summary>Ownership of a database.</summary>
public sealed class DatabaseOwnerRight(string instance, string database) : Right(NeedKind.DatabaseOwner, $"{instance}/{database}", "owner", $"database-owner:@{instance}/{database}")
{
    /// <summary>The instance.</summary>
    public string Instance { get; } = instance;

    /// <summary>The database.</summary>
    public string Database { get; } = database;
}

/// <summary>A permission at a database instance; in the PostgreSQL family, an attribute of a role.</summary>
public sealed class InstancePermissionRight(string instance, string permission)
    : Right(NeedKind.InstancePermission, instance, permission.ToUpperInvariant(), $"instance-permission:{permission}@{instance}")
{
    /// <summary>The instance.</summary>
    public string Instance { get; } = instance;

    /// <summary>The permission, such as <c>VIEW SERVER STATE</c>.</summary>
    public string Permission { get; } = permission.ToUpperInvariant();
}

/// <summary>A permission in a database: on the database itself, on a schema of it, or on an object of a schema.</summary>
/// <param name="on"><c>SCHEMA::name</c>, <c>OBJECT::schema.name</c>, or null for the database itself.</param>
public sealed class DatabasePermissionRight(string instance, string database, string permission, string? on)
    : Right(NeedKind.DatabasePermission, $"{instance}/{database}", WordsOf(permission, on), $"database-permission:{WordsOf(permission, on)}@{instance}/{database}")
{
    private const string Schema = "SCHEMA::";
    private const string Object = "OBJECT::";

    /// <summary>The instance.</summary>
    public string Instance { get; } = instance;

    /// <summary>The database.</summary>
    public string Database { get; } = database;

    /// <summary>The permission, such as <c>EXECUTE</c>.</summary>
    public string Permission { get; } = permission.ToUpperInvariant();

    /// <summary>What within the database it is on, or null for the database itself.</summary>
    public string? On { get; } = on;

    /// <summary>The next wider thing within the database that <see cref="On"/> lies in: an object's schema; null for the database itself.</summary>
    public string? Within =>
        On is null || !On.StartsWith(Object, StringComparison.OrdinalIgnoreCase) || On.IndexOf('.', StringComparison.Ordinal) is not (> 0 and var dot) ? null : Schema + On[Object.Length..dot];

    /// <summary>Reads a sheet's words: <c>EXECUTE</c>, <c>EXECUTE on SCHEMA::reports</c>.</summary>
    public static DatabasePermissionRight Parse(string instance, string database, string text)
    {
        var at = text.IndexOf(" on ", StringComparison.OrdinalIgnoreCase);
        return at < 0 ? new DatabasePermissionRight(instance, database, text.Trim(), null) : new DatabasePermissionRight(instance, database, text[..at].Trim(), text[(at + 4)..].Trim());
    }

    private static string WordsOf(string permission, string? on) => on is null ? permission.ToUpperInvariant() : $"{permission.ToUpperInvariant()} on {on}";
}
