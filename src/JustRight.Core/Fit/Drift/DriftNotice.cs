using System.Globalization;
using System.Text;

namespace JustRight.Core.Fit.Drift;

/// <summary>
/// What is written to people of what got worse: one line of subject, the worst first, the rest by where to see it.
/// </summary>
public static class DriftNotice
{
    private const int Most = 30;

    /// <summary>The subject.</summary>
    public static string Subject(string estate, IReadOnlyList<(string Install, DriftLine Line)> worse)
    {
        var installs = worse.Select(w => w.Install).Distinct().ToList();
        if (installs is [var one])
            return string.Create(CultureInfo.InvariantCulture, $"{estate}: {worse.Count} got worse at {one}");
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{estate}: {installs.Count} installs got worse");
    }

    /// <summary>The text.</summary>
    /// <param name="see">Where to see all of an install.</param>
    /// <param name="all">Where to see all installs.</param>
    public static string Text(IReadOnlyList<(string Install, DriftLine Line)> worse, Func<string, string> see, string all)
    {
        var sorted = worse.Select((w, i) => (w.Install, w.Line, i)).OrderBy(w => w.Line.Severity).ThenBy(w => w.i).ToList();
        var text = new StringBuilder();
        foreach (var install in sorted.Take(Most).GroupBy(w => w.Install))
        {
            text.Append(install.Key).Append('\n');
            foreach (var (_, line, _) in install) text.Append("  - ").Append(line.Words).Append('\n');
            text.Append("  See: ").Append(see(install.Key)).Append("\n\n");
        }

        if (sorted.Count <= Most) return text.ToString();
        var more = sorted.Skip(Most).Select(w => w.Install).Distinct().Count();
        text.Append(
            CultureInfo.InvariantCulture,
            $"And {sorted.Count - Most} more, at {more} {(more == 1 ? "install" : "installs")}.\n  See: {all}\n\n");
        return text.ToString();
    }
}
