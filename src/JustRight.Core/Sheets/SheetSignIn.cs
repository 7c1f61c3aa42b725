using JustRight.Core.Directory;
using JustRight.Core.Faults;

namespace JustRight.Core.Sheets;

/// <summary>How people sign in to a product with their directory account: what it can, and what it wants to be told.</summary>
/// <param name="Families">The families of directory it can use.</param>
/// <param name="BindAccount">The key of the account it binds as; null when the install names one of the directory's own.</param>
/// <param name="BindForm">How it wants the bind account written.</param>
/// <param name="Security">How it can reach a directory, best first.</param>
/// <param name="OneBase">Whether it knows one base for people and groups alike.</param>
/// <param name="Enter">The key of the group whose members may enter; null when everyone found may.</param>
/// <param name="Nested">Who follows groups inside groups.</param>
/// <param name="TypedName">What stands in its filter for the name that a person types; null when it adds that itself.</param>
/// <param name="Groups">Which groups an administrator sees when choosing one; null when it has no use for groups.</param>
/// <param name="PageSize">How many objects it asks for at a time; null when it cannot ask page by page.</param>
/// <param name="Settings">Where and how it is told.</param>
public sealed record SheetSignIn(
    IReadOnlyList<DirectoryFamily> Families, string? BindAccount, BindForm BindForm, IReadOnlyList<WireSecurity> Security,
    bool OneBase, string? Enter, NestedGroups Nested, string? TypedName,
    SheetGroupList? Groups, int? PageSize, SignInSettings Settings, Origin At)
{
    /// <summary>Where each key stands, for faults; those of inner sections with their path.</summary>
    public IReadOnlyDictionary<string, Origin> Lines { get; init; } = new Dictionary<string, Origin>();

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

/// <summary>Which groups an administrator sees in the product.</summary>
/// <param name="NamesStart">What their names start with, any of which will do; none for all groups.</param>
/// <param name="BuiltIn">Whether the directory's own built-in groups are among them.</param>
public sealed record SheetGroupList(IReadOnlyList<string> NamesStart, bool BuiltIn, Origin At);

/// <summary>Where and how a product is told its settings.</summary>
/// <param name="TypedOn">The key of the host place where that is.</param>
/// <param name="Where">The file or the page.</param>
/// <param name="Form">What the file is; a page is a list to type.</param>
/// <param name="Fields">Its settings, in the order of the file or the page.</param>
public sealed record SignInSettings(
    string TypedOn, string Where, SettingsForm Form, IReadOnlyList<SettingsField> Fields, Origin At);

/// <summary>What a file of settings is.</summary>
public enum SettingsForm
{
    /// <summary>A page that somebody types them into.</summary>
    List,

    /// <summary>Sections and <c>name = value</c>; the section stands before the name, with a slash.</summary>
    Ini,

    /// <summary><c>NAME='value'</c>, as a shell reads it.</summary>
    Env,

    /// <summary>JSON; a slash in a name leads into an object.</summary>
    Json,

    /// <summary>XML; a slash in a name leads into an element.</summary>
    Xml,

    /// <summary><c>name=value</c> with the escapes of Java's properties.</summary>
    Properties,
}

/// <summary>One of a product's settings.</summary>
/// <param name="Name">Its own name for it.</param>
/// <param name="Is">The neutral name of what belongs there; null for a fixed text.</param>
/// <param name="Text">The fixed text, or null.</param>
/// <param name="Words">The product's own words for some values.</param>
public sealed record SettingsField(string Name, string? Is, string? Text, IReadOnlyDictionary<string, string> Words, Origin At);
