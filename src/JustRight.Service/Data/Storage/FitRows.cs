namespace JustRight.Service.Data.Storage;

/// <summary>A fit that was other than the one before it.</summary>
public sealed class FitRow
{
    public int Id { get; set; }

    public required string Install { get; set; }

    /// <summary>Counted from 1 within the install.</summary>
    public int Number { get; set; }

    /// <summary>The first survey that showed it.</summary>
    public DateTimeOffset From { get; set; }

    /// <summary>The last survey that showed it.</summary>
    public DateTimeOffset Until { get; set; }

    /// <summary>How many surveys showed it.</summary>
    public int Seen { get; set; }

    /// <summary>Its counts and words, as JSON.</summary>
    public required string CountsJson { get; set; }

    /// <summary>What it said of each right, as JSON, packed.</summary>
    public required byte[] Packed { get; set; }

    /// <summary>The survey that showed it first; null where that was not noted.</summary>
    public int? SurveyId { get; set; }
}

/// <summary>A review of an install. Never changed.</summary>
public sealed class ReviewRow
{
    public int Id { get; set; }

    public required string Install { get; set; }

    /// <summary>Counted from 1 within the install.</summary>
    public int Number { get; set; }

    /// <summary>The kept fit that was looked at, by its number.</summary>
    public int Fit { get; set; }

    /// <summary>Its counts and words, as JSON.</summary>
    public required string CountsJson { get; set; }

    public required string By { get; set; }

    public required string WrittenBy { get; set; }

    public DateTimeOffset At { get; set; }

    public DateOnly? NextBy { get; set; }

    public string? Remark { get; set; }

    /// <summary>What was off, with what covered it, as JSON.</summary>
    public required string OffJson { get; set; }
}

/// <summary>That somebody accepted what is off.</summary>
public sealed class ExceptionRow
{
    public int Id { get; set; }

    public required string Install { get; set; }

    /// <summary>The id of the judgement or finding.</summary>
    public required string Target { get; set; }

    public required string Words { get; set; }

    /// <summary>Null for a finding.</summary>
    public Core.Fit.Verdict? Verdict { get; set; }

    public required string Why { get; set; }

    public required string By { get; set; }

    public required string WrittenBy { get; set; }

    public DateTimeOffset At { get; set; }

    public DateTimeOffset Until { get; set; }

    /// <summary>When somebody ended it before its time, or null.</summary>
    public DateTimeOffset? EndedAt { get; set; }

    public string? EndedBy { get; set; }
}

/// <summary>
/// What a person said they saw where no survey reads. Never changed, but for the proof, which can be erased: a later word counts
/// instead.
/// </summary>
public sealed class ConfirmationRow
{
    public int Id { get; set; }

    public required string Install { get; set; }

    /// <summary>The planned grant.</summary>
    public required string GrantId { get; set; }

    /// <summary>The account's key.</summary>
    public required string Account { get; set; }

    /// <summary>The identity inside the product, or the key of a task.</summary>
    public required string Role { get; set; }

    /// <summary>The logon name of what is mapped.</summary>
    public required string Principal { get; set; }

    public string? Sid { get; set; }

    /// <summary>What was compared, one a line.</summary>
    public required string Lets { get; set; }

    public bool Held { get; set; }

    /// <summary>How they saw it; null where nothing was written, or it was erased.</summary>
    public string? Proof { get; set; }

    /// <summary>Goes into the hash of the proof, so that what was erased cannot be guessed by its hash.</summary>
    public string? ProofSalt { get; set; }

    /// <summary>The hash that the log holds; null where nothing was written.</summary>
    public string? ProofHash { get; set; }

    public string? ErasedBy { get; set; }

    public DateTimeOffset? ErasedAt { get; set; }

    public required string SeenBy { get; set; }

    public required string WrittenBy { get; set; }

    public DateTimeOffset At { get; set; }

    public DateTimeOffset Until { get; set; }
}
