using JustRight.Contracts;
using JustRight.Service.Answers;
using JustRight.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Log;

/// <summary>The log, for reading.</summary>
internal static class LogEndpoints
{
    private const int Most = 500;

    public static void MapLog(this IEndpointRouteBuilder api)
    {
        api.MapGet("/log", async (
            string? text, long? before, int? take, IDbContextFactory<AppDb> databases, CancellationToken cancel) =>
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            var entries = db.Log.AsNoTracking();
            if (before is { } number) entries = entries.Where(l => l.Number < number);
            if (!string.IsNullOrEmpty(text))
                entries = entries.Where(l =>
                    l.Subject.Contains(text) || l.Detail.Contains(text) || l.Action.Contains(text) || l.Who.Contains(text));
            var rows = await entries.OrderByDescending(l => l.Number).Take(Math.Clamp(take ?? 100, 1, Most)).ToListAsync(cancel);
            return TypedResults.Ok<IReadOnlyList<LogEntryView>>(
                [.. rows.Select(l => new LogEntryView(l.Number, l.At, l.Who, l.Action, l.Subject, l.Detail, l.Hash))]);
        }).WithName("ListLog").WithSummary("The log, newest first").RequireAuthorization(Roles.Reader);
    }
}
