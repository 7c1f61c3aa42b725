using JustRight.Core.Passwords;
using JustRight.Formats.Passwords;
using JustRight.Service.Background;
using JustRight.Service.Documents;
using JustRight.Service.Jobs;
using JustRight.Service.Storage;

namespace JustRight.Service.Passwords;

/// <summary>Goes on with renewals that wait for a host's time of restarts, once it has come.</summary>
internal sealed class RestartClock(
    RenewalStore renewals, Library library, JobQueue queue, TimeProvider time, ILogger<RestartClock> logger)
    : RepeatedWork(logger)
{
    private static readonly TimeSpan Look = TimeSpan.FromSeconds(30);

    /// <inheritdoc/>
    protected override Task WaitAsync(CancellationToken cancel) => Task.Delay(Look, time, cancel);

    /// <inheritdoc/>
    protected override async Task TurnAsync(CancellationToken cancel)
    {
        var now = time.GetUtcNow();
        foreach (var row in await renewals.OpenAsync(cancel))
        {
            if (await PasswordEndpoints.EstateAsync(row.Estate, library, cancel) is not { } estate) continue;
            var book = RunBookJson.Read(row.BookJson);
            // What waits for a person or a decision goes on by that; only a restart comes due by the clock.
            if (book.Current(h =>
                RenewalJob.IsOpen(estate, h, now)) is not { Act: RunBookAct.Restart, State: RunBookState.Waiting }
                || book.Next(h => RenewalJob.IsOpen(estate, h, now)) != RunBookNext.Go)
                continue;
            if (await queue.RunningAsync(JobKind.Renew, row.Id, cancel) is null)
                await queue.AddAsync(new JobOrder(JobKind.Renew, row.Estate, row.StartedBy) { OrderJson = row.Id }, cancel);
        }
    }
}
