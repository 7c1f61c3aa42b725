using JustRight.Connectors;
using JustRight.Core.Estates;
using JustRight.Core.Runs;
using JustRight.Formats.Changes;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Jobs.Runs;
using JustRight.Service.Jobs.Surveys;

namespace JustRight.Service.Features.Undo;

/// <summary>
/// Opens the estate of runs that undo others: they make changes as any run does, once these are still what to make.
/// </summary>
internal sealed class UndoWorks(ChangeWorks changes, UndoService undo, JobQueue queue, SurveyJob surveys) : IRunWorks
{
    /// <inheritdoc/>
    public IReadOnlyList<JobKind> Kinds => [JobKind.Undo];

    /// <inheritdoc/>
    public async Task<IRunWork> OpenAsync(JobRow job, CancellationToken cancel) =>
        new Work(await changes.OpenAsync(job, cancel), job, undo, queue, surveys);

    private sealed class Work(IRunWork inner, JobRow job, UndoService undo, JobQueue queue, SurveyJob surveys) : IRunWork
    {
        public Estate Estate => inner.Estate;

        /// <summary>
        /// Before the first step of undoing a grant the estate is read anew: a service may have been set to run as the account
        /// since. Nothing is done when it is blocked, or is not what was confirmed.
        /// </summary>
        public async Task BeginAsync(CancellationToken cancel)
        {
            if (job.OrderJson is not null) return;
            await surveys.TakeAsync(Estate, job.Id, job.StartedBy, cancel);
            var plan = await undo.PlanAsync((await queue.FindAsync(job.Undoes!, cancel))!, cancel);
            if (plan.Blocked.Count > 0)
                throw new ConnectorException(
                    ConnectorFailure.Conflict, $"nothing was changed: {string.Join("; ", plan.Blocked)}");
            var confirmed = job.Steps.OrderBy(s => s.Number).Select(s => ChangeJson.Read(s.ChangeJson!).Key);
            if (!plan.Changes.Select(c => c.Key).SequenceEqual(confirmed))
                throw new ConnectorException(
                    ConnectorFailure.Conflict,
                    "nothing was changed: what would be undone is no longer what was confirmed. Undo it again.");
        }

        public Task<Looked> LookAsync(StepRow step, bool begun, CancellationToken cancel) =>
            inner.LookAsync(step, begun, cancel);

        public Task MakeAsync(StepRow step, CancellationToken cancel) => inner.MakeAsync(step, cancel);

        public Task<Looked> LookAgainAsync(StepRow step, CancellationToken cancel) => inner.LookAgainAsync(step, cancel);

        public Task<Looked> LookAtSaidAsync(StepRow step, CancellationToken cancel) => inner.LookAtSaidAsync(step, cancel);

        public Task<string> RestAsync(Run run, RunNext next, CancellationToken cancel) => inner.RestAsync(run, next, cancel);
    }
}
