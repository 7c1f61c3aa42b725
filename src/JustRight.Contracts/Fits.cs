using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>Counts by verdict, for the balance.</summary>
/// <param name="Met">Rights that are held as they should be.</param>
/// <param name="Missing">Rights that are needed and not held.</param>
/// <param name="Pending">Rights that are held only once something that is known has happened.</param>
/// <param name="Unseen">Rights of which it is not known whether they are held.</param>
/// <param name="Excess">Rights that are held and not needed.</param>
/// <param name="Forbidden">Rights that are held though a rule forbids them.</param>
/// <param name="Unread">Parts of the estate that could not be read.</param>
/// <param name="Words">The words beside the sign.</param>
/// <param name="Accepted">How many of what is missing, excess or forbidden an exception covers.</param>
public sealed record FitCountsView(
    int Met, int Missing, int Pending, int Unseen, int Excess, int Forbidden, int Unread, string Words, int Accepted = 0);

/// <summary>The fit of an install.</summary>
/// <param name="Install">The install.</param>
/// <param name="Sheet">The sheet that says what it needs.</param>
/// <param name="Title">Its name in full.</param>
/// <param name="Estate">The estate it is in.</param>
/// <param name="Stage"><c>planned</c>, <c>installed</c> or <c>retiring</c>.</param>
/// <param name="Simulated">Whether its estate is the simulation.</param>
/// <param name="SurveyedAt">When the estate was read.</param>
/// <param name="Counts">How many rights have which verdict.</param>
/// <param name="Places">The columns of the matrix, in the order of the sheet.</param>
/// <param name="Accounts">Its accounts, each with the verdicts on its rights.</param>
/// <param name="Findings">What was found at places and is no account's.</param>
/// <param name="Unseen">What could not be read, each with the reason.</param>
/// <param name="Decisions">Choices among alternatives, repeated in every report.</param>
/// <param name="Notes">What the plan notes, repeated in every report.</param>
public sealed record FitView(
    string Install, string Sheet, string Title, string Estate, [property: StageWord] string Stage, bool Simulated,
    DateTimeOffset SurveyedAt, FitCountsView Counts, IReadOnlyList<string> Places, IReadOnlyList<AccountFitView> Accounts,
    IReadOnlyList<FindingView> Findings, IReadOnlyList<UnreadPartView> Unseen, IReadOnlyList<DecisionView> Decisions,
    IReadOnlyList<string> Notes);

/// <summary>The fit of an account.</summary>
/// <param name="Key">The key of the account in the sheet.</param>
/// <param name="Name">Its logon name.</param>
/// <param name="Purpose">What it is for.</param>
/// <param name="Dn">Its distinguished name; null when it is not there.</param>
/// <param name="Counts">How many of its rights have which verdict.</param>
/// <param name="Rights">The verdicts, right by right.</param>
public sealed record AccountFitView(
    string Key, string Name, string Purpose, string? Dn, FitCountsView Counts, IReadOnlyList<JudgementView> Rights);

/// <summary>The verdict on one right.</summary>
/// <param name="Id">Names the right within the install, for exceptions and traces.</param>
/// <param name="Account">The logon name of the account.</param>
/// <param name="Kind">The kind of need, or <c>account</c> for what an account needs of itself.</param>
/// <param name="Right">The right, in words.</param>
/// <param name="Place">Where it is to be held, or is.</param>
/// <param name="Group">
/// The column of the matrix: the sheet's place, the domain, or the host or instance where a right was found.
/// </param>
/// <param name="Verdict">
/// <c>met</c>, <c>missing</c>, <c>pending</c>, <c>unseen</c>, <c>excess</c>, <c>forbidden</c> or <c>done</c>.
/// </param>
/// <param name="Reason">Why the verdict is this, in one sentence.</param>
/// <param name="Why">Why the product needs it, as the sheet says; null for what it does not ask for.</param>
/// <param name="Team">The team that can give it; null for what is not needed.</param>
/// <param name="GivenBy">What gives it: a grant of ours or the product's setup; null for what is not needed.</param>
/// <param name="Through">The group through which it is to be given; null for none.</param>
/// <param name="At">The line of the sheet, estate or install that asks for it or forbids it.</param>
/// <param name="Paths">How it is held, path by path.</param>
/// <param name="DeniedBy">What denies it, path by path.</param>
/// <param name="Notes">What else should be known of it.</param>
/// <param name="Brings">What comes along with it.</param>
/// <param name="Branch">For a right on a branch of the directory, what was found there object by object; null otherwise.</param>
/// <param name="Confirmable">For what only a person sees: an identity inside the product, or a task.</param>
/// <param name="Accepted">The exception that covers it now, or null.</param>
public sealed record JudgementView(
    string Id, string Account, [property: NeedKindWord] string Kind, string Right, string Place, string Group,
    [property: VerdictWord] string Verdict, string Reason, string? Why, [property: TeamWord] string? Team,
    [property: GivenByWord] string? GivenBy, string? Through, string? At, IReadOnlyList<PathView> Paths,
    IReadOnlyList<PathView> DeniedBy, IReadOnlyList<string> Notes, IReadOnlyList<string> Brings, BranchView? Branch,
    ConfirmableView? Confirmable, AcceptedView? Accepted);

/// <summary>What was found below a branch, object by object.</summary>
/// <param name="Act">The act in the words of sheets, to trace it.</param>
/// <param name="Attributes">The attributes, for an act that names some.</param>
/// <param name="Of">The class of object.</param>
/// <param name="Below">The branch's distinguished name.</param>
/// <param name="Can">How many objects grant it.</param>
/// <param name="Cannot">How many refuse it.</param>
/// <param name="Unseen">How many could not be judged.</param>
/// <param name="Failures">Those that refuse or could not be judged, by cause and place.</param>
/// <param name="Uncovered">Containers in which an object created tomorrow would refuse.</param>
public sealed record BranchView(
    string Act, IReadOnlyList<string> Attributes, string Of, string Below, int Can, int Cannot, int Unseen,
    IReadOnlyList<BranchFailureView> Failures, IReadOnlyList<string> Uncovered);

/// <summary>Objects below a branch that fail for one reason at one place.</summary>
/// <param name="Cause">The cause, as one word.</param>
/// <param name="Words">The cause, in words.</param>
/// <param name="At">Where it lies.</param>
/// <param name="Count">How many objects.</param>
/// <param name="Objects">Some of them.</param>
public sealed record BranchFailureView(
    [property: CauseWord] string Cause, string Words, IReadOnlyList<string> At, int Count, IReadOnlyList<string> Objects);

/// <summary>A path.</summary>
/// <param name="Steps">From the account to the right.</param>
public sealed record PathView(IReadOnlyList<PathStepView> Steps);

/// <summary>A step of a path.</summary>
/// <param name="Kind">
/// <c>account</c>, <c>domain-group</c>, <c>local-group</c>, <c>login</c>, <c>role</c>, <c>entry</c> or <c>right</c>.
/// </param>
/// <param name="Name">What stands there.</param>
public sealed record PathStepView(
    [property: AllowedValues("account", "domain-group", "local-group", "login", "role", "entry", "right")] string Kind,
    string Name);

/// <summary>Something at a place worth a person's eye.</summary>
/// <param name="Id">Names it within the install, for exceptions.</param>
/// <param name="Place">Where it was found.</param>
/// <param name="Text">What was found.</param>
/// <param name="IsExcess">Whether it counts as excess.</param>
/// <param name="Accepted">The exception that covers it now, or null.</param>
public sealed record FindingView(string Id, string Place, string Text, bool IsExcess, AcceptedView? Accepted);
