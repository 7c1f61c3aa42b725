using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;

namespace JustRight.Core.SignIn;

/// <summary>Sheet, directory and install laid over one another: with what a product lets people sign in here.</summary>
/// <param name="Directory">
/// The directory as this product is told of it: with the name by which it connects, the branches that are for it, and the ports
/// of the catalog where that is meant.
/// </param>
/// <param name="Wants">What the product wants to be told.</param>
/// <param name="Install">What the install says.</param>
/// <param name="Security">The best way of reaching the directory that both sides know.</param>
public sealed record PlannedSignIn(PeopleDirectory Directory, SheetSignIn Wants, InstallSignIn Install, WireSecurity Security)
{
    /// <summary>The hosts of the places in which settings are typed, by the key of the place.</summary>
    public required IReadOnlyDictionary<string, IReadOnlyList<string>> HostsOfPlaces { get; init; }

    /// <summary>All hosts on which settings are typed.</summary>
    public IReadOnlyList<string> TypedOn =>
        [.. Wants.Settings.SelectMany(HostsOf).Distinct(StringComparer.OrdinalIgnoreCase)];

    /// <summary>The domain, for directories that are one.</summary>
    public required Domain Domain { get; init; }

    /// <summary>What people type, most usual first; never empty.</summary>
    public IReadOnlyList<TypedForm> PeopleType { get; init; } = [TypedForm.LogonName];

    /// <summary>The roles of the product, with the groups that stand for them here.</summary>
    public IReadOnlyList<PlannedRole> Roles { get; init; } = [];

    /// <summary>Who is to be in which group of the plan, so that they can sign in or have their role.</summary>
    public IReadOnlyList<SignInMembership> Memberships { get; init; } = [];

    /// <summary>What else people must match, and whom the product never lets in.</summary>
    public IReadOnlyList<Filter> FurtherParts { get; init; } = [];

    /// <summary>
    /// The logon name of the account of the plan that the product binds as; null where the install names one of the directory's
    /// own.
    /// </summary>
    public string? BindLogonName { get; init; }

    /// <summary>
    /// The distinguished name of the bind account; null for an existing account of the domain, which only a survey knows the
    /// place of.
    /// </summary>
    public string? BindDn { get; init; }

    /// <summary>The name of the group whose members may enter; null when everyone found may.</summary>
    public string? EnterName { get; init; }

    /// <summary>
    /// Its distinguished name; null for an existing group of the domain, which only a survey knows the place of.
    /// </summary>
    public string? EnterDn { get; init; }

    /// <summary>What the names of groups start with that an administrator sees.</summary>
    public IReadOnlyList<string> GroupsStart =>
        Install.GroupsStart.Count > 0 ? Install.GroupsStart : Wants.Groups?.NamesStart ?? [];

    /// <summary>Whether the directory's own filter decides who may enter.</summary>
    public bool GroupInFilter =>
        EnterName is not null && Wants.Nested != NestedGroups.ByProduct
            && (Directory.Family == DirectoryFamily.AdLike || Directory.BackLink);

    /// <summary>Whether members of groups inside groups count.</summary>
    public bool NestedCount =>
        Wants.Nested == NestedGroups.ByProduct
            || (Wants.Nested == NestedGroups.ByFilter && Directory.Family == DirectoryFamily.AdLike);

    /// <summary>The plan with names that a survey has found.</summary>
    /// <param name="dnOf">The distinguished name of a logon name in the domain, or null when it was not found.</param>
    public PlannedSignIn Located(Func<string, string?> dnOf) => this with
    {
        BindDn = BindDn ?? (BindLogonName is null ? null : dnOf(BindLogonName)),
        EnterDn = EnterDn ?? (EnterName is null ? null : dnOf(EnterName)),
        Roles = [.. Roles.Select(r => r with { Groups = [.. r.Groups.Select(g => g with { Dn = g.Dn ?? dnOf(g.Name) })] })],
    };

    /// <summary>The attributes that people type, in the order of <see cref="PeopleType"/>, each once.</summary>
    public IReadOnlyList<string> TypedAttributes =>
        [.. PeopleType.Select(f => AttributeMap.TypedIn(Directory, f)).OfType<string>()
            .Distinct(StringComparer.OrdinalIgnoreCase)];

    /// <summary>How far below the branches of people the product looks.</summary>
    public SearchDepth PeopleDepth => DepthOf(Directory.PeopleDepth);

    /// <summary>How far below the branches of groups the product looks.</summary>
    public SearchDepth GroupsDepth => DepthOf(Directory.GroupsDepth);

    /// <summary>The hosts on which a file or page of settings is.</summary>
    public IReadOnlyList<string> HostsOf(SheetSettings settings) => HostsOfPlaces.GetValueOrDefault(settings.TypedOn, []);

    /// <summary>The name that a person binds with, where the product has no account of its own.</summary>
    /// <param name="typed">What the person types, or what stands for it.</param>
    public string PersonTemplate(string typed) => Wants.BindForm switch
    {
        BindForm.Upn => PeopleType[0] == TypedForm.Upn ? typed : $"{typed}@{Domain.DnsName}",
        BindForm.ShortName => $"{Domain.ShortName}\\{typed}",
        BindForm.Dn => $"{TypedAttributes[0]}={typed},{Directory.PeopleIn.Written}",
    };

    private SearchDepth DepthOf(SearchDepth here) => Wants.Depths.Contains(here) ? here : Wants.Depths[0];
}

/// <summary>A role of a product, with the groups that stand for it here.</summary>
/// <param name="Key">The key of the role in the sheet.</param>
/// <param name="Called">The product's own name for it.</param>
/// <param name="Person">The logon name of somebody who must have it; null when nobody is named.</param>
public sealed record PlannedRole(string Key, string Called, IReadOnlyList<RoleGroup> Groups, string? Person);

/// <summary>A group whose members have a role.</summary>
/// <param name="Dn">Its distinguished name; null for an existing group of the domain, which only a survey knows the place
/// of.</param>
public sealed record RoleGroup(string Name, string? Dn);

/// <summary>Somebody who is to be in a group of the plan.</summary>
/// <param name="GroupKey">The key of the group in the sheet.</param>
/// <param name="Group">Its logon name.</param>
/// <param name="Member">The logon name of a person or a group of the domain.</param>
/// <param name="Placed">Whether the install puts them there; otherwise they are expected to be there already, or through another
/// group.</param>
/// <param name="At">Where the install says so.</param>
public sealed record SignInMembership(string GroupKey, string Group, string Member, bool Placed, Origin At);
