using System.Globalization;
using System.Text;

namespace JustRight.Core.Drafts;

/// <summary>Names of a draft for what came without one.</summary>
public static class DraftNames
{
    /// <summary>A key of a sheet for a text, or another where it has no letter.</summary>
    public static string KeyOf(string text, string otherwise) => KeyMaker.Slug(text) is { Length: > 0 } key ? key : otherwise;
}

/// <summary>Makes keys of a sheet from what a table calls things: the same for the same, and another for another.</summary>
internal sealed class KeyMaker
{
    private const int Longest = 34;
    private readonly Dictionary<(string Called, string Group), string> _known = [];
    private readonly HashSet<string> _used = new(StringComparer.Ordinal);

    /// <summary>The key of what is called so.</summary>
    /// <param name="called">What the table calls it.</param>
    /// <param name="otherwise">The key of what has no letter in its name.</param>
    /// <param name="group">What is called the same in another group is another thing.</param>
    public string KeyOf(string called, string otherwise, string group = "")
    {
        var same = (called.Trim().ToUpperInvariant(), group);
        if (_known.TryGetValue(same, out var known)) return known;
        var key = Slug(called);
        if (key.Length == 0) key = otherwise;
        if (_used.Contains(key) && group.Length > 0) key = $"{key}-{group}";
        var free = key;
        for (var i = 2; !_used.Add(free); i++) free = string.Create(CultureInfo.InvariantCulture, $"{key}-{i}");
        return _known[same] = free;
    }

    /// <summary>Small letters, digits and hyphens, a letter first.</summary>
    internal static string Slug(string text)
    {
        var key = new StringBuilder();
        foreach (var c in text.Normalize(NormalizationForm.FormD).ToLowerInvariant())
        {
            if (char.IsAsciiLetterLower(c) || (char.IsAsciiDigit(c) && key.Length > 0)) key.Append(c);
            else if (CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark && key.Length > 0 && key[^1] != '-')
                key.Append('-');
            if (key.Length == Longest) break;
        }

        return key.ToString().Trim('-');
    }
}
