using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Output;

/// <summary>The balance in a terminal: strokes to the left for what is missing, to the right for what is too much, a dot when nothing leans.</summary>
internal static class Balance
{
    /// <summary>Strokes on each side; the words say how many there are.</summary>
    private const int Side = 5;

    /// <summary>The sign alone, always of the same width, as markup.</summary>
    public static string Sign(LeaningView leaning)
    {
        var later = Math.Min(leaning.Later, Side);
        var missing = Math.Min(leaning.Missing, Side);
        later = Math.Min(later, Side - missing);
        var barred = Math.Min(leaning.Barred, Side);
        var spare = Math.Min(leaning.Spare, Side - barred);
        var level = leaning.Missing + leaning.Spare + leaning.Barred == 0;
        var middle = !level ? "┃" : leaning.Unseen + leaning.Unread > 0 ? "[grey]○[/]" : "[green]●[/]";
        return $"[grey]{new string('·', Side - missing - later)}[/]{Colored("grey", '‹', later)}{Colored("deepskyblue2", '◁', missing)}{middle}"
            + $"{Colored("orange1", '▶', barred)}{Colored("orange1", '▷', spare)}[grey]{new string('·', Side - barred - spare)}[/]";
    }

    /// <summary>The sign with its words, as markup.</summary>
    public static string Words(LeaningView leaning) => $"{Sign(leaning)}  {Markup.Escape(leaning.Words)}";

    /// <summary>A verdict as word and sign, in its color, as markup.</summary>
    public static string Verdict(string verdict) => verdict switch
    {
        "met" => "[green]● met[/]",
        "unmet" => "[deepskyblue2]◁ unmet[/]",
        "later" => "[grey]‹ later[/]",
        "unseen" => "[grey]? unseen[/]",
        "spare" => "[orange1]▷ spare[/]",
        "barred" => "[bold orange1]▶ barred[/]",
        _ => $"[grey]– {verdict}[/]",
    };

    private static string Colored(string color, char stroke, int count) => count == 0 ? "" : $"[{color}]{new string(stroke, count)}[/]";
}
