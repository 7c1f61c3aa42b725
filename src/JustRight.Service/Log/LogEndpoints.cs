using JustRight.Contracts;
using JustRight.Service.Answers;
using JustRight.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Log;

/// <summary>The log, for reading.</summary>
internal static class LogEndpoints
{
    private const int Most = 500;
    private const string Escape = "|";

    public static void MapLog(this IEndpointRouteBuilder api)
    {
        api.MapGet("/log", async (
            string? text, long? before, int? take, IDbContextFactory<AppDb> databases, CancellationToken cancel) =>
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            var entries = db.Log.AsNoTracking();
            if (before is { } number) entries = entries.Where(l => l.Number < number);
            if (!string.IsNullOrEmpty(text))
            {
                var like = $"%{Escaped(text)}%"; // capital or small letters, as people type
                entries = entries.Where(l =>
                    EF.Functions.Like(l.Subject, like, Escape) || EF.Functions.Like(l.Detail, like, Escape)
                    || EF.Functions.Like(l.Action, like, Escape) || EF.Functions.Like(l.Who, like, Escape));
            }

            var rows = await entries.OrderByDescending(l => l.Number).Take(Math.Clamp(take ?? 100, 1, Most)).ToListAsync(cancel);
            return TypedResults.Ok<IReadOnlyList<LogEntryView>>(
                [.. rows.Select(l => new LogEntryView(l.Number, l.At, l.Who, l.Action, l.Subject, l.Detail, l.Hash))]);
        }).WithName("ListLog").WithSummary("The log, newest first").RequireAuthorization(Roles.Reader);
    }

    /// <summary>A text in which nothing stands for anything else.</summary>
    private static string Escaped(string text) => text.Replace(Escape, Escape + Escape, StringComparison.Ordinal)
        .Replace("%", Escape + "%", StringComparison.Ordinal).Replace("_", Escape + "_", StringComparison.Ordinal);
}
