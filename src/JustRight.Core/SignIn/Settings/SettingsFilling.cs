using System.Globalization;
using JustRight.Core.Sheets;

namespace JustRight.Core.SignIn.Settings;

/// <summary>Puts values into a product's own settings, in the product's own words and units.</summary>
internal static class SettingsFilling
{
    /// <summary>A setting of the product with its value.</summary>
    public static FilledField Fill(SettingsField field, SignInSettings settings)
    {
        var setting = field.Is is null ? null : settings.Find(field.Is, field.Role);
        IReadOnlyList<string> values = field.Is is null
            ? [field.Text ?? ""]
            : [.. (setting?.Values ?? []).Select(v => Written(v, field))];
        return new FilledField(field.Name, values, field.Is, setting?.IsReference == true)
        {
            As = field.As,
            Separator = field.Separator,
            Role = field.Role,
        };
    }

    private static string Written(string value, SettingsField field)
    {
        if (field.Milliseconds) value = value + "000";
        value = field.Words.GetValueOrDefault(value, value);
        return field.LowerCase ? value.ToLower(CultureInfo.InvariantCulture) : value;
    }
}
