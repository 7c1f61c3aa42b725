using System.Collections.Frozen;
using JustRight.Core.Hosts;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>
/// The attributes of roles as a sheet asks for them, <c>instance-permission: CREATEDB</c>, and as statements write them.
/// </summary>
public static class RoleAttributeNames
{
    /// <summary>What lets a role sign in.</summary>
    public const string Login = "LOGIN";

    /// <summary>What makes every check go away.</summary>
    public const string Superuser = "SUPERUSER";

    /// <summary>What lets a role see rows that policies hide.</summary>
    public const string SeesAllRows = "BYPASSRLS";

    /// <summary>
    /// What lets a role have at once what its roles have. Every role has it from its making on, so it is told of none.
    /// </summary>
    public const string Inherits = "INHERIT";

    /// <summary>The predefined role that reads every table, and so uses every schema.</summary>
    public const string ReadsAllData = "pg_read_all_data";

    /// <summary>The predefined role that writes every table, and so uses every schema.</summary>
    public const string WritesAllData = "pg_write_all_data";

    /// <summary>Every attribute by its word, with how far it reaches and what it lets its holder do.</summary>
    public static FrozenDictionary<string, (
        RoleAttributes Attribute, string Column, int Points, string Lets)> All
    { get; } = new Dictionary<string, (
        RoleAttributes, string, int, string)>
    {
        [Superuser] = (RoleAttributes.Superuser, "rolsuper", 800, "do anything on its instance, in every database"),
        ["CREATEROLE"] = (RoleAttributes.CreateRole, "rolcreaterole", 700, "make roles and change others"),
        ["CREATEDB"] = (RoleAttributes.CreateDatabase, "rolcreatedb", 120, "create databases"),
        ["REPLICATION"] = (RoleAttributes.Replication, "rolreplication", 400, "copy all data of the instance"),
        [SeesAllRows] = (RoleAttributes.BypassRowSecurity, "rolbypassrls", 150, "see rows that policies hide"),
        [Login] = (RoleAttributes.Login, "rolcanlogin", 1, "sign in"),
    }.ToFrozenDictionary(StringComparer.Ordinal);

    /// <summary>
    /// The predefined roles that reach farther than a role of the organization's own [PostgreSQL, Predefined Roles].
    /// </summary>
    public static FrozenDictionary<string, (
        int Points, string Reason)> PredefinedRoles
    { get; } = new Dictionary<string, (int, string)>
    {
        ["pg_execute_server_program"] = (
            790, "pg_execute_server_program runs programs as the server's own account, and so can gain full control"),
        ["pg_write_server_files"] = (780, "pg_write_server_files can overwrite the server's own files, and so gain full control"),
        ["pg_read_server_files"] = (400, "pg_read_server_files can read any file of the server"),
        [WritesAllData] = (350, "pg_write_all_data writes every table of every database it can enter"),
        [ReadsAllData] = (300, "pg_read_all_data reads every table of every database it can enter"),
        ["pg_signal_backend"] = (100, "pg_signal_backend ends other sessions"),
        ["pg_monitor"] = (30, "pg_monitor sees settings and what others run"),
        ["pg_read_all_settings"] = (20, "pg_read_all_settings sees every setting"),
        ["pg_read_all_stats"] = (25, "pg_read_all_stats sees what others run"),
        ["pg_checkpoint"] = (20, "pg_checkpoint writes everything to disk at once"),
    }.ToFrozenDictionary(StringComparer.OrdinalIgnoreCase);

    /// <summary>The column of the catalog that shows an attribute, and its word; null for what is none.</summary>
    public static (string Word, string Column)? Find(string attribute)
    {
        var word = attribute.ToUpperInvariant();
        return word == Inherits ? (word, "rolinherit") : All.TryGetValue(word, out var known) ? (word, known.Column) : null;
    }

    /// <summary>How far a privilege on a database, a schema or a table reaches.</summary>
    public static FrozenDictionary<string, (int Points, string Lets)> Privileges { get; } = new Dictionary<string, (int, string)>
    {
        ["CONNECT"] = (1, "connect"),
        ["TEMPORARY"] = (2, "create temporary tables"),
        ["CREATE"] = (30, "create objects of its own there"),
        ["USAGE"] = (1, "use objects there that it has rights on"),
        ["TRUNCATE"] = (15, "empty tables"),
        ["TRIGGER"] = (15, "run its own code when others write"),
        ["SELECT"] = (7, "read data"),
        ["INSERT"] = (7, "add data"),
        ["UPDATE"] = (10, "change data"),
        ["DELETE"] = (10, "delete data"),
        ["REFERENCES"] = (2, "refer to tables"),
        ["EXECUTE"] = (5, "call routines"),
        ["MAINTAIN"] = (5, "vacuum, analyze and lock tables"),
    }.ToFrozenDictionary(StringComparer.OrdinalIgnoreCase);
}
