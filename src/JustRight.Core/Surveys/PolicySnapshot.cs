namespace JustRight.Core.Surveys;

/// <summary>What was read of the policies that govern hosts.</summary>
/// <param name="Containers">Where policies may be linked: the domain and every organizational unit that is shown, with links or
/// without.</param>
/// <param name="Sites">The topology's sites that have links; which host is in which is known from the host alone.</param>
/// <param name="Policies">The policies.</param>
/// <param name="Unread">Why nothing could be read, or null.</param>
public sealed record PolicySnapshot(
    IReadOnlyList<PolicyContainer> Containers, IReadOnlyList<PolicyContainer> Sites, IReadOnlyList<GroupPolicy> Policies,
    string? Unread)
{
    /// <summary>Why the sites could not be read, or null.</summary>
    public string? SitesUnread { get; init; }
}

/// <summary>A container of the directory with its links.</summary>
/// <param name="Links"><c>gPLink</c> as it was read.</param>
/// <param name="BlocksInheritance">Whether <c>gPOptions</c> drops what is linked above and not enforced.</param>
/// <param name="Unread">Why its links could not be read, or null.</param>
public sealed record PolicyContainer(string Dn, string Links, bool BlocksInheritance, string? Unread = null);

/// <summary>A policy.</summary>
/// <param name="Id">Its identifier, as <c>{31B2F340-016D-11D2-945F-00C04FB984F9}</c>.</param>
/// <param name="ComputerHalfDisabled">Whether its computer half is switched off: <c>flags</c> bit 2 [MS-GPOL 2.2.4].</param>
/// <param name="AccessList">Its access list as text, or null when it was not read: it says whom the policy applies to.</param>
/// <param name="Lists">The lists of rights in its template, or null when the template was not read; empty when it has
/// none.</param>
public sealed record GroupPolicy(
    string Id, string Name, bool ComputerHalfDisabled, string? AccessList, IReadOnlyList<PolicyList>? Lists)
{
    /// <summary>Why the template was not read, or null.</summary>
    public string? ListsUnread { get; init; }

    /// <summary>
    /// What its template and its preferences do to local groups, in the order written; null when that was not read.
    /// </summary>
    public IReadOnlyList<PolicyGroupRule>? Groups { get; init; }

    /// <summary>Why that was not read, or null.</summary>
    public string? GroupsUnread { get; init; }

    /// <summary>
    /// The filter by a query on the host that the policy names, or null: whether it lets the host pass only the host knows.
    /// </summary>
    public string? QueryFilter { get; init; }
}

/// <summary>One right in a policy's template: its whole list.</summary>
/// <param name="Constant">Such as <c>SeBatchLogonRight</c>.</param>
/// <param name="Entries">The entries as written: <c>*S-1-5-32-544</c>, or a name.</param>
public sealed record PolicyList(string Constant, IReadOnlyList<string> Entries);

/// <summary>A policy that a host says it has applied.</summary>
/// <param name="Id">Its identifier in braces.</param>
public sealed record AppliedPolicy(string Id, string Name)
{
    /// <summary>The lists of rights in its template, where the host could read that; else null.</summary>
    public IReadOnlyList<PolicyList>? Lists { get; init; }
}
