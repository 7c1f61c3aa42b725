using JustRight.Core.Runs;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Background;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs.Runs;

/// <summary>Goes on with runs that wait for a host's time of restarts, once it has come.</summary>
internal sealed class WindowClock(
    IDbContextFactory<AppDb> databases, JobEstates estates, JobQueue queue, TimeProvider time, ILogger<WindowClock> logger)
    : RepeatedWork(logger)
{
    private static readonly TimeSpan Look = TimeSpan.FromSeconds(30);

    /// <inheritdoc/>
    protected override Task WaitAsync(CancellationToken cancel) => Task.Delay(Look, time, cancel);

    /// <inheritdoc/>
    protected override async Task TurnAsync(CancellationToken cancel)
    {
        var now = time.GetUtcNow();
        await using var db = await databases.CreateDbContextAsync(cancel);
        foreach (var job in await db.Jobs.AsNoTracking().Include(j => j.Steps)
            .Where(j => j.State == JobState.Waiting).ToListAsync(cancel))
        {
            if (await estates.FindAsync(job, cancel) is not { } estate) continue;
            // What waits for a person goes on by that; only a restart comes due by the clock.
            if (RunRows.Of(job).Next(host => RestartWindows.IsOpen(estate, host, now)).Wait != RunWait.Go) continue;
            // somebody may have decided meanwhile
            var waits = db.Jobs.Where(j => j.Id == job.Id && j.State == JobState.Waiting);
            if (await waits.ExecuteUpdateAsync(j => j.SetProperty(x => x.State, JobState.Queued), cancel) > 0)
                queue.LineUp(job.Id);
        }
    }
}
