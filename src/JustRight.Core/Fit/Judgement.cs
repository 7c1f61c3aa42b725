using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Fit.Exceptions;
using JustRight.Core.Fit.Hosts;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit;

/// <summary>What the fit says of one right.</summary>
public enum Verdict
{
    /// <summary>The need is held.</summary>
    Met,

    /// <summary>The need is not held, or denied.</summary>
    Missing,

    /// <summary>Setup gives it, and setup has not run.</summary>
    Pending,

    /// <summary>Something that was not read could change the answer.</summary>
    Unseen,

    /// <summary>Held, and nothing needs it.</summary>
    Excess,

    /// <summary>Held, and forbidden.</summary>
    Forbidden,

    /// <summary>Needed no longer: setup has run, or the install is being retired.</summary>
    Done,
}

/// <summary>The verdict on one right of one account, with what decided it.</summary>
/// <param name="Id">Stable within the install.</param>
/// <param name="Account">The account's key.</param>
/// <param name="Reason">One sentence.</param>
/// <param name="Paths">How it is held, shortest first.</param>
public sealed record Judgement(
    string Id, string Account, Right Right, Verdict Verdict, string Reason, IReadOnlyList<RightPath> Paths)
{
    /// <summary>The grant it judges, or null for a right that no need asks for.</summary>
    public PlannedGrant? Grant { get; init; }

    /// <summary>Whether it is held just as planned: the right itself, through the planned group.</summary>
    public bool AsPlanned { get; init; } = true;

    /// <summary>What the right is a right in and is not there, such as <c>database fm-sql01/Store</c>; null when it is.</summary>
    public string? Absent { get; init; }

    /// <summary>Further facts: held another way, needed by another install, until the next policy refresh.</summary>
    public IReadOnlyList<string> Notes { get; init; } = [];

    /// <summary>Rights that come along with an excess or forbidden one.</summary>
    public IReadOnlyList<string> Brings { get; init; } = [];

    /// <summary>The paths by which it is denied.</summary>
    public IReadOnlyList<RightPath> DeniedBy { get; init; } = [];

    /// <summary>For a right over a branch: what was found below it, object by object.</summary>
    public BranchFacts? Branch { get; init; }

    /// <summary>For a right of a host: the policy that governs it, or null when none does or that is not known.</summary>
    public GovernedRight? Governed { get; init; }

    /// <summary>
    /// The policy that denies it from the next refresh on, or from then on no more; null when the refresh changes nothing, or
    /// that is not known.
    /// </summary>
    public GovernedDenial? DenialAhead { get; init; }

    /// <summary>For a right that a computer account holds in place of the account: its host.</summary>
    public string? Machine { get; init; }

    /// <summary>For what only a person sees: what a person last said of it, or null.</summary>
    public Confirmation? Confirmation { get; init; }

    /// <summary>For a forbidden right: where the rule stands.</summary>
    public ForbiddenRule? Rule { get; init; }

    /// <summary>For what is missing, excess or forbidden: the exception that covers it now, or null.</summary>
    public AcceptedException? Accepted { get; init; }
}

/// <summary>Counts by verdict.</summary>
/// <param name="Missing">Missing needs.</param>
/// <param name="Accepted">How many of what is missing, excess or forbidden an exception covers.</param>
public readonly record struct FitCounts(
    int Met, int Missing, int Pending, int Unseen, int Excess, int Forbidden, int Accepted = 0)
{
    /// <summary>How much is off, accepted or not.</summary>
    public int Off => Missing + Excess + Forbidden;

    /// <summary>Whether something is missing.</summary>
    public bool AnyMissing => Missing > 0;

    /// <summary>Whether something is excess or forbidden.</summary>
    public bool AnyExcess => Excess + Forbidden > 0;

    /// <summary>Nothing missing and nothing excess, as far as seen.</summary>
    public bool JustRight => !AnyMissing && !AnyExcess;

    /// <summary>Counts judgements.</summary>
    public static FitCounts Of(IEnumerable<Judgement> judgements)
    {
        Span<int> counts = stackalloc int[7];
        var accepted = 0;
        foreach (var judgement in judgements)
        {
            counts[(int)judgement.Verdict]++;
            if (judgement.Accepted is not null) accepted++;
        }

        return new FitCounts(
            counts[(int)Verdict.Met], counts[(int)Verdict.Missing], counts[(int)Verdict.Pending], counts[(int)Verdict.Unseen],
            counts[(int)Verdict.Excess], counts[(int)Verdict.Forbidden], accepted);
    }

    /// <summary>The words beside the sign: <c>2 missing, 1 excess</c>.</summary>
    /// <param name="unreadParts">How many parts could not be read.</param>
    public string Words(int unreadParts = 0)
    {
        var words = new List<string>();
        if (Missing > 0) words.Add($"{Missing} missing");
        if (Forbidden > 0) words.Add($"{Forbidden} forbidden");
        if (Excess > 0) words.Add($"{Excess} excess");
        if (Accepted > 0) words.Add(Accepted < Off ? $"{Accepted} of them accepted" : Off == 1 ? "accepted" : "all accepted");
        if (JustRight) words.Add(Unseen + unreadParts > 0 ? "just right as far as seen" : "just right");
        if (Unseen > 0) words.Add($"{Unseen} unseen");
        if (Pending > 0) words.Add($"{Pending} pending");
        return string.Join(", ", words);
    }
}

/// <summary>The fit of one account.</summary>
public sealed record AccountFit(PlannedAccount Account, bool Found, IReadOnlyList<Judgement> Judgements)
{
    /// <summary>Its counts.</summary>
    public FitCounts Counts { get; } = FitCounts.Of(Judgements);

    /// <summary>Its place in the directory; null when it is not there, or was not read.</summary>
    public string? Dn { get; init; }

    /// <summary>
    /// When its password was last set, where only people change it: neither the directory nor a product does by itself. Null
    /// otherwise, and where that was not read.
    /// </summary>
    public DateTimeOffset? PasswordSetAt { get; init; }
}

/// <summary>Something seen at a place that is no account's right, but worth a person's eye.</summary>
/// <param name="IsExcess">Whether it counts as excess: an unexpected member in a closed group.</param>
public sealed record Finding(string Place, string Text, bool IsExcess)
{
    /// <summary>Stable as long as it says the same.</summary>
    public string Id => $"{Place}: {Text}";

    /// <summary>For an excess one: the exception that covers it now, or null.</summary>
    public AcceptedException? Accepted { get; init; }
}

/// <summary>The fit of an install: plan against survey.</summary>
/// <param name="UnreadParts">What could not be read anywhere in the estate: excess rights could hide there.</param>
public sealed record InstallFit(
    Plan Plan, DateTimeOffset SurveyedAt, bool Simulated, IReadOnlyList<AccountFit> Accounts, IReadOnlyList<Finding> Findings,
    IReadOnlyList<UnreadPlace> UnreadParts)
{
    /// <summary>Its counts.</summary>
    public FitCounts Counts { get; } = FitCounts.Of(Accounts.SelectMany(a => a.Judgements)) is var counts
        ? counts with
        {
            Excess = counts.Excess + Findings.Count(f => f.IsExcess),
            Accepted = counts.Accepted + Findings.Count(f => f.Accepted is not null),
        }
        : default;

    /// <summary>Its words.</summary>
    public string Words => InStage(Counts.Words(UnreadParts.Count));

    /// <summary>The words of one of its accounts.</summary>
    public string WordsOf(AccountFit account) => InStage(account.Counts.Words());

    /// <summary>What is being retired shall hold nothing: just right is not the word for that.</summary>
    private string InStage(string words) =>
        Plan.Stage == Installs.Stage.Retiring ? words.Replace("just right", "nothing left", StringComparison.Ordinal) : words;
}
