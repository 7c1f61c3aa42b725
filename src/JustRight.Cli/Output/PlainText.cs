using System.Globalization;
using System.Text;

namespace JustRight.Cli.Output;

/// <summary>
/// Text from a service or an estate, made harmless for a terminal: what would move the cursor, change colours or turn the order
/// of writing is shown as an escape.
/// </summary>
internal static class PlainText
{
    /// <summary>Whether a character acts on a terminal, or on how the text around it is shown [UAX #9, ECMA-48].</summary>
    public static bool Acts(char c) => char.IsControl(c)
        || CharUnicodeInfo.GetUnicodeCategory(c)
            is UnicodeCategory.Format or UnicodeCategory.LineSeparator or UnicodeCategory.ParagraphSeparator;

    /// <summary>The text with such characters as <c>\u202E</c>.</summary>
    /// <param name="keep">Characters that may stay, such as line ends.</param>
    public static string Of(string text, string keep = "")
    {
        if (!text.Any(c => Acts(c) && !keep.Contains(c))) return text;
        var plain = new StringBuilder(text.Length + 16);
        foreach (var c in text)
        {
            if (Acts(c) && !keep.Contains(c)) plain.Append(CultureInfo.InvariantCulture, $"\\u{(int)c:X4}");
            else plain.Append(c);
        }

        return plain.ToString();
    }
}
