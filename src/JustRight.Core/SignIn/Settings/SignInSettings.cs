using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;

namespace JustRight.Core.SignIn.Settings;

/// <summary>All that a product is told so that people can sign in to it, with the reason of each value.</summary>
/// <param name="Settings">By neutral name, in the order of <see cref="SettingKeys.All"/>; without what is said of single
/// roles.</param>
/// <param name="OfRoles">What is said of each role, by the key of the role.</param>
/// <param name="Files">The product's own settings, a file or page at a time.</param>
/// <param name="People">Who is found.</param>
/// <param name="Groups">Which groups are seen; null when the product has no use for groups.</param>
public sealed record SignInSettings(
    IReadOnlyList<SignInSetting> Settings, IReadOnlyList<(string Role, SignInSetting Setting)> OfRoles,
    IReadOnlyList<FilledFile> Files, Filter People, Filter? Groups)
{
    /// <summary>The value of a setting, or null when it is not known or not on the settings.</summary>
    public string? this[string key] => Find(key, null)?.Value;

    /// <summary>The product's own settings of all its files and pages.</summary>
    public IEnumerable<FilledField> Fields => Files.SelectMany(f => f.Fields);

    /// <summary>A setting by its neutral name; null when it is not among them.</summary>
    /// <param name="role">The role that it is said of, or null.</param>
    public SignInSetting? Find(string key, string? role) => role is null
        ? Settings.FirstOrDefault(s => s.Key == key)
        : OfRoles.FirstOrDefault(r => r.Role == role && r.Setting.Key == key).Setting;
}

/// <summary>One value of the settings.</summary>
/// <param name="Key">Its neutral name.</param>
/// <param name="Values">Its values: one, or several where that can be; none when it is not known yet.</param>
/// <param name="Because">Why it is this, or why it is not known.</param>
/// <param name="IsReference">Whether the value stands for a secret and is not the secret itself.</param>
public sealed record SignInSetting(string Key, IReadOnlyList<string> Values, string Because, bool IsReference = false)
{
    /// <summary>The value, several of them a line each; null when it is not known yet.</summary>
    public string? Value => Values.Count == 0 ? null : string.Join('\n', Values);
}

/// <summary>A product's file or page of settings, filled.</summary>
/// <param name="Is">The file or the page.</param>
/// <param name="TypedOn">The hosts on which it is.</param>
public sealed record FilledFile(SheetSettings Is, IReadOnlyList<string> TypedOn, IReadOnlyList<FilledField> Fields);

/// <summary>One of a product's own settings, filled.</summary>
/// <param name="Name">The product's name for it.</param>
/// <param name="Values">The values in the product's own words; none when it is not known yet.</param>
/// <param name="Key">The neutral name of what stands there; null for a fixed text.</param>
/// <param name="IsReference">Whether the value stands for a secret and is not the secret itself.</param>
public sealed record FilledField(string Name, IReadOnlyList<string> Values, string? Key, bool IsReference)
{
    /// <summary>What it is in a file that knows types.</summary>
    public ValueKind As { get; init; }

    /// <summary>What stands between several values where there are no lists.</summary>
    public string Separator { get; init; } = ";";

    /// <summary>The role it is about, or null.</summary>
    public string? Role { get; init; }

    /// <summary>The value as one text; null when it is not known yet.</summary>
    public string? Value => Values.Count == 0 ? null : string.Join(Separator, Values);
}
