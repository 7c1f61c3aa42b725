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
        Action<JobStepView>? print = call.Screen.IsJson ? null : step =>
            call.Screen.Line($"  {Sign(step.State)} {step.Number,2}  {Markup.Escape(step.Words)}{(step.State == "made" ? "" : $"  [grey]{Markup.Escape(step.After ?? "")}[/]")}");
        job = await JobProgress.FollowAsync(call.Screen, call.Api, job, title, print, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(job, ContractsJson.Default.JobView);
            return CodeOf(job);
        }

        call.Screen.Line(Markup.Escape(job.Message ?? job.State));
        if (job.CanBeUndone) call.Screen.Line($"[grey]to undo it: justright undo {job.Id}[/]");
        return CodeOf(job);
    }

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
