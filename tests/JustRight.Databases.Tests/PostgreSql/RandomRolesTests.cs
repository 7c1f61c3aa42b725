using System.Globalization;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Surveys;
using Npgsql;

namespace JustRight.Databases.Tests.PostgreSql;

/// <summary>What we predict of random roles, against what the server itself answers and against real attempts.</summary>
public sealed class RandomRolesTests(PostgreSqlServer server) : IClassFixture<PostgreSqlServer>
{
    private static readonly int Least = int.Parse(Environment.GetEnvironmentVariable("JUSTRIGHT_JUDGEMENTS") ?? "20000", CultureInfo.InvariantCulture);
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
        _attempted.ShouldBeGreaterThan(_judged / 20);
    }

    private async Task RolesAsync(RandomRoles world, RoleAuthority authority)
    {
        await CompareAsync("postgres",
            $"""
            SELECT a.rolname, b.rolname, w, pg_has_role(a.oid, b.oid, w)
            FROM pg_roles a, pg_roles b, unnest(ARRAY['USAGE', 'MEMBER', 'MEMBER WITH ADMIN OPTION']) w
            WHERE a.rolname LIKE '% of {world.Roles[0].Split(' ')[^1]}' AND a.oid <> b.oid AND (b.rolname LIKE '% of {world.Roles[0].Split(' ')[^1]}' OR b.rolname LIKE 'pg\_%')
            """,
            (a, b, what) => what switch
            {
                "USAGE" => authority.HasPrivilegesOf(a, b, "postgres"),
                "MEMBER" => authority.IsMember(a, b) || (b == RoleAuthority.DatabaseOwner && authority.IsMember(a, "postgres")),
                _ => authority.MayAdminister(a, b),
            });
    }

    private async Task InDatabaseAsync(RandomRoles world, RoleAuthority authority, PostgreSqlDatabase database)
    {
        var mine = $"r.rolname LIKE '% of {world.Roles[0].Split(' ')[^1]}'";
        await CompareAsync(database.Name, $"SELECT r.rolname, current_database(), p, has_database_privilege(r.oid, current_database(), p) FROM pg_roles r, unnest(ARRAY['CONNECT', 'CREATE', 'TEMPORARY']) p WHERE {mine}",
            (role, _, privilege) => authority.OnDatabase(role, database, privilege));
        await CompareAsync(database.Name, $"SELECT r.rolname, n.nspname, p, has_schema_privilege(r.oid, n.oid, p) FROM pg_roles r, pg_namespace n, unnest(ARRAY['USAGE', 'CREATE']) p WHERE {mine} AND n.nspname !~ '^pg_' AND n.nspname <> 'information_schema'",
            (role, schema, privilege) => authority.OnSchema(role, database, database.Schemas.Single(s => s.Name == schema), privilege));
        await CompareAsync(database.Name, $"SELECT r.rolname, n.nspname || '/' || c.relname, p, has_table_privilege(r.oid, c.oid, p) FROM pg_roles r, pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace, unnest(ARRAY['{string.Join("', '", RoleAuthority.TablePrivileges)}']) p WHERE {mine} AND c.relkind IN ('r', 'v') AND n.nspname !~ '^pg_' AND n.nspname <> 'information_schema'",
            (role, table, privilege) => authority.OnTable(role, database, database.Objects.Single(t => t.Thing.Class == SecurableClass.Relation && $"{t.Thing.Schema}/{t.Thing.Name}" == table), privilege));
    }

    /// <summary>Each role reads, writes and makes tables for real, and becomes another.</summary>
    private async Task AttemptsAsync(RandomRoles world, RoleAuthority authority, PostgreSqlDatabase database)
    {
        await using var connection = await server.OpenAsync(database.Name);
        foreach (var role in world.Roles)
        {
            foreach (var table in database.Objects.Where(o => o.Thing.Class == SecurableClass.Relation && RandomRoles.Tables.Contains(o.Thing.Name)))
            {
                var name = $"{RandomRoles.Q(table.Thing.Schema!)}.{RandomRoles.Q(table.Thing.Name)}";
                var schema = database.Schemas.Single(s => s.Name == table.Thing.Schema);
                var uses = authority.OnSchema(role, database, schema, "USAGE");
                var column = database.Find(new PostgreSqlSecurable(SecurableClass.Column, table.Thing.Schema, table.Thing.Name, "a"));
                bool May(string privilege) => uses && new[] { table, column }.OfType<PostgreSqlObject>()
                    .Any(o => authority.OnTable(role, database, o, privilege));
                Same(May("SELECT"), await TryAsync(connection, role, $"SELECT a FROM {name} LIMIT 1"), $"{role} reads {name} in {database.Name}");
                Same(May("INSERT"), await TryAsync(connection, role, $"INSERT INTO {name} VALUES (1)"), $"{role} writes {name} in {database.Name}");
            }

            foreach (var other in world.Roles.Take(4))
                Same(authority.MayBecome(role).ContainsKey(other), await TryAsync(connection, role, $"SET ROLE {RandomRoles.Q(other)}"), $"{role} becomes {other}");
            foreach (var schema in database.Schemas.Where(s => !PostgreSqlSecurable.OfSchema(s.Name).IsOfEngine))
            {
                var made = $"{RandomRoles.Q(schema.Name)}.born";
                var may = authority.OnSchema(role, database, schema, "CREATE");
                var born = RoleAuthority.BornWith(database, role, schema.Name);
                var probe = $"SELECT string_agg(r.rolname || '/' || p, ',' ORDER BY r.rolname, p) FROM pg_roles r, unnest(ARRAY['{string.Join("', '", RoleAuthority.TablePrivileges)}']) p WHERE r.rolname IN ('{string.Join("', '", world.Roles)}') AND has_table_privilege(r.oid, (SELECT c.oid FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace WHERE n.nspname = '{schema.Name}' AND c.relname = 'born'), p)";
                string? seen = null;
                Same(may, await TryAsync(connection, role, $"CREATE TABLE {made}(a int)", async () => seen = await AskAsync(connection, probe)), $"{role} makes a table in {schema.Name} of {database.Name}");
                if (!may) continue;
                var table = new PostgreSqlObject(PostgreSqlSecurable.OfObject(schema.Name, "born"), role, born);
                var expected = string.Join(',', world.Roles.SelectMany(r => RoleAuthority.TablePrivileges.Where(p => authority.OnTable(r, database, table, p)).Select(p => $"{r}/{p}")).Order(StringComparer.Ordinal));
                string.Join(',', (seen ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries).Order(StringComparer.Ordinal)).ShouldBe(expected, $"who may what on a table of {role} in {schema.Name} of {database.Name}, with {string.Join("; ", database.Defaults.Where(d => d.Creator == role).Select(d => $"{d.Schema}: {string.Join(", ", d.Entries)}"))}");
                _judged += world.Roles.Count * RoleAuthority.TablePrivileges.Count;
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

    /// <summary>Tries something as a role, in a transaction that is dropped; only a refusal for want of a right counts as one.</summary>
    private static async Task<bool> TryAsync(NpgsqlConnection connection, string role, string statement, Func<Task>? then = null)
    {
        await using var transaction = await connection.BeginTransactionAsync(TestContext.Current.CancellationToken);
        try
        {
            await ExecuteAsync(connection, $"SET LOCAL SESSION AUTHORIZATION {RandomRoles.Q(role)}");
            await ExecuteAsync(connection, statement);
            if (then is not null) await then();
            return true;
        }
        catch (PostgresException e) when (e.SqlState is PostgresErrorCodes.InsufficientPrivilege)
        {
            return false;
        }
        finally
        {
            await transaction.RollbackAsync(TestContext.Current.CancellationToken);
        }
    }

    private static async Task<string?> AskAsync(NpgsqlConnection connection, string question)
    {
        await using var command = new NpgsqlCommand(question, connection);
        return await command.ExecuteScalarAsync(TestContext.Current.CancellationToken) as string;
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
