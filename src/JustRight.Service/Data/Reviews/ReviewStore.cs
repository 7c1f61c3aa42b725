using System.Text.Json;
using JustRight.Contracts;
using JustRight.Core.Calendar;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Reviews;

/// <summary>Keeps reviews. None is ever changed.</summary>
public sealed class ReviewStore(IDbContextFactory<AppDb> databases, LogStore log)
{
    /// <summary>The reviews of an install, newest first.</summary>
    public async Task<IReadOnlyList<ReviewView>> ListAsync(string install, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return [.. (await db.Reviews.AsNoTracking().Where(r =>
            r.Install == install).OrderByDescending(r => r.Number).ToListAsync(cancel)).Select(View)];
    }

    /// <summary>The last look at each install of an estate that anybody looked at.</summary>
    public async Task<IReadOnlyDictionary<string, ReviewRow>> LatestAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Reviews.AsNoTracking().Where(r =>
            db.Summaries.Any(s => s.Estate == estate && s.Install == r.Install)
            && !db.Reviews.Any(later => later.Install == r.Install && later.Number > r.Number))
            .ToDictionaryAsync(r => r.Install, cancel);
    }

    /// <summary>Keeps a review, and says so in the log. Its number is given here.</summary>
    public async Task<ReviewView> AddAsync(ReviewView review, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var row = new ReviewRow
        {
            Install = review.Install,
            Number = (await db.Reviews.Where(r => r.Install == review.Install).MaxAsync(r => (int?)r.Number, cancel) ?? 0) + 1,
            Fit = review.Fit,
            CountsJson = JsonSerializer.Serialize(review.Counts, ContractsJson.Default.FitCountsView),
            By = review.By,
            WrittenBy = review.WrittenBy,
            At = review.At,
            NextBy = review.NextBy,
            Remark = review.Remark,
            OffJson = JsonSerializer.Serialize(review.Off, ContractsJson.Default.IReadOnlyListReviewedView),
        };
        var open = review.Off.Count(o => o.Accepted is null);
        await log.AddWithAsync(
            journal => journal.Reviews.Add(row), review.WrittenBy, "review", review.Install,
            $"{review.By} reviewed fit {review.Fit}: {review.Counts.Words}; {(open == 0 ? "nothing was left open" : $"{open} left open")}{(review.NextBy is { } next ? $"; again by {next:yyyy-MM-dd}" : "")}",
            cancel);
        return View(row);
    }

    /// <summary>A review as it is told.</summary>
    public static ReviewView View(ReviewRow row) => new(
        row.Number, row.Install, row.Fit, JsonSerializer.Deserialize(
            row.CountsJson, ContractsJson.Default.FitCountsView)!, row.By, row.WrittenBy, row.At, row.NextBy, row.Remark,
        JsonSerializer.Deserialize(row.OffJson, ContractsJson.Default.IReadOnlyListReviewedView)!);
}
