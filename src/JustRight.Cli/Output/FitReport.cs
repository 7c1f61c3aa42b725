using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Output;

/// <summary>The fit of an install for a terminal.</summary>
internal static class FitReport
{
    private const int PathsShown = 3;

    /// <summary>Writes the whole fit; with <paramref name="brief"/>, without what is met.</summary>
    public static void Write(Screen screen, FitView fit, bool brief)
    {
        screen.Line($"[bold]{Markup.Escape(fit.Title)}[/]  {Markup.Escape(fit.Install)}  {fit.Stage}{(fit.Simulated ? "  [bold]simulated estate[/]" : "")}");
        screen.Line($"{Balance.Words(fit.Counts)}   [grey]surveyed {Times.Exact(fit.SurveyedAt)}[/]");
        foreach (var account in fit.Accounts)
        {
            screen.Line();
            screen.Line($"[bold]{Markup.Escape(account.Key)}[/]  {Markup.Escape(account.Name)}  [grey]{Markup.Escape(account.Purpose)}[/]");
            screen.Line($"{Balance.Words(account.Counts)}");
            var table = new Table().Border(TableBorder.None).HideHeaders().Collapse();
            foreach (var width in new int?[] { 13, null, null, null })
                table.AddColumn(new TableColumn("") { Width = width, Padding = new Padding(0, 0, 2, 0) });
            foreach (var right in account.Rights.Where(r => !brief || r.Verdict != "met")) Row(table, right, fit.Estate);
            screen.Write(table);
        }

        Section(screen, "Choices", fit.Decisions.Select(d => $"{d.Id}: {d.Taken} ({d.Reason})"));
        Section(
            screen, "Seen at the places",
            fit.Findings.Select(f =>
                $"{f.Place}: {f.Text}{(f.Accepted is { } a ? $" (accepted by {a.By} until {Times.Until(a.LastDay, a.Until)}: {a.Why})" : "")}"));
        Section(screen, "Could not be read", fit.Unseen.Select(u => $"{u.Place}: {u.Reason} ({Times.Exact(u.At)})"));
        Section(screen, "Notes", fit.Notes);
    }

    /// <summary>Writes rights with everything that is known of each.</summary>
    public static void WriteWhy(Screen screen, IReadOnlyList<JudgementView> rights)
    {
        foreach (var right in rights)
        {
            screen.Line($"{Balance.Verdict(right.Verdict)}  [bold]{Markup.Escape(right.Right)}[/] on {Markup.Escape(right.Place)}  for {Markup.Escape(right.Account)}");
            Fact("because", right.Reason);
            Fact("needed because", right.Why);
            Fact("asked for at", right.At);
            if (right.Team is not null)
                Fact("given by", right.GivenBy == "setup" ? "the product's setup" : $"the {right.Team} team");
            Fact("should be held through", right.Through);
            foreach (var path in right.Paths) Fact("path", Path(path));
            foreach (var path in right.DeniedBy) Fact("denied by", Path(path));
            foreach (var note in right.Notes) Fact("note", note);
            if (right.Accepted is { } accepted)
                Fact("accepted by", $"{accepted.By} until {Times.Until(accepted.LastDay, accepted.Until)}: {accepted.Why}");
            if (right.Brings.Count > 0) Fact("brings along", string.Join("; ", right.Brings));
            if (right.Branch is { } branch) Branch(branch);
            screen.Line();
        }

        void Branch(BranchView branch)
        {
            Fact("objects below", $"{branch.Can} can, {branch.Cannot} cannot, {branch.Unseen} unseen");
            foreach (var failure in branch.Failures) Fact($"{failure.Count} fail", failure.Words);
        }

        void Fact(string name, string? text)
        {
            if (!string.IsNullOrEmpty(text)) screen.Line($"    [grey]{name,-22}[/] {Markup.Escape(text)}");
        }
    }

    /// <summary>A path in one line.</summary>
    public static string Path(PathView path) => string.Join(" → ", path.Steps.Select(s => s.Name));

    private static void Row(Table table, JudgementView right, string estate)
    {
        table.AddRow(
            new Markup("  " + Balance.Verdict(right.Verdict)), new Text(right.Right), new Text(right.Place),
            new Text(right.Reason));
        if (right.Verdict is not ("met" or "excess" or "forbidden" or "missing")) return;
        foreach (var path in right.Paths.Take(PathsShown)) More($"by {Path(path)}");
        if (right.Paths.Count > PathsShown)
            More($"and {right.Paths.Count - PathsShown} more {(right.Paths.Count - PathsShown == 1 ? "path" : "paths")}: see why");
        foreach (var path in right.DeniedBy) More($"denied by {Path(path)}");
        if (right.Verdict == "missing" && right.Branch is { Can: > 0, Cannot: > 0 } branch)
            More($"trace it: justright trace {estate} {right.Account} {(branch.Act == "write attributes" ? "" : $"--act \"{branch.Act}\" ")}{string.Join(' ', branch.Attributes.Select(a => $"--attribute {a}"))}");
        if (right.Accepted is { } accepted)
            More($"accepted by {accepted.By} until {Times.Until(accepted.LastDay, accepted.Until)}: {accepted.Why}");
        if (right.Brings.Count > 0)
            More($"brings along {string.Join("; ", right.Brings.Take(2))}{(right.Brings.Count > 2 ? $" and {right.Brings.Count - 2} more" : "")}");

        void More(string text) =>
            table.AddRow(new Text(""), new Text(""), new Text(""), new Markup($"[grey]{Markup.Escape(text)}[/]"));
    }

    private static void Section(Screen screen, string title, IEnumerable<string> lines)
    {
        var all = lines.ToList();
        if (all.Count == 0) return;
        screen.Line();
        screen.Line($"[bold]{title}[/]");
        foreach (var line in all) screen.Line($"  {Markup.Escape(line)}");
    }
}
