using JustRight.Core.Rights;

namespace JustRight.Core.Adoptions;

/// <summary>Something that an account to adopt holds, to be confirmed or not.</summary>
/// <param name="Id">Stable as long as the account holds it: account key and right.</param>
/// <param name="HeldBy">How it is held, in a few words: items with the same words belong together.</param>
/// <param name="Brings">What comes along with it.</param>
public sealed record AdoptionItem(
    string Id, AdoptedAccount Account, Right Right, IReadOnlyList<RightPath> Paths, string HeldBy, IReadOnlyList<string> Brings)
{
    /// <summary>What the draft sheet would say; empty where the language has no words for it.</summary>
    public IReadOnlyList<DraftNeed> Needs { get; init; } = [];

    /// <summary>Why the draft cannot say it, or null.</summary>
    public string? WhyNot { get; init; }

    /// <summary>
    /// Why it is held and has no effect, or may have none: what denies it, or what keeps the account from getting in; null when
    /// it has.
    /// </summary>
    public string? NoEffect { get; init; }

    /// <summary>Installs in Just Right that need it already.</summary>
    public IReadOnlyList<string> NeededBy { get; init; } = [];

    /// <summary>Why the rules forbid a group through which it comes, or null.</summary>
    public string? Forbidden { get; init; }
}

/// <summary>A service that was seen to run as an account to adopt.</summary>
public sealed record AdoptedService(string Name, string Host, string Account, Surveys.ServiceStart Start);

/// <summary>What was found of the accounts of an adoption.</summary>
/// <param name="Missing">Accounts that the survey did not find.</param>
/// <param name="Unseen">What could not be read: more may be held there.</param>
public sealed record AdoptionFindings(
    DateTimeOffset SurveyedAt, IReadOnlyList<AdoptionItem> Items, IReadOnlyList<AdoptedService> Services,
    IReadOnlyList<string> Missing, IReadOnlyList<string> Unseen);
