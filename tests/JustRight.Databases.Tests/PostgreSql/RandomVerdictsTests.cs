using System.Globalization;
using JustRight.Core.Directory;
using JustRight.Core.Engines;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using Npgsql;

namespace JustRight.Databases.Tests.PostgreSql;

/// <summary>
/// The whole way in random worlds: what our connector reads becomes a verdict, and the server itself says whether it is right.
/// Each role has an account of its name, which signs in by its ticket.
/// </summary>
public sealed class RandomVerdictsTests(PostgreSqlServer server) : IClassFixture<PostgreSqlServer>
{
    private static readonly int Least = int.Parse(
        Environment.GetEnvironmentVariable("JUSTRIGHT_VERDICTS") ?? "20000", CultureInfo.InvariantCulture);
    private static readonly Origin Line = new("world", 1, 1);
    private static readonly Sid Domain = Sid.Parse("S-1-5-21-1-2-3");
    private const string Instance = PostgreSqlServer.Instance;

    [Fact]
    public async Task Every_verdict_is_the_servers()
    {
        server.Configure("hostssl all all 127.0.0.1/32 scram-sha-256\nhostgssenc all all all gss include_realm=0", "");
        var judged = 0;
        var held = 0;
        var tried = 0;
        for (var seed = 1001; judged < Least; seed++)
        {
            var world = new RandomRoles(seed);
            await ApplyAsync("postgres", world.AtInstance());
            foreach (var database in world.Databases) await ApplyAsync(database, world.InDatabase());
            var asked = new List<Asked>();
            await AskAsync("postgres", ServersAnswers.AtInstance, ServersAnswers.EntersInstance, asked);
            foreach (var database in world.Databases)
                await AskAsync(database, ServersAnswers.InDatabase, ServersAnswers.EntersDatabase, asked);
            asked = [.. asked.Where(a => world.Roles.Contains(a.Role))];
            var verdicts = Judge(await server.ReadAsync(), world.Roles, asked);
            foreach (var question in asked)
            {
                var verdict = verdicts[(question.Role, question.Right.Key)];
                verdict.Verdict.ShouldBe(
                    question.Answer ? Verdict.Met : Verdict.Missing,
                    $"{question.Role}: {question.Right}, seed {seed}: {verdict.Reason}");
            }

            tried += await TryAsync(asked, verdicts);
            judged += asked.Count;
            held += asked.Count(a => a.Answer);
            await CleanAsync(world);
        }

        TestContext.Current.SendDiagnosticMessage($"{judged} verdicts, {held} met, {tried} tried");
        tried.ShouldBeGreaterThan(judged / 40);
        held.ShouldBeGreaterThan(judged / 10);
        (judged - held).ShouldBeGreaterThan(judged / 10);
    }

    private static Dictionary<(string Account, string Right), Judgement> Judge(
        InstanceSnapshot instance, IReadOnlyList<string> accounts, IReadOnlyList<Asked> asked)
    {
        var now = DateTimeOffset.UnixEpoch;
        var directory = new DirectorySnapshot(
            "FENNMOOR", Domain, "dc", now,
            [.. accounts.Select((a, i) => new DirectoryPrincipal(
                Domain.Append((uint)(1001 + i)), PrincipalKind.User, a, $"CN={a},DC=fennmoor,DC=example")
            {
                Description = "",
                State = AccountState.None,
            })],
            [], null);
        var plan = new Plan(
            "x", "s@1", "S", "e", "FENNMOOR", "fennmoor.example", Stage.Installed, [], [],
            [.. accounts.Select(a => new PlannedAccount(a, a, null, "", "", WorksAs.Service, true, true, Line))],
            [.. asked.Select(a => new PlannedGrant(
                $"{a.Role}/{a.Right.Key}", a.Role, a.Right, null, null, GivenBy.Us, Until.Always, Team.Database, null, null,
                Line))],
            [], [], []);
        var view = AllEngines.View(new Survey("e", now, true, directory, [], [instance]));
        var fit = new FitJudge(view, new NeedsIndex([plan]), new OrganizationRules([], null, []), new Present(now)).Judge(plan);
        return fit.Accounts.SelectMany(a => a.Judgements).Where(j => j.Grant is not null)
            .ToDictionary(j => (j.Account, j.Right.Key));
    }

    /// <summary>Each role that gets in reads and writes for real what a verdict lets it, and nothing else.</summary>
    private async Task<int> TryAsync(
        IReadOnlyList<Asked> asked, Dictionary<(string Account, string Right), Judgement> verdicts)
    {
        var tried = 0;
        foreach (var inside in asked.Where(a => a.Right is DatabasePrivilegeRight { Thing.Class: SecurableClass.Column })
            .GroupBy(a => ((DatabasePrivilegeRight)a.Right).Database))
        {
            await using var connection = await server.OpenAsync(inside.Key);
            var enters = new DatabasePrivilegeRight(Instance, inside.Key, "CONNECT", null).Key;
            foreach (var question in inside.Where(a => verdicts[(a.Role, enters)].Verdict == Verdict.Met))
            {
                var right = (DatabasePrivilegeRight)question.Right;
                var table = $"{RandomRoles.Q(right.Thing!.Schema!)}.{RandomRoles.Q(right.Thing.Name)}";
                var statement = right.Privilege switch
                {
                    "SELECT" => $"SELECT a FROM {table} LIMIT 1",
                    "INSERT" => $"INSERT INTO {table}(a) VALUES (1)",
                    _ => null,
                };
                if (statement is null) continue;
                (await TryAsync(connection, question.Role, statement)).ShouldBe(
                    verdicts[(question.Role, right.Key)].Verdict == Verdict.Met, $"{question.Role}: {statement}");
                tried++;
            }
        }

        return tried;
    }

    /// <summary>
    /// Tries something as a role, in a transaction that is dropped; false when it is refused for want of a right.
    /// </summary>
    internal static async Task<bool> TryAsync(NpgsqlConnection connection, string role, string statement)
    {
        await using var transaction = await connection.BeginTransactionAsync(TestContext.Current.CancellationToken);
        try
        {
            await ExecuteAsync(connection, $"SET LOCAL SESSION AUTHORIZATION {RandomRoles.Q(role)}");
            await ExecuteAsync(connection, statement);
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

    private static async Task ExecuteAsync(NpgsqlConnection connection, string statement)
    {
        await using var command = new NpgsqlCommand(statement, connection);
        await command.ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
    }

    private async Task AskAsync(string database, IEnumerable<string> questions, string enters, List<Asked> into)
    {
        await using var connection = await server.OpenAsync(database);
        foreach (var question in questions)
        {
            await using var command = new NpgsqlCommand(ServersAnswers.Whole(question, enters), connection);
            await using var reader = await command.ExecuteReaderAsync(TestContext.Current.CancellationToken);
            while (await reader.ReadAsync(TestContext.Current.CancellationToken))
            {
                var right = Asked.RightOf(
                    database, reader.GetString(1), reader.GetString(2), reader.GetString(3), reader.GetString(4),
                    reader.GetString(5));
                into.Add(new Asked(reader.GetString(0), right, reader.GetBoolean(6) && reader.GetBoolean(7)));
            }
        }
    }

    private async Task ApplyAsync(string database, IEnumerable<string> statements)
    {
        await using var connection = await server.OpenAsync(database);
        foreach (var statement in statements) await ExecuteAsync(connection, statement);
    }

    private async Task CleanAsync(RandomRoles world)
    {
        foreach (var database in world.Databases) await server.RunAsync($"DROP DATABASE {RandomRoles.Q(database)}");
        await server.RunAsync(string.Join(';', world.ParametersBack()));
        await server.RunAsync(string.Join(';', world.Roles.Select(r => $"DROP OWNED BY {RandomRoles.Q(r)}")));
        await server.RunAsync(string.Join(';', world.Roles.Select(r => $"DROP ROLE {RandomRoles.Q(r)}")));
    }

    /// <summary>A right of a role, and what the server says of it.</summary>
    private sealed record Asked(string Role, Right Right, bool Answer)
    {
        public static Right RightOf(
            string database, string kind, string schema, string name, string detail, string privilege) => kind switch
            {
                "" => new DatabasePrivilegeRight(Instance, database, privilege, null),
                "owner" => new DatabaseOwnershipRight(Instance, database),
                "role" => new RoleMembershipRight(Instance, name),
                "attribute" => new RoleAttributeRight(Instance, name),
                "parameter" => new ParameterRight(Instance, new ParameterPrivilege(privilege, name)),
                _ => DatabasePrivilegeRight.Parse(
                    Instance, database, $"{privilege} on {Thing(kind, schema, name, detail).Words}"),
            };

        private static PostgreSqlSecurable Thing(string kind, string schema, string name, string detail) => new(
            PostgreSqlSecurable.ClassOf(kind), schema.Length == 0 ? null : schema, name,
            PostgreSqlSecurable.ClassOf(kind) is SecurableClass.Column or SecurableClass.Routine ? detail : null);
    }
}
