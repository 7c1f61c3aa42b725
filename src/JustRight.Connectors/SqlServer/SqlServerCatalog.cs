using JustRight.Formats.Databases;

namespace JustRight.Connectors.SqlServer;

/// <summary>
/// What is asked of an instance of the SQL Server family: its documented catalog views, whole, with as few questions as can be.
/// </summary>
public static class SqlServerCatalog
{
    /// <summary>
    /// Who is asked and who asks: release, edition, name of the instance, the reader's login, and whether the reader sees every
    /// definition.
    /// </summary>
    public const string Instance =
        """
        SELECT CAST(SERVERPROPERTY(N'ProductVersion') AS nvarchar(128)), CAST(SERVERPROPERTY(N'Edition') AS nvarchar(128)), SUSER_SNAME(), HAS_PERMS_BY_NAME(NULL, NULL, N'VIEW ANY DEFINITION');
        """;

    /// <summary>
    /// Four answers: principals, members of roles, permissions of the instance itself, and databases with whether the reader
    /// gets in and sees every definition.
    /// </summary>
    public const string Principals =
        """
        SELECT p.principal_id, p.name, p.type, p.sid, p.is_disabled FROM sys.server_principals AS p;
        SELECT m.role_principal_id, m.member_principal_id FROM sys.server_role_members AS m;
        SELECT e.permission_name, e.state, e.grantee_principal_id FROM sys.server_permissions AS e WHERE e.class = 100;
        SELECT d.name, d.owner_sid, SUSER_SNAME(d.owner_sid), d.state_desc, HAS_DBACCESS(d.name), HAS_PERMS_BY_NAME(QUOTENAME(d.name), N'DATABASE', N'VIEW DEFINITION') FROM sys.databases AS d;
        """;

    /// <summary>
    /// Three answers of one database: principals, members of roles, and permissions on the database, on schemas and on objects.
    /// What belongs to the engine itself has negative numbers.
    /// </summary>
    public static string Database(string database)
    {
        var sys = $"{TransactSql.Delimited(database)}.sys";
        return $"""
            SELECT p.principal_id, p.name, p.type, p.sid FROM {sys}.database_principals AS p;
            SELECT m.role_principal_id, m.member_principal_id FROM {sys}.database_role_members AS m;
            SELECT e.permission_name, e.state, e.grantee_principal_id, e.class, s.name, o.name FROM {sys}.database_permissions AS e
                LEFT JOIN {sys}.objects AS o ON e.class = 1 AND o.object_id = e.major_id
                LEFT JOIN {sys}.schemas AS s ON s.schema_id = CASE WHEN e.class = 3 THEN e.major_id ELSE o.schema_id END
                WHERE e.class IN (0, 1, 3) AND e.major_id >= 0 AND e.minor_id = 0;
            """;
    }

    /// <summary>
    /// The names of a principal of the instance, and of one of a database, by SID: they may differ from what the directory
    /// calls it.
    /// </summary>
    /// <param name="database">The database, or null for the instance.</param>
    /// <param name="sid">The SID's bytes.</param>
    public static string NameOf(string? database, ReadOnlySpan<byte> sid) =>
        $"SELECT p.name FROM {View(database, "principals")} AS p WHERE p.sid = 0x{Convert.ToHexString(sid)} AND p.type IN ('U', 'G');";

    /// <summary>The SID of the Windows principal of a name, as a principal of the instance or of a database.</summary>
    public static string SidOf(string? database, string name) =>
        $"SELECT p.sid FROM {View(database, "principals")} AS p WHERE p.name = {TransactSql.Literal(name)} AND p.type IN ('U', 'G');";

    /// <summary>The names of all roles.</summary>
    public static string Roles(string? database) => $"SELECT p.name FROM {View(database, "principals")} AS p WHERE p.type = 'R';";

    /// <summary>Whether a condition is true: one row with 1 or 0.</summary>
    public static string Ask(string condition) => $"SELECT CASE WHEN {condition} THEN 1 ELSE 0 END;";

    private static string View(string? database, string what) => database is null ? $"sys.server_{what}" : $"{TransactSql.Delimited(database)}.sys.database_{what}";
}
