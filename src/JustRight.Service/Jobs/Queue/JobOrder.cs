using JustRight.Core.Changes;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Jobs.Queue;

/// <summary>What the log says of a job that begins.</summary>
/// <param name="Subject">What the entry is about; null for what the job is about.</param>
public sealed record LogWords(string Action, string Detail, string? Subject = null);

/// <summary>Long work that is asked for.</summary>
/// <param name="Who">Who asked.</param>
public sealed record JobOrder(JobKind Kind, string Subject, string Who)
{
    /// <summary>What is asked, for kinds that need more than the subject.</summary>
    public string? OrderJson { get; init; }

    /// <summary>Whether it can take back what it made by further steps of its own.</summary>
    public bool CanGoBack { get; init; }

    /// <summary>The job that it undoes, or null.</summary>
    public string? Undoes { get; init; }

    /// <summary>What it rests on, for a proposal that waits for another's approval; null for what is lined up at once.</summary>
    public string? Basis { get; init; }

    /// <summary>What it is about besides its changes, a line each: what an approver is shown, what undoing leaves.</summary>
    public IReadOnlyList<string> Words { get; init; } = [];

    /// <summary>Called with the job's id before it can run; null for nothing.</summary>
    public Action<string>? Prepare { get; init; }

    /// <summary>What the log says of it, by its id, in the transaction that keeps it; null for nothing.</summary>
    public Func<string, LogWords>? Log { get; init; }

    /// <summary>
    /// Whether it may begin, asked in the transaction that keeps it, with its id; what it changes is kept with it. Only asked
    /// where the log says something; null for always.
    /// </summary>
    public Func<AppDb, string, bool>? Guard { get; init; }

    /// <summary>The changes to make, in order.</summary>
    public IReadOnlyList<Change> Changes { get; init; } = [];

    /// <summary>For each of the changes, the number of the step that it undoes; empty where nothing is undone.</summary>
    public IReadOnlyList<int?> UndoneSteps { get; init; } = [];

    /// <summary>The steps of a job by its id, where they are more than changes; null where they are not.</summary>
    public Func<string, IEnumerable<StepRow>>? Rows { get; init; }
}
