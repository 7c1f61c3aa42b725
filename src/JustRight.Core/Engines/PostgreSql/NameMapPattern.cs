using System.Text;
using System.Text.RegularExpressions;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>
/// A pattern of a name map. The engine's patterns [PostgreSQL, Regular Expression Details] are of another make than the
/// framework's: only what both take alike is read, which is what name maps are made of. Characters, sets of characters and
/// <c>.</c>, each once or by <c>* + ?</c>, in groups, with <c>^</c> before and <c>$</c> behind.
/// </summary>
public sealed class NameMapPattern
{
    private const string Special = @"\^$.[](){}*+?|";
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(1);
    private readonly Regex _pattern;

    private NameMapPattern(string pattern) =>
        _pattern = new Regex(pattern, RegexOptions.CultureInvariant | RegexOptions.Singleline, Longest);

    /// <summary>Reads one, without the slash; null when it has something that the two may take differently.</summary>
    public static NameMapPattern? TryParse(string text)
    {
        var (read, at, open, groups) = (new StringBuilder(), 0, 0, 0);
        var (fromStart, toEnd) = (text.StartsWith('^'), false);
        if (fromStart) at = Take(@"\A", 1);
        while (at < text.Length)
        {
            var repeats = false;
            switch (text[at])
            {
                case '$' when at == text.Length - 1:
                    toEnd = true;
                    at = Take(@"\z", 1);
                    break;
                case '(' when at + 1 < text.Length && text[at + 1] is not ('?' or '*' or '+' or ')'):
                    (open, groups) = (open + 1, groups + 1);
                    at = Take("(", 1);
                    break;
                case ')' when open > 0:
                    open--;
                    at = Take(")", 1);
                    break;
                case '[' when SetAt(text, at) is { } set:
                    repeats = true;
                    at = Take(set, set.Length);
                    break;
                case '\\' when at + 1 < text.Length && char.IsAsciiLetterOrDigit(text[at + 1]) is false && text[at + 1] < 128:
                    repeats = true;
                    at = Take(Regex.Escape(text[(at + 1)..(at + 2)]), 2);
                    break;
                case '.':
                    repeats = true;
                    at = Take(".", 1);
                    break;
                case var other when !Special.Contains(other, StringComparison.Ordinal) && !char.IsSurrogate(other):
                    repeats = true;
                    at = Take(Regex.Escape(text[at..(at + 1)]), 1);
                    break;
                default:
                    return null;
            }

            if (!repeats || at == text.Length || text[at] is not ('*' or '+' or '?')) continue;
            at = Take(text[at..(at + 1)], 1);
            if (at < text.Length && text[at] is '*' or '+' or '?' or '{') return null;
        }

        // What a group takes is the same for both only where the whole name is to be matched.
        return open > 0 || (groups > 0 && !(fromStart && toEnd)) ? null : new NameMapPattern(read.ToString());

        int Take(string piece, int length)
        {
            read.Append(piece);
            return at + length;
        }
    }

    /// <summary>Whether it matches a name, and what its first group then took; null when it has none.</summary>
    public (bool Matches, string? First) On(string name)
    {
        var match = _pattern.Match(name);
        return (match.Success, match.Groups.Count > 1 ? match.Groups[1].Value : null);
    }

    /// <summary>A set of letters, digits and a few signs that mean nothing in a set; null when it is another.</summary>
    private static string? SetAt(string text, int at)
    {
        var end = text.IndexOf(']', at + 1);
        if (end < 0) return null;
        var set = text[at..(end + 1)];
        var inside = set[(set.StartsWith("[^", StringComparison.Ordinal) ? 2 : 1)..^1];
        for (var i = 0; i < inside.Length; i++)
        {
            if (!char.IsAsciiLetterOrDigit(inside[i]) && !"_.@-".Contains(inside[i], StringComparison.Ordinal)) return null;
            if (inside[i] != '-' || i == 0 || i == inside.Length - 1) continue;
            if (!IsRange(inside[i - 1], inside[i + 1]) || (i > 1 && inside[i - 2] == '-')) return null;
        }

        return inside.Length == 0 ? null : set;
    }

    private static bool IsRange(char from, char to) =>
        from <= to && ((char.IsAsciiDigit(from) && char.IsAsciiDigit(to))
            || (char.IsAsciiLetterLower(from) && char.IsAsciiLetterLower(to))
            || (char.IsAsciiLetterUpper(from) && char.IsAsciiLetterUpper(to)));
}
