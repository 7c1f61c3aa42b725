using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Policies;

namespace JustRight.Core.Fit.Hosts;

/// <summary>
/// What group policies do to a right of a host at the next refresh: take back what is held, give what is not held yet, deny it,
/// or lift a denial. The right and its denying twin are two lists, and two policies may decide on them.
/// </summary>
internal static class PolicyAhead
{
    private const string Until = ", until the next policy refresh";

    /// <summary>A judgement of the present, with what is ahead.</summary>
    public static Judgement Of(SurveyView view, PlannedAccount account, Judgement judged, Holdings holdings)
    {
        if (judged.Verdict is not (Verdict.Met or Verdict.Missing or Verdict.Pending)) return judged;
        var (governed, unseen) = judged.Right.GovernedIn(view, holdings);
        var given = unseen is not null ? judged.Noting($"whether a group policy governs it is not known: {unseen}")
            : governed is null ? judged
            : Given(account, judged with { Governed = governed }, governed);
        var (denial, denialUnseen) = judged.Right.DenialGovernedIn(view, holdings);
        return denialUnseen is not null && denialUnseen != unseen
                ? given.Noting($"whether a group policy denies it is not known: {denialUnseen}")
            : denial is null ? given
            : Denied(account, given, denial);
    }

    /// <summary>What setup gives, and a policy's list does not have.</summary>
    public static string TakenBack(GovernedRight governed) => $"setup gives it, and policy {governed.Name} takes it back";

    private static Judgement Given(PlannedAccount account, Judgement judged, GovernedRight governed) =>
        (judged.Verdict, governed.Gives) switch
        {
            (_, null) => judged.Noting($"policy {governed.Name} governs it, and its list could not be read"),
            (Verdict.Met, true) => judged,
            (Verdict.Met, false) when judged.Paths.Any(p => p.Has(StepKind.Logon)) => judged.Noting(
                $"policy {governed.Name} governs it, and it comes with the log-on: whether that group stays in is not looked at"),
            (Verdict.Met, false) => judged.Noting(
                $"policy {governed.Name} governs it and its list lacks {account.Name}: {Governance.Refresh} takes it back") with
            {
                Reason = judged.Reason + Until,
                AsPlanned = false,
            },
            (Verdict.Missing, true) when judged.DeniedBy.Count == 0 => judged with
            {
                Reason = $"policy {governed.Name} gives it, from the next policy refresh on",
            },
            (Verdict.Missing, false) when judged.DeniedBy.Count == 0 => judged with
            {
                Reason = $"{judged.Reason}; policy {governed.Name} governs it, and its list lacks {account.Name}",
            },
            (Verdict.Pending, false) => judged.Noting(
                $"what setup gives will not last: policy {governed.Name} governs it and its list lacks {account.Name}, "
                + $"so {Governance.Refresh} takes it back") with
            {
                Reason = TakenBack(governed),
            },
            (Verdict.Missing, true or false) => judged, // denied: a list overcomes that no more than a step
            (Verdict.Pending, true) => judged,
            (Verdict.Unseen or Verdict.Excess or Verdict.Forbidden or Verdict.Done, _) => judged,
        };

    private static Judgement Denied(PlannedAccount account, Judgement judged, GovernedDenial denial) =>
        (denial.Denies, judged.DeniedBy.Count > 0) switch
        {
            (null, _) => judged.Noting(
                $"policy {denial.Name} says who is denied it, and whether {account.Name} is, is not known: {denial.WhyNotKnown}"),
            (true, true) or (false, false) => judged, // as it is now
            (true, false) => judged.Noting(
                $"policy {denial.Name} denies it to {account.Name}: {Governance.Refresh} makes it so") with
            {
                DenialAhead = denial,
                Reason = judged.Verdict == Verdict.Met && judged.Governed?.Gives != false
                    ? judged.Reason + Until
                    : judged.Reason,
            },
            (false, true) => judged.Noting(
                $"policy {denial.Name} decides who is denied it, and {account.Name} is not: "
                + $"{Governance.Refresh} lifts the deny") with
            {
                DenialAhead = denial,
                Reason = judged.Reason + Until,
            },
        };

    private static Judgement Noting(this Judgement judged, string note) => judged with { Notes = [.. judged.Notes, note] };
}
