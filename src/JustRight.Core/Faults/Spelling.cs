namespace JustRight.Core.Faults;

/// <summary>Finds the nearest known word to a misspelt one.</summary>
public static class Spelling
{
    /// <summary>
    /// The known word with the smallest edit distance (insert, delete, replace, swap neighbors), or null when none is near:
    /// at most a third of the word's length, and never more than 3.
    /// </summary>
    public static string? Nearest(string word, IEnumerable<string> known)
    {
        if (word.Length > 64) return null;
        var limit = Math.Clamp(word.Length / 3, 1, 3);
        return known
            .Select(k => (Word: k, Distance: Distance(word.ToLowerInvariant(), k.ToLowerInvariant())))
            .Where(c => c.Distance <= limit)
            .OrderBy(c => c.Distance).ThenBy(c => c.Word, StringComparer.Ordinal)
            .Select(c => c.Word)
            .FirstOrDefault();
    }

    /// <summary>Optimal string alignment distance between two words.</summary>
    public static int Distance(string a, string b)
    {
        var d = new int[a.Length + 1, b.Length + 1];
        for (var i = 0; i <= a.Length; i++) d[i, 0] = i;
        for (var j = 0; j <= b.Length; j++) d[0, j] = j;
        for (var i = 1; i <= a.Length; i++)
        {
            for (var j = 1; j <= b.Length; j++)
            {
                var cost = a[i - 1] == b[j - 1] ? 0 : 1;
                d[i, j] = Math.Min(Math.Min(d[i - 1, j] + 1, d[i, j - 1] + 1), d[i - 1, j - 1] + cost);
                if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
                    d[i, j] = Math.Min(d[i, j], d[i - 2, j - 2] + 1);
            }
        }

        return d[a.Length, b.Length];
    }
}
