using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Output;

/// <summary>
/// The balance in a terminal: strokes to the left for what is missing, to the right for what is excess, a dot when there are
/// none.
/// </summary>
internal static class Balance
{
    /// <summary>Strokes on each side; the words say how many there are.</summary>
    private const int Side = 5;

    /// <summary>The sign alone, always of the same width, as markup.</summary>
    public static string Sign(FitCountsView counts)
    {
        var pending = Math.Min(counts.Pending, Side);
        var missing = Math.Min(counts.Missing, Side);
        pending = Math.Min(pending, Side - missing);
        var forbidden = Math.Min(counts.Forbidden, Side);
        var excess = Math.Min(counts.Excess, Side - forbidden);
        var level = counts.Missing + counts.Excess + counts.Forbidden == 0;
        var middle = !level ? "┃" : counts.Unseen + counts.Unread > 0 ? "[grey]○[/]" : "[green]●[/]";
        return $"[grey]{new string('·', Side - missing - pending)}[/]{Colored("grey", '‹', pending)}{Colored("deepskyblue2", '◁', missing)}{middle}"
            + $"{Colored("orange1", '▶', forbidden)}{Colored("orange1", '▷', excess)}[grey]{new string('·', Side - forbidden - excess)}[/]";
    }

    /// <summary>The sign with its words, as markup.</summary>
    public static string Words(FitCountsView counts) => $"{Sign(counts)}  {Markup.Escape(counts.Words)}";

    /// <summary>A verdict as word and sign, in its color, as markup.</summary>
    public static string Verdict(string verdict) => verdict switch
    {
        "met" => "[green]● met[/]",
        "missing" => "[deepskyblue2]◁ missing[/]",
        "pending" => "[grey]‹ pending[/]",
        "unseen" => "[grey]? unseen[/]",
        "excess" => "[orange1]▷ excess[/]",
        "forbidden" => "[bold orange1]▶ forbidden[/]",
        _ => $"[grey]– {verdict}[/]",
    };

    private static string Colored(string color, char stroke, int count) =>
        count == 0 ? "" : $"[{color}]{new string(stroke, count)}[/]";
}
