using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Surveys;
using JustRight.Formats.PostgreSql;
using JustRight.SimulatedInstance.Wire;
using Npgsql;

namespace JustRight.Databases.Tests.PostgreSql;

/// <summary>Surveys, changes and scripts on a real PostgreSQL server.</summary>
public sealed class ChangeTests(PostgreSqlServer server) : IClassFixture<PostgreSqlServer>
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    /// <summary>Names that would break out of what is carelessly quoted.</summary>
    public static TheoryData<string> Names =>
    [
        "plain", "with space", "\"", "\"; DROP ROLE postgres; --", "'", "'; DROP TABLE t; --", "--", "/*", "\\", "\\'",
        "dbname='x' host=nowhere", ":var", ":'var'", "$$", "$1", "\u202Egpj", "Käserei", "名前", ";", "`id`", new string('x', 63),
    ];

    private static InstanceChange[] All(string name, string role) =>
    [
        new CreateLogin(PostgreSqlServer.Instance, role), new AddInstanceRoleMember(
            PostgreSqlServer.Instance, "pg_monitor",
            role), new GrantInstancePermission(PostgreSqlServer.Instance, "CREATEDB", role),
        new GrantDatabasePermission(PostgreSqlServer.Instance, name, "CONNECT", null, role),
        On(name, "USAGE", PostgreSqlSecurable.OfSchema(name), role),
        On(name, "SELECT", PostgreSqlSecurable.OfObject("public", name), role),
        .. Thorough.Contains(name) ? OnTheRest(name, role) : [],
        new ChangeDatabaseOwner(PostgreSqlServer.Instance, name, role, "postgres"),
    ];

    /// <summary>The names with which changes of every class are tried: all are quoted in the same place.</summary>
    private static readonly string[] Thorough = ["plain", "\"; DROP ROLE postgres; --", "'; DROP TABLE t; --", "\\'", "Käserei"];

    private static InstanceChange[] OnTheRest(string name, string role) =>
    [
        On(name, "UPDATE", new PostgreSqlSecurable(SecurableClass.Column, "public", name, name), role),
        On(name, "USAGE", PostgreSqlSecurable.OfObject(name, "numbers"), role),
        On(name, "EXECUTE", new PostgreSqlSecurable(SecurableClass.Routine, name, name, "integer, text"), role),
        On(name, "EXECUTE", new PostgreSqlSecurable(SecurableClass.Routine, name, "p", ""), role),
        On(name, "USAGE", new PostgreSqlSecurable(SecurableClass.Type, name, "kind", null), role),
        On(name, "USAGE", new PostgreSqlSecurable(SecurableClass.Language, null, "sql", null), role),
        On(name, "SELECT", new PostgreSqlSecurable(SecurableClass.LargeObject, null, "4711", null), role),
        On(name, "USAGE", new PostgreSqlSecurable(SecurableClass.ForeignDataWrapper, null, "elsewhere", null), role),
        On(name, "USAGE", new PostgreSqlSecurable(SecurableClass.ForeignServer, null, name, null), role),
        new GrantInstancePermission(PostgreSqlServer.Instance, "SET on PARAMETER::log_statement", role),
    ];

    private static GrantDatabasePermission On(string database, string privilege, PostgreSqlSecurable thing, string role) =>
        new(PostgreSqlServer.Instance, database, privilege, thing.Words, role);

    [Theory]
    [MemberData(nameof(Names))]
    public async Task Every_change_is_made_once_and_its_undoing_restores_the_catalog(string name)
    {
        var role = await PrepareAsync(name);
        var connector = server.Connector(server.Estate());
        var before = await DumpAsync(name);
        var changes = All(name, role);
        foreach (var change in changes)
        {
            (await connector.ObserveAsync(change, Stop)).State.ShouldBe(ObservedState.NotDone, change.Words);
            await connector.MakeAsync(change, null, Stop);
            (await connector.ObserveAsync(change, Stop)).State.ShouldBe(ObservedState.Done, change.Words);
            await connector.MakeAsync(change, null, Stop);
        }

        (await DumpAsync(name)).ShouldNotBe(before);
        foreach (var change in changes.Reverse()) await connector.MakeAsync((InstanceChange)change.Inverse!, null, Stop);
        (await DumpAsync(name)).ShouldBe(before);
        await server.RunAsync($"DROP DATABASE {PostgreSqlStatements.Name(name)}");
    }

    [Fact]
    public async Task Whatever_was_there_before_undoing_restores_it_and_no_more()
    {
        const string name = "undone";
        await PrepareAsync(name);
        var connector = server.Connector(server.Estate());
        var random = new Random(20261129);
        await server.RunAsync("CREATE ROLE undone_one; CREATE ROLE undone_two LOGIN CREATEDB");
        var undoing = new RandomUndoing(
            c => connector.ObserveAsync((InstanceChange)c, Stop), c => connector.MakeAsync((InstanceChange)c, null, Stop),
            async () => new HashSet<string> { await DumpAsync(name) });
        for (var round = 0; round < 40; round++) await undoing.RoundAsync(() => Task.FromResult<Change>(Any()), 6, 10, round);
        undoing.Skipped.ShouldBeGreaterThan(40, "what was true already is to be met, and left alone");
        undoing.Made.Values.Sum().ShouldBeGreaterThan(100);
        await server.RunAsync($"DROP DATABASE {name}");
        await server.RunAsync("DROP ROLE undone_one; DROP ROLE undone_two; DROP ROLE IF EXISTS undone_new");

        InstanceChange Any()
        {
            var role = new[] { "undone_one", "undone_two", "undone_new" }[random.Next(3)];
            var give = random.Next(2) == 0;
            InstanceChange change = random.Next(7) switch
            {
                0 => new AddInstanceRoleMember(PostgreSqlServer.Instance, "pg_monitor", role),
                1 => new GrantInstancePermission(PostgreSqlServer.Instance, "LOGIN", role),
                2 => new GrantInstancePermission(PostgreSqlServer.Instance, "CREATEDB", role),
                3 => new GrantDatabasePermission(PostgreSqlServer.Instance, name, "CONNECT", null, role),
                4 => new GrantDatabasePermission(PostgreSqlServer.Instance, name, "USAGE", $"SCHEMA::{name}", role),
                5 => new GrantDatabasePermission(PostgreSqlServer.Instance, name, "SELECT", $"OBJECT::public.{name}", role),
                _ => new CreateLogin(PostgreSqlServer.Instance, "undone_new"),
            };
            return give || change is CreateLogin ? change : (InstanceChange)change.Inverse!;
        }
    }

    [Theory]
    [MemberData(nameof(Names))]
    public async Task The_scripts_do_the_same_in_the_engines_own_client_may_be_run_twice_and_are_undone(string name)
    {
        var role = await PrepareAsync(name);
        var before = await DumpAsync(name);
        var changes = All(name, role).Select((c, i) => (i + 1, c)).ToList();
        var give = PostgreSqlStatements.Script(
            [$"gives {name}"], changes.Select(c => (c.Item1, c.c, (string?)$"needed for {name}")));
        var check = PostgreSqlStatements.CheckScript(["checks"], changes);
        var undo = PostgreSqlStatements.Script(
            ["undoes"], changes.AsEnumerable().Reverse().Select((c, i) => (i + 1, (InstanceChange)c.c.Inverse!, (string?)null)));
        (await StatesAsync(check)).ShouldBe(changes.Select(_ => "NOT DONE"));
        await PsqlAsync(give);
        (await StatesAsync(check)).ShouldBe(changes.Select(_ => "done"));
        var after = await DumpAsync(name);
        after.ShouldNotBe(before);
        await PsqlAsync(give);
        (await DumpAsync(name)).ShouldBe(after);
        await PsqlAsync(undo);
        (await DumpAsync(name)).ShouldBe(before);
        await PsqlAsync(undo);
        (await DumpAsync(name)).ShouldBe(before);
        await server.RunAsync($"DROP DATABASE {PostgreSqlStatements.Name(name)}");
    }

    [Theory]
    [InlineData("a\nb")]
    [InlineData("")]
    [InlineData(null)] // one byte too long: the engine would cut it, and mean another
    public async Task A_name_that_cannot_be_written_is_refused_and_nothing_is_sent(string? name)
    {
        var change = new CreateLogin(PostgreSqlServer.Instance, name ?? new string('x', 62) + "ä");
        PostgreSqlStatements.WhyNot(change).ShouldNotBeNull();
        (await Should.ThrowAsync<ConnectorException>(() =>
            server.Connector(server.Estate()).MakeAsync(change, null, Stop))).Failure.ShouldBe(
            ConnectorFailure.Conflict);
    }

    [Theory]
    [InlineData("wrong password", ConnectorFailure.SignIn, "refuses the role postgres")]
    [InlineData("no secret", ConnectorFailure.SignIn, "there is no secret 'pg'")]
    [InlineData("nobody there", ConnectorFailure.Unreachable, "did not answer")]
    [InlineData("another certificate", ConnectorFailure.NotTrusted, "does not vouch for it")]
    public async Task What_keeps_us_out_is_told_in_one_sentence_that_holds_no_secret(
        string why, ConnectorFailure failure, string says)
    {
        var other = Path.GetTempFileName();
        using (var certificate = SimulatedCertificate.New()) File.WriteAllText(other, certificate.ExportCertificatePem());
        var estate = server.Estate(certificate: why == "another certificate" ? other : null);
        if (why == "nobody there") estate = estate with { Tls = estate.Tls! with { Port = 9 } };
        var connector = server.Connector(
            estate, why switch { "wrong password" => "not-the-password", "no secret" => null, _ => PostgreSqlServer.Password });
        var e = await Should.ThrowAsync<ConnectorException>(() => connector.ReadAsync(estate, Stop));
        File.Delete(other);
        e.Failure.ShouldBe(failure, e.ToString());
        e.Message.ShouldContain(says);
        e.Message.ShouldNotContain("\n");
        e.ToString().ShouldNotContain("not-the-password");
        e.ToString().ShouldNotContain(PostgreSqlServer.Password);
    }

    [Fact]
    public async Task A_server_that_is_read_only_says_that_the_step_is_for_its_primary()
    {
        await server.RunAsync($"CREATE ROLE replica_keeper SUPERUSER LOGIN PASSWORD '{PostgreSqlServer.Password}'; ALTER ROLE replica_keeper SET default_transaction_read_only = on; CREATE ROLE left_alone");
        var e = await Should.ThrowAsync<ConnectorException>(() => server.Connector(server.Estate("replica_keeper"))
            .MakeAsync(new GrantInstancePermission(PostgreSqlServer.Instance, "CREATEDB", "left_alone"), null, Stop));
        (e.Failure, e.Message).ShouldBe(
            (ConnectorFailure.Conflict,
                $"{PostgreSqlServer.Instance} is read-only, as a replica is: the step is for its primary. cannot execute ALTER ROLE in a read-only transaction (SQLSTATE 25006)"));
    }

    [Fact]
    public async Task The_least_a_reader_needs_is_enough_and_without_it_the_part_is_unseen()
    {
        await server.RunAsync($"CREATE ROLE jr_reader LOGIN PASSWORD '{PostgreSqlServer.Password}'");
        foreach (var database in new[] { "Shut", "Open" }) await server.RunAsync($"CREATE DATABASE \"{database}\"");
        await server.RunAsync("REVOKE CONNECT ON DATABASE \"Shut\" FROM PUBLIC");
        var without = (await server.ReadAsync("jr_reader")).PostgreSql!;
        without.SignInUnread.ShouldNotBeNull().ShouldContain("jr_reader may not read the sign-in rules");
        without.Databases.Single(d => d.Name == "Shut").Unread.ShouldNotBeNull().ShouldContain("may not enter it");
        await server.RunAsync(
            "GRANT SELECT ON pg_hba_file_rules, pg_ident_file_mappings TO jr_reader; GRANT EXECUTE ON FUNCTION pg_hba_file_rules(), pg_ident_file_mappings() TO jr_reader; GRANT CONNECT ON DATABASE \"Shut\" TO jr_reader");
        var with = await server.ReadAsync("jr_reader");
        (with.PostgreSql!.SignInUnread, with.ReadBy).ShouldBe((null, "jr_reader"));
        with.PostgreSql.Databases.ShouldAllBe(d => d.Unread == null);
        with.PostgreSql.SignInRules.Select(r => (r.Type, r.Method))
            .ShouldBe([("local", "trust"), ("hostssl", "scram-sha-256"), ("hostgssenc", "gss"), ("hostssl", "reject")]);
        with.PostgreSql.NameMap.ShouldBe(
            [
                new NameMapLine("domain", @"/^(.*)@FENNMOOR\.EXAMPLE$", @"\1"),
                new NameMapLine("domain", "svc-old@FENNMOOR.EXAMPLE", "legacy")]);
        foreach (var statement in new[] { "CREATE ROLE x", "ALTER ROLE jr_reader CREATEDB", "DROP DATABASE \"Open\"", "GRANT pg_monitor TO jr_reader" })
            (await Should.ThrowAsync<PostgresException>(() => server.RunAsync(statement, role: "jr_reader"))).SqlState.ShouldBe(
                PostgresErrorCodes.InsufficientPrivilege);
    }

    [Fact]
    public async Task Who_may_sign_in_as_whom_follows_the_servers_rules_and_map()
    {
        await server.RunAsync(
            "CREATE ROLE domain_roles; CREATE ROLE \"svc-map\" LOGIN IN ROLE domain_roles; CREATE ROLE legacy LOGIN IN ROLE domain_roles; CREATE ROLE \"svc-out\" LOGIN; CREATE ROLE \"svc-boss\" LOGIN SUPERUSER");
        var catalog = (await server.ReadAsync()).PostgreSql!;
        var signIns = new RoleAuthority(catalog).SignIns;
        signIns.RolesOf(new("svc-map", "fennmoor.example")).ShouldBe(["svc-map"]);
        signIns.RolesOf(new("svc-old", "fennmoor.example"))
            .ShouldBe(["legacy"], "by the second line of the map; the role of its own name does not exist");
        signIns.RolesOf(new("svc-map", "elsewhere.example")).ShouldBeEmpty("the map knows no such realm");
        signIns.RolesOf(new("svc-out", "fennmoor.example")).ShouldBeEmpty("it is not in domain_roles, for whom the rule is");
        signIns.RolesOf(new("svc-boss", "fennmoor.example"))
            .ShouldBeEmpty("a superuser is in a role for a rule only when it truly is");
        signIns.ForRole(new("svc-new", "fennmoor.example"), null).ShouldBe(("svc-new", "domain_roles"));
        signIns.ForRole(new("svc-new", "elsewhere.example"), null).ShouldBeNull();
    }

    [Fact]
    public async Task A_step_that_the_server_broke_off_is_done_or_not_done_and_reading_tells_which()
    {
        await using var own = new PostgreSqlServer();
        await own.RunAsync("CREATE ROLE held LOGIN");
        var connector = own.Connector(own.Estate());
        var change = new GrantInstancePermission(PostgreSqlServer.Instance, "CREATEDB", "held");
        await using (var blocker = await own.OpenAsync())
        {
            await using var transaction = await blocker.BeginTransactionAsync(Stop);
            await using (var command = new NpgsqlCommand(
                "ALTER ROLE held CREATEROLE", blocker)) await command.ExecuteNonQueryAsync(Stop);
            var making = connector.MakeAsync(change, null, Stop); // waits for the row
            await WaitAsync(own, "SELECT 1 FROM pg_stat_activity WHERE wait_event_type = 'Lock'");
            own.Stop();
            (await Should.ThrowAsync<ConnectorException>(() => making)).Failure.ShouldBe(ConnectorFailure.Unreachable);
        }

        (await Should.ThrowAsync<ConnectorException>(() => connector.ObserveAsync(change, Stop))).Failure.ShouldBe(
            ConnectorFailure.Unreachable);
        own.Start();
        (await connector.ObserveAsync(change, Stop)).State.ShouldBe(ObservedState.NotDone);
        await connector.MakeAsync(change, null, Stop);
        (await connector.ObserveAsync(change, Stop)).State.ShouldBe(ObservedState.Done);
    }

    [Fact]
    public async Task Chosen_to_give_way_in_a_deadlock_it_is_tried_again()
    {
        // The server looks for a ring once, so long after a wait began: for the step that must be after the ring is closed.
        await server.RunAsync(
            "CREATE ROLE dead_a LOGIN; CREATE ROLE dead_b LOGIN; ALTER ROLE postgres SET deadlock_timeout = '8s'");
        await using var other = await server.OpenAsync();
        await using var transaction = await other.BeginTransactionAsync(Stop);
        await ExecuteAsync("SET LOCAL deadlock_timeout = '5min'; ALTER ROLE dead_b CREATEROLE");
        // The statement of the step takes dead_a first and then waits for dead_b, which waits for dead_a.
        await using var session = await Connectors.PostgreSql.PostgreSqlSession.OpenAsync(
            server.Estate(), "postgres", new NewPassword(PostgreSqlServer.Password), Stop);
        var making = session.MakeAsync(
            "EXISTS (SELECT FROM pg_roles WHERE rolname = 'dead_b' AND rolcreatedb)",
            "DO 'BEGIN ALTER ROLE dead_a CREATEDB; ALTER ROLE dead_b CREATEDB; END'", Stop);
        await WaitAsync(server, "SELECT 1 FROM pg_stat_activity WHERE wait_event_type = 'Lock'");
        // closes the ring: the step is the one to give way, its patience being shorter
        await ExecuteAsync("ALTER ROLE dead_a CREATEROLE");
        await transaction.CommitAsync(Stop);
        await making;
        await server.RunAsync("ALTER ROLE postgres RESET deadlock_timeout");
        (await server.Connector(server.Estate()).ObserveAsync(
            new GrantInstancePermission(PostgreSqlServer.Instance, "CREATEDB", "dead_b"),
            Stop)).State.ShouldBe(ObservedState.Done);

        async Task ExecuteAsync(string sql)
        {
            await using var command = new NpgsqlCommand(sql, other);
            await command.ExecuteNonQueryAsync(Stop);
        }
    }

    [Fact]
    public async Task What_the_engine_refuses_is_told_with_its_reason_and_nothing_is_kept()
    {
        await server.RunAsync(
            $"CREATE ROLE keeper LOGIN CREATEROLE PASSWORD '{PostgreSqlServer.Password}'; CREATE ROLE target LOGIN");
        var connector = server.Connector(server.Estate("keeper"));
        await RefusedAsync(
            new GrantInstancePermission(PostgreSqlServer.Instance, "SUPERUSER", "target"), ConnectorFailure.NotAllowed);
        await RefusedAsync(new AddInstanceRoleMember(PostgreSqlServer.Instance, "nosuch", "target"), ConnectorFailure.NotFound);
        await RefusedAsync(
            new GrantDatabasePermission(PostgreSqlServer.Instance, "nosuch", "USAGE", "SCHEMA::x", "target"),
            ConnectorFailure.NotFound);
        await RefusedAsync(
            new GrantDatabasePermission(PostgreSqlServer.Instance, "postgres", "CREATE", null, "target"),
            ConnectorFailure.NotAllowed, "a grant that the engine only warns of is no grant");
        await RefusedAsync(new DropLogin(PostgreSqlServer.Instance, "postgres"), ConnectorFailure.NotAllowed);

        async Task RefusedAsync(InstanceChange change, ConnectorFailure failure, string? why = null) =>
            (await Should.ThrowAsync<ConnectorException>(() => connector.MakeAsync(change, null, Stop))).Failure.ShouldBe(
                failure, why ?? change.Words);
    }

    [Fact]
    public async Task A_role_that_is_there_is_no_login_to_create_and_loses_only_its_sign_in_by_undoing()
    {
        await server.RunAsync("CREATE ROLE before_us NOLOGIN; GRANT pg_monitor TO before_us");
        var connector = server.Connector(server.Estate());
        var create = new CreateLogin(PostgreSqlServer.Instance, "before_us");
        await Should.ThrowAsync<ConnectorException>(() => connector.MakeAsync(create, null, Stop));

        InstanceChange let = new GrantInstancePermission(PostgreSqlServer.Instance, "LOGIN", "before_us");
        var before = await DumpAsync("postgres");
        await connector.MakeAsync(let, null, Stop);
        (await connector.ObserveAsync(let, Stop)).State.ShouldBe(ObservedState.Done);
        (await DumpAsync("postgres")).ShouldNotBe(before);
        await connector.MakeAsync((InstanceChange)let.Inverse!, null, Stop);
        (await DumpAsync("postgres")).ShouldBe(before);
        await server.RunAsync("DROP ROLE before_us");
    }

    /// <summary>A database of the name with a schema and a table of it, and the name of a role that is not there yet.</summary>
    private async Task<string> PrepareAsync(string name)
    {
        var q = PostgreSqlStatements.Name(name);
        await server.RunAsync($"CREATE DATABASE {q}");
        await using var connection = new NpgsqlConnection(
            new NpgsqlConnectionStringBuilder { Host = "localhost", Port = server.Port, Database = name, Username = "postgres", Password = PostgreSqlServer.Password, SslMode = SslMode.VerifyFull, RootCertificate = server.CertificateFile, Pooling = false }.ConnectionString);
        await connection.OpenAsync(Stop);
        await using var command = new NpgsqlCommand(
            $"""
            REVOKE CONNECT ON DATABASE {q} FROM PUBLIC; CREATE SCHEMA {q}; CREATE TABLE public.{q}({q} int);
            CREATE SEQUENCE {q}.numbers; CREATE TYPE {q}.kind AS ENUM ('one'); SELECT lo_create(4711);
            CREATE FUNCTION {q}.{q}(int, text) RETURNS int LANGUAGE sql RETURN 1; CREATE PROCEDURE {q}.p() LANGUAGE sql AS '';
            CREATE FOREIGN DATA WRAPPER elsewhere; CREATE SERVER {q} FOREIGN DATA WRAPPER elsewhere
            """,
            connection);
        await command.ExecuteNonQueryAsync(Stop);
        return name.Length == 63 ? name : $"{name}²";
    }

    /// <summary>Everything the survey reads of the instance and of one database, as text. An access list that was written out says the same as one that was not.</summary>
    private async Task<string> DumpAsync(string database)
    {
        var catalog = (await server.ReadAsync()).PostgreSql!;
        return System.Text.Json.JsonSerializer.Serialize(new
        {
            Roles = catalog.Roles.Where(r => !r.Name.StartsWith("pg_", StringComparison.Ordinal))
                .OrderBy(r => r.Name, StringComparer.Ordinal),
            Memberships = catalog.Memberships.OrderBy(m => m.Member + m.Role, StringComparer.Ordinal),
            Database = Sorted(catalog.Databases.Single(d => d.Name == database)),
        });
    }

    private static PostgreSqlDatabase Sorted(PostgreSqlDatabase database) => database with
    {
        Entries = Sorted(database.Entries),
        Schemas = [.. database.Schemas.Select(s => s with { Entries = Sorted(s.Entries) })],
        Objects = [.. database.Objects.Select(t => t with { Entries = Sorted(t.Entries) })],
    };

    private static IReadOnlyList<PrivilegeEntry> Sorted(IReadOnlyList<PrivilegeEntry> entries) =>
        [.. entries.OrderBy(e => e.ToString(), StringComparer.Ordinal)];

    private async Task<IEnumerable<string>> StatesAsync(string check) =>
        (await PsqlAsync(check)).Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(row => row.Split('\u001F')[^1]);

    private async Task<string> PsqlAsync(string script)
    {
        var address = $"host=localhost port={server.Port} user=postgres dbname=postgres sslmode=verify-full sslrootcert={server.CertificateFile}";
        var end = await Programs.RunAsync(
            "psql", ["-X", "-q", "-A", "-t", "-F", "\u001F", address, "-f", "-"], script, [(
                "PGPASSWORD", PostgreSqlServer.Password)]);
        (end.Code, end.Error).ShouldBe((0, ""), script);
        return end.Output;
    }

    private static Task WaitAsync(PostgreSqlServer at, string question) => Waiting.UntilAsync(question, async () =>
    {
        await using var connection = await at.OpenAsync();
        await using var command = new NpgsqlCommand(question, connection);
        return await command.ExecuteScalarAsync(Stop) is not null;
    });
}
