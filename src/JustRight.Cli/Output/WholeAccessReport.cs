using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Output;

/// <summary>Everything that an account can do to one object, for a terminal: what one entry decides stands together.</summary>
internal static class WholeAccessReport
{
    private const int NamesShown = 6;

    private static readonly (string Kind, string Title)[] Kinds =
    [
        ("itself", "The object itself"), ("extended-right", "Extended rights"), ("validated-write", "Validated writes"),
        ("write", "Write attributes"), ("create", "Create in it"), ("delete-child", "Delete in it"), ("read", "Read attributes"),
    ];

    /// <summary>Writes it.</summary>
    /// <param name="all">Whether to name every attribute and right.</param>
    public static void Write(Screen screen, WholeAccessView told, bool all)
    {
        var simulated = told.Simulated ? "  [bold]simulated estate[/]" : "";
        screen.Line($"[bold]{Markup.Escape(told.Account)}[/] on [bold]{Markup.Escape(told.At)}[/]{simulated}");
        var owner = told.Owner.Length == 0 ? "somebody unseen" : told.Owner;
        var read = $"[grey]read from {Markup.Escape(told.ReadFrom)}, {Times.Exact(told.ReadAt)}[/]";
        screen.Line($"{Markup.Escape(told.Class)}, owned by {Markup.Escape(owner)}   {read}");
        foreach (var (kind, title) in Kinds)
        {
            var acts = told.Acts.Where(a => a.Kind == kind).ToList();
            if (acts.Count > 0) Write(screen, title, acts, told.At, all);
        }

        foreach (var part in told.Unread)
            screen.Line($"[bold]could not be read[/]  {Markup.Escape(part.Place)}: {Markup.Escape(part.Reason)}");
    }

    private static void Write(Screen screen, string title, List<ObjectActView> acts, string at, bool all)
    {
        screen.Line();
        screen.Line($"[bold]{title}[/]  [grey]{acts.Count(a => a.Answer == "yes")} of {acts.Count}[/]");
        var table = new Table().Border(TableBorder.None).HideHeaders();
        table.AddColumn(new TableColumn("") { NoWrap = true, Padding = new Padding(2, 0, 2, 0) });
        table.AddColumn(new TableColumn("") { Padding = new Padding(0, 0, 3, 0) });
        table.AddColumn(new TableColumn(""));
        foreach (var group in acts.GroupBy(a => (a.Answer, a.By, a.Entry, a.At, a.From))
            .OrderBy(g => g.Key.Answer switch { "yes" => 0, "unseen" => 1, _ => 2 }).ThenByDescending(g => g.Count()))
            table.AddRow(
                new Markup(group.Key.Answer == "yes" ? "[bold]yes[/]" : group.Key.Answer),
                new Text(Names([.. group.Select(a => a.What)], all)), new Text(By(group.First(), at)));
        screen.Write(table);
    }

    /// <summary>Names, the first word that all share said once: <c>write cn, mail and 31 more</c>.</summary>
    private static string Names(List<string> names, bool all)
    {
        var verb = names[0].Split(' ')[0];
        var shared = names.Count > 1 && names.TrueForAll(n => n.StartsWith(verb + " ", StringComparison.Ordinal));
        var said = shared ? [.. names.Select(n => n[(verb.Length + 1)..])] : names;
        var shown = all || said.Count <= NamesShown + 1 ? said : said[..NamesShown];
        var left = said.Count - shown.Count;
        return $"{(shared ? verb + " " : "")}{string.Join(", ", shown)}{(left > 0 ? $" and {left} more" : "")}";
    }

    private static string By(ObjectActView act, string at)
    {
        if (act.Entry == 0) return act.By;
        var where = act.At == at ? $"ACE {act.Entry}" : $"ACE {act.Entry} of {act.At}";
        return $"{where}{(act.From == act.At ? "" : $", from {act.From}")}: {act.By}";
    }
}
