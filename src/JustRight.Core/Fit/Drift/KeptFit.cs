namespace JustRight.Core.Fit.Drift;

/// <summary>A fit as it is kept: what it said of each right, in words, so that it can be compared years later.</summary>
/// <param name="Rights">Each right that was judged, by id.</param>
/// <param name="UnexpectedMembers">What was excess at a place and is no account's right.</param>
/// <param name="Unread">The parts that could not be read.</param>
public sealed record KeptFit(
    string Install, DateTimeOffset SurveyedAt, FitCounts Counts, string Words, IReadOnlyList<KeptRight> Rights,
    IReadOnlyList<string> UnexpectedMembers, IReadOnlyList<string> Unread)
{
    /// <summary>What is kept of a fit.</summary>
    public static KeptFit Of(InstallFit fit) => new(
        fit.Plan.Install, fit.SurveyedAt, fit.Counts, fit.Words,
        [
            .. fit.Accounts.SelectMany(a => a.Judgements.Select(j => new KeptRight(
                j.Id, a.Account.Name, j.Right.ToString()
                    ?? "", j.Verdict is not (
                        Verdict.Excess or Verdict.Forbidden), j.Verdict, j.Reason, [.. j.Paths.Select(p => p.ToString()).Order(
                        StringComparer.Ordinal)])
            { Accepted = j.Accepted is not null })),
        ],
        [.. fit.Findings.Where(f => f.IsExcess).Select(f => $"{f.Place}: {f.Text}")],
        [.. fit.UnreadParts.Select(c => c.Place).Distinct()]);
}

/// <summary>What a fit said of one right.</summary>
/// <param name="Account">The account's logon name.</param>
/// <param name="Right">The right and its place, in words.</param>
/// <param name="Needed">Whether a need asks for it, an account's own needs among them.</param>
/// <param name="Paths">How it is held, in a fixed order.</param>
public sealed record KeptRight(
    string Id, string Account, string Right, bool Needed, Verdict Verdict, string Reason, IReadOnlyList<string> Paths)
{
    /// <summary>Whether an exception covered it.</summary>
    public bool Accepted { get; init; }
}
