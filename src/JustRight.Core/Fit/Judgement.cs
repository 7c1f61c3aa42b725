using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Fit.Exceptions;
using JustRight.Core.Fit.Hosts;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit;

/// <summary>What the fit says of one right.</summary>
public enum Verdict
{
    /// <summary>The need is held.</summary>
    Met,

    /// <summary>The need is not held, or denied.</summary>
    Unmet,

    /// <summary>Setup gives it, and setup has not run.</summary>
    Later,

    /// <summary>Something that was not read could change the answer.</summary>
    Unseen,

    /// <summary>Held, and no need asks for it.</summary>
    Spare,

    /// <summary>Held, and forbidden.</summary>
    Barred,

    /// <summary>Needed no longer: setup has run, or the install is being retired.</summary>
    Done,
}

/// <summary>The verdict on one right of one account, with what decided it.</summary>
/// <param name="Id">Stable within the install.</param>
/// <param name="Account">The account's key.</param>
/// <param name="Reason">One sentence.</param>
/// <param name="Paths">How it is held, shortest first.</param>
public sealed record Judgement(string Id, string Account, Right Right, Verdict Verdict, string Reason, IReadOnlyList<RightPath> Paths)
{
    /// <summary>The grant it judges, or null for a right that no need asks for.</summary>
    public PlannedGrant? Grant { get; init; }

    /// <summary>Whether it is held just as planned: the right itself, through the planned group.</summary>
    public bool AsPlanned { get; init; } = true;

    /// <summary>Further facts: held another way, needed by another install, until the next policy refresh.</summary>
    public IReadOnlyList<string> Notes { get; init; } = [];

    /// <summary>Rights that come along with a spare or barred one.</summary>
    public IReadOnlyList<string> Brings { get; init; } = [];

    /// <summary>The paths by which it is denied.</summary>
    public IReadOnlyList<RightPath> DeniedBy { get; init; } = [];

    /// <summary>For a right over a branch: what was found below it, object by object.</summary>
    public BranchFacts? Branch { get; init; }

    /// <summary>For a right of a host: the policy that governs it, or null when none does or that is not known.</summary>
    public GovernedRight? Governed { get; init; }

    /// <summary>For a right that a computer account holds in place of the account: its host.</summary>
    public string? Machine { get; init; }

    /// <summary>For an identity inside a product: what a person last said of it, or null.</summary>
    public Confirmation? Confirmation { get; init; }

    /// <summary>For a barred right: where the rule stands.</summary>
    public BarredRule? Rule { get; init; }

    /// <summary>For what is unmet, spare or barred: the exception that covers it now, or null.</summary>
    public AcceptedException? Accepted { get; init; }
}

/// <summary>How far something leans: counts by verdict.</summary>
/// <param name="Missing">Unmet needs.</param>
/// <param name="Accepted">How many of what is missing, spare or barred an exception covers.</param>
public readonly record struct Leaning(int Met, int Missing, int Later, int Unseen, int Spare, int Barred, int Accepted = 0)
{
    /// <summary>How much is off, accepted or not.</summary>
    public int Off => Missing + Spare + Barred;

    /// <summary>Whether something is unmet.</summary>
    public bool TooLittle => Missing > 0;

    /// <summary>Whether something is spare or barred.</summary>
    public bool TooMuch => Spare + Barred > 0;

    /// <summary>Neither too little nor too much, as far as seen.</summary>
    public bool JustRight => !TooLittle && !TooMuch;

    /// <summary>Counts judgements.</summary>
    public static Leaning Of(IEnumerable<Judgement> judgements)
    {
        Span<int> counts = stackalloc int[7];
        var accepted = 0;
        foreach (var judgement in judgements)
        {
            counts[(int)judgement.Verdict]++;
            if (judgement.Accepted is not null) accepted++;
        }

        return new Leaning(counts[(int)Verdict.Met], counts[(int)Verdict.Unmet], counts[(int)Verdict.Later], counts[(int)Verdict.Unseen], counts[(int)Verdict.Spare], counts[(int)Verdict.Barred], accepted);
    }

    /// <summary>The words beside the sign: <c>2 missing, 1 too much</c>.</summary>
    /// <param name="corners">How many corners could not be read.</param>
    public string Words(int corners = 0)
    {
        var words = new List<string>();
        if (Missing > 0) words.Add($"{Missing} missing");
        if (Barred > 0) words.Add($"{Barred} barred");
        if (Spare > 0) words.Add($"{Spare} too much");
        if (Accepted > 0) words.Add(Accepted < Off ? $"{Accepted} of them accepted" : Off == 1 ? "accepted" : "all accepted");
        if (JustRight) words.Add(Unseen + corners > 0 ? "just right as far as seen" : "just right");
        if (Unseen > 0) words.Add($"{Unseen} unseen");
        if (Later > 0) words.Add($"{Later} later");
        return string.Join(", ", words);
    }
}

/// <summary>The fit of one account.</summary>
public sealed record AccountFit(PlannedAccount Account, bool Found, IReadOnlyList<Judgement> Judgements)
{
    /// <summary>Its counts.</summary>
    public Leaning Leaning { get; } = Leaning.Of(Judgements);
}

/// <summary>Something seen at a place that is no account's right, but worth a person's eye.</summary>
/// <param name="TooMuch">Whether it counts as spare: a stranger in a closed group.</param>
public sealed record Finding(string Place, string Text, bool TooMuch)
{
    /// <summary>Stable as long as it says the same.</summary>
    public string Id => $"{Place}: {Text}";

    /// <summary>For what is too much: the exception that covers it now, or null.</summary>
    public AcceptedException? Accepted { get; init; }
}

/// <summary>The fit of an install: plan against survey.</summary>
/// <param name="Corners">What could not be read anywhere in the estate: spare rights could hide there.</param>
public sealed record InstallFit(Plan Plan, DateTimeOffset SurveyedAt, bool Pretend, IReadOnlyList<AccountFit> Accounts, IReadOnlyList<Finding> Findings, IReadOnlyList<UnseenCorner> Corners)
{
    /// <summary>Its counts.</summary>
    public Leaning Leaning { get; } = Leaning.Of(Accounts.SelectMany(a => a.Judgements)) is var counts
        ? counts with { Spare = counts.Spare + Findings.Count(f => f.TooMuch), Accepted = counts.Accepted + Findings.Count(f => f.Accepted is not null) }
        : default;

    /// <summary>Its words.</summary>
    public string Words => InStage(Leaning.Words(Corners.Count));

    /// <summary>The words of one of its accounts.</summary>
    public string WordsOf(AccountFit account) => InStage(account.Leaning.Words());

    /// <summary>What is being retired shall hold nothing: just right is not the word for that.</summary>
    private string InStage(string words) => Plan.Stage == Installs.Stage.Retiring ? words.Replace("just right", "nothing left", StringComparison.Ordinal) : words;
}
