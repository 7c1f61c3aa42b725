using JustRight.Core.Directory;
using JustRight.Core.Faults;

namespace JustRight.Core.Estates;

/// <summary>How a directory keeps who is in a group.</summary>
public enum GroupKind
{
    /// <summary>Groups of AD-like directories: <c>member</c> names objects.</summary>
    Group,

    /// <summary><c>groupOfNames</c> [RFC 4519 3.5]: <c>member</c> names objects; there is always one.</summary>
    GroupOfNames,

    /// <summary><c>groupOfUniqueNames</c> [RFC 4519 3.6]: <c>uniqueMember</c> names objects.</summary>
    GroupOfUniqueNames,

    /// <summary><c>posixGroup</c> [RFC 2307]: <c>memberUid</c> holds logon names.</summary>
    PosixGroup,
}

/// <summary>A directory that people sign in to products with.</summary>
/// <param name="Key">The organization's own word for it.</param>
/// <param name="Host">The name that products connect to, which its certificate must carry.</param>
/// <param name="Offers">How it can be reached, with the port of each.</param>
/// <param name="Root">The name above everything in it.</param>
/// <param name="PeopleIn">The branch of people.</param>
/// <param name="GroupsIn">The branch of groups.</param>
/// <param name="Groups">How it keeps who is in a group.</param>
/// <param name="BackLink">Whether people carry the groups they are in, as <c>memberOf</c>.</param>
public sealed record PeopleDirectory(
    string Key, DirectoryFamily Family, string Host, IReadOnlyDictionary<WireSecurity, int> Offers, DistinguishedName Root,
    DistinguishedName PeopleIn, DistinguishedName GroupsIn,
    GroupKind Groups, bool BackLink, Origin At)
{
    /// <summary>Its other servers, which hold the same: to be asked, in this order, where the first does not answer.</summary>
    public IReadOnlyList<string> OtherHosts { get; init; } = [];

    /// <summary>A name that stands for all of its servers, such as that of a domain; null when it has none.</summary>
    public string? SharedName { get; init; }

    /// <summary>The ports of the catalog of its forest [MS-ADTS 3.1.1.1.9], by the way there; null when it has none.</summary>
    public IReadOnlyDictionary<WireSecurity, int>? Catalog { get; init; }

    /// <summary>Whether the catalog is meant, and <see cref="Offers"/> has its ports.</summary>
    public bool IsCatalog { get; init; }

    /// <summary>More branches of people.</summary>
    public IReadOnlyList<DistinguishedName> MorePeopleIn { get; init; } = [];

    /// <summary>More branches of groups.</summary>
    public IReadOnlyList<DistinguishedName> MoreGroupsIn { get; init; } = [];

    /// <summary>All branches of people, in the order written.</summary>
    public IReadOnlyList<DistinguishedName> PeopleBranches => [PeopleIn, .. MorePeopleIn];

    /// <summary>All branches of groups, in the order written.</summary>
    public IReadOnlyList<DistinguishedName> GroupsBranches => [GroupsIn, .. MoreGroupsIn];

    /// <summary>How far below its branches people are.</summary>
    public SearchDepth PeopleDepth { get; init; }

    /// <summary>How far below its branches groups are.</summary>
    public SearchDepth GroupsDepth { get; init; }

    /// <summary>Whether a product is to follow referrals to other directories.</summary>
    public bool FollowsReferrals { get; init; }

    /// <summary>How long a product waits for a connection, in seconds.</summary>
    public int ConnectSeconds { get; init; } = 5;

    /// <summary>How long a product waits for an answer, in seconds.</summary>
    public int AnswerSeconds { get; init; } = 30;

    /// <summary>The attributes that the organization keeps things in, by neutral name, where not in the usual ones.</summary>
    public IReadOnlyDictionary<string, string> Attributes { get; init; } = new Dictionary<string, string>();

    /// <summary>How we reach it: the simulation, over LDAP, or not.</summary>
    public Reach Reach { get; init; } = Reach.None;

    /// <summary>
    /// A folder with the certificates of the authorities to trust, PEM; null where only the plain way is offered.
    /// </summary>
    public string? CaFolder { get; init; }

    /// <summary>The account that surveys bind as; null when none do.</summary>
    public string? SignInAs { get; init; }

    /// <summary>The name of the secret, kept by the service, that holds its password.</summary>
    public string? Secret { get; init; }

    /// <summary>The most objects it gives in one answer; who wants more must ask page by page. Null for no limit.</summary>
    public int? MostInOneAnswer { get; init; }

    /// <summary>Why passwords may go over the wire in plain text here; null when they may not.</summary>
    public string? PlainTextBecause { get; init; }

    /// <summary>
    /// Whether it is the directory of the estate's own domain, in which bind accounts and access groups are planned.
    /// </summary>
    public bool IsOfDomain { get; init; }

    /// <summary>Its address for a way of reaching it, as products take it [RFC 4516].</summary>
    public string Address(WireSecurity security) =>
        $"{(security == WireSecurity.Tls ? "ldaps" : "ldap")}://{Host}:{Offers[security]}";
}
