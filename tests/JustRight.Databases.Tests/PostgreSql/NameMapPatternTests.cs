using JustRight.Core.Engines.PostgreSql;
using Npgsql;

namespace JustRight.Databases.Tests.PostgreSql;

/// <summary>Patterns of name maps: what we read of them means what the server's own expressions mean.</summary>
public sealed class NameMapPatternTests(PostgreSqlServer server) : IClassFixture<PostgreSqlServer>
{
    private const int Pairs = 20_000;
    private static readonly string[] Atoms =
    [
        "a", "b", "c", ".", @"\.", "[ab]", "[^a]", "[a-c]", "@", "-", "_", "1", @"\@", "[b-]", "(", ")", "^", "$", "|", "{2}",
        @"\d",
    ];
    private readonly Random _random = new(20261130);

    [Fact]
    public async Task What_is_read_means_what_it_means_to_the_server()
    {
        var (patterns, names) = (new List<string>(), new List<string>());
        var unread = 0;
        while (patterns.Count < Pairs)
        {
            var pattern = Pattern();
            if (NameMapPattern.TryParse(pattern) is null)
            {
                unread++;
                continue;
            }

            patterns.Add(pattern);
            names.Add(Name());
        }

        unread.ShouldBeGreaterThan(Pairs / 20);
        await using var connection = await server.OpenAsync();
        await using var command = new NpgsqlCommand(
            "SELECT p, n, regexp_match(n, p) FROM unnest($1::text[], $2::text[]) AS pairs(p, n)", connection)
        {
            Parameters = { new() { Value = patterns.ToArray() }, new() { Value = names.ToArray() } },
        };
        await using var reader = await command.ExecuteReaderAsync(TestContext.Current.CancellationToken);
        var matching = 0;
        while (await reader.ReadAsync(TestContext.Current.CancellationToken))
        {
            var (pattern, name) = (reader.GetString(0), reader.GetString(1));
            var (matches, first) = NameMapPattern.TryParse(pattern)!.On(name);
            matches.ShouldBe(!reader.IsDBNull(2), $"{pattern} on {name}");
            if (!matches) continue;
            matching++;
            if (first is not null) first.ShouldBe(reader.GetFieldValue<string[]>(2)[0], $"{pattern} on {name}");
        }

        matching.ShouldBeGreaterThan(Pairs / 50);
    }

    private string Pattern()
    {
        var atoms = Enumerable.Range(0, _random.Next(1, 7))
            .Select(_ => Atoms[_random.Next(Atoms.Length)] + (_random.Next(2) == 0 ? Pick("*", "+", "?", "*", "+?") : ""));
        var body = string.Concat(atoms);
        return _random.Next(3) switch
        {
            0 => body,
            1 => $"^{body}$",
            _ => $"^({body}){Pick(".*", "@.*", "[ab]*", "")}$",
        };
    }

    private string Name() =>
        string.Concat(Enumerable.Range(0, _random.Next(1, 9)).Select(_ => Pick("a", "b", "c", "@", ".", "-", "1")));

    private string Pick(params string[] of) => of[_random.Next(of.Length)];
}
