using JustRight.Core.Conditions;
using JustRight.Core.Directory;
using JustRight.Core.Faults;
using JustRight.Core.Surveys;

namespace JustRight.Core.Sheets;

/// <summary>What one product release needs: its places, accounts, groups, needs and services.</summary>
public sealed record Sheet(
    string Product,
    string Release,
    string Title,
    string Source,
    IReadOnlyList<Place> Places,
    IReadOnlyList<Question> Questions,
    IReadOnlyList<Fact> Facts,
    IReadOnlyList<SheetGroup> Groups,
    IReadOnlyList<SheetAccount> Accounts,
    IReadOnlyList<Separation> Separate,
    IReadOnlyList<SheetService> Services,
    Origin At)
{
    /// <summary>How people sign in with their directory account; null when they do not.</summary>
    public SheetSignIn? SignIn { get; init; }

    /// <summary>The name under which a sheet is kept: <c>product@release</c>.</summary>
    public string Name => $"{Product}@{Release}";
}

/// <summary>A kind of spot where a need holds.</summary>
/// <param name="Key">Its name in the sheet.</param>
/// <param name="Kind">What it is.</param>
/// <param name="AtLeast">The fewest an install may give.</param>
/// <param name="AtMost">The most an install may give.</param>
/// <param name="Engine">For instances and databases: the family of database server.</param>
/// <param name="DatabaseName">For databases: the name setup gives it, if the product fixes it.</param>
public sealed record Place(string Key, PlaceKind Kind, int AtLeast, int AtMost, string? Engine, string? DatabaseName, Origin At)
{
    /// <summary>For databases: whether credentials of other systems are kept there.</summary>
    public bool HoldsSecrets { get; init; }

    /// <summary>For databases: whether the product's setup creates it.</summary>
    public bool MadeBySetup { get; init; }
}

/// <summary>Something only the install can answer.</summary>
public sealed record Question(string Key, string Ask, Conditions.ValueType Type, string? Default, Origin At);

/// <summary>A named condition.</summary>
public sealed record Fact(string Key, Condition Condition, Origin At);

/// <summary>A domain group the product wants, that gathers accounts which need the same rights.</summary>
/// <param name="Members">Keys of accounts or groups of the sheet.</param>
/// <param name="Closed">When true, members that no plan put there are excess.</param>
public sealed record SheetGroup(
    string Key, string Purpose, GroupScope Scope, IReadOnlyList<string> Members, bool Closed, Origin At);

/// <summary>An account of the product.</summary>
public sealed record SheetAccount(
    string Key, string Purpose, WorksAs WorksAs, bool PasswordNeverExpires, IReadOnlyList<NeedClause> Needs,
    IReadOnlyList<ForbiddenHolding> Forbidden, Origin At)
{
    /// <summary>Whether it must not be able to change its own password.</summary>
    public bool PasswordCannotChange { get; init; }

    /// <summary>The types of log-on that it is kept from, on every host of an install.</summary>
    public IReadOnlyList<string> KeptOut { get; init; } = [];

    /// <summary>The key of the sheet's group through which it is kept out, or null for itself.</summary>
    public string? KeptOutThrough { get; init; }

    /// <summary>Where that stands.</summary>
    public Origin KeptOutAt { get; init; } = At;

    /// <summary>Who changes its password, and where else it is typed.</summary>
    public SheetPassword Password { get; init; } = SheetPassword.Unsaid(At);
}

/// <summary>Something an account must not hold, with the reason: a domain group, or an act that no ACE may allow it.</summary>
/// <param name="Group">The group, or null.</param>
/// <param name="Act">The act, or null.</param>
/// <param name="Attributes">The attributes of an act that names them.</param>
/// <param name="Of">The class of object of an act, or null for its own.</param>
public sealed record ForbiddenHolding(
    string? Group, DirectoryActRow? Act, IReadOnlyList<string> Attributes, string? Of, string Why, Origin At);

/// <summary>Accounts that must not be one and the same, with the reason.</summary>
public sealed record Separation(IReadOnlyList<string> Accounts, string Why, Origin At);

/// <summary>A service of the product.</summary>
/// <param name="On">The key of the host place.</param>
/// <param name="RunsAs">The key of the account.</param>
/// <param name="Start">When it starts, or null when the product does not mind.</param>
/// <param name="After">Services that must run before it.</param>
/// <param name="GivenBy">Who sets all this: the product's setup, or we.</param>
public sealed record SheetService(
    string Name, string On, string RunsAs, ServiceStart? Start, IReadOnlyList<string> After, GivenBy GivenBy, Origin At);
