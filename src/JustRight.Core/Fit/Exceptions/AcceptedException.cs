using System.Globalization;

namespace JustRight.Core.Fit.Exceptions;

/// <summary>
/// That somebody accepted, for a reason and until a day, what the fit says is off. It changes no verdict, and ends by itself.
/// </summary>
/// <param name="Target">What is accepted: the id of a judgement, or that of a finding.</param>
/// <param name="Verdict">What the fit said when it was accepted: what is worse later is not covered. Null for a finding.</param>
/// <param name="Until">From then on it no longer counts: the midnight after the day that was named, by the organization's
/// clock.</param>
public sealed record AcceptedException(
    int Id, string Install, string Target, Verdict? Verdict, string Why, string By, DateTimeOffset At, DateTimeOffset Until)
{
    /// <summary>The day that was named, the last on which it counts; null for one that was ended at some other moment.</summary>
    public DateOnly? LastDay =>
        Until.TimeOfDay == TimeSpan.Zero ? DateOnly.FromDateTime(Until.DateTime).AddDays(-1) : null;

    /// <summary>Until when it counts, in words: the day that was named, or else the moment with its zone.</summary>
    public string UntilWords => LastDay is { } day
        ? day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
        : Until.ToString("yyyy-MM-dd HH:mm zzz", CultureInfo.InvariantCulture);

    /// <summary>
    /// Whether it counts. Only its end decides: a clock that was set back does not take away what was accepted.
    /// </summary>
    public bool StandsAt(DateTimeOffset now) => Stands(new Present(now));

    /// <inheritdoc cref="StandsAt"/>
    public bool Stands(Present present) => !present.HasReached(Until);
}
