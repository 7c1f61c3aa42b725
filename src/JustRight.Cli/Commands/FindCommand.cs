using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>find</c>: one search over everything.</summary>
internal static class FindCommand
{
    public static Command Make()
    {
        var words = new Argument<string[]>("words")
        {
            Description = "What to look for; each word must be contained, in capital or small letters",
            Arity = ArgumentArity.OneOrMore,
        };
        return CommandKit.Make(
            "find",
            "Looks for words in everything: installs, sheets, estates, hosts, instances, accounts, groups, runs, the log\n"
            + "Exit code: 0 something was found, 1 nothing",
            ["justright find fm-temp01", "justright find thermograph grant", "justright find svc-curd --json"], [words],
            c => FindAsync(c, string.Join(' ', c.Parsed.GetValue(words)!)))
            .Answers(j => j.FoundPage);
    }

    private static async Task<int> FindAsync(Call call, string words)
    {
        var found = await call.Api.GetAsync(
            $"search?search={Uri.EscapeDataString(words)}", ContractsJson.Default.FoundPage, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(found, ContractsJson.Default.FoundPage);
        else Write(call.Screen, found, words);
        return found.Items.Count > 0 ? ExitCode.Fine : ExitCode.Misfit;
    }

    private static void Write(Screen screen, FoundPage found, string words)
    {
        if (found.Items.Count == 0)
        {
            screen.Line(Markup.Escape($"Nothing contains '{words}'."));
            return;
        }

        var table = Screen.List("", "name", "estate", "");
        foreach (var one in found.Items)
            table.AddRow(
                new Markup($"[grey]{one.Kind}[/]"), new Text(one.Name), new Text(one.Estate),
                new Text(one.At is { } at ? $"{Times.Exact(at)}  {one.Words}" : one.Words));
        screen.Write(table);
        var more = found.Counts.Where(c => c.Total is null || c.Total > found.Items.Count(i => i.Kind == c.Kind))
            .Select(c => $"{(c.Total is { } total ? $"{total}" : "very many")} of {c.Kind}").ToList();
        if (more.Count > 0) screen.Line($"[grey]not all of it: {string.Join(", ", more)}[/]");
    }
}
