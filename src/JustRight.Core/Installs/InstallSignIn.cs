using JustRight.Core.Directory;
using JustRight.Core.Faults;
using JustRight.Core.Sheets;

namespace JustRight.Core.Installs;

/// <summary>With which directory people sign in here, and what is expected of it.</summary>
/// <param name="Directory">The estate's key of the directory.</param>
public sealed record InstallSignIn(string Directory, Origin At)
{
    /// <summary>Where each key stands, for faults.</summary>
    public IReadOnlyDictionary<string, Origin> Lines { get; init; } = new Dictionary<string, Origin>();

    /// <summary>Where a key stands; the section itself where it does not.</summary>
    public Origin Line(string key) => Lines.GetValueOrDefault(key, At);

    /// <summary>The account of the directory's own to bind as, where the plan makes none: a distinguished name.</summary>
    public string? BindAs { get; init; }

    /// <summary>The name of the secret, kept by the service, that holds the bind account's password.</summary>
    public string? BindSecret { get; init; }

    /// <summary>
    /// The group of the directory's own whose members may enter, where the plan makes none: a distinguished name.
    /// </summary>
    public string? EnterThrough { get; init; }

    /// <summary>Groups and people of the domain that belong in the plan's group of those who may enter, by logon name.</summary>
    public IReadOnlyList<string> EnterMembers { get; init; } = [];

    /// <summary>What the names of groups start with that an administrator sees; empty for what the sheet says.</summary>
    public IReadOnlyList<string> GroupsStart { get; init; } = [];

    /// <summary>How many people are expected; null when that is not known.</summary>
    public int? ExpectedPeople { get; init; }

    /// <summary>The logon names of the people expected; empty when they are not known.</summary>
    public IReadOnlyList<string> ExpectedNames { get; init; } = [];

    /// <summary>The names of the groups that an administrator should see; empty when they are not known.</summary>
    public IReadOnlyList<string> ExpectedGroups { get; init; } = [];

    /// <summary>Whether the catalog of the forest is asked in place of the directory.</summary>
    public bool Catalog { get; init; }

    /// <summary>The branches of people for this product; empty for those of the directory.</summary>
    public IReadOnlyList<DistinguishedName> PeopleIn { get; init; } = [];

    /// <summary>What people type here; empty for the first form that product and directory both know.</summary>
    public IReadOnlyList<TypedForm> PeopleType { get; init; } = [];

    /// <summary>What else people must match here, a filter [RFC 4515]; null for nothing.</summary>
    public string? Only { get; init; }

    /// <summary>Whom the product never lets in here, a filter; null for nobody.</summary>
    public string? Without { get; init; }

    /// <summary>Who has which role.</summary>
    public IReadOnlyList<InstallRole> Roles { get; init; } = [];

    /// <summary>The file of the certificate that the product binds with, on its own host.</summary>
    public string? ClientCertificate { get; init; }

    /// <summary>The file of its private key.</summary>
    public string? ClientKey { get; init; }

    /// <summary>The logon name of somebody who must be able to sign in.</summary>
    public string? MayEnter { get; init; }

    /// <summary>The logon names of people who must not.</summary>
    public IReadOnlyList<string> MayNotEnter { get; init; } = [];
}

/// <summary>Who has a role of a product here.</summary>
/// <param name="Key">The key of the role in the sheet.</param>
/// <param name="Groups">Groups of the directory's own, by distinguished name, that stand for the group of the sheet.</param>
/// <param name="Members">Groups and people of the domain that belong in the plan's group, by logon name.</param>
/// <param name="Person">The logon name of somebody who must have the role: the sign-in test looks; or null.</param>
public sealed record InstallRole(
    string Key, IReadOnlyList<string> Groups, IReadOnlyList<string> Members, string? Person, Origin At);
