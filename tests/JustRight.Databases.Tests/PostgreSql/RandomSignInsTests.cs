using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Rights;
using Npgsql;

namespace JustRight.Databases.Tests.PostgreSql;

/// <summary>
/// Random rules of sign-in: real attempts with a password, against what we say of the same rules with a ticket in its place. The
/// server shows the file's rules at once, and goes by them when it is told to.
/// </summary>
public sealed class RandomSignInsTests(PostgreSqlServer server) : IClassFixture<PostgreSqlServer>
{
    private const int Worlds = 25;
    private static readonly string[] Roles = ["one", "Two", "three four", "team", "inner"];
    private static readonly string[] Databases = ["one", "team", "Store"];
    private readonly Random _random = new(20261130);

    [Fact]
    public async Task The_first_rule_that_matches_decides()
    {
        foreach (var role in Roles)
            await server.RunAsync($"CREATE ROLE {RandomRoles.Q(role)} LOGIN PASSWORD '{PostgreSqlServer.Password}'");
        await server.RunAsync("GRANT \"inner\" TO one; GRANT team TO \"inner\"; GRANT team TO \"Two\"");
        await server.RunAsync("ALTER ROLE \"three four\" SUPERUSER");
        foreach (var database in Databases) await server.RunAsync($"CREATE DATABASE {RandomRoles.Q(database)}");
        var (let, refused) = (0, 0);
        for (var world = 0; world < Worlds; world++)
        {
            var rules = Enumerable.Range(0, _random.Next(2, 7)).Select(_ => Rule()).ToList();
            Write(rules, "scram-sha-256");
            await server.ReloadAsync();
            var attempts = new Dictionary<(string, string), bool>();
            foreach (var role in Roles)
                foreach (var database in Databases)
                    attempts[(role, database)] = await EntersAsync(role, database, SslMode.Require)
                        || await EntersAsync(role, database, SslMode.Disable);
            Write(rules, "gss include_realm=0");
            var catalog = (await server.ReadAsync()).PostgreSql!;
            catalog.SignInUnread.ShouldBeNull();
            var signIns = new RoleAuthority(catalog).SignIns;
            foreach (var ((role, database), entered) in attempts)
            {
                var gate = signIns.At(new DomainName(role, "fennmoor.example"), role, database);
                gate.State.ShouldBe(
                    entered ? GateState.Open : GateState.Shut, $"{role} to {database} by\n{string.Join('\n', rules)}");
                if (entered) let++;
                else refused++;
            }
        }

        let.ShouldBeGreaterThan(50);
        refused.ShouldBeGreaterThan(50);
    }

    private const string OwnRule = "hostssl all postgres 127.0.0.1/32 scram-sha-256";

    /// <summary>A rule but for its method, which is put at the end; or one that refuses.</summary>
    private string Rule()
    {
        var type = Pick("host", "hostssl", "hostnossl");
        var databases = Pick("all", "one", "\"Store\",team", "sameuser", "samerole", "replication", "\"Store\"");
        var users = Pick("all", "one", "\"Two\"", "+team", "\"three four\",one", "+inner", "nobody");
        return $"{type} {databases} {users} all {(_random.Next(4) == 0 ? "reject #" : "")}";
    }

    private void Write(IEnumerable<string> rules, string method) =>
        server.Configure(string.Join('\n', rules.Select(r => $"{r} {method}").Prepend(OwnRule)), "");

    private async Task<bool> EntersAsync(string role, string database, SslMode mode)
    {
        try
        {
            await using var connection = await server.OpenAsync(database, role, mode);
            return true;
        }
        catch (PostgresException e) when (e.SqlState == PostgresErrorCodes.InvalidAuthorizationSpecification)
        {
            return false;
        }
    }

    private string Pick(params string[] of) => of[_random.Next(of.Length)];
}
