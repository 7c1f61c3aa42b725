using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>run</c>: what was carried out, how far it came, and what is decided about it.</summary>
internal static class RunCommands
{
    private const string Id1 = "019ab2c3d4e5f60718293a4b5c6d7e8f";

    public static Command Make() => CommandKit.Group(
        "run", "Runs: whatever changes an estate step by step; lists them, shows them, decides about them",
        MakeList(),
        OfRun(
            "show", "Shows a run step by step; follows one that is going on until it rests", ShowAsync),
        OfRun(
            "continue",
            "Goes on with a stopped run, or tries the failed steps of a run again with what they held back.\n"
            + "A step that was begun is looked at first: what is true already is not made twice",
            (call, run) => SendAsync(call, run, "continue")),
        OfStep("retry", "Tries one failed step of a run again, with what it held back", "retry", null),
        OfStep(
            "skip",
            "Goes on without a step, and without what hangs on it; run show says which those are.\n"
            + "What they should have changed stays as it is",
            "skip", Why()),
        OfStep(
            "hand-over", "Hands a step to a person; the run goes on with what does not hang on it, and waits for them",
                "hand-over",
            Note()),
        OfStep(
            "done", "Says that a person's step is done: it is looked at, where it can be, and the run goes on", "done", Note()),
        OfStep("restart-now", "Restarts now what waits for its host's restart window", "restart-now", null),
        OfRun(
            "stop", "Stops a run after the step that is being made; it can be continued, or undone", StopAsync),
        UndoCommand.Make("run undo"));

    private static Argument<string> Id() => new("run") { Description = "The id of a run, as run list tells it" };

    private static Option<string?> Note() => new("--note") { Description = "A note, kept with the step", HelpName = "TEXT" };

    private static Option<string?> Why() => new("--why")
    {
        Description = "The reason, shown in every report",
        HelpName = "TEXT",
        Required = true,
    };

    private static LeafCommand OfRun(string name, string description, Func<Call, string, Task<int>> act)
    {
        var id = Id();
        var command = CommandKit.Make(
            name, description, [$"justright run {name} {Id1}"], [id], c => act(c, c.Parsed.GetValue(id)!));
        command.Answers(j => j.JobView);
        return command;
    }

    private static Command OfStep(string name, string description, string word, Option<string?>? note)
    {
        var id = Id();
        var step = new Argument<int>("step") { Description = "The number of a step, as run show tells it" };
        var text = note is null ? "" : note.Required ? " --why \"the host is retired on Friday\"" : " --note \"ticket 4711\"";
        return CommandKit.Make(
            name, description, [$"justright run {name} {Id1} 7{text}"], note is null ? [id, step] : [id, step, note],
            c => SayAsync(
                c, c.Parsed.GetValue(id)!, c.Parsed.GetValue(step),
                new StepWord(word, note is null ? null : c.Parsed.GetValue(note))))
            .Answers(j => j.JobView);
    }

    private static Command MakeList()
    {
        var of = new Argument<string?>("of")
        {
            Description = "An install, or an estate with all its installs; without it all runs",
            Arity = ArgumentArity.ZeroOrOne,
        };
        var order = new ListOptions("begun", "ended", "subject", "kind", "state", "by");
        var state = new Option<string?>("--state")
        {
            Description = "Only those in this state: running, waiting, failed, done, …",
        };
        return CommandKit.Make(
            "list", "Lists runs of an install or an estate, newest first",
            [
                "justright run list", "justright run list fennmoor", "justright run list thermograph-dataroom",
                "justright run list --state failed --search svc-thermo"],
            [of, .. order.All, state],
            c => ListAsync(c, c.Parsed.GetValue(of), order.Query(c, ("state", c.Parsed.GetValue(state)))))
            .Answers(j => j.RunPage);
    }

    private static async Task<int> ListAsync(Call call, string? of, ListQuery query)
    {
        var runs = of is null ? await RunsAsync(call, query.Text) : await OfNameAsync(call, of, query.Text);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(runs, ContractsJson.Default.RunPage);
            return ExitCode.Fine;
        }

        if (runs.Total == 0)
        {
            call.Screen.Line(
                query.IsNarrowed ? "No run matches."
                    : of is null ? "Nothing was carried out." : $"Nothing was carried out for {Markup.Escape(of)}.");
            return ExitCode.Fine;
        }

        var table = Screen.List("run", "what", "of", "began", "by", "state", "");
        foreach (var run in runs.Items)
            table.AddRow(
                new Text(run.Id), new Text(run.Kind), new Text(run.Subject), new Text(Times.Exact(run.CreatedAt)),
                new Text(run.StartedBy), new Text(run.State), new Text(run.Message ?? ""));
        if (runs.Items.Count > 0) call.Screen.Write(table);
        ListOptions.Tell(call, runs.Items.Count, runs.Skipped, runs.Total, "runs");
        return ExitCode.Fine;
    }

    /// <summary>The runs of what has a name: an install, or else an estate.</summary>
    private static async Task<RunPage> OfNameAsync(Call call, string name, string query)
    {
        try
        {
            return await RunsAsync(call, $"install={Names.Part(name)}&{query}");
        }
        catch (ClientException e) when (e.Code == ExitCode.BadInput)
        {
            return await RunsAsync(call, $"estate={Names.Part(name)}&{query}");
        }
    }

    private static Task<RunPage> RunsAsync(Call call, string query) =>
        call.Api.GetAsync($"runs?{query}", ContractsJson.Default.RunPage, call.Cancel);

    private static async Task<int> ShowAsync(Call call, string id)
    {
        var run = await call.Api.GetAsync($"runs/{Names.Part(id)}", ContractsJson.Default.JobView, call.Cancel);
        if (run.State is "queued" or "running") return await StepPrinter.FollowAsync(call, run, run.Kind);
        StepPrinter.Show(call.Screen, run);
        return StepPrinter.CodeOf(run);
    }

    private static async Task<int> SendAsync(Call call, string id, string act)
    {
        var run = await call.Api.PostAsync($"runs/{Names.Part(id)}/{act}", ContractsJson.Default.JobView, call.Cancel);
        return await StepPrinter.FollowAsync(call, run, "going on");
    }

    private static async Task<int> StopAsync(Call call, string id)
    {
        var run = await call.Api.PostAsync($"runs/{Names.Part(id)}/stop", ContractsJson.Default.JobView, call.Cancel);
        if (await StepPrinter.WatchAsync(call, run, "stopping", null) is not { } rests) return ExitCode.GoesOn;
        StepPrinter.Show(call.Screen, rests);
        return ExitCode.Fine;
    }

    private static async Task<int> SayAsync(Call call, string id, int step, StepWord word)
    {
        var run = await call.Api.PostAsync(
            $"runs/{Names.Part(id)}/steps/{step}", word, ContractsJson.Default.StepWord, ContractsJson.Default.JobView,
            call.Cancel);
        return await StepPrinter.FollowAsync(call, run, "going on");
    }
}
