using System.Globalization;
using JustRight.Formats.SqlServer;

namespace JustRight.Connectors.SqlServer;

/// <summary>
/// What is asked of an instance of the SQL Server family: its documented catalog views, whole, with as few questions as can be.
/// </summary>
public static class SqlServerCatalog
{
    /// <summary>No text: by itself NULL would be a number where two of them are put together first.</summary>
    private const string Nothing = "CAST(NULL AS nvarchar(128))";

    /// <summary>
    /// Who is asked and who asks: release, edition, name of the instance, the reader's login, whether the reader sees every
    /// definition, and whether it may read jobs and their steps.
    /// </summary>
    public const string Instance =
        """
        SELECT CAST(SERVERPROPERTY(N'ProductVersion') AS nvarchar(128)), CAST(SERVERPROPERTY(N'Edition') AS nvarchar(128)), SUSER_SNAME(), HAS_PERMS_BY_NAME(NULL, NULL, N'VIEW ANY DEFINITION'), HAS_PERMS_BY_NAME(N'msdb.dbo.sysjobs', N'OBJECT', N'SELECT'), HAS_PERMS_BY_NAME(N'msdb.dbo.sysjobsteps', N'OBJECT', N'SELECT');
        """;

    /// <summary>
    /// Six answers: principals, members of roles, permissions, databases with whether the reader gets in and sees every
    /// definition, whether contained databases let their users in by themselves, and endpoints.
    /// </summary>
    public const string Principals =
        """
        SELECT p.principal_id, p.name, p.type, p.sid, p.is_disabled, p.owning_principal_id, p.is_fixed_role FROM sys.server_principals AS p;
        SELECT m.role_principal_id, m.member_principal_id FROM sys.server_role_members AS m;
        SELECT e.permission_name, e.state, e.grantee_principal_id, e.class, e.major_id FROM sys.server_permissions AS e;
        SELECT d.name, d.owner_sid, SUSER_SNAME(d.owner_sid), d.state_desc, HAS_DBACCESS(d.name), HAS_PERMS_BY_NAME(QUOTENAME(d.name), N'DATABASE', N'VIEW DEFINITION'), d.containment, d.is_trustworthy_on, d.is_db_chaining_on, CASE WHEN d.replica_id IS NULL THEN 0 ELSE 1 END FROM sys.databases AS d;
        SELECT c.name, CAST(c.value_in_use AS int) FROM sys.configurations AS c WHERE c.name = N'contained database authentication';
        SELECT t.endpoint_id, t.name, t.principal_id FROM sys.endpoints AS t;
        """;

    /// <summary>
    /// The jobs of the agent, with a row for each step in Transact-SQL that runs as the job's owner; one in no database runs in
    /// master.
    /// </summary>
    public const string Jobs =
        """
        SELECT j.name, j.owner_sid, SUSER_SNAME(j.owner_sid), j.enabled, s.step_id, s.database_name FROM msdb.dbo.sysjobs AS j
            LEFT JOIN msdb.dbo.sysjobsteps AS s ON s.job_id = j.job_id AND s.subsystem = N'TSQL' AND s.database_user_name IS NULL;
        """;

    /// <summary>
    /// Four answers of one database: principals, members of roles, permissions, and what somebody owns besides what dbo owns by
    /// coming with the database. What belongs to the engine itself has negative numbers; what a database comes with is owned by
    /// the first four principals, and its schemas have numbers from 16384 on.
    /// </summary>
    public static string Database(string database)
    {
        var sys = $"{TransactSql.Delimited(database)}.sys";
        return $"""
            SELECT p.principal_id, p.name, p.type, p.sid FROM {sys}.database_principals AS p;
            SELECT m.role_principal_id, m.member_principal_id FROM {sys}.database_role_members AS m;
            SELECT e.permission_name, e.state, e.grantee_principal_id, e.class, e.major_id, s.name, o.name, c.name FROM {sys}.database_permissions AS e
                LEFT JOIN {sys}.objects AS o ON e.class = 1 AND o.object_id = e.major_id
                LEFT JOIN {sys}.schemas AS s ON s.schema_id = CASE WHEN e.class = 3 THEN e.major_id ELSE o.schema_id END
                LEFT JOIN {sys}.columns AS c ON e.class = 1 AND e.minor_id > 0 AND c.object_id = e.major_id AND c.column_id = e.minor_id
                WHERE e.major_id >= 0;
            SELECT 3, t.name, {Nothing}, t.principal_id FROM {sys}.schemas AS t WHERE t.principal_id > 4 AND t.schema_id < 16384
            UNION ALL SELECT 1, s.name, t.name, t.principal_id FROM {sys}.objects AS t JOIN {sys}.schemas AS s ON s.schema_id = t.schema_id WHERE t.principal_id IS NOT NULL
            UNION ALL SELECT 4, t.name, {Nothing}, t.owning_principal_id FROM {sys}.database_principals AS t WHERE t.type = 'R' AND t.owning_principal_id > 4{Owned(sys)};
            """;
    }

    /// <summary>The names of things of a database by their class and number.</summary>
    public static string Names(string? database, IEnumerable<SqlServerThings> of)
    {
        var sys = database is null ? "sys" : $"{TransactSql.Delimited(database)}.sys";
        return string.Join("\nUNION ALL ", of.Select(t => string.Create(
            CultureInfo.InvariantCulture,
            $"SELECT {t.Number}, t.{t.Id}, {(t.InSchema ? "s.name" : Nothing)}, {t.Name} FROM {t.From(sys)}{t.With(sys)}"))) + ";";
    }

    /// <summary>Classes of things with few of them, whose owners are asked with the rest.</summary>
    private static string Owned(string sys) => string.Concat(
        SqlServerThings.InDatabase.Where(t => t is { Number: > 4, Owner: not null, Since: SqlServerThings.Oldest })
            .Select(t => string.Create(
                CultureInfo.InvariantCulture,
                $"\nUNION ALL SELECT {t.Number}, {(t.InSchema ? "s.name, t.name" : $"t.name, {Nothing}")}, t.{t.Owner} FROM {t.From(sys)}{t.With(sys)} WHERE t.{t.Owner} {(t.InSchema ? "IS NOT NULL" : "> 4")}")));

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
