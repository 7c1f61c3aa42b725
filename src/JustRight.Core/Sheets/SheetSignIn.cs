using JustRight.Core.Directory;
using JustRight.Core.Faults;

namespace JustRight.Core.Sheets;

/// <summary>How people sign in to a product with their directory account: what it can, and what it wants to be told.</summary>
/// <param name="Families">The families of directory it can use.</param>
/// <param name="BindAccount">The key of the account it binds as; null when the install names one of the directory's own.</param>
/// <param name="BindForm">How it wants the bind account, or a person who binds, written.</param>
/// <param name="Security">How it can reach a directory, best first.</param>
/// <param name="Bases">What it knows of bases.</param>
/// <param name="Enter">The key of the group whose members may enter; null when everyone found may.</param>
/// <param name="Nested">Who follows groups inside groups.</param>
/// <param name="TypedName">What stands in its filter, or in the name it binds with, for the name that a person types; null when
/// it adds that itself.</param>
/// <param name="Groups">Which groups an administrator sees when choosing one; null when it has no use for groups.</param>
/// <param name="PageSize">How many objects it asks for at a time; null when it cannot ask page by page.</param>
/// <param name="Settings">Where and how it is told: its files and pages.</param>
public sealed record SheetSignIn(
    IReadOnlyList<DirectoryFamily> Families, string? BindAccount, BindForm BindForm, IReadOnlyList<WireSecurity> Security,
    ProductBases Bases, string? Enter, NestedGroups Nested, string? TypedName,
    SheetGroupList? Groups, int? PageSize, IReadOnlyList<SheetSettings> Settings, Origin At)
{
    /// <summary>Whether it takes several servers and asks the next one where one does not answer.</summary>
    public bool SeveralServers { get; init; }

    /// <summary>How far its searches can look.</summary>
    public IReadOnlyList<SearchDepth> Depths { get; init; } = [SearchDepth.Subtree];

    /// <summary>As whom it binds before it searches.</summary>
    public BindsAs BindsAs { get; init; }

    /// <summary>What it lets people type for their name.</summary>
    public IReadOnlyList<TypedForm> PeopleType { get; init; } = [TypedForm.LogonName];

    /// <summary>Whether it counts the primary group of an AD-like directory among somebody's groups.</summary>
    public bool CountsPrimaryGroup { get; init; }

    /// <summary>What else people must match, a filter [RFC 4515]; null for nothing.</summary>
    public string? Only { get; init; }

    /// <summary>Whom it never lets in, a filter; null for nobody.</summary>
    public string? Without { get; init; }

    /// <summary>When it reads people, and what becomes of those who left.</summary>
    public PeopleReading Reading { get; init; } = PeopleReading.AtSignIn;

    /// <summary>What people may be in it, by the groups they are in.</summary>
    public IReadOnlyList<SheetRole> Roles { get; init; } = [];

    /// <summary>Where each key stands, for faults; those of inner sections with their path.</summary>
    public IReadOnlyDictionary<string, Origin> Lines { get; init; } = new Dictionary<string, Origin>();

    /// <summary>All settings of all its files and pages.</summary>
    public IEnumerable<SettingsField> Fields => Settings.SelectMany(s => s.Fields);

    /// <summary>Where a key stands; the section itself where it does not.</summary>
    public Origin Line(string key) => Lines.GetValueOrDefault(key, At);
}

/// <summary>How a bind account is written.</summary>
public enum BindForm
{
    /// <summary>By distinguished name: what every directory takes.</summary>
    Dn,

    /// <summary>As <c>name@domain</c>.</summary>
    Upn,

    /// <summary>As <c>DOMAIN\name</c>.</summary>
    ShortName,
}

/// <summary>As whom a product binds before it searches.</summary>
public enum BindsAs
{
    /// <summary>As an account of its own.</summary>
    Account,

    /// <summary>As the person who signs in, whose name it puts into a template.</summary>
    Person,

    /// <summary>By a certificate of its own [RFC 4513 5.2.3].</summary>
    Certificate,
}

/// <summary>What a product knows of bases.</summary>
public enum ProductBases
{
    /// <summary>One for people and one for groups.</summary>
    Separate,

    /// <summary>One for people and groups alike.</summary>
    One,

    /// <summary>Any number for people, and any for groups.</summary>
    Several,
}

/// <summary>What a person types for their name.</summary>
public enum TypedForm
{
    /// <summary>The logon name.</summary>
    LogonName,

    /// <summary>The userPrincipalName: <c>name@domain</c>.</summary>
    Upn,

    /// <summary>The mail address.</summary>
    Mail,

    /// <summary><c>DOMAIN\name</c>, of which the product looks up what stands behind the backslash.</summary>
    ShortName,
}

/// <summary>Words of <see cref="TypedForm"/>.</summary>
public static class TypedFormWords
{
    /// <summary>The words of files and pages.</summary>
    public static readonly IReadOnlyList<string> All = ["logon-name", "upn", "mail", "short-name"];

    /// <summary>The word for one.</summary>
    public static string Word(this TypedForm form) => All[(int)form];

    /// <summary>The form of a word.</summary>
    public static TypedForm Of(string word) => (TypedForm)All.ToList().IndexOf(word);
}

/// <summary>When a product reads people, and what becomes there of those who left.</summary>
public enum PeopleReading
{
    /// <summary>Each time somebody signs in: who may not is not let in.</summary>
    AtSignIn,

    /// <summary>From time to time; those who left stay, and may go on.</summary>
    SyncKeeps,

    /// <summary>From time to time; those who left are disabled.</summary>
    SyncDisables,

    /// <summary>From time to time; those who left are removed, with what they own.</summary>
    SyncRemoves,
}

/// <summary>Who follows groups inside groups.</summary>
public enum NestedGroups
{
    /// <summary>Nobody: only direct members count.</summary>
    No,

    /// <summary>The directory, by a rule that the filter names.</summary>
    ByFilter,

    /// <summary>The product itself.</summary>
    ByProduct,
}

/// <summary>What people may be in a product.</summary>
/// <param name="Key">The key of the role.</param>
/// <param name="Called">The product's own name for it.</param>
/// <param name="Group">The key of the group of the sheet whose members have it; null when the install names groups.</param>
public sealed record SheetRole(string Key, string Called, string? Group, Origin At);

/// <summary>Which groups an administrator sees in the product.</summary>
/// <param name="NamesStart">What their names start with, any of which will do; none for all groups.</param>
/// <param name="BuiltIn">Whether the directory's own built-in groups are among them.</param>
public sealed record SheetGroupList(IReadOnlyList<string> NamesStart, bool BuiltIn, Origin At);
