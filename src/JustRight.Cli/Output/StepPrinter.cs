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
                "Cannot ask for confirmation: input is not a terminal. Review the steps with --list, then run again with --yes.",
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
        try
        {
            job = await JobProgress.FollowAsync(call.Screen, call.Api, job, title, print, call.Cancel);
        }
        catch (OperationCanceledException) when (call.Cancel.IsCancellationRequested)
        {
            call.Screen.Failure(
                "It goes on in the service; only watching it was stopped.", $"See how it goes: justright run show {job.Id}", []);
            return ExitCode.GoesOn;
        }

        Write(call.Screen, job);
        return CodeOf(job);
    }

    /// <summary>Shows a run that is over, step by step.</summary>
    public static void Show(Screen screen, JobView job)
    {
        if (!screen.IsJson)
            foreach (var step in job.Steps.Where(s => s.HeldBy is null)) screen.Line(Line(step));
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
        if (job.CanContinue)
            screen.Line($"[grey]to try again what failed, and what it held back: justright run continue {job.Id}[/]");
        if (job.CanBeUndone) screen.Line($"[grey]to undo it: justright undo {job.Id}[/]");
    }

    private static string Line(JobStepView step) =>
        $"  {Sign(step.State)} {step.Number,2}  {Markup.Escape(step.Words)}"
        + (step.State == "made" ? "" : $"  [grey]{Markup.Escape(step.After ?? "")}[/]");

    private static int CodeOf(JobView job) => job.State switch
    {
        "done" => ExitCode.Fine,
        "proposed" => ExitCode.Waits,
        _ => ExitCode.Misfit,
    };

    private static string Sign(string state) => state switch
    {
        "made" => "[green]made   [/]",
        "skipped" => "[grey]skipped[/]",
        "failed" => "[bold]failed [/]",
        _ => $"[grey]{state,-7}[/]",
    };
}
