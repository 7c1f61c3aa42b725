using JustRight.Core.Faults;

namespace JustRight.Core.Sheets;

/// <summary>A file or a page in which a product is told its settings.</summary>
/// <param name="TypedOn">The key of the host place where that is.</param>
/// <param name="Where">The file or the page.</param>
/// <param name="Form">What the file is; a page is a list to type.</param>
/// <param name="Fields">Its settings, in the order of the file or the page.</param>
public sealed record SheetSettings(
    string TypedOn, string Where, SettingsForm Form, IReadOnlyList<SettingsField> Fields, Origin At)
{
    /// <summary>How the product reads an INI file; null when the sheet does not say.</summary>
    public IniReader? Ini { get; init; }

    /// <summary>Where each key stands, for faults.</summary>
    public IReadOnlyDictionary<string, Origin> Lines { get; init; } = new Dictionary<string, Origin>();

    /// <summary>Where a key stands; the whole where it does not.</summary>
    public Origin Line(string key) => Lines.GetValueOrDefault(key, At);
}

/// <summary>What a file of settings is.</summary>
public enum SettingsForm
{
    /// <summary>A page that somebody types them into.</summary>
    List,

    /// <summary>Sections and <c>name = value</c>; the section stands before the name, with a slash.</summary>
    Ini,

    /// <summary><c>NAME='value'</c>, as a shell reads it.</summary>
    Env,

    /// <summary>JSON [RFC 8259]; a slash in a name leads into an object, and a number there into a list.</summary>
    Json,

    /// <summary>XML; a slash in a name leads into an element.</summary>
    Xml,

    /// <summary><c>name=value</c> with the escapes of Java's properties.</summary>
    Properties,

    /// <summary>YAML 1.2; names as in JSON.</summary>
    Yaml,
}

/// <summary>How a product reads an INI file, for which there is no standard.</summary>
/// <param name="InlineComments">Whether <c>;</c> or <c>#</c> behind a blank begins a comment.</param>
/// <param name="Interpolation">Which character begins a reference to another value.</param>
/// <param name="Quotes">Whether a value may stand in double quotes, with a backslash before a quote or a backslash.</param>
public sealed record IniReader(bool InlineComments, IniInterpolation Interpolation, bool Quotes);

/// <summary>Which character begins a reference to another value in an INI file; written twice it stands for itself.</summary>
public enum IniInterpolation
{
    /// <summary>None does.</summary>
    None,

    /// <summary>A percent sign.</summary>
    Percent,

    /// <summary>A dollar sign.</summary>
    Dollar,
}

/// <summary>What a value is in a file that knows types.</summary>
public enum ValueKind
{
    /// <summary>A text.</summary>
    Text,

    /// <summary>A number.</summary>
    Number,

    /// <summary>True or false.</summary>
    YesNo,

    /// <summary>A list of texts.</summary>
    List,
}

/// <summary>One of a product's settings.</summary>
/// <param name="Name">Its own name for it.</param>
/// <param name="Is">The neutral name of what belongs there; null for a fixed text.</param>
/// <param name="Text">The fixed text, or null.</param>
/// <param name="Words">The product's own words for some values.</param>
public sealed record SettingsField(string Name, string? Is, string? Text, IReadOnlyDictionary<string, string> Words, Origin At)
{
    /// <summary>The role it is about; null for settings that are about none.</summary>
    public string? Role { get; init; }

    /// <summary>What it is in a file that knows types.</summary>
    public ValueKind As { get; init; }

    /// <summary>What stands between several values where there are no lists.</summary>
    public string Separator { get; init; } = ";";

    /// <summary>Whether a number of seconds is written in milliseconds.</summary>
    public bool Milliseconds { get; init; }

    /// <summary>Whether the value is written in lower case.</summary>
    public bool LowerCase { get; init; }
}
