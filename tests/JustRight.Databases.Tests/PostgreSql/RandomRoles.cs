using System.Globalization;
using JustRight.Core.Engines.PostgreSql;

namespace JustRight.Databases.Tests.PostgreSql;

/// <summary>Statements that make a random world of roles, memberships, databases, schemas, tables and grants, with the same seed always the same.</summary>
internal sealed class RandomRoles(int seed)
{
    private static readonly string[] Attributes = ["SUPERUSER", "CREATEROLE", "CREATEDB", "REPLICATION", "BYPASSRLS"];
    private static readonly string[] Predefined = ["pg_read_all_data", "pg_write_all_data", "pg_monitor", "pg_signal_backend"];
    private readonly Random _random = new(seed);

    public IReadOnlyList<string> Roles { get; } = [.. Enumerable.Range(0, 12).Select(i =>
        string.Create(CultureInfo.InvariantCulture, $"r{i} of {seed}"))];

    public IReadOnlyList<string> Databases { get; } = [.. Enumerable.Range(0, 2).Select(i =>
        string.Create(CultureInfo.InvariantCulture, $"d{i} of {seed}"))];

    private static readonly string[] Schemas = ["s0", "s 1", "S2"];
    private static readonly string[] Tables = ["t0", "T 1"];
    private static readonly string[] TablePrivileges =
        ["INSERT", "SELECT", "UPDATE", "DELETE", "TRUNCATE", "REFERENCES", "TRIGGER"];
    private static readonly string[] Parameters = ["log_statement", "log_min_duration_statement", "fenn.moor"];

    public static string Q(string name) => $"\"{name.Replace("\"", "\"\"", StringComparison.Ordinal)}\"";

    /// <summary>Of the instance.</summary>
    public IEnumerable<string> AtInstance()
    {
        foreach (var role in Roles)
            yield return $"CREATE ROLE {Q(role)} {(Chance(0.5) ? "LOGIN" : "NOLOGIN")} {(Chance(0.65) ? "INHERIT" : "NOINHERIT")} {string.Join(' ', Attributes.Where(a => Chance(a == "SUPERUSER" ? 0.06 : 0.15)))} PASSWORD '{PostgreSqlServer.Password}'{(Chance(0.08) ? " CONNECTION LIMIT 0" : "")}";
        for (var i = 0; i < 16; i++)
        {
            var (a, b) = (_random.Next(Roles.Count), _random.Next(Roles.Count));
            // downwards alone: the engine allows no ring
            if (a != b)
                yield return $"GRANT {Q(Roles[Math.Max(a, b)])} TO {Q(Roles[Math.Min(a, b)])} {(Chance(0.3) ? "WITH ADMIN OPTION" : "")}";
        }

        foreach (var predefined in Predefined.Where(_ => Chance(0.8))) yield return $"GRANT {predefined} TO {Q(Any())}";
        foreach (var database in Databases)
        {
            yield return $"CREATE DATABASE {Q(database)} OWNER {Q(Any())}{(Chance(0.1) ? " CONNECTION LIMIT 0" : "")}";
            if (Chance(0.5)) yield return $"REVOKE ALL ON DATABASE {Q(database)} FROM PUBLIC";
            for (var i = 0; i < 3; i++)
                yield return $"GRANT {Pick("CONNECT", "CREATE", "TEMPORARY", "ALL")} ON DATABASE {Q(database)} TO {Grantee()}";
            if (Chance(0.3)) yield return $"REVOKE CONNECT ON DATABASE {Q(database)} FROM {Q(Any())}";
        }

        for (var i = 0; i < 4; i++)
            yield return $"GRANT {Pick("SET", "ALTER SYSTEM", "ALL")} ON PARAMETER {Pick(Parameters)} TO {Grantee()}";
    }

    /// <summary>What takes back what is given on parameters, that the roles can go.</summary>
    public IEnumerable<string> ParametersBack() =>
        Parameters.Select(p => $"REVOKE ALL ON PARAMETER {p} FROM PUBLIC, {string.Join(", ", Roles.Select(Q))}");

    /// <summary>Of a database.</summary>
    public IEnumerable<string> InDatabase()
    {
        if (Chance(0.4)) yield return "GRANT CREATE ON SCHEMA public TO PUBLIC";
        if (Chance(0.3)) yield return "REVOKE USAGE ON LANGUAGE sql FROM PUBLIC";
        if (Chance(0.3)) yield return $"GRANT SELECT ON pg_catalog.pg_authid TO {Grantee()}";
        if (Chance(0.3)) yield return $"GRANT EXECUTE ON FUNCTION pg_catalog.pg_ls_dir(text) TO {Grantee()}";
        foreach (var schema in Schemas)
        {
            yield return $"CREATE SCHEMA {Q(schema)} AUTHORIZATION {(Chance(0.3) ? RoleAuthority.DatabaseOwner : Q(Any()))}";
            for (var i = 0; i < 3; i++)
                yield return $"GRANT {Pick("USAGE", "CREATE", "ALL")} ON SCHEMA {Q(schema)} TO {Grantee()}";
            foreach (var table in Tables)
            {
                var name = $"{Q(schema)}.{Q(table)}";
                yield return $"CREATE TABLE {name}(a int)";
                yield return $"ALTER TABLE {name} OWNER TO {Q(Any())}";
                for (var i = 0; i < 4; i++)
                    yield return $"GRANT {Pick([.. TablePrivileges, "ALL"])} ON {name} TO {Grantee()}";
                if (Chance(0.4)) yield return $"REVOKE {Pick(TablePrivileges)} ON {name} FROM {Grantee()}";
                if (Chance(0.5)) yield return $"GRANT {Pick("SELECT", "INSERT", "UPDATE", "REFERENCES")} (a) ON {name} TO {Grantee()}";
            }

            foreach (var statement in Others(Q(schema))) yield return statement;
        }
    }

    /// <summary>A sequence, a routine and a type of a schema.</summary>
    private IEnumerable<string> Others(string schema)
    {
        yield return $"CREATE SEQUENCE {schema}.\"n.0\"; ALTER SEQUENCE {schema}.\"n.0\" OWNER TO {Q(Any())}";
        yield return $"CREATE FUNCTION {schema}.f(int, text) RETURNS int LANGUAGE sql {(Chance(0.3) ? "SECURITY DEFINER" : "")} RETURN 1";
        yield return $"CREATE TYPE {schema}.\"K\" AS ENUM ('one'); ALTER TYPE {schema}.\"K\" OWNER TO {Q(Any())}";
        foreach (var (privileges, what) in new[]
        {
            (new[] { "USAGE", "SELECT", "UPDATE", "ALL" }, $"SEQUENCE {schema}.\"n.0\""),
            (["EXECUTE"], $"FUNCTION {schema}.f(int, text)"), (["USAGE"], $"TYPE {schema}.\"K\""),
        })
        {
            if (Chance(0.6)) yield return $"REVOKE ALL ON {what} FROM PUBLIC";
            if (Chance(0.7)) yield return $"GRANT {Pick(privileges)} ON {what} TO {Grantee()}";
            if (Chance(0.3)) yield return $"REVOKE {Pick(privileges)} ON {what} FROM {Q(Any())}";
        }
    }

    private string Grantee() => Chance(0.1) ? "PUBLIC" : Q(Any());

    private string Any() => Roles[_random.Next(Roles.Count)];

    private bool Chance(double of) => _random.NextDouble() < of;

    private string Pick(params string[] of) => of[_random.Next(of.Length)];
}
