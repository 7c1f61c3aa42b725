using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Faults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs.Queue;

/// <summary>
/// Runs jobs: those of one estate in the order they came, those of several estates side by side. At the start it settles what an
/// earlier run left: what changes the estate goes on from its journal; what only reads is marked as interrupted.
/// </summary>
internal sealed class JobRunner(
    JobQueue queue, JobFeed feed, IEnumerable<IJobHandler> handlers, JobEstates estates, PlaceLocks locks, StorageFault faults,
    IDbContextFactory<AppDb> databases, TimeProvider time, ILogger<JobRunner> logger)
    : BackgroundService
{
    private static readonly TimeSpan Rest = TimeSpan.FromSeconds(10);

    /// <summary>The last job of each estate: the next one begins when it is over.</summary>
    private readonly Dictionary<string, Task> _lanes = new(StringComparer.Ordinal);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await SettleAsync(stoppingToken);
        try
        {
            await foreach (var id in queue.Waiting.ReadAllAsync(stoppingToken))
            {
                var lane = await LaneAsync(id, stoppingToken);
                foreach (var over in _lanes.Where(l => l.Value.IsCompleted).Select(l => l.Key).ToList()) _lanes.Remove(over);
                _lanes[lane] = AfterAsync(_lanes.GetValueOrDefault(lane), id, stoppingToken);
            }
        }
        catch (OperationCanceledException)
        {
            // A graceful stop: a run stops between two steps and goes on at the next start.
        }

        await Task.WhenAll(_lanes.Values);
    }

    private async Task AfterAsync(Task? before, string id, CancellationToken cancel)
    {
        if (before is not null) await before;
        try
        {
            await OutlastAsync(id, cancel);
        }
        catch (OperationCanceledException) when (cancel.IsCancellationRequested)
        {
            // The service stops; what comes after it in the lane stops as well.
        }
        catch (Exception e) when (faults.Of(e) is null)
        {
            // whatever becomes of one job, the next of its estate has its turn; a run goes on at the next start
            logger.LogCritical(e, "Job {Job} ended without an end", id);
        }
    }

    /// <summary>The lane of a job: that of its estate; its own while the database cannot say.</summary>
    private async Task<string> LaneAsync(string id, CancellationToken cancel)
    {
        try
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            return await db.Jobs.AsNoTracking().FirstOrDefaultAsync(j => j.Id == id, cancel) is { } job
                ? await estates.NameAsync(job, cancel)
                : id;
        }
        catch (Exception e) when (faults.Of(e) is not null)
        {
            return id;
        }
    }

    private async Task SettleAsync(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        foreach (var job in await db.Jobs.Where(j =>
            j.State == JobState.Queued || j.State == JobState.Running).OrderBy(j => j.Id).ToListAsync(cancel))
        {
            if (JobKinds.GoOn.Contains(job.Kind))
            {
                logger.LogWarning(
                    "{Kind} {Job} of {Subject} was interrupted; it continues from its journal", job.Kind.Word(), job.Id,
                    job.Subject);
                queue.LineUp(job.Id);
                continue;
            }

            (job.State, job.EndedAt, job.Message) = (
                JobState.Interrupted, time.GetUtcNow(), "the service stopped while this ran; run it again");
        }

        await db.SaveChangesAsync(cancel);
    }

    /// <summary>
    /// Runs a job, and runs it again while the disk is full or the database cannot be written: what changes the estate goes on
    /// from its journal, as after a crash.
    /// </summary>
    private async Task OutlastAsync(string id, CancellationToken cancel)
    {
        while (true)
        {
            try
            {
                await TakeAndRunAsync(id, cancel);
                return;
            }
            catch (Exception e) when (faults.Of(e) is { } fault)
            {
                logger.LogError("Job {Job} stands still: {Fault}", id, fault.Message);
                await Task.Delay(Rest, time, cancel);
            }
        }
    }

    /// <summary>Runs a job once the places that it changes, or reads, are free.</summary>
    private async Task TakeAndRunAsync(string id, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var job = await db.Jobs.AsNoTracking().FirstAsync(j => j.Id == id, cancel);
        var changes = JobKinds.GoOn.Contains(job.Kind);
        var estate = changes || job.Kind is JobKind.Survey or JobKind.Verify ? await estates.FindAsync(job, cancel) : null;
        using var taken = await locks.TakeAsync(estate is null ? [] : SharedSystems.AddressesOf(estate), changes, cancel);
        await RunAsync(db, id, cancel);
    }

    private async Task RunAsync(AppDb db, string id, CancellationToken cancel)
    {
        var job = await db.Jobs.Include(j => j.Steps).FirstAsync(j => j.Id == id, cancel);
        if (job.State is not (JobState.Queued or JobState.Running)) return; // it was lined up twice, and is over
        logger.LogInformation("{Kind} of {Subject} starts as job {Job}", job.Kind.Word(), job.Subject, id);
        job.State = JobState.Running;
        await db.SaveChangesAsync(cancel);
        try
        {
            (job.State, job.Message) = await handlers.Single(h => h.Kinds.Contains(job.Kind)).RunAsync(db, job, cancel);
        }
        catch (OperationCanceledException) when (cancel.IsCancellationRequested)
        {
            throw;
        }
        catch (ConnectorException e)
        {
            (job.State, job.Message) = (JobState.Failed, e.Message);
        }
        catch (FaultException e)
        {
            (job.State, job.Message) = (JobState.Failed, e.Message);
        }
        catch (Exception e) when (faults.Of(e) is null)
        {
            logger.LogError(e, "Job {Job} broke", id);
            (job.State, job.Message) = (
                JobState.Failed, $"something unexpected went wrong ({e.GetType().Name}); the service's log has the details");
        }

        job.EndedAt = job.State == JobState.Waiting ? null : time.GetUtcNow();
        await db.SaveChangesAsync(cancel);
        logger.LogInformation("Job {Job} is {State}: {Message}", id, job.State.Word(), job.Message);
        feed.Close(id, new JobEvent(job.State.Word(), job.Steps.Count, job.Steps.Count, job.Message ?? "", null));
    }
}
