using System.Threading.Channels;
using JustRight.Contracts;
using JustRight.Core.Changes;
using JustRight.Core.Worklists.Undo;
using JustRight.Formats.Changes;
using JustRight.Service.Fits;
using JustRight.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs;

/// <summary>Long work that is asked for.</summary>
/// <param name="Who">Who asked.</param>
public sealed record JobOrder(JobKind Kind, string Subject, string Who)
{
    /// <summary>What is asked, for kinds that need more than the subject.</summary>
    public string? OrderJson { get; init; }

    /// <summary>The job that it undoes, or null.</summary>
    public string? Undoes { get; init; }

    /// <summary>What it rests on, for a proposal that waits for another's approval; null for what is lined up at once.</summary>
    public string? Basis { get; init; }

    /// <summary>What it is about besides its changes, a line each: what an approver is shown, what undoing leaves.</summary>
    public IReadOnlyList<string> Words { get; init; } = [];

    /// <summary>Called with the job's id before it can run; null for nothing.</summary>
    public Action<string>? Prepare { get; init; }

    /// <summary>The changes to make, in order.</summary>
    public IReadOnlyList<Change> Changes { get; init; } = [];
}

/// <summary>
/// Takes in long work. It runs in the order it came, one at a time, so that no two jobs change an estate at once.
/// </summary>
public sealed class JobQueue(IDbContextFactory<AppDb> databases, JobFeed feed, TimeProvider time)
{
    private readonly Channel<string> _waiting = Channel.CreateUnbounded<string>();

    /// <summary>Job ids in the order they came.</summary>
    public ChannelReader<string> Waiting => _waiting.Reader;

    /// <summary>Keeps a job and lines it up.</summary>
    public async Task<JobRow> AddAsync(JobOrder order, CancellationToken cancel)
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
        };
        job.Steps.AddRange(order.Changes.Select((change, i) => new StepRow
        {
            JobId = job.Id,
            Number = i + 1,
            ChangeJson = ChangeJson.Write(change),
            Words = change.Words,
            Team = NextStep.TeamName(change.Team),
            Place = change.Place,
            State = JournalState.Waiting,
        }));

        if (job.State == JobState.Proposed)
            job.Message = $"proposed; another granter must approve it: justright proposal approve {job.Id}";
        await using var db = await databases.CreateDbContextAsync(cancel);
        db.Jobs.Add(job);
        await db.SaveChangesAsync(cancel);
        order.Prepare?.Invoke(job.Id);
        if (job.State == JobState.Queued) LineUp(job.Id);
        return job;
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
        return await db.Jobs.AnyAsync(j => j.Undoes == id && !NotUndone.Contains(j.State), cancel);
    }

    private static readonly JobState[] NotUndone =
        [JobState.Failed, JobState.Interrupted, JobState.Void, JobState.Withdrawn];

    /// <summary>The id of the job of a kind that runs, or waits to, with an order; null when there is none.</summary>
    public async Task<string?> RunningAsync(JobKind kind, string order, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Jobs.AsNoTracking()
            .Where(j => j.Kind == kind && j.OrderJson == order && (j.State == JobState.Queued || j.State == JobState.Running))
            .Select(j => j.Id).FirstOrDefaultAsync(cancel);
    }

    /// <summary>Lines up a job that is kept already.</summary>
    public void LineUp(string id)
    {
        feed.Open(id);
        _waiting.Writer.TryWrite(id);
    }

    /// <summary>A job for the wire.</summary>
    public static JobView View(JobRow job) => View(job, JobKinds.Changing.Contains(job.Kind) ? JobRun.Of(job).Held() : NoneHeld);

    private static readonly Dictionary<int, int> NoneHeld = [];

    private static JobView View(JobRow job, IReadOnlyDictionary<int, int> held) => new(
        job.Id, job.Kind.Word(), job.Subject, job.State.Word(), job.StartedBy, job.CreatedAt, job.EndedAt,
        job.Steps.Count(s => s.State is JournalState.Made or JournalState.Skipped or JournalState.Failed), job.Steps.Count,
        job.Message,
        [.. job.Steps.OrderBy(s => s.Number)
            .Select(s => View(s) with { HeldBy = held.TryGetValue(s.Number, out var by) ? by : null })],
        CanBeUndone(job), job.ResultJson is not null && job.Kind != JobKind.SignIn, job.Undoes, job.ApprovedBy, job.ApprovedAt)
    {
        Words = job.Words?.Split('\n') ?? [],
        CanContinue = CanContinue(job),
    };

    /// <summary>Whether steps of a job failed that can be tried again.</summary>
    public static bool CanContinue(JobRow job) =>
        JobKinds.Changing.Contains(job.Kind) && job.State == JobState.Failed
        && job.Steps.Any(s => s.State == JournalState.Failed);

    private static bool CanBeUndone(JobRow job)
    {
        if (!JobKinds.Undoable.Contains(job.Kind)) return false;
        var made = job.Steps.Where(s => s.State == JournalState.Made).Select(s => ChangeJson.Read(s.ChangeJson)).ToList();
        return made.Count > 0 && Undoing.FirstFinal(made) is null;
    }

    /// <summary>A step for the wire.</summary>
    public static JobStepView View(StepRow step) =>
        new(step.Number, step.Words, step.Team, step.Place, step.State.Word(), step.Before, step.After, step.At);
}
