using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Plans;

/// <summary>Sheet, estate and install laid over one another: what must be there, each thing traced to the sheet.</summary>
public sealed record Plan(
    string Install,
    string Sheet,
    string Title,
    string Estate,
    string Domain,
    string UpnSuffix,
    Stage Stage,
    IReadOnlyList<PlannedBranch> Branches,
    IReadOnlyList<PlannedGroup> Groups,
    IReadOnlyList<PlannedAccount> Accounts,
    IReadOnlyList<PlannedGrant> Grants,
    IReadOnlyList<Decision> Decisions,
    IReadOnlyList<ForbiddenRule> Forbidden,
    IReadOnlyList<string> Notes)
{
    /// <summary>The product, as its sheet calls it.</summary>
    public string Product { get; init; } = "";

    /// <summary>The family of each database instance of the estate, by name.</summary>
    public IReadOnlyDictionary<string, string> Engines { get; init; } = new Dictionary<string, string>(
        StringComparer.OrdinalIgnoreCase);

    /// <summary>Who owns a database after an account that shall not, by instance, as the organization says.</summary>
    public IReadOnlyDictionary<string, string> NewOwners { get; init; } = new Dictionary<string, string>(
        StringComparer.OrdinalIgnoreCase);

    /// <summary>Databases in which the product keeps credentials of other systems.</summary>
    public IReadOnlyList<SecretStore> SecretStores { get; init; } = [];

    /// <summary>Accounts that must not be one and the same.</summary>
    public IReadOnlyList<Separation> Separate { get; init; } = [];

    /// <summary>Where passwords are typed in the product, beside its services and its sign-in.</summary>
    public IReadOnlyList<PasswordPlace> TypedIn { get; init; } = [];

    /// <summary>With what people sign in; null when they do not.</summary>
    public SignIn.PlannedSignIn? SignIn { get; init; }

    /// <summary>
    /// The services, one for each host of its place. What is asked of them is among the grants of the accounts they run as.
    /// </summary>
    public IReadOnlyList<PlannedService> Services { get; init; } = [];

    /// <summary>The grants of one account, in the order of the sheet.</summary>
    public IEnumerable<PlannedGrant> GrantsOf(string account) => Grants.Where(g => g.Account == account);
}

/// <summary>A database in which the product keeps credentials of other systems.</summary>
/// <param name="At">The line of the sheet that says so.</param>
public sealed record SecretStore(string Instance, string Database, Origin At);

/// <summary>A branch that must exist.</summary>
/// <param name="IsOwn">Whether it is an OU that the product has to itself: made here, it is protected from deletion.</param>
public sealed record PlannedBranch(string Dn, Origin At, bool IsOwn = false);

/// <summary>A domain group of the plan.</summary>
/// <param name="Members">Keys of the plan's accounts and groups that belong in it.</param>
/// <param name="Existing">It was there before us: never created, never described anew.</param>
public sealed record PlannedGroup(
    string Key, string Name, string? Dn, GroupScope Scope, string Description, string Purpose, bool Closed, bool Existing,
    IReadOnlyList<string> Members, Origin At)
{
    /// <summary>Whether it is the organization's own, with accounts of other installs in it.</summary>
    public bool IsShared { get; init; }
}

/// <summary>An account of the plan.</summary>
/// <param name="Name">Its logon name.</param>
/// <param name="Dn">Where it belongs, or null for an existing account, which stays where it is.</param>
/// <param name="Existing">It was there before us: its branch, flags and description are its own affair.</param>
public sealed record PlannedAccount(
    string Key, string Name, string? Dn, string Description, string Purpose, WorksAs WorksAs, bool PasswordNeverExpires,
    bool Existing, Origin At)
{
    /// <summary>Whether it must not be able to change its own password.</summary>
    public bool PasswordCannotChange { get; init; }

    /// <summary>Who changes its password, and whether the directory could keep it.</summary>
    public SheetPassword Password { get; init; } = SheetPassword.Unsaid(At);

    /// <summary>Why its password never expires here; null where nobody gave a reason.</summary>
    public NeverExpires? NeverExpires { get; init; }
}

/// <summary>One right that one account must hold.</summary>
/// <param name="Id">Stable within the install: <c>poller/local-group:administrators@fm-temp01</c>.</param>
/// <param name="Account">The account's key.</param>
/// <param name="Place">The key of the sheet's place, or null for rights of the domain.</param>
/// <param name="Through">The key of the plan's group through which it should be held, or null.</param>
/// <param name="Decision">The decision that chose it, or null.</param>
public sealed record PlannedGrant(
    string Id, string Account, Right Right, string? Place, string? Through, GivenBy GivenBy, Until Until, Team Team, string? Why,
    string? Decision, Origin At)
{
    /// <summary>Whether the product's setup makes what it is a right in: a database, a group.</summary>
    public bool MadeBySetup { get; init; }
}

/// <summary>A service that must run on a host.</summary>
/// <param name="Place">The key of the sheet's place.</param>
/// <param name="Account">The key of the account it runs as.</param>
/// <param name="Start">When it starts, or null when that does not matter.</param>
/// <param name="After">Services that must run before it.</param>
public sealed record PlannedService(
    string Name, string Host, string Place, string Account, ServiceStart? Start, IReadOnlyList<string> After, GivenBy GivenBy,
    Origin At);

/// <summary>A choice among alternatives that was made, and why.</summary>
/// <param name="Id">Unique in the plan: account and name of the decision.</param>
/// <param name="Taken">The label of the alternative taken.</param>
/// <param name="ByInstall">Whether the install chose; otherwise the one of least reach was taken.</param>
public sealed record Decision(
    string Id, string Account, string Name, string Taken, string Reason, bool ByInstall, IReadOnlyList<Alternative> Alternatives,
    Origin At);

/// <summary>One of the alternatives of a decision.</summary>
/// <param name="Reach">A measure of what else an account could do with it; see <see cref="RightReach"/>.</param>
public sealed record Alternative(string Label, IReadOnlyList<Right> Rights, int Reach, string ReachReason);

/// <summary>A domain group that an account may not be in, or something that no entry of an access list may let it do.</summary>
/// <param name="Account">The account's key, or null for all.</param>
/// <param name="Group">The group; empty where an act is forbidden.</param>
/// <param name="Act">The act, anywhere in the domain, or null.</param>
public sealed record ForbiddenRule(string? Account, string Group, Right? Act, string Why, Origin At);
