using System.Text;

namespace JustRight.Core.Estates;

/// <summary>
/// Names by the organization's pattern. A name that is too long is shortened where it is longest, one character at a time, so
/// that
/// every part stays readable; a name that is taken gets the lowest free number at its end.
/// </summary>
public static class NamePattern
{
    /// <summary>The longest logon name of a user, in characters [MS-SAMR 3.1.1.8.4].</summary>
    public const int AccountLength = 20;

    /// <summary>The longest common name of a group, in characters [MS-ADSC, attribute cn].</summary>
    public const int GroupLength = 64;

    private const string Forbidden = "\"/\\[]:;|=,+*?<>@";

    /// <summary>The words in braces, in order.</summary>
    public static IReadOnlyList<string> Placeholders(string pattern) =>
        [.. Split(pattern).Where(p => p.IsWord).Select(p => p.Text)];

    /// <summary>The pattern with its words filled in; unknown words stay empty.</summary>
    public static string Fill(string pattern, IReadOnlyDictionary<string, string> values)
    {
        var text = new StringBuilder();
        foreach (var (isWord, part) in Split(pattern)) text.Append(isWord ? values.GetValueOrDefault(part, "") : part);
        return text.ToString();
    }

    /// <summary>A name that fits <paramref name="length"/> characters, has no forbidden one, and is not taken.</summary>
    /// <param name="pattern">Such as <c>svc-{product}-{account}</c>.</param>
    /// <param name="values">What the words stand for.</param>
    /// <param name="length">The most characters it may have.</param>
    /// <param name="isTaken">Whether a name is in use, without regard to case.</param>
    public static string Make(string pattern, IReadOnlyDictionary<string, string> values, int length, Func<string, bool> isTaken)
    {
        for (var number = 1; ; number++)
        {
            var suffix = number == 1 ? "" : number.ToString(System.Globalization.CultureInfo.InvariantCulture);
            var name = Fit(pattern, values, length - suffix.Length) + suffix;
            if (!isTaken(name)) return name;
        }
    }

    /// <summary>What is wrong with a logon name, or null. [MS-SAMR 3.1.1.6]</summary>
    public static string? WhatIsWrong(string name, int length)
    {
        if (name.Length == 0 || name.All(c => c is '.' or ' ')) return "a name needs at least one letter or digit";
        if (name.Length > length) return $"it has {name.Length} characters; at most {length} are allowed";
        if (name.EndsWith('.')) return "it may not end in a dot";
        var bad = name.FirstOrDefault(c => Forbidden.Contains(c, StringComparison.Ordinal) || char.IsControl(c));
        return bad == default ? null : $"'{bad}' is not allowed in a logon name";
    }

    private static string Fit(string pattern, IReadOnlyDictionary<string, string> values, int length)
    {
        var parts = Split(pattern).Select(p => (p.IsWord, Text: Clean(p.IsWord ? values.GetValueOrDefault(p.Text, "") : p.Text)))
            .ToArray();
        while (parts.Sum(p => p.Text.Length) > length)
        {
            var longest = -1;
            for (var i = 0; i < parts.Length; i++)
                if (parts[i].IsWord && parts[i].Text.Length > 1
                    && (longest < 0 || parts[i].Text.Length > parts[longest].Text.Length))
                    longest = i;
            if (longest < 0) break;
            parts[longest].Text = parts[longest].Text[..^1];
        }

        var name = string.Concat(parts.Select(p => p.Text));
        return name[..Math.Min(name.Length, length)].TrimEnd('-', '.', ' ');
    }

    private static string Clean(string text) =>
        string.Concat(text.Where(c => !Forbidden.Contains(c, StringComparison.Ordinal) && !char.IsControl(c) && c != ' '));

    private static IEnumerable<(bool IsWord, string Text)> Split(string pattern)
    {
        var from = 0;
        while (from < pattern.Length)
        {
            var open = pattern.IndexOf('{', from);
            var close = open < 0 ? -1 : pattern.IndexOf('}', open);
            if (close < 0)
            {
                yield return (false, pattern[from..]);
                yield break;
            }

            if (open > from) yield return (false, pattern[from..open]);
            yield return (true, pattern[(open + 1)..close]);
            from = close + 1;
        }
    }
}
