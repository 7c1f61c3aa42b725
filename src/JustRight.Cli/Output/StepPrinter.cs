using JustRight.Cli.Api;
using JustRight.Cli.Commands;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Output;

/// <summary>Asks before changes are made, and prints them as they are made.</summary>
internal static class StepPrinter
{
    /// <summary>Asks; only a typed yes counts.</summary>
    public static bool Confirm(Screen screen, string question)
    {
        if (Console.IsInputRedirected || screen.IsJson)
            throw new ClientException(
                ExitCode.BadInput,
                "Cannot ask for confirmation: input is not a terminal. Review it with --list, then run again with --yes.",
                "Look at them without --json, then run again with --yes.");
        screen.Error.Markup($"{Markup.Escape(question)} Type yes: ");
        if (string.Equals(Console.ReadLine()?.Trim(), "yes", StringComparison.OrdinalIgnoreCase)) return true;
        screen.Error.MarkupLine("Nothing was changed.");
        return false;
    }

    /// <summary>Follows a job that changes something, and prints each step and how to undo it all.</summary>
    public static async Task<int> FollowAsync(Call call, JobView job, string title)
    {
        Action<JobStepView>? print = call.Screen.IsJson ? null : step => call.Screen.Line(Line(step));
        if (await WatchAsync(call, job, title, print) is not { } rests) return ExitCode.GoesOn;
        Write(call.Screen, rests);
        return CodeOf(rests);
    }

    /// <summary>Watches a run until it comes to rest; null, and it is said that it goes on, for who stops watching.</summary>
    public static async Task<JobView?> WatchAsync(Call call, JobView run, string title, Action<JobStepView>? print)
    {
        try
        {
            return await JobProgress.FollowAsync(call.Screen, call.Api, run, title, print, call.Cancel);
        }
        catch (OperationCanceledException) when (call.Cancel.IsCancellationRequested)
        {
            call.Screen.Failure(
                "It goes on in the service; only watching it was stopped.",
                $"See how it goes: justright run show {run.Id}. Stop it: justright run stop {run.Id}", []);
            return null;
        }
    }

    /// <summary>Shows a run that is over, step by step.</summary>
    public static void Show(Screen screen, JobView job)
    {
        if (!screen.IsJson)
        {
            if (job.Simulated == true) screen.Line("[bold]simulated estate[/]");
            foreach (var step in job.Steps.Where(s => s.HeldBy is null)) screen.Line(Line(step));
        }

        Write(screen, job);
    }

    /// <summary>What was held back, what came of it all, and what can be done about it.</summary>
    private static void Write(Screen screen, JobView job)
    {
        if (screen.IsJson)
        {
            screen.Json(job, ContractsJson.Default.JobView);
            return;
        }

        foreach (var held in job.Steps.Where(s => s.HeldBy is not null))
            screen.Line(
                $"  [bold]held   [/] {held.Number,2}  {Markup.Escape(held.Words)}  "
                + $"[grey]it hangs on step {held.HeldBy}, which failed[/]");
        screen.Line(Markup.Escape(job.Message ?? job.State));
        foreach (var way in WaysOn(job)) screen.Line($"[grey]{Markup.Escape(way)}[/]");
        if (job.CanBeUndone) screen.Line($"[grey]to undo it: justright undo {job.Id}[/]");
    }

    /// <summary>What can be done about a run that rests, as commands.</summary>
    private static IEnumerable<string> WaysOn(JobView run)
    {
        var next = run.Steps.FirstOrDefault(s => s.Number == run.Next);
        var isStep = $"{run.Id} {next?.Number}";
        if (run.State == "stopped") yield return $"to go on with it: justright run continue {run.Id}";
        else if (run.CanContinue)
            yield return $"to try again what failed, and what it held back: justright run continue {run.Id}";
        if (run.State == "failed" && next is not null)
            yield return $"to go on without step {next.Number}{Along(next)}: justright run skip {isStep} --why TEXT; "
                + $"to have a person do it: justright run hand-over {isStep}";
        if (run.State == "waiting" && next is { ByPerson: true })
            yield return $"step {next.Number} is for a person: {next.Words}; when it is done: justright run done {isStep}";
    }

    private static string Along(JobStepView step) => step.LeftOutWithIt.Count == 0 ? ""
        : $" and what hangs on it ({string.Join(", ", step.LeftOutWithIt)})";

    private static string Line(JobStepView step) =>
        $"  {Sign(step.State)} {step.Number,2}  {Markup.Escape(step.Words)}"
        + (step.State is "made" or "undone" ? "" : $"  [grey]{Markup.Escape(step.After ?? "")}[/]");

    /// <summary>The exit code that says how a run stands.</summary>
    public static int CodeOf(JobView job) => job.State switch
    {
        "done" => ExitCode.Fine,
        "proposed" or "waiting" => ExitCode.Waits,
        _ => ExitCode.Misfit,
    };

    private static string Sign(string state) => state switch
    {
        "made" => "[green]made   [/]",
        "already-so" => "[grey]so already[/]",
        "failed" or "refused" => "[bold]failed [/]",
        "skipped" or "abandoned" => "[bold]left out[/]",
        "intended" => "[grey]begun  [/]",
        _ => $"[grey]{state,-7}[/]",
    };
}
