using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;

namespace JustRight.Core.SignIn.Settings;

/// <summary>All that a product is told so that people can sign in to it, with the reason of each value.</summary>
/// <param name="Settings">By neutral name, in the order of <see cref="SettingKeys.All"/>.</param>
/// <param name="Fields">The product's own settings, in the order of its file or page.</param>
/// <param name="People">Who is found.</param>
/// <param name="Groups">Which groups are seen; null when the product has no use for groups.</param>
public sealed record SignInSettings(
    IReadOnlyList<SignInSetting> Settings, IReadOnlyList<FilledField> Fields, Filter People, Filter? Groups)
{
    /// <summary>The value of a setting, or null when it is not known or not on the settings.</summary>
    public string? this[string key] => Settings.FirstOrDefault(s => s.Key == key)?.Value;
}

/// <summary>One value of the settings.</summary>
/// <param name="Key">Its neutral name.</param>
/// <param name="Value">The value; null when it is not known yet.</param>
/// <param name="Because">Why it is this, or why it is not known.</param>
/// <param name="IsReference">Whether the value stands for a secret and is not the secret itself.</param>
public sealed record SignInSetting(string Key, string? Value, string Because, bool IsReference = false);

/// <summary>One of a product's own settings, filled.</summary>
/// <param name="Name">The product's name for it.</param>
/// <param name="Value">The value in the product's own words; null when it is not known yet.</param>
/// <param name="Key">The neutral name of what stands there; null for a fixed text.</param>
/// <param name="IsReference">Whether the value stands for a secret and is not the secret itself.</param>
public sealed record FilledField(string Name, string? Value, string? Key, bool IsReference);
