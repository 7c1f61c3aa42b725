using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Faults;
using JustRight.Service.Answers;
using JustRight.Service.Faults;
using JustRight.Service.Grants;
using JustRight.Service.Passwords;
using JustRight.Service.SignIns;
using JustRight.Service.Storage;
using JustRight.Service.Traces;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs;

/// <summary>
/// Runs jobs. At the start it settles what an earlier run left: what changes the estate goes on from its journal; what
/// only reads is marked as interrupted.
/// </summary>
internal sealed class JobRunner(
    JobQueue queue, JobFeed feed, SurveyJob surveys, GrantJob grants, TraceJob traces, SignInTestJob signInTests,
    RenewalJob renewals, StorageFault faults, IDbContextFactory<AppDb> databases, TimeProvider time, ILogger<JobRunner> logger)
    : BackgroundService
{
    private static readonly TimeSpan Rest = TimeSpan.FromSeconds(10);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await SettleAsync(stoppingToken);
        try
        {
            await foreach (var id in queue.Waiting.ReadAllAsync(stoppingToken)) await OutlastAsync(id, stoppingToken);
        }
        catch (OperationCanceledException)
        {
            // A graceful stop: a grant stops between two steps and goes on at the next start.
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
                await RunAsync(id, cancel);
                return;
            }
            catch (Exception e) when (faults.Of(e) is { } fault)
            {
                logger.LogError("Job {Job} stands still: {Fault}", id, fault.Message);
                await Task.Delay(Rest, time, cancel);
            }
        }
    }

    private async Task RunAsync(string id, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var job = await db.Jobs.Include(j => j.Steps).FirstAsync(j => j.Id == id, cancel);
        logger.LogInformation("{Kind} of {Subject} starts as job {Job}", job.Kind.Word(), job.Subject, id);
        job.State = JobState.Running;
        await db.SaveChangesAsync(cancel);
        try
        {
            job.Message = job.Kind switch
            {
                JobKind.Grant or JobKind.Fix or JobKind.Protect or JobKind.Undo => await grants.RunAsync(db, job, cancel),
                JobKind.Renew => await renewals.RunAsync(job, cancel),
                JobKind.SignIn => await signInTests.RunAsync(job, cancel),
                JobKind.Trace => await traces.RunAsync(job, cancel),
                JobKind.Survey or JobKind.Verify => await surveys.RunAsync(job, cancel),
                JobKind.Document or JobKind.Stage or JobKind.Exception or JobKind.Allowance or JobKind.HandOver
                    or JobKind.Backup =>
                    throw new InvalidOperationException($"{job.Kind} is done when it is asked for again, and never run."),
            };
            job.State = job.Steps.Any(s => s.State == JournalState.Failed) ? JobState.Failed : JobState.Done;
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

        job.EndedAt = time.GetUtcNow();
        await db.SaveChangesAsync(cancel);
        logger.LogInformation("Job {Job} is {State}: {Message}", id, job.State.Word(), job.Message);
        feed.Close(id, new JobEvent(job.State.Word(), job.Steps.Count, job.Steps.Count, job.Message ?? "", null));
    }
}
