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
        var text = new Option<string?>("--search") { Description = "Only entries that contain these words", HelpName = "TEXT" };
        var before = new Option<long?>("--before") { Description = "Only entries older than this number", HelpName = "NUMBER" };
        var take = new Option<int>("--take")
        {
            Description = "The most entries to list, 1 to 500",
            DefaultValueFactory = _ => 30,
        };
        var anchor = new Option<string?>("--anchor") { Description = "A file that 'log anchor' wrote", HelpName = "FILE" };
        return CommandKit.Group(
            "log", "The log: who did what",
            CommandKit.Make(
                "list", "Lists the log, newest first",
                ["justright log list --search svc-archive", "justright log list --take 200 --json"], [text, before, take],
                c => ListAsync(c, c.Parsed.GetValue(text), c.Parsed.GetValue(before), c.Parsed.GetValue(take)))
                .Answers(j => j.LogPage),
            CommandKit.Make(
                "check",
                "Checks the log's chain of hashes against its signed heads: exit code 1 when an entry was changed or is missing\n"
                + "An anchor, kept where nobody who can reach the service can change it, also shows a tail that was cut off.",
                ["justright log check", "justright log check --anchor head.json"], [anchor], c =>
                    CheckAsync(c, c.Parsed.GetValue(anchor)))
                .Answers(j => j.LogCheckView),
            CommandKit.Make(
                "anchor", "Prints the newest signed head of the log, to be kept elsewhere", ["justright log anchor > head.json"],
                [], AnchorAsync));
    }

    private static async Task<int> ListAsync(Call call, string? text, long? before, int take)
    {
        if (take is < 1 or > 500) throw new ClientException(ExitCode.BadInput, "--take goes from 1 to 500.");
        var page = await call.Api.GetAsync(
            $"log?take={take}&search={Uri.EscapeDataString(text ?? "")}{(before is { } number ? $"&before={number}" : "")}",
            ContractsJson.Default.LogPage, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(page, ContractsJson.Default.LogPage);
            return ExitCode.Fine;
        }

        var table = Screen.List("no.", "at", "who", "did", "to", "");
        foreach (var e in page.Items)
            table.AddRow(
                new Text($"{e.Number}"), new Text(Times.Exact(e.At)), new Text(e.Who), new Text(e.Action), new Text(e.Subject),
                new Markup($"[grey]{Markup.Escape(e.Detail)}[/]"));
        if (page.Items.Count > 0) call.Screen.Write(table);
        else call.Screen.Line("No entry matches.");
        if (page.Before is { } older)
            call.Screen.Line(
                $"[grey]{page.Items.Count} of {(page.Total is { } total ? $"{total}" : "very many")} entries; older ones: --before {older}[/]");
        return ExitCode.Fine;
    }

    private static async Task<int> CheckAsync(Call call, string? anchor)
    {
        var check = anchor is null
            ? await call.Api.GetAsync("log/check", ContractsJson.Default.LogCheckView, call.Cancel)
            : await call.Api.PostAsync(
                "log/check", new LogAnchor(
                    await InputFile.TextAsync(anchor, call.Cancel)), ContractsJson.Default.LogAnchor, ContractsJson.Default.LogCheckView,
                call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(check, ContractsJson.Default.LogCheckView);
        }
        else if (check.Sound)
        {
            call.Screen.Line($"The log is sound: {check.Entries} entries, the last {check.LastHash}");
            call.Screen.Line(check.SignedUpTo is { } number ? $"{check.Heads} signed heads hold, the last at entry {number}" : "no head is signed yet");
            if (check.AnchorHolds == true) call.Screen.Line("the anchor holds");
        }
        else
        {
            call.Screen.Line(Markup.Escape($"The log is broken. {check.Fault}"));
        }

        return check.Sound ? ExitCode.Fine : ExitCode.Misfit;
    }

    private static async Task<int> AnchorAsync(Call call)
    {
        Console.Out.WriteLine(System.Text.Encoding.UTF8.GetString(await call.Api.GetBytesAsync("log/anchor", call.Cancel)));
        return ExitCode.Fine;
    }
}
