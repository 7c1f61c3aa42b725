using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>Counts by verdict, for the balance.</summary>
/// <param name="Unread">UnreadParts of the estate that could not be read.</param>
/// <param name="Words">The words beside the sign.</param>
/// <param name="Accepted">How many of what is missing, excess or forbidden an exception covers.</param>
public sealed record FitCountsView(
    int Met, int Missing, int Pending, int Unseen, int Excess, int Forbidden, int Unread, string Words, int Accepted = 0);

/// <summary>The fit of an install.</summary>
/// <param name="Decisions">Choices among alternatives, repeated in every report.</param>
/// <param name="Notes">What the plan notes, repeated in every report.</param>
public sealed record FitView(
    string Install, string Sheet, string Title, string Estate, string Stage, bool Simulated, DateTimeOffset SurveyedAt,
    FitCountsView Counts, IReadOnlyList<string> Places, IReadOnlyList<AccountFitView> Accounts,
    IReadOnlyList<FindingView> Findings, IReadOnlyList<UnreadPartView> Unseen, IReadOnlyList<DecisionView> Decisions,
    IReadOnlyList<string> Notes);

/// <summary>The fit of an account.</summary>
public sealed record AccountFitView(
    string Key, string Name, string Purpose, string? Dn, FitCountsView Counts, IReadOnlyList<JudgementView> Rights);

/// <summary>The verdict on one right.</summary>
/// <param name="Kind">The kind of need, or <c>account</c> for what an account needs of itself.</param>
/// <param name="Group">
/// The column of the matrix: the sheet's place, the domain, or the host or instance where a right was found.
/// </param>
/// <param name="Verdict">
/// <c>met</c>, <c>missing</c>, <c>pending</c>, <c>unseen</c>, <c>excess</c>, <c>forbidden</c> or <c>done</c>.
/// </param>
/// <param name="At">The line of the sheet, estate or install that asks for it or forbids it.</param>
/// <param name="Product">For an identity inside the product, which a person confirms.</param>
/// <param name="Accepted">The exception that covers it now, or null.</param>
public sealed record JudgementView(
    string Id, string Account, string Kind, string Right, string Place, string Group,
    [property: AllowedValues("met", "missing", "pending", "unseen", "excess", "forbidden", "done")] string Verdict,
    string Reason, string? Why, string? Team, string? GivenBy, string? Through, string? At, IReadOnlyList<PathView> Paths,
    IReadOnlyList<PathView> DeniedBy, IReadOnlyList<string> Notes, IReadOnlyList<string> Brings, BranchView? Branch,
    ProductRoleView? Product, AcceptedView? Accepted);

/// <summary>What was found below a branch, object by object.</summary>
/// <param name="Act">The act in the words of sheets, to trace it.</param>
/// <param name="Of">The class of object.</param>
/// <param name="Uncovered">Containers in which an object created tomorrow would refuse.</param>
public sealed record BranchView(
    string Act, IReadOnlyList<string> Attributes, string Of, string Below, int Can, int Cannot, int Unseen,
    IReadOnlyList<BranchFailureView> Failures, IReadOnlyList<string> Uncovered);

/// <summary>Objects below a branch that fail for one reason at one place.</summary>
/// <param name="Objects">Some of them.</param>
public sealed record BranchFailureView(
    string Cause, string Words, IReadOnlyList<string> At, int Count, IReadOnlyList<string> Objects);

/// <summary>A path.</summary>
public sealed record PathView(IReadOnlyList<PathStepView> Steps);

/// <summary>A step of a path.</summary>
/// <param name="Kind">
/// <c>account</c>, <c>domain-group</c>, <c>local-group</c>, <c>login</c>, <c>role</c>, <c>entry</c> or <c>right</c>.
/// </param>
public sealed record PathStepView(
    [property: AllowedValues("account", "domain-group", "local-group", "login", "role", "entry", "right")] string Kind,
    string Name);

/// <summary>Something at a place worth a person's eye.</summary>
/// <param name="IsExcess">Whether it counts as excess.</param>
/// <param name="Accepted">The exception that covers it now, or null.</param>
public sealed record FindingView(string Id, string Place, string Text, bool IsExcess, AcceptedView? Accepted);
