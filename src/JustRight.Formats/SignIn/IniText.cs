using System.Globalization;
using System.Text;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Settings;

namespace JustRight.Formats.SignIn;

/// <summary>
/// Settings as an INI file. There is no standard for those: what a reader does with some characters, only the sheet can say;
/// where it does not, a value with one of them is not written.
/// </summary>
internal static class IniText
{
    /// <summary>The text of the file.</summary>
    public static string Write(IReadOnlyList<FilledField> fields, IniReader? reader)
    {
        var text = new StringBuilder();
        foreach (var section in fields.GroupBy(f => f.Name.Contains(
            '/', StringComparison.Ordinal) ? f.Name.Split('/')[0] : "").OrderBy(s => s.Key.Length > 0))
        {
            if (text.Length > 0) text.Append('\n');
            if (section.Key.Length > 0) text.Append(CultureInfo.InvariantCulture, $"[{section.Key}]\n");
            foreach (var field in section)
            {
                var name = field.Name[(field.Name.IndexOf('/', StringComparison.Ordinal) + 1)..];
                text.Append(
                    field.Value is null ? $"; {name}: not known yet\n"
                    : WhyNot(field.Value, reader) is not null ? $"; {name}: cannot be written here\n"
                    : $"{name} = {Written(field.Value, reader)}\n");
            }
        }

        return text.ToString();
    }

    /// <summary>Why a value cannot be written so that it is read as it is meant; null when it can.</summary>
    public static string? WhyNot(string? value, IniReader? reader)
    {
        if (value is null) return null;
        if (value.Any(c => char.IsControl(c))) return "it has a control character or a line end";
        if (reader is { Quotes: true }) return null;
        if (value != value.Trim()) return "it has a blank at an end, and the sheet does not say that values may be quoted";
        if (value is ['"', ..] or ['\'', ..] && reader is null)
            return "it begins with a quote, and the sheet does not say whether the reader takes those away (settings.ini.quotes)";
        if (CommentAt(value) && reader?.InlineComments != false)
            return reader is null
                ? "it has a ; or # behind a blank, and the sheet does not say whether that begins a comment (settings.ini)"
                : "it has a ; or # behind a blank, which begins a comment there";
        return value.AsSpan().ContainsAny('%', '$') && reader is null
            ? "it has a % or $, and the sheet does not say whether that begins a reference (settings.ini.interpolation)"
            : null;
    }

    private static bool CommentAt(string value) =>
        value is [';' or '#', ..] || value.Contains(" ;", StringComparison.Ordinal)
        || value.Contains(" #", StringComparison.Ordinal);

    private static string Written(string value, IniReader? reader)
    {
        if (reader is null) return value;
        var text = reader.Interpolation switch
        {
            IniInterpolation.None => value,
            IniInterpolation.Percent => value.Replace("%", "%%", StringComparison.Ordinal),
            IniInterpolation.Dollar => value.Replace("$", "$$", StringComparison.Ordinal),
        };
        return reader.Quotes
            ? $"\"{text.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("\"", "\\\"", StringComparison.Ordinal)}\""
            : text;
    }
}
