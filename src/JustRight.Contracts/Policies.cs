using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A group policy, in a list.</summary>
/// <param name="Id">Its GUID in braces.</param>
/// <param name="Name">Its display name.</param>
/// <param name="LinkedAt">The distinguished names of where it is linked.</param>
/// <param name="Hosts">The hosts of the estate that it applies to.</param>
/// <param name="Rights">How many log-on rights and privileges it sets; null when its template was not read.</param>
/// <param name="GroupRules">What it does to local groups: how many rules; null when that was not read.</param>
/// <param name="Unread">Why something of it was not read, or null.</param>
public sealed record PolicySummary(
    string Id, string Name, IReadOnlyList<string> LinkedAt, IReadOnlyList<string> Hosts, int? Rights, int? GroupRules,
    string? Unread);

/// <summary>A page of the list of policies.</summary>
/// <param name="Items">The policies, in the order that was asked for.</param>
/// <param name="Skipped">How many of those that match come before them.</param>
/// <param name="Total">How many match.</param>
/// <param name="Unread">Why none was read, or null.</param>
public sealed record PolicyPage(IReadOnlyList<PolicySummary> Items, int Skipped, int Total, string? Unread);

/// <summary>A group policy as the latest survey read it.</summary>
/// <param name="Estate">The estate.</param>
/// <param name="Id">Its GUID in braces.</param>
/// <param name="Name">Its display name.</param>
/// <param name="Simulated">Whether it is simulated.</param>
/// <param name="ReadAt">When it was read.</param>
/// <param name="HalfDisabled">Whether its computer half is switched off.</param>
/// <param name="QueryFilter">The filter by a query on the host that it names, or null.</param>
/// <param name="Links">Where it is linked.</param>
/// <param name="Hosts">The hosts of the estate below its links, and what becomes of it there.</param>
/// <param name="Rights">The log-on rights and privileges that it sets, each with its whole list.</param>
/// <param name="RightsUnread">Why its template was not read, or null.</param>
/// <param name="GroupRules">What it does to local groups.</param>
/// <param name="GroupsUnread">Why that was not read, or null.</param>
public sealed record PolicyView(
    string Estate, string Id, string Name, bool Simulated, DateTimeOffset ReadAt, bool HalfDisabled, string? QueryFilter,
    IReadOnlyList<PolicyLinkView> Links, IReadOnlyList<PolicyHostView> Hosts, IReadOnlyList<PolicyRightView> Rights,
    string? RightsUnread, IReadOnlyList<PolicyGroupRuleView> GroupRules, string? GroupsUnread);

/// <summary>A link of a policy.</summary>
/// <param name="Dn">The distinguished name of where it is linked.</param>
/// <param name="Number">Its place in the order of links there, from 1.</param>
/// <param name="Enforced">Whether the link is enforced.</param>
/// <param name="Disabled">Whether the link is disabled.</param>
public sealed record PolicyLinkView(string Dn, int Number, bool Enforced, bool Disabled);

/// <summary>What becomes of a policy on a host.</summary>
/// <param name="Host">The host.</param>
/// <param name="Fate">
/// <c>applies</c>, <c>unseen</c>, <c>link-disabled</c>, <c>blocked</c>, <c>gone</c>, <c>half-disabled</c> or <c>filtered</c>.
/// </param>
/// <param name="Why">Why its fate is this.</param>
public sealed record PolicyHostView(
    string Host,
    [property: AllowedValues("applies", "unseen", "link-disabled", "blocked", "gone", "half-disabled", "filtered")] string Fate,
    string Why);

/// <summary>A log-on right or privilege that a policy sets.</summary>
/// <param name="Constant">The constant of the right, such as <c>SeServiceLogonRight</c>.</param>
/// <param name="Words">The right, in words.</param>
/// <param name="Denies">Whether it keeps its holders from something.</param>
/// <param name="Holders">Its whole list: names, where a name is known.</param>
/// <param name="DecidesOn">The hosts on which this policy's list is the one that counts.</param>
public sealed record PolicyRightView(
    string Constant, string Words, bool Denies, IReadOnlyList<string> Holders, IReadOnlyList<string> DecidesOn);

/// <summary>What a policy does to a local group.</summary>
/// <param name="Act">
/// <c>members</c> for the whole membership, <c>member-of</c> for the groups of a principal, or what a preference item does:
/// <c>create</c>, <c>update</c>, <c>replace</c>, <c>delete</c>.
/// </param>
/// <param name="Name">The group; for <c>member-of</c> the principal.</param>
/// <param name="Entries">Who is to be in it; for <c>member-of</c> the groups.</param>
/// <param name="Removed">Of a preference item: who is to go.</param>
/// <param name="Targeted">Of a preference item: whether it is for some hosts alone, by what only the host can tell.</param>
public sealed record PolicyGroupRuleView(
    [property: AllowedValues("members", "member-of", "create", "update", "replace", "delete")] string Act, string Name,
    IReadOnlyList<string> Entries, IReadOnlyList<string> Removed, bool Targeted);
