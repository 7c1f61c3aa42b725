using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Runs;
using JustRight.Formats.Changes;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs.Runs;

/// <summary>
/// Carries out a run, of whatever kind. Each step goes through the same stages: look, journal the intent, make, look again,
/// journal the result. A crash between any two leaves a journal from which the next start goes on: a step whose intent is
/// journaled is looked at first, and made only if it is not true.
/// </summary>
internal sealed class RunJob(
    IEnumerable<IRunWorks> works, LogStore log, JobFeed feed, CrashRehearsal rehearsal, TimeProvider time) : IJobHandler
{
    /// <inheritdoc/>
    public IReadOnlyList<JobKind> Kinds => JobKinds.GoOn;

    /// <summary>Carries out what is left of a run as far as it comes.</summary>
    public async Task<JobOutcome> RunAsync(AppDb db, JobRow job, CancellationToken cancel)
    {
        var work = await works.Single(w => w.Kinds.Contains(job.Kind)).OpenAsync(job, cancel);
        if (job.Steps.All(s => s.State == RunStepState.Waiting)) await work.BeginAsync(cancel);
        bool IsOpen(string host) => RestartWindows.IsOpen(work.Estate, host, time.GetUtcNow());
        while (RunRows.Of(job).Next(IsOpen) is { Wait: RunWait.Go, Step: { } next })
        {
            cancel.ThrowIfCancellationRequested();
            // what was begun is not left in doubt
            if (next.State == RunStepState.Waiting && await StoppedByAsync(db, job, cancel) is { } who)
                return new JobOutcome(JobState.Stopped, $"stopped by {who}: {RunRows.Of(job).Words()}");
            var step = job.Steps.First(s => s.Number == next.Number);
            await new StepRun(this, work, db, job, step).CarryOutAsync(cancel);
            feed.Tell(
                job.Id, new JobEvent(JobState.Running.Word(), step.Number, job.Steps.Count, step.Words, JobViews.Of(step)));
        }

        var run = RunRows.Of(job);
        var rest = run.Next(IsOpen);
        return new JobOutcome(
            rest.Wait switch
            {
                RunWait.Over => JobState.Done,
                RunWait.Decision => JobState.Failed,
                RunWait.Person or RunWait.Window => JobState.Waiting,
                RunWait.Go => JobState.Waiting, // a host's time of restarts has just come: the clock goes on with it
            },
            await work.RestAsync(run, rest, cancel));
    }

    private static Task<string?> StoppedByAsync(AppDb db, JobRow job, CancellationToken cancel) =>
        db.Jobs.AsNoTracking().Where(j => j.Id == job.Id).Select(j => j.StoppedBy).FirstAsync(cancel);

    /// <summary>One step on its way through the stages.</summary>
    private sealed class StepRun(RunJob all, IRunWork work, AppDb db, JobRow job, StepRow step)
    {
        public async Task CarryOutAsync(CancellationToken cancel)
        {
            var begun = step.State == RunStepState.Intended;
            try
            {
                if (step.IsSaid)
                {
                    await SaidAsync(cancel);
                    return;
                }

                var before = await work.LookAsync(step, begun, cancel);
                await ReachedAsync("looked", cancel);
                switch (before.State)
                {
                    case ObservedState.Done:
                        // True already: if it was begun, it was this run that made it. What changes nothing is made by looking.
                        await RecordAsync(
                            begun || step.ChangeJson is null ? RunStepState.Made : RunStepState.AlreadySo, before.Seen, cancel);
                        return;
                    case ObservedState.Impossible:
                        await RecordAsync(begun ? RunStepState.Failed : RunStepState.Refused, before.Seen, cancel);
                        return;
                    case ObservedState.NotDone:
                        break;
                }

                if (!begun) await IntendAsync(before, cancel);
                begun = true;
                await ReachedAsync("intended", cancel);
                await work.MakeAsync(step, cancel);
                await ReachedAsync("made", cancel);
                var after = await work.LookAgainAsync(step, cancel);
                await ReachedAsync("looked-again", cancel);
                await (after.State == ObservedState.Done
                    ? RecordAsync(RunStepState.Made, after.Seen, cancel)
                    : RecordAsync(RunStepState.Failed, $"made, but not seen afterwards: {after.Seen}", cancel));
                await ReachedAsync("recorded", cancel);
            }
            catch (ConnectorException e)
            {
                await RecordAsync(begun ? RunStepState.Failed : RunStepState.Refused, e.Message, cancel);
            }
        }

        /// <summary>What a person says is believed only where it cannot be looked at.</summary>
        private async Task SaidAsync(CancellationToken cancel)
        {
            var said = step.After is { Length: > 0 } note ? $"{step.By} says it is done: {note}" : $"{step.By} says it is done";
            try
            {
                var seen = await work.LookAtSaidAsync(step, cancel);
                await (seen.State == ObservedState.Done
                    ? RecordAsync(RunStepState.Made, $"{seen.Seen}; {said}", cancel)
                    : RecordAsync(
                        step.State == RunStepState.Intended ? RunStepState.Failed : RunStepState.Refused,
                        $"{said}, and it is not seen: {seen.Seen}", cancel));
            }
            catch (ConnectorException e)
            {
                await RecordAsync(RunStepState.Made, $"{said}; it could not be looked at: {e.Message}", cancel);
            }
        }

        private Task IntendAsync(Looked before, CancellationToken cancel)
        {
            var change = before.Change is { } now ? ChangeJson.Write(now) : step.ChangeJson;
            return JournalAsync(
                row => (row.State, row.Before, row.ChangeJson, row.At, row.By) = (
                    RunStepState.Intended, before.Seen, change, all.Now, job.StartedBy),
                "intend", $"{step.Words}; before: {before.Seen}", cancel);
        }

        private Task RecordAsync(RunStepState state, string seen, CancellationToken cancel) => JournalAsync(
            row => RunRows.Write(row, RunRows.Of(row).To(state, seen, step.IsSaid ? step.By! : job.StartedBy, all.Now)),
            Doing(state), $"{step.Words}; {(IsFailure(state) ? "because" : "after")}: {seen}", cancel);

        /// <summary>The step's state and the log's entry are kept in one transaction: neither is ever there without the
        /// other.</summary>
        private async Task JournalAsync(Action<StepRow> change, string action, string detail, CancellationToken cancel)
        {
            await all.Log.AddWithAsync(
                journal =>
                {
                    var row = journal.Steps.First(s => s.Id == step.Id);
                    change(row);
                    if (row is { Undoes: { } undone, State: RunStepState.Made or RunStepState.AlreadySo })
                        journal.Steps.First(s => s.JobId == job.Undoes && s.Number == undone).State = RunStepState.Undone;
                },
                job.StartedBy, action, job.Subject, detail, cancel);
            await db.Entry(step).ReloadAsync(cancel);
        }

        private Task ReachedAsync(string stage, CancellationToken cancel) =>
            all.Rehearsal.ReachedAsync(step.Number, stage, work.Estate, cancel);

        private static bool IsFailure(RunStepState state) => state is RunStepState.Refused or RunStepState.Failed;

        private static string Doing(RunStepState state) => state switch
        {
            RunStepState.Made => "make",
            RunStepState.AlreadySo => "already so",
            RunStepState.Refused or RunStepState.Failed => "fail",
            RunStepState.Waiting or RunStepState.Intended or RunStepState.Skipped or RunStepState.Abandoned
                or RunStepState.Dropped or RunStepState.Undone =>
                throw new InvalidOperationException("That is no result of carrying a step out."),
        };
    }

    private LogStore Log { get; } = log;

    private CrashRehearsal Rehearsal { get; } = rehearsal;

    private DateTimeOffset Now => time.GetUtcNow();
}
