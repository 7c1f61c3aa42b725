using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary>
/// <c>history</c> and <c>drift</c>: how the fit of an install went, and what is different between two of its fits.
/// </summary>
internal static class HistoryCommands
{
    public static Command MakeHistory()
    {
        var install = Names.Install();
        var all = new Option<bool>("--all") { Description = "All that are kept, not only the latest thirty" };
        return CommandKit.Make("history", "Lists how the results of an install changed, newest first", [
            "justright history thermograph-dataroom", "justright history thermograph-dataroom --all --json"],
            [install, all], c => HistoryAsync(c, c.Parsed.GetValue(install)!, c.Parsed.GetValue(all)))
            .Answers(j => j.IReadOnlyListKeptFitView);
    }

    public static Command MakeDrift()
    {
        var install = Names.Install();
        var from = new Option<int?>("--from")
        {
            Description = "The number of the earlier fit in the history; by default the one before the later fit",
            HelpName = "NUMBER",
        };
        var to = new Option<int?>("--to")
        {
            Description = "The number of the later fit; by default the latest",
            HelpName = "NUMBER",
        };
        return CommandKit.Make(
            "drift",
            "Shows what changed between two fits of an install, and which changes Just Right made.\nTakes no survey: verify first to see the current state.\nExit code: 0 nothing is worse, 1 something is",
            ["justright drift thermograph-dataroom", "justright drift thermograph-dataroom --from 1 --to 4"], [install, from, to],
            c => DriftAsync(c, c.Parsed.GetValue(install)!, c.Parsed.GetValue(from), c.Parsed.GetValue(to)))
            .Answers(j => j.DriftView);
    }

    private static async Task<int> HistoryAsync(Call call, string install, bool all)
    {
        var fits = await call.Api.GetAsync(
            $"installs/{Names.Part(install)}/history{(all ? "?take=1000" : "")}", ContractsJson.Default.IReadOnlyListKeptFitView,
                call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(fits, ContractsJson.Default.IReadOnlyListKeptFitView);
            return ExitCode.Fine;
        }

        if (fits.Count == 0) call.Screen.Line(Markup.Escape($"It was never verified: justright verify {install}"));
        var table = Screen.List("", "first seen", "last seen", "surveys", "", "");
        foreach (var f in fits)
            table.AddRow(
                new Text($"{f.Number}"), new Text(Times.Exact(f.From)), new Text(Times.Exact(f.Until)), new Text($"{f.Seen}"),
                new Markup(Balance.Sign(f.Counts)), new Text(f.Counts.Words));
        if (fits.Count > 0) call.Screen.Write(table);
        if (fits.Count > 0 && fits[^1].Number > 1 && !all)
            call.Screen.Line(Markup.Escape($"Earlier ones: justright history {install} --all"));
        return ExitCode.Fine;
    }

    private static async Task<int> DriftAsync(Call call, string install, int? from, int? to)
    {
        var query = string.Join(
            '&', new[] { from is { } f ? $"from={f}" : null, to is { } t ? $"to={t}" : null }.OfType<string>());
        var view = await call.Api.GetAsync(
            $"installs/{Names.Part(install)}/drift{(query.Length > 0 ? "?" + query : "")}", ContractsJson.Default.DriftView,
            call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(view, ContractsJson.Default.DriftView);
        else Write(call.Screen, view);
        return view.Lines.Any(l => l.Way == "worse") ? ExitCode.Misfit : ExitCode.Fine;
    }

    private static void Write(Screen screen, DriftView view)
    {
        screen.Line(Markup.Escape(
            $"{view.Install}, from fit {view.From.Number} ({view.From.Counts.Words}, {Times.Exact(view.From.Until)}) to fit {view.To.Number} ({view.To.Counts.Words}, {Times.Exact(view.To.From)})"));
        if (view.Lines.Count == 0) screen.Line("Nothing is different.");
        foreach (var line in view.Lines)
        {
            screen.Line($"  {line.Way switch { "worse" => "[bold]✗ worse [/]", "better" => "[green]✓ better[/]", _ => "· other " }}  {Markup.Escape(line.Words)}");
            if (line.MadeHere is { } made) screen.Line($"            [grey]made here: {Markup.Escape(made)}[/]");
        }

        if (view.Lines.Any(l => l.Way == "worse" && l.MadeHere is null))
            screen.Line("[grey]Where 'made here' is not said, no step made here is known to have done it.[/]");
    }
}
