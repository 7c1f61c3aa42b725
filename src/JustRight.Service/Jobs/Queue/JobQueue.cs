using System.Threading.Channels;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs.Queue;

/// <summary>
/// Takes in long work. What is about one estate runs in the order it came, one at a time.
/// </summary>
public sealed class JobQueue(IDbContextFactory<AppDb> databases, LogStore log, JobFeed feed, TimeProvider time)
{
    private readonly Channel<string> _waiting = Channel.CreateUnbounded<string>();

    /// <summary>Job ids in the order they came.</summary>
    public ChannelReader<string> Waiting => _waiting.Reader;

    /// <summary>Keeps a job and lines it up.</summary>
    public async Task<JobRow> AddAsync(JobOrder order, CancellationToken cancel) =>
        await AddIfAsync(order, cancel)
            ?? throw new InvalidOperationException($"Nothing was to keep {order.Kind.Word()} from beginning.");

    /// <summary>
    /// Keeps a job with its steps and the log's entry, all or none, and lines it up; null, and nothing kept, where it may not
    /// begin.
    /// </summary>
    public async Task<JobRow?> AddIfAsync(JobOrder order, CancellationToken cancel)
    {
        var job = new JobRow
        {
            Id = Guid.CreateVersion7(time.GetUtcNow()).ToString("N"),
            Kind = order.Kind,
            Subject = order.Subject,
            State = order.Basis is null ? JobState.Queued : JobState.Proposed,
            Basis = order.Basis,
            StartedBy = order.Who,
            CreatedAt = time.GetUtcNow(),
            OrderJson = order.OrderJson,
            Undoes = order.Undoes,
            Words = order.Words.Count == 0 ? null : string.Join('\n', order.Words),
            CanGoBack = order.CanGoBack,
        };
        job.Steps.AddRange(order.Rows?.Invoke(job.Id) ?? RunRows.Of(job.Id, order.Changes, order.UndoneSteps));
        if (job.State == JobState.Proposed)
            job.Message = $"proposed; another granter must approve it: justright proposal approve {job.Id}";
        if (!await KeepAsync(job, order, cancel)) return null;
        order.Prepare?.Invoke(job.Id);
        if (job.State == JobState.Queued) LineUp(job.Id);
        return job;
    }

    private async Task<bool> KeepAsync(JobRow job, JobOrder order, CancellationToken cancel)
    {
        if (order.Log?.Invoke(job.Id) is { } words)
            return await log.AddIfAsync(
                db =>
                {
                    if (order.Guard?.Invoke(db, job.Id) == false) return false;
                    db.Jobs.Add(job);
                    return true;
                },
                order.Who, words.Action, words.Subject ?? order.Subject, words.Detail, cancel);
        await using var db = await databases.CreateDbContextAsync(cancel);
        db.Jobs.Add(job);
        await db.SaveChangesAsync(cancel);
        return true;
    }

    /// <summary>A job with its steps, whatever its state, or null.</summary>
    public async Task<JobRow?> FindAsync(string id, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Jobs.AsNoTracking().Include(j => j.Steps).FirstOrDefaultAsync(j => j.Id == id, cancel);
    }

    /// <summary>Whether a job was undone, or is being, or a proposal to do so is open.</summary>
    public async Task<bool> IsUndoneAsync(string id, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return IsUndone(db, id);
    }

    /// <summary>The same within a transaction.</summary>
    public static bool IsUndone(AppDb db, string id) => db.Jobs.Any(j => j.Undoes == id && !NotUndone.Contains(j.State));

    private static readonly JobState[] NotUndone =
        [JobState.Failed, JobState.Interrupted, JobState.Void, JobState.Withdrawn];

    /// <summary>Lines up a job that is kept already.</summary>
    public void LineUp(string id)
    {
        feed.Open(id);
        _waiting.Writer.TryWrite(id);
    }
}
