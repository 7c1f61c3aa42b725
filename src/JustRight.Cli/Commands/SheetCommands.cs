using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>sheet</c>: what products need.</summary>
internal static class SheetCommands
{
    public static Command Make()
    {
        var (file, replacing) = (Names.File(), new Replacing());
        var sheet = Names.Sheet();
        return CommandKit.Group(
            "sheet", "Sheets: what products need",
            CommandKit.Make(
                "check", "Checks a sheet and lists all its faults", ["justright sheet check thermograph.yaml"], [file],
                c => CheckAsync(c, c.Parsed.GetValue(file)!))
                .Answers(j => j.SheetView),
            CommandKit.Make(
                "add", "Checks a sheet and adds it to Just Right, or replaces the one that is there",
                ["justright sheet add thermograph.yaml", "justright sheet add thermograph.yaml --list"],
                [file, .. replacing.Options], c => AddAsync(c, c.Parsed.GetValue(file)!, replacing))
                .Answers(j => j.SheetView, j => j.ReplacingView),
            SheetDraftCommand.Make(),
            SheetNewCommand.Make(),
            CommandKit.Make("list", "Lists the sheets", [], [], ListAsync)
                .Answers(j => j.IReadOnlyListSheetSummary),
            CommandKit.Make(
                "show", "Shows a sheet as its author wrote it", ["justright sheet show thermograph@4.2"], [sheet],
                c => ShowAsync(c, c.Parsed.GetValue(sheet)!))
                .Answers(j => j.SheetView),
            VersionCommands.MakeVersions("sheet", Names.Sheet(), "thermograph@4.2"),
            VersionCommands.MakeRemove(
                "sheets", Names.Sheet(), "Removes a sheet that no install uses; its versions stay on record",
                "justright sheet remove thermograph@4.1"));
    }

    private static async Task<int> CheckAsync(Call call, string file)
    {
        var sheet = await call.Api.PostFileAsync("sheets/check", file, ContractsJson.Default.SheetView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(sheet, ContractsJson.Default.SheetView);
        else call.Screen.Line($"{Markup.Escape(file)} is sound: {Words(sheet.Summary)}");
        return ExitCode.Fine;
    }

    private static async Task<int> AddAsync(Call call, string file, Replacing replacing)
    {
        if (await replacing.WhyNotAsync(call, "sheet", file) is { } code) return code;
        var sheet = await call.Api.PostFileAsync("sheets", file, ContractsJson.Default.SheetView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(sheet, ContractsJson.Default.SheetView);
        else call.Screen.Line($"added {Markup.Escape(sheet.Summary.Name)}: {Words(sheet.Summary)}");
        return ExitCode.Fine;
    }

    private static async Task<int> ListAsync(Call call)
    {
        var sheets = await call.Api.GetAsync("sheets", ContractsJson.Default.IReadOnlyListSheetSummary, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(sheets, ContractsJson.Default.IReadOnlyListSheetSummary);
            return ExitCode.Fine;
        }

        if (sheets.Count == 0) call.Screen.Line("No sheets yet. Add one: justright sheet add FILE");
        var table = Screen.List("sheet", "title", "accounts", "needs", "added");
        foreach (var s in sheets)
            table.AddRow(
                new Text(s.Name), new Text(s.Title), new Text($"{s.Accounts}"), new Text($"{s.Needs}"),
                new Text($"{Times.Exact(s.AddedAt!.Value)} by {s.AddedBy}"));
        if (sheets.Count > 0) call.Screen.Write(table);
        return ExitCode.Fine;
    }

    private static async Task<int> ShowAsync(Call call, string name)
    {
        var sheet = await call.Api.GetAsync($"sheets/{Names.Part(name)}", ContractsJson.Default.SheetView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(sheet, ContractsJson.Default.SheetView);
        else Screen.Text(sheet.Text);
        return ExitCode.Fine;
    }

    private static string Words(SheetSummary sheet) =>
        Markup.Escape($"{sheet.Title} {sheet.Release}, {sheet.Accounts} accounts with {sheet.Needs} needs");
}
