using JustRight.Core.Directory;

namespace JustRight.Core.Surveys;

/// <summary>What was read of a directory.</summary>
/// <param name="Domain">The domain's short name.</param>
/// <param name="DomainSid">The domain's SID.</param>
/// <param name="ReadFrom">The controller that answered.</param>
/// <param name="Branches">The names of the estate's branches that exist.</param>
/// <param name="Unread">Why nothing could be read, or null.</param>
public sealed record DirectorySnapshot(
    string Domain, Sid DomainSid, string ReadFrom, DateTimeOffset ReadAt, IReadOnlyList<DirectoryPrincipal> Principals,
    IReadOnlyList<string> Branches, string? Unread)
{
    /// <summary>What was read of access lists, or null when they were not asked for.</summary>
    public AccessSnapshot? Access { get; init; }

    /// <summary>What was read of the policies that govern hosts, or null when they were not asked for.</summary>
    public PolicySnapshot? Policies { get; init; }

    /// <summary>
    /// The logon names that were looked for in the whole directory: of these alone is it known that they are not there. Empty in
    /// surveys that did not keep them.
    /// </summary>
    public IReadOnlyList<string> AskedFor { get; init; } = [];

    /// <summary>
    /// The service principal names that were looked for in the whole domain: of these alone is it known who has them.
    /// </summary>
    public IReadOnlyList<string> ServiceNamesAsked { get; init; } = [];

    /// <summary>
    /// The other domains of the forest, in which nobody looked; empty where there is none, or it may not be read.
    /// </summary>
    public IReadOnlyList<string> OtherDomains { get; init; } = [];

    /// <summary>How many requests the reading took.</summary>
    public int Requests { get; init; }

    /// <summary>
    /// From when on each root key that is seen may be used, from which the passwords of group managed accounts are made; null
    /// when there are no such accounts, or it was not asked [MS-GKDI 3.1.4.1].
    /// </summary>
    public IReadOnlyList<DateTimeOffset>? RootKeysUsableFrom { get; init; }

    /// <summary>
    /// What happened while reading that is worth knowing: a controller that broke off, and which one was read instead.
    /// </summary>
    public IReadOnlyList<string> Remarks { get; init; } = [];

    /// <summary>The relative identifier of Domain Users [MS-DTYP 2.4.2.4].</summary>
    public const uint DomainUsersRid = 513;
}

/// <summary>What a principal is.</summary>
public enum PrincipalKind
{
    /// <summary>A user account.</summary>
    User,

    /// <summary>A computer account.</summary>
    Computer,

    /// <summary>A group.</summary>
    Group,

    /// <summary>A principal of a trusted domain, known here by its SID.</summary>
    Foreign,
}

/// <summary>Facts of an account that decide whether it can be used.</summary>
[Flags]
public enum AccountState
{
    /// <summary>Nothing stands in its way.</summary>
    None = 0,

    /// <summary>Disabled.</summary>
    Disabled = 1,

    /// <summary>Its end date has passed.</summary>
    Expired = 2,

    /// <summary>Locked after wrong passwords.</summary>
    Locked = 4,

    /// <summary>Its password has expired or must be changed.</summary>
    PasswordExpired = 8,

    /// <summary>Its password never expires.</summary>
    PasswordNeverExpires = 16,

    /// <summary>Its password must be changed at the next sign-in, which no service can do.</summary>
    PasswordMustChange = 32,
}

/// <summary>A user, computer or group of the directory.</summary>
/// <param name="Name">Its logon name.</param>
/// <param name="Dn">Its distinguished name.</param>
public sealed record DirectoryPrincipal(Sid Sid, PrincipalKind Kind, string Name, string Dn)
{
    /// <summary>Its description.</summary>
    public string Description { get; init; } = "";

    /// <summary>Its note: who made it, if we did.</summary>
    public string Note { get; init; } = "";

    /// <summary>When it was made, or null when that was not read.</summary>
    public DateTimeOffset? CreatedAt { get; init; }

    /// <summary>Whether it may not change its own password; null when its access list was not read.</summary>
    public bool? PasswordCannotChange { get; init; }

    /// <summary>
    /// For a group managed account: the access list that says who may fetch its password, as text; null for others, and empty
    /// when it may not be read.
    /// </summary>
    public string? PasswordFetchers { get; init; }

    /// <summary>The relative identifier of the primary group, or 0 for groups. Neither member nor memberOf shows it.</summary>
    public uint PrimaryGroupRid { get; init; }

    /// <summary>State of an account.</summary>
    public AccountState State { get; init; }

    /// <summary><c>userAccountControl</c> of an account as it was read [MS-ADTS 2.2.16], or 0.</summary>
    public int Flags { get; init; }

    /// <summary>When its password was last set, or null when it never was, or that was not read.</summary>
    public DateTimeOffset? PasswordSetAt { get; init; }

    /// <summary>
    /// When its password expires under its password policy, or null when it does not, or that was not read [MS-ADTS
    /// 3.1.1.4.5.36].
    /// </summary>
    public DateTimeOffset? PasswordExpiresAt { get; init; }

    /// <summary>When it ends, or null when it does not.</summary>
    public DateTimeOffset? EndsAt { get; init; }

    /// <summary>
    /// When it last signed in, to within some two weeks [MS-ADA1 2.351], or null when it never did, or that was not read.
    /// </summary>
    public DateTimeOffset? LastSeenAt { get; init; }

    /// <summary>The names under which its services are found; each must be one account's only.</summary>
    public IReadOnlyList<string> ServicePrincipalNames { get; init; } = [];

    /// <summary>The services, by service principal name, at which it acts as whoever signed in to it.</summary>
    public IReadOnlyList<string> DelegatesTo { get; init; } = [];

    /// <summary>Whether it is trusted for delegation to any service.</summary>
    public bool IsTrustedForDelegation { get; init; }

    /// <summary>Scope of a group.</summary>
    public GroupScope Scope { get; init; }

    /// <summary>False for a distribution group, which carries no rights.</summary>
    public bool IsSecurity { get; init; } = true;

    /// <summary>
    /// Distinguished names of groups that it says it is in, and that could not be read: what they give is not known.
    /// </summary>
    public IReadOnlyList<string> HiddenGroups { get; init; } = [];

    /// <summary>Direct members of a group.</summary>
    public IReadOnlyList<Sid> Members { get; init; } = [];

    /// <summary>Why the members could not be read, or null.</summary>
    public string? MembersUnread { get; init; }
}
