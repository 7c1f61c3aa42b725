using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>undo</c>, and <c>run undo</c>: takes back what a run changed.</summary>
internal static class UndoCommand
{
    /// <param name="example">The command as it is written in this place.</param>
    public static Command Make(string example)
    {
        var run = new Argument<string>("run") { Description = "The id of a run: a grant, a fix, a renewal" };
        var yes = new Option<bool>("--yes") { Description = "Do not ask; for scripts" };
        return CommandKit.Make(
            "undo",
            "Undoes what a run changed, the last change first, as far as it was made; of a renewal, restores the old password.\n"
            + "Blocked while a service runs as an account that would go, another install needs it,\n"
            + "or it holds more than the run gave.\n"
            + "An account that may be in use is disabled, not deleted",
            [$"justright {example} 019ab2c3d4e5f60718293a4b5c6d7e8f"], [run, yes], c =>
                UndoAsync(c, c.Parsed.GetValue(run)!, c.Parsed.GetValue(yes)))
            .Answers(j => j.JobView);
    }

    private static async Task<int> UndoAsync(Call call, string id, bool yes)
    {
        var job = await call.Api.GetAsync($"runs/{Names.Part(id)}", ContractsJson.Default.JobView, call.Cancel);
        var plan = await call.Api.GetAsync($"runs/{Names.Part(id)}/undo", ContractsJson.Default.UndoView, call.Cancel);
        if (plan.Blocked.Count > 0)
            throw new ClientException(
                ExitCode.BadInput, "This cannot be undone as things are.", $"{string.Join(". ", plan.Blocked)}.");
        if (!call.Screen.IsJson)
        {
            call.Screen.Line($"Undoing the {job.Kind} of {Times.Exact(job.CreatedAt)} by {Markup.Escape(job.StartedBy)}:");
            foreach (var step in plan.Steps) call.Screen.Line($"     {Markup.Escape(step)}");
            foreach (var left in plan.Left) call.Screen.Line($"  [bold]left[/]  {Markup.Escape(left)}");
        }

        if (!yes
            && !StepPrinter.Confirm(
                call.Screen, plan.Steps.Count == 1 ? "Make this change?" : $"Make these {plan.Steps.Count} changes?"))
            return ExitCode.Waits;
        job = await call.Api.PostAsync($"runs/{Names.Part(id)}/undo", ContractsJson.Default.JobView, call.Cancel);
        return await StepPrinter.FollowAsync(call, job, "undoing");
    }
}
