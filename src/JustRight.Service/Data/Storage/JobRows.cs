using JustRight.Core.Runs;

namespace JustRight.Service.Data.Storage;

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

    /// <summary>
    /// What was asked, for a trace; the trace, for a fix; for a renewal, whose password and what is known of it.
    /// </summary>
    public string? OrderJson { get; set; }

    /// <summary>What came out, for a trace and a fix.</summary>
    public string? ResultJson { get; set; }

    /// <summary>
    /// Whether it can take back what it made by further steps of its own: a renewal that knows the old password.
    /// </summary>
    public bool CanGoBack { get; set; }

    /// <summary>The job whose changes it undoes, or null.</summary>
    public string? Undoes { get; set; }

    /// <summary>For a proposal: the hash of the documents that it rests on; null for what needed no second person.</summary>
    public string? Basis { get; set; }

    /// <summary>What it is about besides its steps, a line each; null for nothing.</summary>
    public string? Words { get; set; }

    /// <summary>Who approved it, or null.</summary>
    public string? ApprovedBy { get; set; }

    public DateTimeOffset? ApprovedAt { get; set; }

    /// <summary>Who asked that it stops after the step that is being made; null for nobody.</summary>
    public string? StoppedBy { get; set; }

    public List<StepRow> Steps { get; set; } = [];
}

/// <summary>The journal of one step of a run.</summary>
public sealed class StepRow
{
    public int Id { get; set; }

    public required string JobId { get; set; }

    public int Number { get; set; }

    /// <summary>The change that a connector makes; null for what a person does, or we do for ourselves.</summary>
    public string? ChangeJson { get; set; }

    /// <summary>What it is in the renewal of a password; null elsewhere.</summary>
    public string? RenewalJson { get; set; }

    /// <summary>The numbers of the steps that it hangs on, with commas; empty for none.</summary>
    public string HangsOn { get; set; } = "";

    /// <summary>Whether it only makes earlier steps count.</summary>
    public bool OnlySettles { get; set; }

    /// <summary>Whether it can neither be left out nor handed to a person: without it the run is for nothing.</summary>
    public bool IsNeeded { get; set; }

    /// <summary>Whether a person makes it.</summary>
    public bool ByPerson { get; set; }

    /// <summary>Whether that person said that it is done.</summary>
    public bool IsSaid { get; set; }

    /// <summary>The host whose time of restarts it waits for; empty for none.</summary>
    public string Window { get; set; } = "";

    /// <summary>Whether a person who has read why it failed lets it be tried again.</summary>
    public bool IsTriedAgain { get; set; }

    /// <summary>The number of the step that it undoes, in the run that its run undoes; null for none.</summary>
    public int? Undoes { get; set; }

    public required string Words { get; set; }

    public required string Team { get; set; }

    public required string Place { get; set; }

    public required RunStepState State { get; set; }

    /// <summary>What was seen before.</summary>
    public string? Before { get; set; }

    /// <summary>What was seen after, why it failed, or what a person said of it.</summary>
    public string? After { get; set; }

    /// <summary>Who did, or decided, the last of it; null for nobody.</summary>
    public string? By { get; set; }

    public DateTimeOffset? At { get; set; }
}
