namespace JustRight.Contracts;

/// <summary>What a person saw where no survey reads.</summary>
/// <param name="Account">The account: its key or its name.</param>
/// <param name="Role">The identity inside the product, as the sheet calls it; or the key of a task.</param>
/// <param name="Held">Whether the account is mapped to it there; whether the task is done.</param>
/// <param name="SeenBy">Who looked, when that is somebody else than who writes it down.</param>
/// <param name="Proof">How they saw it; a task needs it. It is kept apart from the log, and must hold no secret.</param>
/// <param name="Place">Where, for a task that is done at several places.</param>
public sealed record ConfirmationOrder(
    string Account, string Role, bool Held, string? SeenBy = null, string? Proof = null, string? Place = null);

/// <summary>A person's word on what no survey reads.</summary>
/// <param name="Install">The install.</param>
/// <param name="Account">The key of the account in the sheet.</param>
/// <param name="Principal">The logon name of the account, or of the group that is mapped.</param>
/// <param name="Role">The identity inside the product, or the key of a task.</param>
/// <param name="Lets">What was compared: operations, or what the task asked for and how one sees that it is done.</param>
/// <param name="Held">Whether it is so.</param>
/// <param name="SeenBy">Who looked.</param>
/// <param name="WrittenBy">Whose token wrote it down.</param>
/// <param name="At">When it was written down.</param>
/// <param name="Until">Until when it counts.</param>
public sealed record ConfirmationView(
    string Install, string Account, string Principal, string Role, IReadOnlyList<string> Lets, bool Held, string SeenBy,
    string WrittenBy, DateTimeOffset At, DateTimeOffset Until)
{
    /// <summary>Its number among all confirmations.</summary>
    public int Number { get; init; }

    /// <summary>How they saw it; null where nothing was written, or it was erased.</summary>
    public string? Proof { get; init; }

    /// <summary>The hash of the proof that the log holds [FIPS 180-4 SHA-256], in hexadecimal; null for no proof.</summary>
    public string? ProofHash { get; init; }

    /// <summary>Who erased the proof, or null.</summary>
    public string? ErasedBy { get; init; }

    /// <summary>When it was erased.</summary>
    public DateTimeOffset? ErasedAt { get; init; }
}

/// <summary>What there is to confirm of one right, and what was last said of it.</summary>
/// <param name="Name">The identity inside the product, or the key of a task.</param>
/// <param name="Lets">The operations that an identity must allow, and no others; empty when the sheet names none.</param>
/// <param name="Work">For a task: what is to be done; null for an identity.</param>
/// <param name="DoneWhen">For a task: how one sees that it is done.</param>
/// <param name="WaitsFor">For a task: what must be so before it can be done.</param>
/// <param name="ForDays">For how many days a confirmation counts.</param>
/// <param name="SeenBy">Who last looked, or null.</param>
/// <param name="Held">Whether they saw it.</param>
/// <param name="At">When that was written down.</param>
/// <param name="Until">Until when it counts.</param>
public sealed record ConfirmableView(
    string Name, IReadOnlyList<string> Lets, string? Work, string? DoneWhen, IReadOnlyList<string> WaitsFor, int ForDays,
    string? SeenBy, bool? Held, DateTimeOffset? At, DateTimeOffset? Until);
