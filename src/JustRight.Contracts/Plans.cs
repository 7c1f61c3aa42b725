namespace JustRight.Contracts;

/// <summary>A plan.</summary>
public sealed record PlanView(
    string Install, string Sheet, string Title, string Estate, string Domain, string Stage, bool Simulated,
    IReadOnlyList<PlannedAccountView> Accounts, IReadOnlyList<PlannedGroupView> Groups,
    IReadOnlyList<PlannedGrantView> Grants, IReadOnlyList<DecisionView> Decisions, IReadOnlyList<string> Notes);

/// <summary>An account of a plan.</summary>
public sealed record PlannedAccountView(
    string Key, string Name, string? Dn, string Description, string Purpose, string WorksAs, bool PasswordNeverExpires,
    bool Existing, string At);

/// <summary>A group of a plan.</summary>
public sealed record PlannedGroupView(
    string Key, string Name, string? Dn, string Scope, string Purpose, bool Existing, IReadOnlyList<string> Members,
    string At);

/// <summary>A grant of a plan.</summary>
/// <param name="At">The line of the sheet: <c>file:line:column</c>.</param>
public sealed record PlannedGrantView(
    string Id, string Account, string Kind, string Right, string Place, string? Through, string GivenBy, string Until,
    string Team, string? Why, string At);

/// <summary>A choice among alternatives.</summary>
public sealed record DecisionView(
    string Id, string Account, string Taken, string Reason, bool ByInstall, IReadOnlyList<AlternativeView> Alternatives,
    string At);

/// <summary>One alternative.</summary>
/// <param name="Reach">A number that says only which alternative reaches farther.</param>
/// <param name="ReachReason">What reaches farthest in it.</param>
/// <param name="Lets">What each of its rights lets an account do, in the order of the rights.</param>
public sealed record AlternativeView(
    string Label, IReadOnlyList<string> Rights, int Reach, string ReachReason, IReadOnlyList<string> Lets);
