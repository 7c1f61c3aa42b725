using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary>
/// <c>install upgrade</c>: shows what another release of the product needs anew, no more and differently; asks what its sheet
/// leaves open; moves the install on.
/// </summary>
internal static class InstallUpgradeCommand
{
    private static readonly (string Change, string Head)[] Heads =
    [
        ("anew", "needed anew"), ("differently", "needed differently"), ("no-more", "needed no more"),
    ];

    public static Command Make()
    {
        var install = Names.Install();
        var to = Names.SheetOption("--to", "The sheet of the other release, as product@release");
        to.Required = true;
        var with = new Option<string?>("--with")
        {
            Description = "The install's file for the other release; otherwise what it says now is carried over, and what the "
                + "other release asks anew is asked",
            HelpName = "FILE",
        };
        var say = new Option<string[]>("--say")
        {
            Description = "What the other release asks anew, as FIELD=VALUE, several values parted by commas; asked otherwise",
            HelpName = "FIELD=VALUE",
        };
        var list = new Option<bool>("--list") { Description = "Only show what would change" };
        var yes = new Option<bool>("--yes") { Description = "Do not ask before it is moved; for scripts" };
        return CommandKit.Make(
            "upgrade",
            "Shows what another release needs anew, no more and differently, and moves the install to it, planned.\n"
            + "What the former release needs stays needed, as an install of its own, until that is retired",
            [
                "justright install upgrade thermograph-dataroom --to thermograph@5.0 --list",
                "justright install upgrade thermograph-dataroom --to thermograph@5.0 --say places.web-server=fm-temp02 --yes",
                "justright install upgrade thermograph-dataroom --to thermograph@5.0 --with thermograph-dataroom.yaml"],
            [install, to, say, with, list, yes],
            async c => await MoveAsync(
                c, c.Parsed.GetValue(install)!,
                await OrderAsync(c, c.Parsed.GetValue(to)!, c.Parsed.GetValue(say) ?? [], c.Parsed.GetValue(with)),
                c.Parsed.GetValue(list), c.Parsed.GetValue(yes)))
            .Answers(j => j.UpgradeView, j => j.InstallView);
    }

    private static async Task<UpgradeOrder> OrderAsync(Call call, string to, string[] said, string? file)
    {
        if (file is not null)
            return said.Length == 0 ? new UpgradeOrder(to, Path.GetFileName(file), await InputFile.TextAsync(file, call.Cancel),
                null)
                : throw new ClientException(ExitCode.BadInput, "--say and --with do not go together.", "Say it in the file.");
        var fields = new Dictionary<string, IReadOnlyList<string>>(StringComparer.Ordinal);
        foreach (var one in said)
        {
            var parts = one.Split('=', 2);
            if (parts is not [{ Length: > 0 } field, { Length: > 0 } value] || !fields.TryAdd(field, Answers.Parted(value)))
                throw new ClientException(
                    ExitCode.BadInput, $"'{one}' says nothing.", "Say each field once: --say places.web-server=fm-temp02");
        }

        return new UpgradeOrder(to, null, null, fields);
    }

    private static async Task<int> MoveAsync(Call call, string name, UpgradeOrder order, bool list, bool yes)
    {
        var would = await TellAsync(call, name, order);
        if (would.Asked.Count > 0)
        {
            if (list && Console.IsInputRedirected) return Show(call.Screen, would);
            var answers = new Answers(call.Screen);
            var all = (order.Said ?? new Dictionary<string, IReadOnlyList<string>>()).ToDictionary();
            foreach (var asked in would.Asked) all[asked.Field] = OpenAnswers.Ask(answers, asked);
            order = order with { Said = all };
            would = await TellAsync(call, name, order);
        }

        if (list) return Show(call.Screen, would);
        if (!call.Screen.IsJson) Show(call.Screen, would);
        if (!yes && !StepPrinter.Confirm(call.Screen, $"Move {name} to {order.To}?")) return ExitCode.Waits;
        var moved = await call.Api.PostAsync(
            $"installs/{Names.Part(name)}/upgrade", order, ContractsJson.Default.UpgradeOrder, ContractsJson.Default.InstallView,
            call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(moved, ContractsJson.Default.InstallView);
        else Moved(call.Screen, would);
        return ExitCode.Fine;
    }

    private static Task<UpgradeView> TellAsync(Call call, string name, UpgradeOrder order) => call.Api.PostAsync(
        $"installs/{Names.Part(name)}/upgrading", order, ContractsJson.Default.UpgradeOrder, ContractsJson.Default.UpgradeView,
        call.Cancel);

    private static int Show(Screen screen, UpgradeView would)
    {
        var code = would.Asked.Count > 0 || would.Differences.Count > 0 ? ExitCode.Misfit : ExitCode.Fine;
        if (screen.IsJson)
        {
            screen.Json(would, ContractsJson.Default.UpgradeView);
            return code;
        }

        screen.Line(Markup.Escape($"{would.Install}: from {would.From} to {would.To}"));
        foreach (var left in would.LeftOut) screen.Line(Markup.Escape($"  left out, it says nothing there: {left}"));
        foreach (var asked in would.Asked) screen.Line(Markup.Escape($"  asked anew: {asked.Field}, {asked.Asks}"));
        if (would.Asked.Count > 0) return code;
        if (would.Differences.Count == 0) screen.Line("  Both releases need the same.");
        foreach (var (change, head) in Heads) Differences(screen, head, [.. would.Differences.Where(d => d.Change == change)]);
        Steps(screen, would);
        return code;
    }

    private static void Differences(Screen screen, string head, IReadOnlyList<NeedDifferenceView> differences)
    {
        if (differences.Count == 0) return;
        screen.Line();
        screen.Line($"[bold]{head}[/]");
        var table = new Table().Border(TableBorder.None).HideHeaders().Collapse();
        for (var i = 0; i < 4; i++) table.AddColumn(new TableColumn("") { Padding = new Padding(0, 0, 2, 0) });
        foreach (var alike in differences.GroupBy(d => d with { Place = "" }))
        {
            var what = alike.Key;
            var places = string.Join(", ", alike.Select(d => d.Place).Where(p => p.Length > 0));
            table.AddRow(
                new Text($"  {what.Subject}"), new Text(what.How.Length == 0 ? what.What : $"{what.What} ({what.How})"),
                new Text(places), new Markup($"[grey]{Markup.Escape(what.At)}[/]"));
        }

        screen.Write(table);
    }

    private static void Steps(Screen screen, UpgradeView would)
    {
        screen.Line();
        if (would.Give is not { } give)
        {
            screen.Line("[grey]The steps show after a survey.[/]");
            return;
        }

        screen.Line(give.Count == 0 ? "Nothing would be left to do." : "[bold]left to do then[/]");
        foreach (var step in give)
            screen.Line(
                $"  {step.Number,2}  {Markup.Escape(step.Words)}"
                + (step.Blocked is null ? "" : $"  [grey]blocked: {Markup.Escape(step.Blocked)}[/]"));
    }

    private static void Moved(Screen screen, UpgradeView would)
    {
        screen.Line(Markup.Escape($"{would.Install} follows {would.To} now, planned. Next: justright verify {would.Install}"));
        if (would.Former is { } former)
            screen.Line(Markup.Escape(
                $"What {would.From} needs is kept as {former}. When that release is gone: "
                + $"justright install stage {former} retiring"));
    }
}
