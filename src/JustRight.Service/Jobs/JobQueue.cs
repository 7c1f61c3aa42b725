using System.Threading.Channels;
using JustRight.Contracts;
using JustRight.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs;

/// <summary>Takes in long work. It runs in the order it came, one at a time, so that no two jobs change an estate at once.</summary>
public sealed class JobQueue(IDbContextFactory<AppDb> databases, JobFeed feed, TimeProvider time)
{
    private readonly Channel<string> _waiting = Channel.CreateUnbounded<string>();

    /// <summary>Job ids in the order they came.</summary>
    public ChannelReader<string> Waiting => _waiting.Reader;

    /// <summary>Keeps a job and lines it up.</summary>
    public async Task<JobRow> AddAsync(string kind, string subject, string who, IEnumerable<StepRow> steps, CancellationToken cancel)
    {
        var job = new JobRow { Id = Guid.CreateVersion7().ToString("N"), Kind = kind, Subject = subject, State = "queued", StartedBy = who, CreatedAt = time.GetUtcNow() };
        foreach (var step in steps)
        {
            step.JobId = job.Id;
            job.Steps.Add(step);
        }

        await using var db = await databases.CreateDbContextAsync(cancel);
        db.Jobs.Add(job);
        await db.SaveChangesAsync(cancel);
        LineUp(job.Id);
        return job;
    }

    /// <summary>Lines up a job that is kept already.</summary>
    public void LineUp(string id)
    {
        feed.Open(id);
        _waiting.Writer.TryWrite(id);
    }

    /// <summary>A job for the wire.</summary>
    public static JobView View(JobRow job) => new(
        job.Id, job.Kind, job.Subject, job.State, job.StartedBy, job.CreatedAt, job.EndedAt,
        job.Steps.Count(s => s.State is "made" or "skipped" or "failed"), job.Steps.Count, job.Message, [.. job.Steps.OrderBy(s => s.Number).Select(View)]);

    /// <summary>A step for the wire.</summary>
    public static JobStepView View(StepRow step) => new(step.Number, step.Words, step.Giver, step.Place, step.State, step.Before, step.After, step.At);
}
