using System.Text;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Storage.Upgrades;

/// <summary>
/// Brings what the release of November 2026 stored into the words of today: verdicts, kinds and states of jobs, and the names of
/// properties in what is stored as JSON. Documents stay as their authors wrote them (their readers know the former words), and
/// the log stays as it was said.
/// </summary>
internal static class TradeWords
{
    private static readonly Dictionary<string, string> Properties = new(StringComparer.OrdinalIgnoreCase)
    {
        ["leaning"] = "counts",
        ["later"] = "pending",
        ["spare"] = "excess",
        ["barred"] = "forbidden",
        ["pretend"] = "simulated",
        ["strangers"] = "unexpectedMembers",
        ["mend"] = "fix",
        ["mended"] = "fixed",
    };

    private static readonly Dictionary<string, string> Verdicts = new(StringComparer.OrdinalIgnoreCase)
    {
        ["unmet"] = "missing",
        ["later"] = "pending",
        ["spare"] = "excess",
        ["barred"] = "forbidden",
    };

    private static readonly string[] Statements =
    [
        "UPDATE Jobs SET Kind = 'fix' WHERE Kind = 'mend'",
        "UPDATE Jobs SET Kind = 'protect', OrderJson = '\"protect\"' WHERE Kind = 'guard'",
        "UPDATE Jobs SET State = 'approved' WHERE State = 'released'",
        "UPDATE Jobs SET StartedBy = 'the schedule' WHERE StartedBy = 'the watch'",
        "UPDATE Exceptions SET Target = replace(Target, ' is too much here: ', ' is excess here: ')",
        .. Verdicts.Select(v => $"UPDATE Exceptions SET Verdict = '{Capital(v.Value)}' WHERE Verdict = '{Capital(v.Key)}'"),
    ];

    /// <summary>Brings a database up to date that has the former words.</summary>
    public static async Task ApplyAsync(AppDb db, CancellationToken cancel)
    {
        foreach (var statement in Statements) await db.Database.ExecuteSqlRawAsync(statement, cancel);
        // surveys were kept as text then; PackedSurveys packs them
        await foreach (var row in db.Surveys.AsAsyncEnumerable().WithCancellation(cancel))
            row.Packed = Encoding.UTF8.GetBytes(Renew(Encoding.UTF8.GetString(row.Packed)));
        await foreach (var row in db.Jobs.Where(j => j.ResultJson != null).AsAsyncEnumerable().WithCancellation(cancel))
            row.ResultJson = Renew(row.ResultJson!);
        await foreach (var row in db.Fits.AsAsyncEnumerable().WithCancellation(cancel))
        {
            var packed = PackedJson.Write(Renewed(PackedJson.Read<JsonNode>(row.Packed)));
            (row.CountsJson, row.Packed) = (Renew(row.CountsJson), packed);
        }

        await foreach (var row in db.Reviews.AsAsyncEnumerable().WithCancellation(cancel))
            (row.CountsJson, row.OffJson) = (Renew(row.CountsJson), Renew(row.OffJson));
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Brings the simulation's folder in a data folder up to date; does nothing to one that is.</summary>
    /// <param name="data">The data folder.</param>
    public static void ApplyToSimulation(string data)
    {
        var (former, today) = (Path.Combine(data, "lab"), Path.Combine(data, "simulation"));
        if (!Directory.Exists(former) || Directory.Exists(today)) return;
        foreach (var file in Directory.GetFiles(former, "*.json"))
        {
            var state = JsonNode.Parse(File.ReadAllText(file))!.AsObject();
            state["passwordPrefix"] ??= "pretend-"; // what the accounts that came with it had for a password then
            File.WriteAllText(file, state.ToJsonString());
        }

        Directory.Move(former, today);
    }

    private static string Renew(string json) => Renewed(JsonNode.Parse(json))?.ToJsonString() ?? json;

    private static JsonNode? Renewed(JsonNode? node) => node switch
    {
        JsonObject map =>
            new JsonObject(map.ToList().Select(p => KeyValuePair.Create(NameOfToday(p.Key), Value(p.Key, p.Value)))),
        JsonArray list => new JsonArray([.. list.Select(Renewed)]),
        JsonValue value => value.DeepClone(),
        null => null,
        _ => throw new InvalidDataException($"JSON has no {node.GetType().Name}."),
    };

    private static JsonNode? Value(string name, JsonNode? value) =>
        string.Equals(name, "verdict", StringComparison.OrdinalIgnoreCase)
            && value is JsonValue text && text.TryGetValue<string>(out var word)
            && Verdicts.TryGetValue(word, out var today)
            ? JsonValue.Create(char.IsUpper(word[0]) ? Capital(today) : today)
            : Renewed(value);

    private static string NameOfToday(string name) =>
        !Properties.TryGetValue(name, out var today) ? name : char.IsUpper(name[0]) ? Capital(today) : today;

    private static string Capital(string word) => char.ToUpperInvariant(word[0]) + word[1..];
}
