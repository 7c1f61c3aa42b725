using System.Globalization;
using JustRight.Core.Surveys;
using JustRight.Formats.SqlServer;
using Microsoft.Data.Sqlite;

namespace JustRight.SimulatedInstance.Engine;

/// <summary>
/// The catalog of a simulated instance: the views that the engine documents, as tables in memory. Names compare as the instance's
/// collation says, by case or without. One statement at a time; a transaction holds the others off until it ends.
/// </summary>
internal sealed class Catalog : IDisposable
{
    /// <summary>The role everybody is in, at the instance and in a database.</summary>
    public const string Public = "public";

    /// <summary>Where an instance's own numbers for what is made later begin.</summary>
    private const int FirstFree = 300;
    private const string Collation = "engine";

    /// <summary>The database of the agent's jobs.</summary>
    public const string Jobs = "msdb";

    /// <summary>The tables of the agent's jobs, which questions may name.</summary>
    public static readonly string[] AgentTables = ["sysjobs", "sysjobsteps"];

    private static readonly (int Id, string Name)[] FixedServerRoles =
    [
        (2, Public), (3, "sysadmin"), (4, "securityadmin"), (5, "serveradmin"), (6, "setupadmin"), (7, "processadmin"), (8, "diskadmin"), (9, "dbcreator"), (10, "bulkadmin"),
    ];

    private static readonly (int Id, string Name)[] FixedDatabaseRoles =
    [
        (0, Public), (16384, "db_owner"), (16385, "db_accessadmin"), (16386, "db_securityadmin"), (16387, "db_ddladmin"), (16389, "db_backupoperator"),
        (16390, "db_datareader"), (16391, "db_datawriter"), (16392, "db_denydatareader"), (16393, "db_denydatawriter"),
    ];

    private readonly SqliteConnection _store = new("Data Source=:memory:");
    private int _next = FirstFree;

    public Catalog(bool caseSensitive)
    {
        CaseSensitive = caseSensitive;
        _store.Open();
        _store.CreateCollation(Collation, (a, b) => string.Compare(a, b, caseSensitive ? StringComparison.Ordinal : StringComparison.OrdinalIgnoreCase));
        Run($"""
            CREATE TABLE server_principals(principal_id int PRIMARY KEY, name nvarchar COLLATE {Collation} UNIQUE, type nvarchar, sid varbinary UNIQUE, is_disabled bit, is_fixed_role bit, owning_principal_id int);
            CREATE TABLE server_role_members(role_principal_id int, member_principal_id int, PRIMARY KEY(role_principal_id, member_principal_id));
            CREATE TABLE server_permissions(class int, major_id int, minor_id int, grantee_principal_id int, permission_name nvarchar, state nvarchar, PRIMARY KEY(class, major_id, grantee_principal_id, permission_name));
            CREATE TABLE databases(name nvarchar COLLATE {Collation} UNIQUE, database_id int PRIMARY KEY, owner_sid varbinary, state_desc nvarchar, containment int, is_trustworthy_on bit, is_db_chaining_on bit, replica_id nvarchar, secondary int);
            CREATE TABLE configurations(name nvarchar COLLATE {Collation} PRIMARY KEY, value_in_use int);
            CREATE TABLE endpoints(endpoint_id int PRIMARY KEY, name nvarchar COLLATE {Collation} UNIQUE, principal_id int);
            CREATE TABLE availability_groups(group_id int PRIMARY KEY, name nvarchar COLLATE {Collation} UNIQUE);
            CREATE TABLE availability_replicas(replica_metadata_id int PRIMARY KEY, group_id int);
            CREATE TABLE database_principals(db int, principal_id int, name nvarchar COLLATE {Collation}, type nvarchar, sid varbinary, is_fixed_role bit, owning_principal_id int, PRIMARY KEY(db, principal_id), UNIQUE(db, name));
            CREATE TABLE database_role_members(db int, role_principal_id int, member_principal_id int, PRIMARY KEY(db, role_principal_id, member_principal_id));
            CREATE TABLE database_permissions(db int, class int, major_id int, minor_id int, grantee_principal_id int, permission_name nvarchar, state nvarchar, PRIMARY KEY(db, class, major_id, minor_id, grantee_principal_id, permission_name));
            CREATE INDEX server_members ON server_role_members(member_principal_id);
            CREATE INDEX database_members ON database_role_members(db, member_principal_id);
            CREATE INDEX database_sids ON database_principals(db, sid);
            CREATE INDEX database_grantees ON database_permissions(db, grantee_principal_id);
            CREATE TABLE schemas(db int, schema_id int, name nvarchar COLLATE {Collation}, principal_id int, PRIMARY KEY(db, schema_id), UNIQUE(db, name));
            CREATE TABLE objects(db int, object_id int, schema_id int, name nvarchar COLLATE {Collation}, type nvarchar, principal_id int, PRIMARY KEY(db, object_id), UNIQUE(db, schema_id, name));
            CREATE TABLE extended_properties(db int, class int, name nvarchar COLLATE {Collation}, value nvarchar, PRIMARY KEY(db, class, name));
            CREATE TABLE sysjobs(job_id int PRIMARY KEY, name nvarchar COLLATE {Collation} UNIQUE, owner_sid varbinary, enabled int);
            CREATE TABLE sysjobsteps(job_id int, step_id int, subsystem nvarchar, database_name nvarchar, database_user_name nvarchar, PRIMARY KEY(job_id, step_id));
            CREATE TABLE columns(db int, object_id int, column_id int, name nvarchar COLLATE {Collation}, PRIMARY KEY(db, object_id, column_id));
            """);
        foreach (var things in OtherThings)
            Run($"CREATE TABLE {things.View}(db int, {things.Id} int, name nvarchar COLLATE {Collation}, schema_id int, principal_id int, PRIMARY KEY(db, {things.Id}), UNIQUE(db, schema_id, name))");
        Run("INSERT INTO configurations VALUES('contained database authentication', 0)");
        foreach (var (id, name) in FixedServerRoles) AddServerPrincipal(name, "R", [(byte)id], id);
        Run("INSERT INTO server_permissions VALUES(100, 0, 0, 2, 'VIEW ANY DATABASE', 'G')");
        foreach (var (id, name) in new[] { (1, "master"), (2, "tempdb"), (3, "model"), (4, "msdb") }) AddDatabase(name, [1], id);
    }

    /// <summary>Whether names that differ by case alone are different ones.</summary>
    public bool CaseSensitive { get; }

    /// <summary>Held by whoever runs a statement, and by a session from the beginning of its transaction to the end.</summary>
    public SemaphoreSlim Turn { get; } = new(1, 1);

    /// <summary>The store itself, for questions that were put into its words.</summary>
    public SqliteConnection Store => _store;

    /// <summary>Whether two names are one.</summary>
    public bool Same(string a, string b) => string.Equals(a, b, CaseSensitive ? StringComparison.Ordinal : StringComparison.OrdinalIgnoreCase);

    /// <summary>Makes changes.</summary>
    public int Run(string sql, params object?[] values)
    {
        using var command = Command(sql, values);
        return command.ExecuteNonQuery();
    }

    /// <summary>The first value of the first row, or null.</summary>
    public object? One(string sql, params object?[] values)
    {
        using var command = Command(sql, values);
        return command.ExecuteScalar() is { } found and not DBNull ? found : null;
    }

    /// <summary>A number of the first row, or null.</summary>
    public int? Number(string sql, params object?[] values) => One(sql, values) is { } found ? Convert.ToInt32(found, CultureInfo.InvariantCulture) : null;

    /// <summary>A principal of the instance by name.</summary>
    /// <param name="types">Such as <c>'U', 'G'</c>.</param>
    public int? ServerPrincipal(string name, string types) => Number($"SELECT principal_id FROM server_principals WHERE name = $1 AND type IN ({types})", name);

    /// <summary>A principal of a database by name.</summary>
    public int? DatabasePrincipal(int database, string name, string types) => Number($"SELECT principal_id FROM database_principals WHERE db = $1 AND name = $2 AND type IN ({types})", database, name);

    /// <summary>A database by name.</summary>
    public int? Database(string name) => Number("SELECT database_id FROM databases WHERE name = $1", name);

    /// <summary>Whether a database is a secondary replica here, and then whether it may be read; null when it is none.</summary>
    public bool? ReadableReplica(int database) => Number("SELECT secondary FROM databases WHERE database_id = $1", database) is { } readable
        ? readable == 1
        : null;

    /// <summary>Adds a principal to the instance.</summary>
    public int AddServerPrincipal(string name, string type, byte[] sid, int? id = null)
    {
        var number = id ?? NextNumber();
        Run("INSERT INTO server_principals VALUES($1, $2, $3, $4, 0, $5, 1)", number, name, type, sid, id is null ? 0 : 1);
        if (type != "R") Run("INSERT INTO server_permissions VALUES(100, 0, 0, $1, 'CONNECT SQL', 'G')", number);
        return number;
    }

    /// <summary>Adds a principal to a database. A user comes with the right to enter.</summary>
    public int AddDatabasePrincipal(int database, string name, string type, byte[]? sid, int? id = null)
    {
        var number = id ?? NextNumber();
        Run("INSERT INTO database_principals VALUES($1, $2, $3, $4, $5, $6, 1)", database, number, name, type, sid, id is null ? 0 : 1);
        if (type != "R" && (number != 2 || database != 3)) Run("INSERT INTO database_permissions VALUES($1, 0, 0, 0, $2, 'CONNECT', 'G')", database, number);
        return number;
    }

    /// <summary>Adds a database with what the engine puts into every one.</summary>
    public int AddDatabase(string name, byte[] owner, int? id = null)
    {
        var database = id ?? NextNumber();
        Run("INSERT INTO databases VALUES($1, $2, $3, 'ONLINE', 0, $4, 0, NULL, NULL)", name, database, owner, Same(name, Jobs) ? 1 : 0); // msdb is trusted as it comes
        foreach (var (role, called) in FixedDatabaseRoles) AddDatabasePrincipal(database, called, "R", null, role);
        AddDatabasePrincipal(database, "dbo", "S", owner, 1);
        AddDatabasePrincipal(database, "guest", "S", [0], 2);
        if (id is null or 3) Run("DELETE FROM database_permissions WHERE db = $1 AND grantee_principal_id = 2", database); // guests enter the engine's own databases alone
        Run("INSERT INTO database_role_members VALUES($1, 16384, 1)", database);
        Run("INSERT INTO schemas VALUES($1, 1, 'dbo', 1)", database);
        if (!Same(name, Jobs)) return database;
        var agents = new[] { "SQLAgentUserRole", "SQLAgentReaderRole", "SQLAgentOperatorRole" }.Select(r => AddDatabasePrincipal(database, r, "R", null)).ToArray();
        foreach (var table in AgentTables) Run("INSERT INTO objects VALUES($1, $2, 1, $3, 'U', NULL)", database, NextNumber(), table);
        for (var i = 1; i < agents.Length; i++) Run("INSERT INTO database_role_members VALUES($1, $2, $3)", database, agents[i - 1], agents[i]);
        return database;
    }

    /// <summary>The things of databases that have no table of their own here.</summary>
    public static IEnumerable<SqlServerThings> OtherThings => SqlServerThings.InDatabase.Where(t => t.Number > 4);

    /// <summary>Makes a thing of a database without the statement for it; an object in its schema with a column or several.</summary>
    public void AddThing(int database, SqlServerSecurable thing)
    {
        var things = SqlServerThings.Of(thing.Class);
        var schema = things.InSchema ? Number("SELECT schema_id FROM schemas WHERE db = $1 AND name = $2", database, thing.Schema) : null;
        if (things.InSchema && schema is null) throw EngineException.Missing("find", "schema", thing.Schema!);
        Run($"INSERT INTO {things.View} VALUES($1, $2, $3, $4, $5)", database, NextNumber(), thing.Name, schema, things.InSchema ? null : 1);
    }

    /// <summary>The class and number of a thing that permissions are on, or null when it is not there.</summary>
    public (int Class, int Major, int Minor)? Find(int? database, SqlServerSecurable thing)
    {
        var things = SqlServerThings.Of(thing.Class);
        var of = database is null ? "" : $" AND t.db = {database.Value.ToString(CultureInfo.InvariantCulture)}";
        var from = things.From("main") + (things.InSchema ? "" : things.With("main"));
        var only = things.Only is { } condition ? $" AND {condition}" : "";
        var major = things.InSchema
            ? Number($"SELECT t.{things.Id} FROM {from} JOIN schemas AS s ON s.db = t.db AND s.schema_id = t.schema_id WHERE s.name = $1 AND t.name = $2{of}", thing.Schema, thing.Name)
            : Number($"SELECT t.{things.Id} FROM {from} WHERE {things.Name} = $1{of}{only}", thing.Name);
        if (major is null) return null;
        if (thing.Column is null) return (things.Number, major.Value, 0);
        return Number("SELECT column_id FROM columns WHERE db = $1 AND object_id = $2 AND name = $3", database, major, thing.Column) is { } column
            ? (things.Number, major.Value, column)
            : null;
    }

    /// <summary>A number for what is made next; those of the fixed roles of databases are passed over.</summary>
    public int NextNumber()
    {
        if (_next == FixedDatabaseRoles[1].Id) _next = FixedDatabaseRoles[^1].Id + 1;
        return _next++;
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        _store.Dispose();
        Turn.Dispose();
    }

    // Every text given here is written in this project, or put together by the translator from a parsed statement with values
    // apart.
#pragma warning disable CA2100
    private SqliteCommand Command(string sql, object?[] values)
    {
        var command = _store.CreateCommand();
        command.CommandText = sql;
        for (var i = 0; i < values.Length; i++) command.Parameters.AddWithValue($"${i + 1}", values[i] ?? DBNull.Value);
        return command;
    }
#pragma warning restore CA2100
}
