using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.SecretUses;
using JustRight.Formats.Changes;
using JustRight.Service.Documents;
using JustRight.Service.Estates;
using JustRight.Service.Fits;
using JustRight.Service.Jobs;
using JustRight.Service.Log;
using JustRight.Service.Secrets;
using JustRight.Service.Storage;
using JustRight.Service.Traces;
using JustRight.Service.Undo;

namespace JustRight.Service.Grants;

/// <summary>
/// Carries out confirmed steps: of a worklist, of a remedy, or undoing those. Each goes through the same stages: look, journal
/// the intent, make, look again, journal the
/// result. A crash between any two leaves a journal from which the next start goes on: a step whose intent is journaled is
/// looked at first, and made only if it is not true.
/// </summary>
internal sealed class GrantJob(
    Library library, FitService fitService, TraceJob traces, ConnectorStore connectorStore, SecretStore secrets, SecretGate gate,
    SurveyJob surveys, UndoService undo, JobQueue queue, LogStore log, JobFeed feed, CrashRehearsal rehearsal, TimeProvider time)
{
    /// <summary>Carries out what is left of a job as far as it comes, then reads the estate anew.</summary>
    public async Task<string> RunAsync(AppDb db, JobRow job, CancellationToken cancel)
    {
        var ofInstall = await library.FindAsync(Library.InstallKind, job.Subject, cancel) is not null && job.OrderJson is null;
        var estate = ofInstall
            ? (await fitService.PlanAsync(job.Subject, cancel)).Estate
            : Library.ReadEstate((await library.FindAsync(Library.EstateKind, job.Subject, cancel))!);
        var connectors = await connectorStore.OpenAsync(estate, cancel);
        if (job is { Kind: JobKind.Undo, OrderJson: null } && job.Steps.All(s => s.State == JournalState.Waiting))
            await NeedStillAsync(job, estate, cancel);
        while (JobRun.Of(job).Next() is { } next)
        {
            cancel.ThrowIfCancellationRequested();
            var step = job.Steps.First(s => s.Number == next.Number);
            await CarryOutAsync(db, job, step, estate, connectors, cancel);
            feed.Tell(job.Id, new JobEvent(JobState.Running.Word(), step.Number, job.Steps.Count, step.Words, JobQueue.View(step)));
        }

        await surveys.TakeAsync(estate, job.Id, job.StartedBy, cancel);
        var now = ofInstall ? (await fitService.JudgeAsync(job.Subject, cancel))!.Fit.Words
            : job.OrderJson == JobKinds.ProtectionOrder ? null
            : await TraceAgainAsync(job, cancel);
        var left = job.Words is null ? "" : $"; {job.Words.Replace("\n", "; ", StringComparison.Ordinal)}";
        return $"{JobRun.Words(job)}{(now is null ? "" : $"; now {now}")}{left}";
    }

    /// <summary>
    /// Before the first step of undoing a grant the estate is read anew: a service may have been set to run as the account since.
    /// Nothing is done when it is blocked, or is not what was confirmed.
    /// </summary>
    private async Task NeedStillAsync(JobRow job, Estate estate, CancellationToken cancel)
    {
        await surveys.TakeAsync(estate, job.Id, job.StartedBy, cancel);
        var plan = await undo.PlanAsync((await queue.FindAsync(job.Undoes!, cancel))!, cancel);
        if (plan.Blocked.Count > 0)
            throw new ConnectorException(ConnectorFailure.Conflict, $"nothing was changed: {string.Join("; ", plan.Blocked)}");
        var confirmed = job.Steps.OrderBy(s => s.Number).Select(s => ChangeJson.Read(s.ChangeJson).Key);
        if (!plan.Changes.Select(c => c.Key).SequenceEqual(confirmed))
            throw new ConnectorException(
                ConnectorFailure.Conflict,
                "nothing was changed: what would be undone is no longer what was confirmed. Undo it again.");
    }

    /// <summary>After fixing, or undoing that, the same question is asked again.</summary>
    private async Task<string> TraceAgainAsync(JobRow job, CancellationToken cancel)
    {
        var again = await traces.TraceAsync(job.Id, job.Subject, StoredJson.Read<SettledTrace>(job.OrderJson!), cancel);
        job.ResultJson = StoredJson.Write(again);
        return again.View.Words;
    }

    private async Task CarryOutAsync(
        AppDb db, JobRow job, StepRow step, Estate estate, EstateConnectors connectors, CancellationToken cancel)
    {
        var change = ChangeJson.Read(step.ChangeJson);
        try
        {
            var before = await connectors.ObserveAsync(change, cancel);
            await rehearsal.ReachedAsync(step.Number, "looked", estate, cancel);
            if (before.State == ObservedState.Done)
            {
                // True already: if the intent was journaled, it was this job that made it before it was interrupted.
                await RecordAsync(step.State == JournalState.Intended ? JournalState.Made : JournalState.Skipped, before.Seen);
                return;
            }

            if (before.State == ObservedState.Impossible)
            {
                await RecordAsync(JournalState.Failed, before.Seen); // nothing was touched: there is no state before
                return;
            }

            var password = change switch
            {
                CreateAccount account => await secrets.NewPasswordAsync(job.Subject, $"{account.Domain}\\{account.Name}", cancel),
                SetServiceAccount { NeedsPassword: true } set =>
                    await gate.PasswordOfAsync(
                        set.Account, EstateSecretUses.OfServiceAccount(estate, set.Host, set.Account), cancel)
                    ?? throw new ConnectorException(
                        ConnectorFailure.SignIn,
                        $"the password of {set.Account} is not known here: set it with justright secret set {SecretStore.NameFor(set.Account)}, and run this again."),
                _ => null,
            };
            if (step.State != JournalState.Intended)
            {
                (step.State, step.Before, step.At) = (JournalState.Intended, before.Seen, time.GetUtcNow());
                await JournalAsync("intend", $"{step.Words}; before: {before.Seen}");
            }

            await rehearsal.ReachedAsync(step.Number, "intended", estate, cancel);
            await MakeAsync(change, password, connectors, cancel);
            await rehearsal.ReachedAsync(step.Number, "made", estate, cancel);
            var after = await connectors.ObserveAsync(change, cancel);
            await rehearsal.ReachedAsync(step.Number, "looked-again", estate, cancel);
            await RecordAsync(
                after.State == ObservedState.Done ? JournalState.Made : JournalState.Failed,
                after.State == ObservedState.Done ? after.Seen : $"made, but not seen afterwards: {after.Seen}");
            await rehearsal.ReachedAsync(step.Number, "recorded", estate, cancel);
        }
        catch (ConnectorException e)
        {
            await RecordAsync(JournalState.Failed, e.Message);
        }

        // A connection may break after the change was made and before that was said: only looking again tells.
        static async Task MakeAsync(Change change, NewPassword? password, EstateConnectors connectors, CancellationToken cancel)
        {
            try
            {
                await connectors.MakeAsync(change, password, cancel);
            }
            catch (ConnectorException e) when (e.Failure == ConnectorFailure.Unreachable)
            {
                try
                {
                    if ((await connectors.ObserveAsync(change, cancel)).State == ObservedState.Done) return;
                }
                catch (ConnectorException)
                {
                    throw new ConnectorException(
                        e.Failure,
                        $"{e.Message} Whether it was made is not known, because it could not be checked: run the rest when the place answers; the step is checked first.",
                        e);
                }

                throw;
            }
        }

        Task RecordAsync(JournalState state, string seen)
        {
            (step.State, step.After, step.At) = (state, seen, time.GetUtcNow());
            return JournalAsync(
                Doing(state),
                $"{step.Words}; {(state == JournalState.Failed ? "because" : "after")}: {seen}");
        }

        static string Doing(JournalState state) => state switch
        {
            JournalState.Made => "make",
            JournalState.Skipped => "skip",
            JournalState.Failed => "fail",
            JournalState.Waiting or JournalState.Intended => throw new InvalidOperationException("A step that is not over has no result."),
        };

        // The step's state and the log's entry are kept in one transaction: neither is ever there without the other.
        async Task JournalAsync(string action, string detail)
        {
            var (state, seenBefore, seenAfter, at) = (step.State, step.Before, step.After, step.At);
            await log.AddWithAsync(
                journal =>
                {
                    var row = journal.Steps.First(s => s.Id == step.Id);
                    (row.State, row.Before, row.After, row.At) = (state, seenBefore, seenAfter, at);
                },
                job.StartedBy, action, job.Subject, detail, cancel);
            await db.Entry(step).ReloadAsync(cancel);
        }
    }
}
