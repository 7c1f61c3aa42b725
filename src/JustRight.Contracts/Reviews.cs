using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>An order to accept something that the fit says is off.</summary>
/// <param name="Target">The id of the right, or of the finding, in the fit.</param>
/// <param name="Why">Why it is accepted.</param>
/// <param name="Until">The last day on which it counts, in the organization's time zone.</param>
/// <param name="By">Who allowed it, when that is somebody else than who writes it down.</param>
public sealed record ExceptionOrder(string Target, string Why, DateOnly Until, string? By = null);

/// <summary>Something that is off and was accepted.</summary>
/// <param name="Number">Its number among all exceptions.</param>
/// <param name="Install">The install.</param>
/// <param name="Target">The id of the right, or of the finding, in the fit.</param>
/// <param name="Words">What is accepted, in words.</param>
/// <param name="Verdict">What the fit said of it then; empty for a finding.</param>
/// <param name="Why">Why it is accepted.</param>
/// <param name="By">Who allowed it.</param>
/// <param name="WrittenBy">Whose token wrote it down.</param>
/// <param name="At">When it was written down.</param>
/// <param name="Until">From then on it no longer counts.</param>
/// <param name="Stands">Whether it counts now.</param>
/// <param name="EndedBy">Who ended it before its time, or null.</param>
public sealed record ExceptionView(
    int Number, string Install, string Target, string Words, [property: OffWord] string Verdict, string Why, string By,
    string WrittenBy, DateTimeOffset At, DateTimeOffset Until, bool Stands, string? EndedBy)
{
    /// <summary>The last day on which it counts, in the organization's time zone; null when it was ended at a moment.</summary>
    public DateOnly? LastDay { get; init; }
}

/// <summary>The exception that covers a right now.</summary>
/// <param name="Number">Its number among all exceptions.</param>
/// <param name="By">Who allowed it.</param>
/// <param name="Why">Why.</param>
/// <param name="Until">From then on it no longer counts.</param>
public sealed record AcceptedView(int Number, string By, string Why, DateTimeOffset Until)
{
    /// <summary>The last day on which it counts, in the organization's time zone; null when it was ended at a moment.</summary>
    public DateOnly? LastDay { get; init; }
}

/// <summary>An order to write a review down.</summary>
/// <param name="Fit">The number of the fit, in the install's history, that was looked at. It must still be the latest.</param>
/// <param name="By">Who looked, when that is somebody else than who writes it down.</param>
/// <param name="NextBy">By when it is to be looked at again; the organization rule says it otherwise.</param>
/// <param name="Remark">What the reviewer wants remembered.</param>
public sealed record ReviewOrder(int Fit, string? By = null, DateOnly? NextBy = null, string? Remark = null);

/// <summary>A review: who looked, at which fit, and what of it was accepted until when.</summary>
/// <param name="Number">Counted from 1 within the install.</param>
/// <param name="Install">The install.</param>
/// <param name="Fit">The number of the fit that was looked at.</param>
/// <param name="Counts">How many rights had which verdict.</param>
/// <param name="By">Who looked.</param>
/// <param name="WrittenBy">Whose token wrote it down.</param>
/// <param name="At">When it was written down.</param>
/// <param name="NextBy">By when it is to be looked at again; null when nothing says so.</param>
/// <param name="Remark">What the reviewer wants remembered; null for nothing.</param>
/// <param name="Off">What was off at that fit.</param>
public sealed record ReviewView(
    int Number, string Install, int Fit, FitCountsView Counts, string By, string WrittenBy, DateTimeOffset At,
    DateOnly? NextBy, string? Remark, IReadOnlyList<ReviewedView> Off);

/// <summary>How an install stands with its reviews, in a list.</summary>
/// <param name="Install">The install.</param>
/// <param name="Title">The product's name in full; empty when it cannot be planned.</param>
/// <param name="Stage">Its stage.</param>
/// <param name="Latest">The latest review; null while there was none.</param>
/// <param name="DueAt">When it is to be reviewed next; null when nothing says so.</param>
/// <param name="Standing"><c>overdue</c>, <c>soon</c>, <c>later</c>; <c>never</c> when nothing says when.</param>
public sealed record ReviewStand(
    string Install, string Title, [property: StageWord] string Stage, ReviewView? Latest, DateTimeOffset? DueAt,
    [property: AllowedValues("overdue", "soon", "later", "never")] string Standing);

/// <summary>A page of the list of how installs stand with their reviews.</summary>
/// <param name="Items">The installs, in the order that was asked for.</param>
/// <param name="Skipped">How many of those that match come before them.</param>
/// <param name="Total">How many match.</param>
public sealed record ReviewStandPage(IReadOnlyList<ReviewStand> Items, int Skipped, int Total);

/// <summary>Something that was off at a review.</summary>
/// <param name="Words">What it was, in words.</param>
/// <param name="Verdict">What the fit said of it; empty for a finding.</param>
/// <param name="Accepted">The exception that covered it then; null where it was left open.</param>
public sealed record ReviewedView(string Words, [property: OffWord] string Verdict, AcceptedView? Accepted);

/// <summary>The public part of the key that signs evidence.</summary>
/// <param name="Thumbprint">Of the key [RFC 7638]; the log has it from when the key was made.</param>
/// <param name="Algorithm">As JSON Web Signatures call it [RFC 7518].</param>
/// <param name="Pem">The key [RFC 7468].</param>
public sealed record EvidenceKeyView(string Thumbprint, string Algorithm, string Pem);

/// <summary>A file that the client wrote.</summary>
/// <param name="File">Where it is.</param>
/// <param name="Bytes">How large it is.</param>
public sealed record WrittenFileView(string File, int Bytes);
