using JustRight.Contracts;
using JustRight.Service.Access;
using JustRight.Service.Hosting;
using JustRight.Service.Reports;
using JustRight.Service.Storage;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Log;

/// <summary>The log, for reading.</summary>
internal static class LogEndpoints
{
    private const int Most = 500;

    public static void MapLog(this IEndpointRouteBuilder api)
    {
        api.MapGet("/log", async (string? text, long? before, int? take, IDbContextFactory<AppDb> databases, CancellationToken cancel) =>
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            var entries = db.Log.AsNoTracking();
            if (before is { } number) entries = entries.Where(l => l.Number < number);
            if (!string.IsNullOrEmpty(text)) entries = entries.Where(l => l.Subject.Contains(text) || l.Detail.Contains(text) || l.Action.Contains(text) || l.Who.Contains(text));
            var rows = await entries.OrderByDescending(l => l.Number).Take(Math.Clamp(take ?? 100, 1, Most)).ToListAsync(cancel);
            return TypedResults.Ok<IReadOnlyList<LogEntryView>>([.. rows.Select(l => new LogEntryView(l.Number, l.At, l.Who, l.Action, l.Subject, l.Detail, l.Hash))]);
        }).WithName("ListLog").WithSummary("The log, newest first").RequireAuthorization(Roles.Reader);

        api.MapGet("/log/check", async (LogHeads heads, CancellationToken cancel) => TypedResults.Ok(await heads.CheckAsync(null, cancel)))
            .WithName("CheckLog").WithSummary("Checks the log's chain of hashes against its signed heads").RequireAuthorization(Roles.Reader);

        api.MapPost("/log/check", async Task<Results<Ok<LogCheckView>, ProblemHttpResult>> (LogAnchor anchor, LogHeads heads, CancellationToken cancel) =>
            string.IsNullOrWhiteSpace(anchor.Head)
                ? Problems.Bad("head", "The anchor is empty.", "the content of a file that 'justright log anchor' wrote")
                : TypedResults.Ok(await heads.CheckAsync(anchor.Head, cancel)))
            .WithName("CheckLogAgainstAnchor").WithSummary("Checks the log, and whether it still holds the head that an anchor names")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400);

        api.MapGet("/log/anchor", async Task<Results<ContentHttpResult, ProblemHttpResult>> (LogHeads heads, CancellationToken cancel) =>
            await heads.SignAsync(cancel) is { } head
                ? TypedResults.Text(head, EvidenceFile.MediaType)
                : Problems.Of(404, "not-found", "The log is empty."))
            .WithName("AnchorLog").WithSummary("The signed head of the log, to be kept elsewhere").RequireAuthorization(Roles.Reader).ProducesProblem(404);
    }
}
