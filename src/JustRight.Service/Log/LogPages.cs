using JustRight.Contracts;
using JustRight.Service.Lists;
using JustRight.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Log;

/// <summary>
/// The log, page by page from its end. What is looked for is found by an index of all sequences of three characters [SQLite FTS5,
/// trigram], which the database keeps by itself, in a log of any length; only words that are shorter are looked for entry by entry.
/// </summary>
internal sealed class LogPages(IDbContextFactory<AppDb> databases)
{
    private const int ShortestIndexed = 3, MostCounted = 10_000;

    /// <summary>A page.</summary>
    /// <param name="before">Only entries with a smaller number; null for all.</param>
    public async Task<LogPage> ReadAsync(string? search, long? before, int take, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var words = SoughtWords.Of(search);
        var rows = await Matching(db, words, before ?? long.MaxValue).OrderByDescending(l => l.Number).Take(take).ToListAsync(cancel);
        var total = await CountAsync(db, words, cancel);
        return new LogPage(
            [.. rows.Select(l => new LogEntryView(l.Number, l.At, l.Who, l.Action, l.Subject, l.Detail, l.Hash))],
            rows.Count < take ? null : rows[^1].Number, total > MostCounted && words.Length > 0 ? null : total);
    }

    private static IQueryable<LogRow> Matching(AppDb db, string[] words, long before)
    {
        var entries = IsIndexed(words)
            ? db.Log.FromSql(
                $"""
                SELECT l.* FROM "LogText" t JOIN "Log" l ON l."Number" = t.rowid
                WHERE t."LogText" MATCH {Match(words)} AND t.rowid < {before}
                """)
            : db.Log.Where(l => l.Number < before);
        return entries.AsNoTracking().Containing(
            string.Join(' ', words.Where(w => w.Length < ShortestIndexed)),
            l => l.Subject, l => l.Detail, l => l.Action, l => l.Who);
    }

    /// <summary>How many match, as far as they are counted.</summary>
    private static async Task<int> CountAsync(AppDb db, string[] words, CancellationToken cancel) => words.Length == 0
        ? (int)(await db.Log.MaxAsync(l => (long?)l.Number, cancel) ?? 0) // none is ever deleted
        : await Matching(db, words, long.MaxValue).Take(MostCounted + 1).CountAsync(cancel);

    private static bool IsIndexed(string[] words) => words.Any(w => w.Length >= ShortestIndexed);

    /// <summary>All of the words that the index knows, each as it stands.</summary>
    private static string Match(string[] words) => string.Join(" AND ", words.Where(w => w.Length >= ShortestIndexed)
        .Select(w => $"\"{w.Replace("\"", "\"\"", StringComparison.Ordinal)}\""));
}
