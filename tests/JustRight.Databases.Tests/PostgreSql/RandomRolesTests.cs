using System.Globalization;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Surveys;
using Npgsql;

namespace JustRight.Databases.Tests.PostgreSql;

/// <summary>What we predict of random roles, against what the server itself answers and against real attempts.</summary>
public sealed class RandomRolesTests(PostgreSqlServer server) : IClassFixture<PostgreSqlServer>
{
    private static readonly int Least = int.Parse(Environment.GetEnvironmentVariable("JUSTRIGHT_JUDGEMENTS") ?? "5000", CultureInfo.InvariantCulture);
    private int _judged;
    private int _attempted;

    [Fact]
    public async Task Every_predicted_right_is_what_the_server_answers_and_what_an_attempt_meets()
    {
        for (var seed = 1; _judged < Least; seed++)
        {
            var world = new RandomRoles(seed);
            await ApplyAsync("postgres", world.AtInstance());
            foreach (var database in world.Databases) await ApplyAsync(database, world.InDatabase());
            var catalog = (await server.ReadAsync()).PostgreSql!;
            var authority = new RoleAuthority(catalog);
            await RolesAsync(world, authority);
            foreach (var database in catalog.Databases.Where(d => world.Databases.Contains(d.Name)))
            {
                await InDatabaseAsync(world, authority, database);
                await AttemptsAsync(world, authority, database);
            }

            await SignInsAsync(world, authority, catalog);
            foreach (var database in world.Databases) await server.RunAsync($"DROP DATABASE {RandomRoles.Q(database)}");
            await server.RunAsync(string.Join(';', world.ParametersBack()));
            await server.RunAsync(string.Join(';', world.Roles.Select(r => $"DROP OWNED BY {RandomRoles.Q(r)}")) + ";" + string.Join(';', world.Roles.Select(r => $"DROP ROLE {RandomRoles.Q(r)}")));
        }

        TestContext.Current.SendDiagnosticMessage($"{_judged} judgements, {_attempted} attempts");
        _attempted.ShouldBeGreaterThan(_judged / 40);
    }

    private async Task RolesAsync(RandomRoles world, RoleAuthority authority)
    {
        await CompareAsync("postgres",
            $"""
            SELECT a.rolname, b.rolname, 'USAGE', pg_has_role(a.oid, b.oid, 'USAGE') FROM pg_roles a, pg_roles b
            WHERE a.rolname LIKE '% of {world.Roles[0].Split(' ')[^1]}' AND a.oid <> b.oid AND (b.rolname LIKE '% of {world.Roles[0].Split(' ')[^1]}' OR b.rolname LIKE 'pg\_%')
            """,
            (a, b, _) => authority.HasPrivilegesOf(a, b, "postgres"));
    }

    private async Task InDatabaseAsync(RandomRoles world, RoleAuthority authority, PostgreSqlDatabase database)
    {
        var mine = $"r.rolname LIKE '% of {world.Roles[0].Split(' ')[^1]}'";
        await CompareAsync(database.Name, $"SELECT r.rolname, current_database(), p, has_database_privilege(r.oid, current_database(), p) FROM pg_roles r, unnest(ARRAY['CONNECT', 'CREATE', 'TEMPORARY']) p WHERE {mine}",
            (role, _, privilege) => authority.OnDatabase(role, database, privilege));
        await CompareAsync(database.Name, $"SELECT r.rolname, n.nspname, p, has_schema_privilege(r.oid, n.oid, p) FROM pg_roles r, pg_namespace n, unnest(ARRAY['USAGE', 'CREATE']) p WHERE {mine} AND n.nspname !~ '^pg_' AND n.nspname <> 'information_schema'",
            (role, schema, privilege) => authority.OnSchema(role, database, database.Schemas.Single(s => s.Name == schema), privilege));
    }

    /// <summary>Each role makes tables for real, and becomes another.</summary>
    private async Task AttemptsAsync(RandomRoles world, RoleAuthority authority, PostgreSqlDatabase database)
    {
        await using var connection = await server.OpenAsync(database.Name);
        foreach (var role in world.Roles)
        {
            foreach (var other in world.Roles.Take(4))
                Same(authority.MayBecome(role).ContainsKey(other), await RandomVerdictsTests.TryAsync(connection, role, $"SET ROLE {RandomRoles.Q(other)}"), $"{role} becomes {other}");
            foreach (var schema in database.Schemas.Where(s => !PostgreSqlSecurable.OfSchema(s.Name).IsOfEngine))
            {
                var made = $"{RandomRoles.Q(schema.Name)}.born";
                var may = authority.OnSchema(role, database, schema, "CREATE");
                Same(
                    may, await RandomVerdictsTests.TryAsync(connection, role, $"CREATE TABLE {made}(a int)"),
                    $"{role} makes a table in {schema.Name} of {database.Name}");
            }
        }
    }

    /// <summary>Each role signs in for real.</summary>
    private async Task SignInsAsync(RandomRoles world, RoleAuthority authority, PostgreSqlCatalog catalog)
    {
        foreach (var database in catalog.Databases.Where(d => world.Databases.Contains(d.Name)))
        {
            foreach (var role in world.Roles)
            {
                bool entered;
                try
                {
                    await using var connection = await server.OpenAsync(database.Name, role);
                    entered = true;
                }
                catch (PostgresException)
                {
                    entered = false;
                }

                var isLimited = catalog.Roles.Single(r => r.Name == role).NoConnections || database.Door == DatabaseDoor.ForSuperusers;
                var may = authority.Has(role, RoleAttributes.Login)
                    && (authority.RulesAll(role) || (!isLimited && authority.OnDatabase(role, database, "CONNECT")));
                Same(may, entered, $"{role} signs in to {database.Name}");
            }
        }
    }

    private async Task CompareAsync(string database, string question, Func<string, string, string, bool> predicted)
    {
        await using var connection = await server.OpenAsync(database);
        await using var command = new NpgsqlCommand(question, connection);
        await using var reader = await command.ExecuteReaderAsync(TestContext.Current.CancellationToken);
        while (await reader.ReadAsync(TestContext.Current.CancellationToken))
        {
            var (who, what, how) = (reader.GetString(0), reader.GetString(1), reader.GetString(2));
            predicted(who, what, how).ShouldBe(reader.GetBoolean(3), $"{who}: {how} on {what}, asked in {database}");
            _judged++;
        }
    }

    private void Same(bool predicted, bool met, string what)
    {
        met.ShouldBe(predicted, what);
        _judged++;
        _attempted++;
    }

    private static async Task ExecuteAsync(NpgsqlConnection connection, string statement)
    {
        await using var command = new NpgsqlCommand(statement, connection);
        await command.ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
    }

    private async Task ApplyAsync(string database, IEnumerable<string> statements)
    {
        await using var connection = await server.OpenAsync(database);
        foreach (var statement in statements) await ExecuteAsync(connection, statement);
    }
}
