using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>
/// An order to begin adopting a product that was there before us. One of the same name that was begun takes on the new
/// accounts; its answers stay.
/// </summary>
/// <param name="Name">The name its install will have.</param>
/// <param name="Product">The product, as one word.</param>
/// <param name="Estate">The estate in which it runs.</param>
/// <param name="Accounts">The accounts it runs as.</param>
/// <param name="Release">The product's release.</param>
/// <param name="Title">The product's name in full; the word otherwise.</param>
public sealed record AdoptionOrder(
    string Name, string Product, string Estate, IReadOnlyList<AdoptedAccountOrder> Accounts, string Release = "1",
    string? Title = null);

/// <summary>An account to adopt.</summary>
/// <param name="Name">Its logon name.</param>
/// <param name="Key">Its key in the sheet; made from its name otherwise.</param>
/// <param name="Purpose">What it is for, in a few words; made from how it works otherwise.</param>
/// <param name="WorksAs"><c>service</c>, <c>job</c>, <c>pool</c>, <c>setup</c> or <c>bind</c>.</param>
public sealed record AdoptedAccountOrder(
    string Name, string? Key = null, string? Purpose = null,
    [property: AllowedValues("service", "job", "pool", "setup", "bind")] string WorksAs = "service");

/// <summary>What a person says of items.</summary>
/// <param name="Items">Ids of items.</param>
/// <param name="Word"><c>needed</c>, <c>not-needed</c> or <c>not-sure</c>.</param>
/// <param name="Why">The reason, which the sheet will repeat.</param>
public sealed record AdoptionAnswerOrder(
    IReadOnlyList<string> Items, [property: AllowedValues("needed", "not-needed", "not-sure")] string Word,
    string? Why = null);

/// <summary>An adoption for a list.</summary>
/// <param name="Name">The name of the adoption, and of its install.</param>
/// <param name="Product">The product, as one word.</param>
/// <param name="Title">The product's name in full.</param>
/// <param name="Estate">The estate in which it runs.</param>
/// <param name="Accounts">The logon names of its accounts.</param>
/// <param name="By">Who began it.</param>
/// <param name="At">When it was begun.</param>
/// <param name="FinishedAt">When its sheet and install were last written into the books, or null.</param>
public sealed record AdoptionSummary(
    string Name, string Product, string Title, string Estate, IReadOnlyList<string> Accounts, string By, DateTimeOffset At,
    DateTimeOffset? FinishedAt);

/// <summary>An adoption with what was found.</summary>
/// <param name="Summary">What the list shows of it.</param>
/// <param name="Release">The product's release.</param>
/// <param name="Simulated">Whether it is about the simulation.</param>
/// <param name="SurveyedAt">When the estate was last read; null while it was not.</param>
/// <param name="Items">What its accounts hold, one right an item.</param>
/// <param name="Services">Services that were seen to run as its accounts, in words.</param>
/// <param name="Missing">Accounts that were not found: no survey asked for them yet, or they are not there.</param>
/// <param name="Unseen">What could not be read: more may be held there.</param>
/// <param name="Open">How many items nobody has said anything of.</param>
public sealed record AdoptionView(
    AdoptionSummary Summary, string Release, bool Simulated, DateTimeOffset? SurveyedAt,
    IReadOnlyList<AdoptionItemView> Items, IReadOnlyList<string> Services, IReadOnlyList<string> Missing,
    IReadOnlyList<string> Unseen, int Open);

/// <summary>Something that an account holds.</summary>
/// <param name="Number">Its place in the list, from 1.</param>
/// <param name="Id">Names the item, for answers.</param>
/// <param name="Account">The logon name of the account.</param>
/// <param name="Right">The right, in words.</param>
/// <param name="Place">Where it is held.</param>
/// <param name="HeldBy">How it is held, in a few words: items with the same words belong together.</param>
/// <param name="Paths">How it is held, step by step.</param>
/// <param name="Brings">What comes along with it.</param>
/// <param name="WhyNot">Why the sheet cannot ask for it, or null.</param>
/// <param name="NeededBy">Installs in Just Right that need it already.</param>
/// <param name="Forbidden">Why the rules forbid a group through which it comes, or null.</param>
/// <param name="Word"><c>needed</c>, <c>not-needed</c>, <c>not-sure</c>, or null while nobody has said anything.</param>
/// <param name="Why">The reason that was given with the answer; null when none was.</param>
/// <param name="By">Who answered; null while nobody has.</param>
/// <param name="At">When they answered; null while nobody has.</param>
public sealed record AdoptionItemView(
    int Number, string Id, string Account, string Right, string Place, string HeldBy, IReadOnlyList<string> Paths,
    IReadOnlyList<string> Brings, string? WhyNot, IReadOnlyList<string> NeededBy, string? Forbidden,
    [property: AllowedValues("needed", "not-needed", "not-sure", null)] string? Word, string? Why, string? By,
    DateTimeOffset? At)
{
    /// <summary>
    /// Why it is held and has no effect, or may have none: what denies it, or what keeps the account from getting in; null when
    /// it has.
    /// </summary>
    public string? NoEffect { get; init; }
}

/// <summary>The sheet and the install that an adoption comes to, as files.</summary>
/// <param name="Sheet">The sheet, YAML.</param>
/// <param name="Install">The install, YAML.</param>
public sealed record AdoptionDraftView(string Sheet, string Install);
