using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>log</c>: who did what.</summary>
internal static class LogCommands
{
    public static Command Make()
    {
        var text = new Option<string?>("--text") { Description = "Only entries that contain this" };
        var take = new Option<int>("--take") { Description = "The most entries to list, 1 to 500", DefaultValueFactory = _ => 30 };
        return CommandKit.Group(
            "log", "The log: who did what",
            CommandKit.Make("list", "Lists the log, newest first", ["justright log list --text svc-archive", "justright log list --take 200 --json"], [text, take], c => ListAsync(c, c.Parsed.GetValue(text), c.Parsed.GetValue(take))),
            CommandKit.Make("check", "Checks the log's chain of hashes: exit code 1 when an entry was changed or is missing", ["justright log check"], [], CheckAsync));
    }

    private static async Task<int> ListAsync(Call call, string? text, int take)
    {
        if (take is < 1 or > 500) throw new ClientException(ExitCode.BadInput, "--take goes from 1 to 500.");
        var entries = await call.Api.GetAsync($"log?take={take}&text={Uri.EscapeDataString(text ?? "")}", ContractsJson.Default.IReadOnlyListLogEntryView, call.Cancel);
        if (call.Screen.IsJson)
        {
            Screen.Json(entries, ContractsJson.Default.IReadOnlyListLogEntryView);
            return ExitCode.Fine;
        }

        var table = Screen.List("no.", "at", "who", "did", "to", "");
        foreach (var e in entries) table.AddRow(new Text($"{e.Number}"), new Text(Times.Exact(e.At)), new Text(e.Who), new Text(e.Action), new Text(e.Subject), new Markup($"[grey]{Markup.Escape(e.Detail)}[/]"));
        call.Screen.Write(table);
        return ExitCode.Fine;
    }

    private static async Task<int> CheckAsync(Call call)
    {
        var check = await call.Api.GetAsync("log/check", ContractsJson.Default.LogCheckView, call.Cancel);
        if (call.Screen.IsJson) Screen.Json(check, ContractsJson.Default.LogCheckView);
        else call.Screen.Line(check.Sound ? $"The log is sound: {check.Entries} entries, the last {check.LastHash}" : $"The log is broken at entry {check.BrokenAt}: it was changed, or one before it is missing.");
        return check.Sound ? ExitCode.Fine : ExitCode.Misfit;
    }
}
