using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs.Schedules;

/// <summary>Looks at estates without anybody asking.</summary>
internal sealed class ScheduledSurveys(JobQueue queue, IDbContextFactory<AppDb> databases) : IDisposable
{
    /// <summary>By whom its surveys are started, for the log.</summary>
    public const string Name = "the schedule";

    private readonly SemaphoreSlim _one = new(1);

    /// <summary>Lines a survey up, unless one of that estate waits or runs already; that one is returned then.</summary>
    public async Task<(JobRow Job, bool Fresh)> LookAsync(string estate, CancellationToken cancel)
    {
        await _one.WaitAsync(cancel);
        try
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            var under = await db.Jobs.AsNoTracking().Include(j => j.Steps)
                .Where(j => j.Kind == JobKind.Survey && j.Subject == estate
                    && (j.State == JobState.Queued || j.State == JobState.Running))
                .FirstOrDefaultAsync(cancel);
            return under is not null
                ? (under, false)
                : (await queue.AddAsync(new JobOrder(JobKind.Survey, estate, Name), cancel), true);
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>The last look of the watch at an estate, or null.</summary>
    public async Task<JobRow?> LastAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Jobs.AsNoTracking().Where(j => j.Kind == JobKind.Survey && j.Subject == estate && j.StartedBy == Name)
            .OrderByDescending(j => j.Id).FirstOrDefaultAsync(cancel);
    }

    /// <inheritdoc/>
    public void Dispose() => _one.Dispose();
}
