using System.Globalization;
using System.Text;
using JustRight.Contracts;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Lists;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Log;

/// <summary>
/// The log, page by page from its end. What is looked for is found by an index of all sequences of three characters [SQLite FTS5,
/// trigram], which the database keeps by itself, in a log of any length; only words that are shorter are looked for entry by
/// entry.
/// </summary>
internal sealed class LogPages(IDbContextFactory<AppDb> databases)
{
    private const string Texts = """l."Subject" || ' ' || l."Detail" || ' ' || l."Action" || ' ' || l."Who" """;
    private const int ShortestIndexed = 3, MostCounted = 10_000;

    /// <summary>A page.</summary>
    /// <param name="before">Only entries with a smaller number; null for all.</param>
    public async Task<LogPage> ReadAsync(string? search, long? before, int take, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var words = SoughtWords.Of(search);
        var rows = await Newest(db, words, before ?? long.MaxValue, take).AsNoTracking().ToListAsync(cancel);
        int? total = words.Length == 0 ? (int)(await db.Log.MaxAsync(l => (long?)l.Number, cancel) ?? 0) // none is ever deleted
            : await Newest(db, words, long.MaxValue, MostCounted + 1)
                .CountAsync(cancel) is <= MostCounted and var few ? few : null;
        return new LogPage(
            [.. rows.Select(l => new LogEntryView(l.Number, l.At, l.Who, l.Action, l.Subject, l.Detail, l.Hash))],
            rows.Count < take ? null : rows[^1].Number, total);
    }

    /// <summary>
    /// The newest entries that contain all words: the index tells them in that order, and no more than are asked for.
    /// </summary>
    private static IQueryable<LogRow> Newest(AppDb db, string[] words, long before, int take)
    {
        var (indexed, others) = (
            words.Where(w => w.Length >= ShortestIndexed).ToList(), words.Where(w => w.Length < ShortestIndexed));
        if (indexed.Count == 0)
            return db.Log.Where(l => l.Number < before)
                .Containing(string.Join(' ', others), l => l.Subject, l => l.Detail, l => l.Action, l => l.Who)
                .OrderByDescending(l => l.Number).Take(take);
        var parameters = new List<object> { string.Join(" AND ", indexed.Select(Quoted)), before, take };
        var sql = new StringBuilder(
            """
            SELECT l.* FROM "LogText" t JOIN "Log" l ON l."Number" = t.rowid WHERE t."LogText" MATCH {0} AND t.rowid < {1}
            """);
        foreach (var word in others)
        {
            parameters.Add(SoughtWords.Pattern(word));
            sql.Append(
                CultureInfo.InvariantCulture,
                $" AND {Texts} LIKE {{{parameters.Count - 1}}} ESCAPE '{SoughtWords.Escape}'");
        }

        sql.Append(" ORDER BY t.rowid DESC LIMIT {2}");
        return db.Log.FromSqlRaw(sql.ToString(), [.. parameters]);
    }

    /// <summary>A word as the index is asked for it: as it stands.</summary>
    private static string Quoted(string word) => $"\"{word.Replace("\"", "\"\"", StringComparison.Ordinal)}\"";
}
