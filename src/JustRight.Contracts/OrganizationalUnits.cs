using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A container of the directory that accounts, groups or computers lie in, or that policies are linked at.</summary>
/// <param name="Dn">Its distinguished name.</param>
/// <param name="Branch">What the estate calls it; empty for one that the estate does not name.</param>
/// <param name="State"><c>there</c>, <c>not-there</c>, or <c>unseen</c> while it was not read.</param>
/// <param name="Accounts">The accounts of installs that lie in it, themselves.</param>
/// <param name="Groups">The groups of installs that lie in it, themselves.</param>
/// <param name="Hosts">The hosts of the estate whose computer accounts lie in it, themselves.</param>
/// <param name="Policies">The policies linked at it, link number 1 first.</param>
/// <param name="BlocksInheritance">Whether it blocks policies from above; null when that was not read.</param>
/// <param name="Unread">Why its links could not be read, or null.</param>
public sealed record OrganizationalUnitSummary(
    string Dn, string Branch, [property: AllowedValues("there", "not-there", "unseen")] string State,
    IReadOnlyList<string> Accounts, IReadOnlyList<string> Groups, IReadOnlyList<string> Hosts, IReadOnlyList<string> Policies,
    bool? BlocksInheritance, string? Unread);

/// <summary>A page of the list of organizational units.</summary>
/// <param name="Items">The units, in the order that was asked for.</param>
/// <param name="Skipped">How many of those that match come before them.</param>
/// <param name="Total">How many match.</param>
public sealed record OrganizationalUnitPage(IReadOnlyList<OrganizationalUnitSummary> Items, int Skipped, int Total);
