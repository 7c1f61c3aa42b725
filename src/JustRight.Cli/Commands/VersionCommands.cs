using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>versions</c> and <c>remove</c> of sheets, estates and installs.</summary>
internal static class VersionCommands
{
    /// <summary>The command that shows the versions of a kind of document.</summary>
    /// <param name="kind"><c>sheet</c>, <c>estate</c> or <c>install</c>.</param>
    /// <param name="example">The name of one.</param>
    public static Command MakeVersions(string kind, Argument<string> name, string example)
    {
        var show = new Option<int?>("--show") { Description = "Prints the text of this version", HelpName = "NUMBER" };
        var from = new Option<int?>("--from") { Description = "Says what changed since this version", HelpName = "NUMBER" };
        var to = new Option<int?>("--to")
        {
            Description = "Up to this one; the latest unless said otherwise",
            HelpName = "NUMBER",
        };
        return CommandKit.Make(
            "versions",
            "Lists the versions that were kept, the latest first; prints one, or says what changed between two.\n"
            + "Exit code with --from or --to: 0 they say the same, 1 something changed",
            [
                $"justright {kind} versions {example}", $"justright {kind} versions {example} --show 1",
                $"justright {kind} versions {example} --from 1 --to 3",
            ],
            [name, show, from, to], call =>
            {
                var path = $"documents/{kind}/{Names.Part(call.Parsed.GetValue(name)!)}";
                var (one, earlier, later) = (call.Parsed.GetValue(show), call.Parsed.GetValue(from), call.Parsed.GetValue(to));
                return one is { } number ? ShowAsync(call, path, number)
                    : (earlier ?? later) is not null ? CompareAsync(call, path, earlier, later)
                    : ListAsync(call, path);
            })
            .Answers(j => j.IReadOnlyListDocumentVersionView, j => j.DocumentTextView, j => j.DocumentChangesView);
    }

    /// <summary>The command that removes one.</summary>
    /// <param name="collection">Its part of a path, such as <c>sheets</c>.</param>
    public static Command MakeRemove(string collection, Argument<string> name, string description, string example)
    {
        return CommandKit.Make(
            "remove", description, [example], [name],
            call => RemoveAsync(call, collection, call.Parsed.GetValue(name)!, ""))
            .Answers(j => j.DoneView);
    }

    /// <summary>The command that removes an install.</summary>
    public static Command MakeRemoveInstall()
    {
        var name = Names.Install();
        var forget = new Option<bool>("--forget")
        {
            Description = "Remove it although what it was given is still there, and stays",
        };
        return CommandKit.Make(
            "remove",
            "Removes an install that was given nothing from here, or is retired. Its versions, runs and history stay on record",
            ["justright install remove tallystick-dataroom", "justright install remove tallystick-dataroom --forget"],
            [name, forget],
            call => RemoveAsync(
                call, "installs", call.Parsed.GetValue(name)!, call.Parsed.GetValue(forget) ? "?forget=true" : ""))
            .Answers(j => j.DoneView);
    }

    private static async Task<int> RemoveAsync(Call call, string collection, string name, string query)
    {
        await call.Api.DeleteAsync($"{collection}/{Names.Part(name)}{query}", call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(new DoneView(name, "removed"), ContractsJson.Default.DoneView);
        else call.Screen.Line(Markup.Escape($"removed {name}"));
        return ExitCode.Fine;
    }

    private static async Task<int> ListAsync(Call call, string path)
    {
        var versions = await call.Api.GetAsync(
            $"{path}/versions", ContractsJson.Default.IReadOnlyListDocumentVersionView, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(versions, ContractsJson.Default.IReadOnlyListDocumentVersionView);
            return ExitCode.Fine;
        }

        var table = Screen.List("version", "added", "from", "removed");
        foreach (var v in versions)
            table.AddRow(
                new Text($"{v.Number}"), new Text($"{Times.Exact(v.At)} by {v.By}"), new Text(v.File),
                new Text(v.RemovedAt is { } at ? $"{Times.Exact(at)} by {v.RemovedBy}" : ""));
        call.Screen.Write(table);
        return ExitCode.Fine;
    }

    private static async Task<int> ShowAsync(Call call, string path, int number)
    {
        var version = await call.Api.GetAsync(
            $"{path}/versions/{number}", ContractsJson.Default.DocumentTextView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(version, ContractsJson.Default.DocumentTextView);
        else Screen.Text(version.Text);
        return ExitCode.Fine;
    }

    private static async Task<int> CompareAsync(Call call, string path, int? from, int? to)
    {
        var query = string.Join('&', new[] { ("from", from), ("to", to) }.Where(q => q.Item2 is not null)
            .Select(q => $"{q.Item1}={q.Item2}"));
        var changes = await call.Api.GetAsync($"{path}/changes?{query}", ContractsJson.Default.DocumentChangesView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(changes, ContractsJson.Default.DocumentChangesView);
        else if (changes.Changes.Count == 0)
            call.Screen.Line($"Versions {changes.From.Number} and {changes.To.Number} say the same.");
        else
            foreach (var change in changes.Changes) call.Screen.Line(Markup.Escape(change));
        return changes.Changes.Count == 0 ? ExitCode.Fine : ExitCode.Misfit;
    }
}
