using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;

namespace JustRight.Service.Tests;

/// <summary>
/// Changes what a service stored behind its back: what another release would have left, or what happens in the simulated estate.
/// </summary>
internal static class StoredData
{
    /// <summary>Runs a statement on the service's database.</summary>
    public static async Task SqlAsync(this TestedService service, string sql, params (string Name, string Value)[] values)
    {
        await using var db = new SqliteConnection($"Data Source={Path.Combine(service.Data, "justright.db")}");
        await db.OpenAsync();
        await using var command = db.CreateCommand();
        command.CommandText = sql;
        foreach (var (name, value) in values) command.Parameters.AddWithValue(name, value);
        if (await command.ExecuteNonQueryAsync() != 1) throw new InvalidOperationException($"Not one row: {sql}");
    }

    /// <summary>Replaces a text of a stored document.</summary>
    public static Task ReplaceAsync(this TestedService service, string kind, string name, string old, string now) =>
        service.SqlAsync(
        "UPDATE Documents SET Text = REPLACE(Text, $old, $now) WHERE Kind = $kind AND Name = $name AND INSTR(Text, $old) > 0",
        ("$kind", kind), ("$name", name), ("$old", old), ("$now", now));

    /// <summary>Changes the simulated estate.</summary>
    public static async Task SimulationAsync(this TestedService service, Action<JsonNode> change)
    {
        var file = Directory.GetFiles(service.Data, "*.json", SearchOption.AllDirectories).Single(
            f => File.ReadAllText(f).Contains("\"domainSid\"", StringComparison.Ordinal));
        var state = JsonNode.Parse(await File.ReadAllTextAsync(file))!;
        change(state);
        await File.WriteAllTextAsync(file, state.ToJsonString());
    }

    /// <summary>An object of a list of the simulation, by its name.</summary>
    public static JsonNode Named(this JsonNode state, string list, string name) =>
        state[list]!.AsArray().Single(i => (string)i!["name"]! == name)!;
}
