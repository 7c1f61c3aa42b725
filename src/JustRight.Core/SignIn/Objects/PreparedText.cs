using System.Text;

namespace JustRight.Core.SignIn.Objects;

/// <summary>
/// Prepares text for comparing [RFC 4518]: letters folded where case does not count, compatible forms made one, and space between
/// words made insignificant by writing it as two spaces, with one at either end (2.6.1).
/// </summary>
internal static class PreparedText
{
    /// <summary>A whole value.</summary>
    public static string Whole(string text, bool foldCase) => Spaced(Mapped(text, foldCase), true, true);

    /// <summary>A part that a value begins with.</summary>
    public static string Start(string text, bool foldCase) => Spaced(Mapped(text, foldCase), true, false);

    /// <summary>A part that stands somewhere in a value.</summary>
    public static string Middle(string text, bool foldCase) => Spaced(Mapped(text, foldCase), false, false);

    /// <summary>A part that a value ends with.</summary>
    public static string End(string text, bool foldCase) => Spaced(Mapped(text, foldCase), false, true);

    /// <summary>A telephone number, or a part of one: without spaces and hyphens (2.6.3).</summary>
    public static string Telephone(string text) =>
        string.Concat(Mapped(text, true).Where(c => c is not (' ' or '-' or '\u2010' or '\u2011' or '\u2212')));

    /// <summary>Digits without the spaces between them (2.6.2); null for what is none.</summary>
    public static string? Numeric(string text)
    {
        var digits = text.Replace(" ", "", StringComparison.Ordinal);
        return digits.Length > 0 && digits.All(char.IsAsciiDigit) ? digits : null;
    }

    private static string Mapped(string text, bool foldCase)
    {
        if (Ascii.IsValid(text)) return foldCase ? text.ToLowerInvariant() : text;
        var normal = text.Normalize(NormalizationForm.FormKC);
        return foldCase ? CaseFolding.Fold(normal) : normal;
    }

    private static string Spaced(string text, bool atStart, bool atEnd)
    {
        // almost every value
        if (text.Length > 0 && text[0] != ' ' && text[^1] != ' ' && !text.Contains("  ", StringComparison.Ordinal))
            return string.Concat(
                atStart ? " " : "",
                text.Contains(' ', StringComparison.Ordinal) ? text.Replace(" ", "  ", StringComparison.Ordinal) : text,
                atEnd ? " " : "");
        var words = text.AsSpan();
        var prepared = new StringBuilder(text.Length + 4);
        var startsWithSpace = words.Length > 0 && words[0] == ' ';
        var endsWithSpace = words.Length > 0 && words[^1] == ' ';
        words = words.Trim(' ');
        if (words.Length == 0) return atStart && atEnd ? "  " : text.Length == 0 ? "" : " ";
        if (atStart || startsWithSpace) prepared.Append(' ');
        var inSpace = false;
        foreach (var c in words)
        {
            if (c == ' ')
            {
                inSpace = true;
                continue;
            }

            if (inSpace) prepared.Append("  ");
            inSpace = false;
            prepared.Append(c);
        }

        if (atEnd || endsWithSpace) prepared.Append(' ');
        return prepared.ToString();
    }
}
