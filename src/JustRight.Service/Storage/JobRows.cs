namespace JustRight.Service.Storage;

/// <summary>Long work.</summary>
public sealed class JobRow
{
    public required string Id { get; set; }

    public required JobKind Kind { get; set; }

    /// <summary>The estate or install.</summary>
    public required string Subject { get; set; }

    public required JobState State { get; set; }

    public required string StartedBy { get; set; }

    public DateTimeOffset CreatedAt { get; set; }

    public DateTimeOffset? EndedAt { get; set; }

    public string? Message { get; set; }

    /// <summary>What was asked, for a trace; the trace, for a fix.</summary>
    public string? OrderJson { get; set; }

    /// <summary>What came out, for a trace and a fix.</summary>
    public string? ResultJson { get; set; }

    /// <summary>The job whose changes it undoes, or null.</summary>
    public string? Undoes { get; set; }

    /// <summary>For a proposal: the hash of the documents that it rests on; null for what needed no second person.</summary>
    public string? Basis { get; set; }

    /// <summary>What it is about besides its steps, a line each; null for nothing.</summary>
    public string? Words { get; set; }

    /// <summary>Who approved it, or null.</summary>
    public string? ApprovedBy { get; set; }

    public DateTimeOffset? ApprovedAt { get; set; }

    public List<StepRow> Steps { get; set; } = [];
}

/// <summary>The journal of one step of a grant.</summary>
public sealed class StepRow
{
    public int Id { get; set; }

    public required string JobId { get; set; }

    public int Number { get; set; }

    public required string ChangeJson { get; set; }

    public required string Words { get; set; }

    public required string Team { get; set; }

    public required string Place { get; set; }

    public required JournalState State { get; set; }

    /// <summary>What was seen before.</summary>
    public string? Before { get; set; }

    /// <summary>What was seen after.</summary>
    public string? After { get; set; }

    public DateTimeOffset? At { get; set; }
}
