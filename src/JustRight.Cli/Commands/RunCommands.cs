using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>run</c>: what was carried out for an install, how far it came, and going on with it.</summary>
internal static class RunCommands
{
    public static Command Make()
    {
        var group = new Command("run", "What was carried out: lists it, shows it, and tries again what failed");
        group.Subcommands.Add(MakeList());
        group.Subcommands.Add(MakeShow());
        group.Subcommands.Add(MakeContinue());
        return group;
    }

    private static Argument<string> Id() => new("run") { Description = "The id of a grant, a fix, a protection or an undo" };

    private static Command MakeList()
    {
        var install = Names.Install();
        return CommandKit.Make(
            "list", "Lists what was carried out for an install, the newest first",
            ["justright run list thermograph-dataroom"], [install], c => ListAsync(c, c.Parsed.GetValue(install)!))
            .Answers(ContractsJson.Default.IReadOnlyListJobView);
    }

    private static Command MakeShow()
    {
        var id = Id();
        return CommandKit.Make(
            "show", "Shows a run step by step; follows one that is under way to its end",
            ["justright run show 019ab2c3d4e5f60718293a4b5c6d7e8f"], [id], c => ShowAsync(c, c.Parsed.GetValue(id)!))
            .Answers(ContractsJson.Default.JobView);
    }

    private static Command MakeContinue()
    {
        var id = Id();
        return CommandKit.Make(
            "continue",
            "Tries the failed steps of a run again, and makes what they held back.\n"
            + "A step that was begun is looked at first: what is true already is not made twice",
            ["justright run continue 019ab2c3d4e5f60718293a4b5c6d7e8f"], [id], c => ContinueAsync(c, c.Parsed.GetValue(id)!))
            .Answers(ContractsJson.Default.JobView);
    }

    private static async Task<int> ListAsync(Call call, string install)
    {
        var jobs = await call.Api.GetAsync(
            $"installs/{Names.Part(install)}/jobs", ContractsJson.Default.IReadOnlyListJobView, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(jobs, ContractsJson.Default.IReadOnlyListJobView);
            return ExitCode.Fine;
        }

        var runs = jobs.Where(j => j.Steps.Count > 0).ToList();
        if (runs.Count == 0)
        {
            call.Screen.Line($"Nothing was carried out for {Markup.Escape(install)}.");
            return ExitCode.Fine;
        }

        var table = Screen.List("run", "what", "began", "by", "state", "");
        foreach (var run in runs)
            table.AddRow(
                new Text(run.Id), new Text(run.Kind), new Text(Times.Exact(run.CreatedAt)), new Text(run.StartedBy),
                new Text(run.State), new Text(run.Message ?? ""));
        call.Screen.Write(table);
        return ExitCode.Fine;
    }

    private static async Task<int> ShowAsync(Call call, string id)
    {
        var job = await call.Api.GetAsync($"jobs/{Names.Part(id)}", ContractsJson.Default.JobView, call.Cancel);
        if (job.State is "queued" or "running") return await StepPrinter.FollowAsync(call, job, job.Kind);
        StepPrinter.Show(call.Screen, job);
        return job.State == "failed" ? ExitCode.Misfit : ExitCode.Fine;
    }

    private static async Task<int> ContinueAsync(Call call, string id)
    {
        var job = await call.Api.PostAsync($"jobs/{Names.Part(id)}/continue", ContractsJson.Default.JobView, call.Cancel);
        return await StepPrinter.FollowAsync(call, job, "going on");
    }
}
