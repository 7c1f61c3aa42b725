namespace JustRight.Core.Fit.Exceptions;

/// <summary>The exceptions of an install, the latest word on each target counting.</summary>
public sealed class ExceptionIndex(IEnumerable<AcceptedException> exceptions)
{
    private readonly Dictionary<string, AcceptedException> _byTarget = exceptions.OrderBy(e => e.Id).GroupBy(e => e.Target).ToDictionary(
        g => g.Key, g => g.Last(), StringComparer.Ordinal);

    /// <summary>None.</summary>
    public static ExceptionIndex Empty { get; } = new([]);

    /// <summary>What can be accepted: a need that is not held, or something held that should not be.</summary>
    public static bool IsOff(Verdict verdict) => verdict is Verdict.Missing or Verdict.Excess or Verdict.Forbidden;

    /// <summary>The judgement with the exception that covers it, or with a note that it did until its end.</summary>
    public Judgement Apply(Judgement judgement, Present present) =>
        !IsOff(judgement.Verdict) || _byTarget.GetValueOrDefault(judgement.Id) is not { } exception
            || exception.Verdict != judgement.Verdict ? judgement
            : exception.Stands(present) ? judgement with { Accepted = exception }
            : judgement with { Notes = [.. judgement.Notes, Ended(exception)] };

    /// <summary>The finding with the exception that covers it.</summary>
    public Finding Apply(Finding finding, Present present) =>
        finding.IsExcess && _byTarget.GetValueOrDefault(finding.Id) is { } exception && exception.Stands(present)
            ? finding with { Accepted = exception }
            : finding;

    private static string Ended(AcceptedException exception) =>
        $"{exception.By} accepted it until {exception.UntilWords} ({exception.Why}); the exception has expired";
}
