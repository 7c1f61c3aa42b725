using JustRight.Contracts;
using JustRight.Core.Calendar;
using JustRight.Core.Estates;
using JustRight.Service.Data.Calendar;
using JustRight.Service.Data.Reviews;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Reviews;

/// <summary>
/// How the installs of an estate stand with their reviews: who looked last, and when somebody is to look again.
/// </summary>
internal sealed class ReviewStands(
    CalendarService calendar, ReviewStore reviews, IDbContextFactory<AppDb> databases, TimeProvider time)
{
    private const string Never = "never";

    /// <summary>All installs of an estate.</summary>
    public async Task<IReadOnlyList<ReviewStand>> ListAsync(Estate estate, CancellationToken cancel)
    {
        var due = (await calendar.EntriesAsync(estate, cancel)).Where(e => e.Kind == EntryKind.Review)
            .ToDictionary(e => e.Subject);
        var latest = await reviews.LatestAsync(estate.Name, cancel);
        await using var db = await databases.CreateDbContextAsync(cancel);
        var installs = await db.Summaries.AsNoTracking().Where(s => s.Estate == estate.Name).ToListAsync(cancel);
        var now = time.GetUtcNow();
        return [.. installs.Select(s => new ReviewStand(
            s.Install, s.Title, s.Stage, latest.TryGetValue(s.Install, out var row) ? ReviewStore.View(row) : null,
            due.GetValueOrDefault(s.Install)?.At, due.GetValueOrDefault(s.Install)?.StandingAt(now).Word() ?? Never))];
    }
}
