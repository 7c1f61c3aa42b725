using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs.Runs;

/// <summary>Keeps what people decide about runs, each decision in one transaction with its entry in the log.</summary>
internal sealed class RunStore(JobQueue queue, LogStore log)
{
    /// <summary>
    /// Decides about a run as it stands then, and lines it up again; of two who decide at once, the second finds it lined up.
    /// </summary>
    /// <returns>Why it cannot be decided so; null when it was.</returns>
    public async Task<ProblemHttpResult?> DecideAsync(
        string id, Func<JobRow, (RunDecision? Decision, ProblemHttpResult? Refused)> decide, string who, CancellationToken cancel)
    {
        if (await queue.FindAsync(id, cancel) is not { } seen) return null;
        var (first, refused) = decide(seen);
        if (first is null) return refused;
        var kept = await log.AddIfAsync(
            db =>
            {
                var job = db.Jobs.Include(j => j.Steps).First(j => j.Id == id);
                var (decision, now) = decide(job);
                refused = now;
                if (decision is null) return false;
                RunRows.Write(job, decision.Run);
                LineUp(job);
                return true;
            },
            who, first.Action, seen.Subject, first.Detail, cancel);
        if (kept) queue.LineUp(id);
        return refused;
    }

    /// <summary>
    /// Has a run stop after the step that is being made; one that does not run is stopped at once.
    /// </summary>
    /// <returns>Whether it could be stopped.</returns>
    public Task<bool> StopAsync(JobRow seen, string who, DateTimeOffset now, CancellationToken cancel) => log.AddIfAsync(
        db =>
        {
            var job = db.Jobs.Include(j => j.Steps).First(j => j.Id == seen.Id);
            if (!JobStates.CanBeStopped(job)) return false;
            job.StoppedBy = who;
            if (job.State == JobState.Waiting)
                (job.State, job.EndedAt, job.Message) = (
                    JobState.Stopped, now, $"stopped by {who}: {RunRows.Of(job).Words()}");
            return true;
        },
        who, "stop", seen.Subject, $"{seen.Kind.Word()} {seen.Id}", cancel);

    /// <summary>Changes a job in the transaction of the log's entry, and lines it up.</summary>
    /// <param name="change">False where it is not to be changed any more.</param>
    public async Task<bool> GoOnAsync(
        JobRow seen, Func<AppDb, JobRow, bool> change, string who, string action, string detail, CancellationToken cancel)
    {
        var kept = await log.AddIfAsync(
            db =>
            {
                var job = db.Jobs.Include(j => j.Steps).First(j => j.Id == seen.Id);
                if (!change(db, job)) return false;
                LineUp(job);
                return true;
            },
            who, action, seen.Subject, detail, cancel);
        if (kept) queue.LineUp(seen.Id);
        return kept;
    }

    private static void LineUp(JobRow job) => (job.State, job.EndedAt, job.StoppedBy) = (JobState.Queued, null, null);
}
