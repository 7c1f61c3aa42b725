using System.Security.Cryptography;
using System.Text;
using JustRight.Core.Surveys;

namespace JustRight.SimulatedInstance.Engine;

/// <summary>What a simulated instance is born with.</summary>
/// <param name="Name">What it calls itself.</param>
/// <param name="Release">Such as <c>16.0</c>.</param>
/// <param name="CaseSensitive">Whether its collation tells case apart.</param>
/// <param name="Domain">Looks a name of the domain up; null when there is none.</param>
public sealed record SimulatedBirth(string Name, string Release, bool CaseSensitive, Func<string, DomainPrincipal?> Domain);

/// <summary>
/// A simulated instance of the SQL Server family: logins, roles, permissions, databases and their catalog, no tables' rows. It
/// runs the
/// statements that our connector and scripts use, after the engine maker's own parser has read them, and refuses what the
/// engine refuses.
/// </summary>
public sealed class SimulatedEngine : IDisposable
{
    /// <summary>The login that may do everything.</summary>
    public const string Administrator = "sa";

    private readonly Dictionary<string, byte[]> _passwords = new(StringComparer.OrdinalIgnoreCase);
    private string _asking = "";
    private Powers? _powers;

    /// <summary>Starts empty: the engine's own databases, and a login that may do everything.</summary>
    public SimulatedEngine(SimulatedBirth birth, string administratorPassword)
    {
        Birth = birth;
        Catalog = new Catalog(birth.CaseSensitive);
        Catalog.AddServerPrincipal(Administrator, "S", [1], 1);
        Catalog.Run("INSERT INTO server_role_members VALUES(3, 1)");
        _passwords[Administrator] = Hash(administratorPassword);
        AddFunctions();
    }

    /// <summary>What it was born with.</summary>
    public SimulatedBirth Birth { get; }

    /// <summary>The catalog.</summary>
    internal Catalog Catalog { get; }

    /// <summary>Adds a login of the engine's own, with a password.</summary>
    public void AddLogin(string name, string password)
    {
        var sid = RandomNumberGenerator.GetBytes(16);
        sid[0] = 2; // never the form of a domain's SID
        Catalog.AddServerPrincipal(name, "S", sid);
        _passwords[name] = Hash(password);
    }

    /// <summary>Makes a thing of a database without the statement for it, such as <c>CERTIFICATE::backup</c>.</summary>
    public void AddThing(string database, string thing) => Catalog.AddThing(
        Catalog.Database(database) ?? throw EngineException.Missing("find", "database", database),
        SqlServerSecurable.TryParse(thing) ?? throw new ArgumentException($"'{thing}' names nothing.", nameof(thing)));

    /// <summary>Makes an endpoint, or an availability group with a replica, without the statement for it.</summary>
    public void AddAtInstance(string thing)
    {
        var named = SqlServerSecurable.TryParse(thing);
        var id = Catalog.NextNumber();
        if (named?.Class == SqlServerClass.Endpoint)
        {
            Catalog.Run("INSERT INTO endpoints VALUES($1, $2, 1)", id, named.Name);
            return;
        }

        if (named?.Class != SqlServerClass.AvailabilityGroup) throw new ArgumentException($"'{thing}' names neither.", nameof(thing));
        Catalog.Run("INSERT INTO availability_groups VALUES($1, $2)", id, named.Name);
        Catalog.Run("INSERT INTO availability_replicas VALUES($1, $2)", Catalog.NextNumber(), id);
    }

    /// <summary>Makes a job of the agent, without the procedures for it.</summary>
    /// <param name="owner">A login.</param>
    /// <param name="isOn">Whether it runs by its schedules.</param>
    /// <param name="steps">Of each step its subsystem, its database, and the user it runs as, or null for the job's owner.</param>
    public void AddJob(
        string name, string owner, bool isOn, params ReadOnlySpan<(string Subsystem, string? Database, string? User)> steps)
    {
        var id = Catalog.NextNumber();
        var sid = Catalog.One("SELECT sid FROM server_principals WHERE name = $1", owner)
            ?? throw EngineException.Missing("find", "login", owner);
        Catalog.Run("INSERT INTO sysjobs VALUES($1, $2, $3, $4)", id, name, sid, isOn ? 1 : 0);
        for (var i = 0; i < steps.Length; i++)
            Catalog.Run(
                "INSERT INTO sysjobsteps VALUES($1, $2, $3, $4, $5)", id, i + 1, steps[i].Subsystem, steps[i].Database,
                steps[i].User);
    }

    /// <summary>How a database is set: contained, trusted by the instance, open to chains of ownership.</summary>
    public void Set(string database, bool contained = false, bool trusted = false, bool chained = false) => Catalog.Run(
        "UPDATE databases SET containment = $2, is_trustworthy_on = $3, is_db_chaining_on = $4 WHERE name = $1", database,
        contained ? 1 : 0, trusted ? 1 : 0, chained ? 1 : 0);

    /// <summary>Makes a database a secondary replica of an availability group.</summary>
    public void MakeReplica(string database, bool readable) => Catalog.Run(
        "UPDATE databases SET replica_id = 'replica', secondary = $2 WHERE name = $1", database, readable ? 1 : 0);

    /// <summary>Whether contained databases let their users in by themselves.</summary>
    public void AdmitContained(bool admit) => Catalog.Run("UPDATE configurations SET value_in_use = $1", admit ? 1 : 0);

    /// <summary>The number of its release.</summary>
    internal int Release => int.Parse(Birth.Release.Split('.')[0], System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>Runs a script as the login that may do everything, to set the scene. Batches end at lines with GO.</summary>
    /// <exception cref="EngineException">It refuses a statement.</exception>
    public void Run(string script) => Run(script, Administrator);

    /// <summary>Runs a script as a login. Batches end at lines with GO.</summary>
    /// <returns>The rows of the last answer, their values as text.</returns>
    /// <exception cref="EngineException">It refuses a statement.</exception>
    public IReadOnlyList<IReadOnlyList<string>> Run(string script, string login)
    {
        using var session = new EngineSession(this, login);
        return [.. session.Batch(script).LastOrDefault(a => a.Columns.Count > 0)?.Rows.Select(row =>
            row.Select(v => v?.ToString() ?? "").ToList())
            ?? []];
    }

    /// <summary>Runs a script as the login that may do everything, and goes on with the next batch after an error.</summary>
    public void RunOn(string script)
    {
        using var session = new EngineSession(this, Administrator);
        session.GoOn(script);
    }

    /// <summary>Everything the catalog holds, in a fixed order, one line for each row: two that are equal say so.</summary>
    public string Dump()
    {
        var text = new StringBuilder();
        foreach (var table in new[] { "server_principals", "server_role_members", "server_permissions", "databases", "database_principals", "database_role_members", "database_permissions", "schemas", "objects", "extended_properties" })
        {
            // Numbers are given anew to what is made again: what they stand for is compared.
            var question = table switch
            {
                "server_principals" => "SELECT name, type, hex(sid), is_disabled FROM server_principals",
                "server_role_members" =>
                    "SELECT r.name, p.name FROM server_role_members AS m JOIN server_principals AS r ON r.principal_id = m.role_principal_id JOIN server_principals AS p ON p.principal_id = m.member_principal_id",
                "server_permissions" =>
                    "SELECT e.class, e.major_id, p.name, e.permission_name, e.state FROM server_permissions AS e JOIN server_principals AS p ON p.principal_id = e.grantee_principal_id",
                "databases" => "SELECT name, hex(owner_sid), state_desc FROM databases",
                "database_principals" =>
                    "SELECT d.name, p.name, p.type, hex(p.sid) FROM database_principals AS p JOIN databases AS d ON d.database_id = p.db",
                "database_role_members" =>
                    "SELECT d.name, r.name, p.name FROM database_role_members AS m JOIN databases AS d ON d.database_id = m.db JOIN database_principals AS r ON r.db = m.db AND r.principal_id = m.role_principal_id JOIN database_principals AS p ON p.db = m.db AND p.principal_id = m.member_principal_id",
                "database_permissions" =>
                    "SELECT d.name, e.class, e.major_id, e.minor_id, p.name, e.permission_name, e.state FROM database_permissions AS e JOIN databases AS d ON d.database_id = e.db JOIN database_principals AS p ON p.db = e.db AND p.principal_id = e.grantee_principal_id",
                "schemas" => "SELECT d.name, s.name, s.principal_id FROM schemas AS s JOIN databases AS d ON d.database_id = s.db",
                "extended_properties" =>
                    "SELECT d.name, x.name, x.value FROM extended_properties AS x JOIN databases AS d ON d.database_id = x.db",
                _ => "SELECT d.name, o.name FROM objects AS o JOIN databases AS d ON d.database_id = o.db",
            };
            using var command = Catalog.Store.CreateCommand();
#pragma warning disable CA2100 // one of the texts above
            command.CommandText = question;
#pragma warning restore CA2100
            using var reader = command.ExecuteReader();
            var rows = new List<string>();
            while (reader.Read())
                rows.Add($"{table}: {string.Join(" | ", Enumerable.Range(0, reader.FieldCount).Select(i => reader.IsDBNull(i) ? "" : reader.GetString(i)))}");
            foreach (var row in rows.Order(StringComparer.Ordinal)) text.AppendLine(row);
        }

        return text.ToString();
    }

    /// <inheritdoc/>
    public void Dispose() => Catalog.Dispose();

    /// <summary>Whether name and password are right, and the login is let in.</summary>
    internal bool Admits(string login, string password) =>
        _passwords.TryGetValue(login, out var kept) && CryptographicOperations.FixedTimeEquals(kept, Hash(password))
        && Catalog.One(
            "SELECT 1 FROM server_principals AS p JOIN server_permissions AS e ON e.grantee_principal_id = p.principal_id WHERE p.name = $1 AND p.is_disabled = 0 AND e.permission_name = 'CONNECT SQL' AND e.state IN ('G', 'W')",
            login) is not null;

    /// <summary>Who asks: the catalog's functions answer for the session whose turn it is.</summary>
    internal void Asks(string login, Powers powers) => (_asking, _powers) = (login, powers);

    private void AddFunctions()
    {
        var store = Catalog.Store;
        store.CreateFunction("fn_SERVERPROPERTY", (string property) => property.ToUpperInvariant() switch
        {
            "PRODUCTVERSION" => Birth.Release.Count(c => c == '.') >= 2 ? Birth.Release : $"{Birth.Release}.1000.0",
            "EDITION" => "Simulated Edition (no real engine)",
            "SERVERNAME" => Birth.Name,
            _ => null,
        });
        store.CreateFunction("fn_SUSER_SNAME", () => _asking);
        store.CreateFunction(
            "fn_SUSER_SNAME",
            (byte[]? sid) =>
                sid is null ? null : Catalog.One("SELECT name FROM server_principals WHERE sid = $1", sid) as string);
        store.CreateFunction("fn_QUOTENAME", (string name) => $"[{name.Replace("]", "]]", StringComparison.Ordinal)}]");
        store.CreateFunction(
            "fn_HAS_DBACCESS",
            (string name) => Catalog.Database(name) is { } database ? _powers!.UserIn(database) is null ? 0 : 1 : (int?)null);
        store.CreateFunction(
            "fn_HAS_PERMS_BY_NAME",
            (string? securable, string? kind, string permission) => HasPermission(securable, kind, permission));
    }

    private int? HasPermission(string? securable, string? kind, string permission)
    {
        if (securable is null && kind is null) return _powers!.At(permission) ? 1 : 0;
        if (securable is not null && permission == "SELECT" && string.Equals(kind, "OBJECT", StringComparison.OrdinalIgnoreCase))
            return securable.Split('.') is [Catalog.Jobs, "dbo", var table] && Catalog.AgentTables.Contains(table)
                ? _powers!.Reads(Catalog.Database(Catalog.Jobs)!.Value, table) ? 1 : 0
                : null;
        if (securable is null || !string.Equals(kind, "DATABASE", StringComparison.OrdinalIgnoreCase)
            || permission != "VIEW DEFINITION")
            return null;
        return Catalog.Database(securable[1..^1].Replace("]]", "]", StringComparison.Ordinal)) is { } database
            && _powers!.UserIn(database) is not null ? _powers.SeesDefinitionsIn(database) ? 1
            : 0
            : null;
    }

    private static byte[] Hash(string password) => SHA256.HashData(Encoding.UTF8.GetBytes(password));
}
