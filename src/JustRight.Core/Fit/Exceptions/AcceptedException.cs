namespace JustRight.Core.Fit.Exceptions;

/// <summary>That somebody accepted, for a reason and until a day, what the fit says is off. It changes no verdict, and ends by itself.</summary>
/// <param name="Target">What is accepted: the id of a judgement, or that of a finding.</param>
/// <param name="Verdict">What the fit said when it was accepted: what is worse later is not covered. Null for a finding.</param>
/// <param name="Until">From then on it no longer counts.</param>
public sealed record AcceptedException(int Id, string Install, string Target, Verdict? Verdict, string Why, string By, DateTimeOffset At, DateTimeOffset Until)
{
    /// <summary>Whether it counts. Only its end decides: a clock that was set back does not take away what was accepted.</summary>
    public bool StandsAt(DateTimeOffset now) => now < Until;
}
