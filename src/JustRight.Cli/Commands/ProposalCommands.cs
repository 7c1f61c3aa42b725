using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>proposal</c>: where the organization wants two-person approval, what one proposed another approves.</summary>
internal static class ProposalCommands
{
    public static Command Make() => CommandKit.Group(
        "proposal", "Two-person approval: what one person proposed, another approves",
        CommandKit.Make(
            "list", "Lists the proposals that wait for approval or for being carried out", ["justright proposal list"], [],
            ListAsync)
            .Answers(j => j.IReadOnlyListJobView),
        Act(
            "approve",
            "Approves another person's proposal after listing what it does; a proposal is void if the worklist, the sheet, the estate or the install changed",
            "approve"),
        Act("carry-out", "Carries out an approved proposal", "carry-out"),
        Act("withdraw", "Withdraws a proposal, approved or not; a planner their own", "withdraw"));

    private static Command Act(string name, string description, string path)
    {
        var id = CommandKit.Named(
            "proposal", "The id of a proposal",
            async api => (await api.GetAsync("proposals", ContractsJson.Default.IReadOnlyListJobView, default))
                .Select(j => j.Id));
        var yes = new Option<bool>("--yes") { Description = "Do not ask; for scripts" };
        return CommandKit.Make(
            name, description, [$"justright proposal {name} 019ac0ffee0070008000000000000001"], [id, yes],
            c => ActAsync(c, c.Parsed.GetValue(id)!, path, c.Parsed.GetValue(yes)))
            .Answers(j => j.JobView);
    }

    private static async Task<int> ListAsync(Call call)
    {
        var open = await call.Api.GetAsync("proposals", ContractsJson.Default.IReadOnlyListJobView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(open, ContractsJson.Default.IReadOnlyListJobView);
        else if (open.Count == 0) call.Screen.Line("No proposal is open.");
        else foreach (var job in open) Write(call.Screen, job);
        return ExitCode.Fine;
    }

    private static async Task<int> ActAsync(Call call, string id, string path, bool yes)
    {
        if (path == "approve" && !yes)
        {
            var job = (await call.Api.GetAsync("proposals", ContractsJson.Default.IReadOnlyListJobView, call.Cancel))
                .FirstOrDefault(j => j.Id == id)
                ?? throw new ClientException(
                    ExitCode.BadInput, $"There is no open proposal '{id}'.", "See: justright proposal list");
            if (!call.Screen.IsJson) Write(call.Screen, job);
            if (!StepPrinter.Confirm(call.Screen, "Approve this?")) return ExitCode.Waits;
        }

        var done = await call.Api.PostAsync($"proposals/{Names.Part(id)}/{path}", ContractsJson.Default.JobView, call.Cancel);
        if (path == "carry-out") return await StepPrinter.FollowAsync(call, done, "carrying out");
        if (call.Screen.IsJson) call.Screen.Json(done, ContractsJson.Default.JobView);
        else call.Screen.Line(Markup.Escape(done.Message ?? done.State));
        return ExitCode.Fine;
    }

    private static void Write(Screen screen, JobView job)
    {
        screen.Line($"[bold]{job.Id}[/]  {Markup.Escape($"{job.Kind} at {job.Subject}, proposed by {job.StartedBy} {Times.Exact(job.CreatedAt)}")}{(job.ApprovedBy is null ? "  [bold]waits for another's approval[/]" : Markup.Escape($"; approved by {job.ApprovedBy}"))}");
        foreach (var words in job.Words) screen.Line($"      {Markup.Escape(words)}");
        foreach (var step in job.Steps)
            screen.Line($"  {step.Number,2}  {Markup.Escape(step.Words)}  [grey]{Markup.Escape(step.Team)}[/]");
    }
}
