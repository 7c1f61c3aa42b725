using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Output;

/// <summary>A trace for a terminal.</summary>
internal static class TraceReport
{
    private const int ObjectsShown = 3;
    private const int FlowsShown = 6;

    /// <summary>Writes the answer, the tree, and each failure with its remedies.</summary>
    /// <param name="all">Whether to name every object and every right.</param>
    public static void Write(Screen screen, TraceView trace, bool all)
    {
        screen.Line($"[bold]{Markup.Escape(trace.Account)}[/]  {Markup.Escape(trace.Asked)}{(trace.Simulated ? "  [bold]simulated estate[/]" : "")}");
        screen.Line($"[bold]{Markup.Escape(trace.Words)}[/]   [grey]read from {Markup.Escape(trace.ReadFrom)}, {Times.Exact(trace.ReadAt)}[/]");
        foreach (var supposed in trace.Supposed) screen.Line($"supposed {Markup.Escape(supposed)}: it is not so now");
        screen.Line();
        Tree(screen, trace);
        foreach (var failure in trace.Failures) Failure(screen, trace, failure, all);
        Lines(screen, "Not found, or not to be seen", trace.NotFound);
        Lines(screen, "Could not be read", trace.Unread.Select(u => $"{u.Place}: {u.Reason}"));
        Lines(screen, $"A {trace.Of} created tomorrow would refuse it in", trace.Uncovered);
    }

    /// <summary>Writes what a remedy would change.</summary>
    public static void Write(Screen screen, RemedyView remedy, bool all)
    {
        screen.Line($"     {remedy.Fixed} of {remedy.Fixed + remedy.StillFailing} fixed; {remedy.Touched} access {(remedy.Touched == 1 ? "list changes" : "lists change")}");
        var table = new Table().Border(TableBorder.None).HideHeaders().Collapse();
        foreach (var _ in new int[4]) table.AddColumn(new TableColumn("") { Padding = new Padding(0, 0, 2, 0) });
        var flows = remedy.Gained.Select(f => ("+", f)).Concat(remedy.Lost.Select(f => ("-", f))).ToList();
        foreach (var (sign, flow) in flows.Take(all ? flows.Count : FlowsShown))
            table.AddRow(
                new Markup($"       [bold]{sign}[/]"), new Text(flow.Who),
                new Text(flow.Denies ? $"may not {flow.What}" : flow.What), new Markup($"[grey]{Count(flow.Objects)}[/]"));
        screen.Write(table);
        if (!all && flows.Count > FlowsShown) screen.Line($"         [grey]and {flows.Count - FlowsShown} more: --all[/]");
    }

    private static void Tree(Screen screen, TraceView trace)
    {
        var table = new Table().Border(TableBorder.None).Collapse();
        table.AddColumn(new TableColumn(
            new Markup($"[bold]{Markup.Escape(trace.Of)} objects in[/]"))
        { Padding = new Padding(0, 0, 3, 0) });
        foreach (var head in new[] { "can", "cannot", "unseen" })
            table.AddColumn(new TableColumn(
                new Markup($"[bold]{head}[/]"))
            { Alignment = Justify.Right, Padding = new Padding(0, 0, 2, 0) });
        table.AddColumn(new TableColumn("") { NoWrap = false });
        foreach (var branch in trace.Tree)
        {
            var mark = branch.IsCause && branch.Inherits == false ? "[bold]inheritance stops here[/]"
                : branch.IsCause ? "[bold]the reason lies here[/]"
                : branch.Inherits == false ? "[grey]does not inherit[/]"
                : branch.Inherits is null ? "[grey]not read[/]"
                : "";
            table.AddRow(
                new Text($"  {new string(' ', branch.Depth * 2)}{branch.Name}"), Number(branch.Can), Number(branch.Cannot),
                Number(branch.Unseen), new Markup(mark));
        }

        screen.Write(table);
    }

    private static Text Number(int count) => new(count == 0 ? "" : $"{count}");

    private static void Failure(Screen screen, TraceView trace, TraceFailureView failure, bool all)
    {
        screen.Line();
        screen.Line($"[bold]{failure.Number}[/]  {Count(failure.Count)}: {Markup.Escape(failure.Words)}");
        var shown = all ? failure.Objects.Count : ObjectsShown;
        foreach (var dn in failure.Objects.Take(shown)) screen.Line($"     [grey]{Markup.Escape(dn)}[/]");
        if (failure.Count > shown)
            screen.Line($"     [grey]and {failure.Count - Math.Min(shown, failure.Objects.Count)} more{(all ? "" : ": --all")}[/]");
        foreach (var remedy in failure.Remedies)
        {
            screen.Line();
            screen.Line($"   [bold]{remedy.Id}[/]  {Markup.Escape(remedy.Title)}");
            Write(screen, remedy, all);
            if (trace.Supposed.Count == 0) screen.Line($"       justright fix {trace.Id} {remedy.Id}");
        }
    }

    private static string Count(int objects) => objects == 1 ? "1 object" : $"{objects} objects";

    private static void Lines(Screen screen, string title, IEnumerable<string> lines)
    {
        var list = lines.ToList();
        if (list.Count == 0) return;
        screen.Line();
        screen.Line($"[bold]{Markup.Escape(title)}[/]");
        foreach (var line in list) screen.Line($"  {Markup.Escape(line)}");
    }
}
