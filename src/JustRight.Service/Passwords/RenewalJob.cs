using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Service.Documents;
using JustRight.Service.Estates;
using JustRight.Service.Grants;
using JustRight.Service.Jobs;
using JustRight.Service.Secrets;
using JustRight.Service.Storage;

namespace JustRight.Service.Passwords;

/// <summary>
/// Makes the steps of a run-book that are ours, until it waits for a person, a host's time of restarts or a decision. Every step
/// is kept as begun before it is made: a crash leaves one that is looked at first, and made again where looking cannot tell,
/// which for a password is harmless.
/// </summary>
internal sealed class RenewalJob(
    Library library, RenewalStore renewals, ConnectorStore connectorStore, SecretStore secrets, SecretGate gate,
    SurveyJob surveys, JobFeed feed, CrashRehearsal rehearsal, TimeProvider time)
{
    /// <summary>Goes on with a renewal; returns how it stands.</summary>
    public async Task<string> RunAsync(JobRow job, CancellationToken cancel)
    {
        var row = await renewals.FindAsync(job.OrderJson!, cancel)
            ?? throw new ConnectorException(ConnectorFailure.NotFound, "this renewal no longer exists.");
        var estate = Library.ReadEstate((await library.FindAsync(Library.EstateKind, row.Estate, cancel))!);
        var run = new RunBookRun(
            renewals, secrets, gate, rehearsal, time, row, estate, job.StartedBy, await connectorStore.OpenAsync(
                estate, row.AllowedWhenBegun, cancel));
        while (run.Book.Next(host => IsOpen(estate, host, time.GetUtcNow())) == RunBookNext.Go)
        {
            cancel.ThrowIfCancellationRequested();
            var step = run.Book.Current(host => IsOpen(estate, host, time.GetUtcNow()))!;
            feed.Tell(job.Id, new JobEvent("running", step.Number, run.Book.Steps.Count, step.Words, null));
            await run.MakeAsync(step, cancel);
        }

        var next = run.Book.Next(host => IsOpen(estate, host, time.GetUtcNow()));
        var words = RenewalWords.Of(run.Book, next);
        if (next == RunBookNext.Over)
        {
            await renewals.EndAsync(row.Id, run.Book, job.StartedBy, words, cancel);
            await surveys.TakeAsync(estate, job.Id, job.StartedBy, cancel);
        }

        return words;
    }

    /// <summary>Whether services of a host may be restarted at a moment.</summary>
    public static bool IsOpen(Estate estate, string host, DateTimeOffset now) =>
        estate.Host(host)?.Restarts?.IsOpen(now, estate.Rules.TimeZone) ?? true;
}
