using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A plan.</summary>
/// <param name="Install">The install.</param>
/// <param name="Sheet">The sheet that says what it needs.</param>
/// <param name="Title">Its name in full.</param>
/// <param name="Estate">The estate it is in.</param>
/// <param name="Domain">The DNS name of the domain.</param>
/// <param name="Stage"><c>planned</c>, <c>installed</c> or <c>retiring</c>.</param>
/// <param name="Simulated">Whether its estate is the simulation.</param>
/// <param name="Accounts">The accounts that it needs.</param>
/// <param name="Groups">The groups through which rights are given.</param>
/// <param name="Grants">The rights, each with who gives it.</param>
/// <param name="Decisions">Choices among alternatives.</param>
/// <param name="Notes">What somebody should know who carries it out.</param>
public sealed record PlanView(
    string Install, string Sheet, string Title, string Estate, string Domain, [property: StageWord] string Stage, bool Simulated,
    IReadOnlyList<PlannedAccountView> Accounts, IReadOnlyList<PlannedGroupView> Groups,
    IReadOnlyList<PlannedGrantView> Grants, IReadOnlyList<DecisionView> Decisions, IReadOnlyList<string> Notes);

/// <summary>An account of a plan.</summary>
/// <param name="Key">Its key in the sheet.</param>
/// <param name="Name">Its logon name, by the naming rules.</param>
/// <param name="Dn">Where it is to be; null when the rules do not say.</param>
/// <param name="Description">Its description in the directory.</param>
/// <param name="Purpose">What it is for.</param>
/// <param name="WorksAs"><c>service</c>, <c>job</c>, <c>pool</c>, <c>setup</c>, <c>bind</c> or <c>person</c>.</param>
/// <param name="PasswordNeverExpires">Whether its password is to be one that never expires.</param>
/// <param name="Existing">Whether the install names one that is there already.</param>
/// <param name="At">The line of the sheet that asks for it.</param>
public sealed record PlannedAccountView(
    string Key, string Name, string? Dn, string Description, string Purpose, [property: WorksAsWord] string WorksAs,
    bool PasswordNeverExpires, bool Existing, string At);

/// <summary>A group of a plan.</summary>
/// <param name="Key">Its key in the sheet.</param>
/// <param name="Name">Its name, by the naming rules.</param>
/// <param name="Dn">Where it is to be; null when the rules do not say.</param>
/// <param name="Scope"><c>global</c>, <c>domain-local</c> or <c>universal</c>.</param>
/// <param name="Purpose">What it is for.</param>
/// <param name="Existing">Whether the install names one that is there already.</param>
/// <param name="Members">The accounts that are to be in it.</param>
/// <param name="At">The line of the sheet that asks for it.</param>
public sealed record PlannedGroupView(
    string Key, string Name, string? Dn, [property: AllowedValues("global", "universal", "domain-local")] string Scope,
    string Purpose, bool Existing, IReadOnlyList<string> Members, string At);

/// <summary>A grant of a plan.</summary>
/// <param name="Id">Names the right within the install.</param>
/// <param name="Account">The key of the account in the sheet.</param>
/// <param name="Kind">The kind of need.</param>
/// <param name="Right">The right, in words.</param>
/// <param name="Place">Where it is to be held.</param>
/// <param name="Through">The group through which it is given; null for none.</param>
/// <param name="GivenBy">What gives it: a grant of ours or the product's setup.</param>
/// <param name="Until"><c>always</c>, or <c>installed</c> for what is needed until then.</param>
/// <param name="Team">The team that can give it.</param>
/// <param name="Why">Why the product needs it, as the sheet says; null when it does not say.</param>
/// <param name="At">The line of the sheet: <c>file:line:column</c>.</param>
public sealed record PlannedGrantView(
    string Id, string Account, [property: NeedKindWord] string Kind, string Right, string Place, string? Through,
    [property: GivenByWord] string GivenBy, [property: AllowedValues("always", "installed")] string Until,
    [property: TeamWord] string Team, string? Why, string At);

/// <summary>A choice among alternatives.</summary>
/// <param name="Id">Names the choice within the sheet.</param>
/// <param name="Account">The key of the account in the sheet.</param>
/// <param name="Taken">The label of the alternative that is taken.</param>
/// <param name="Reason">Why this one.</param>
/// <param name="ByInstall">Whether the install chose it.</param>
/// <param name="Alternatives">All there are to choose from.</param>
/// <param name="At">The line of the sheet where they stand.</param>
public sealed record DecisionView(
    string Id, string Account, string Taken, string Reason, bool ByInstall, IReadOnlyList<AlternativeView> Alternatives,
    string At);

/// <summary>One alternative.</summary>
/// <param name="Label">How the sheet calls it.</param>
/// <param name="Rights">Its rights, in words.</param>
/// <param name="Reach">A number that says only which alternative reaches farther.</param>
/// <param name="ReachReason">What reaches farthest in it.</param>
/// <param name="Lets">What each of its rights lets an account do, in the order of the rights.</param>
public sealed record AlternativeView(
    string Label, IReadOnlyList<string> Rights, int Reach, string ReachReason, IReadOnlyList<string> Lets);
