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
    public static string Subject(string estate, IReadOnlyList<WorseLine> worse)
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
    public static string Text(IReadOnlyList<WorseLine> worse, Func<string, string> see, string all)
    {
        var sorted = worse.OrderBy(w => w.Line.Severity).ToList(); // of the same weight, in the order that they were found
        var text = new StringBuilder();
        foreach (var install in sorted.Take(Most).GroupBy(w => w.Install))
        {
            text.Append(install.Key).Append('\n');
            foreach (var (_, line, made) in install)
            {
                text.Append("  - ").Append(line.Words).Append('\n');
                if (made is not null) text.Append("    made here: ").Append(made).Append('\n');
            }

            text.Append("  See: ").Append(see(install.Key)).Append("\n\n");
        }

        if (sorted.Count > Most)
        {
            var more = sorted.Skip(Most).Select(w => w.Install).Distinct().Count();
            text.Append(
                CultureInfo.InvariantCulture,
                $"And {sorted.Count - Most} more, at {more} {(more == 1 ? "install" : "installs")}.\n  See: {all}\n\n");
        }

        var ours = sorted.Count(w => w.MadeHere is not null);
        return text.Append(
            ours == 0 ? "No step made here is known to have done it.\n"
            : ours == sorted.Count ? "All of it was made here.\n"
            : "Where 'made here' is not said, no step made here is known to have done it.\n").ToString();
    }
}
