using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>grant</c>: carries out the worklist, after a person has seen it.</summary>
internal static class GrantCommand
{
    public static Command Make()
    {
        var install = Names.Install();
        var remove = new Option<bool>("--remove") { Description = "Take away what is spare or barred, instead of giving what is missing" };
        var yes = new Option<bool>("--yes") { Description = "Do not ask; for scripts" };
        var list = new Option<bool>("--list") { Description = "Only list the steps" };
        return CommandKit.Make(
            "grant", "Carries out the worklist: lists the steps, asks, makes each one journaled and looked at again",
            ["justright grant thermograph-dataroom", "justright grant thermograph-dataroom --list", "justright grant thermograph-dataroom --remove --yes"],
            [install, remove, yes, list], c => RunAsync(c, c.Parsed.GetValue(install)!, c.Parsed.GetValue(remove), c.Parsed.GetValue(yes), c.Parsed.GetValue(list)));
    }

    private static async Task<int> RunAsync(Call call, string install, bool remove, bool yes, bool listOnly)
    {
        var path = $"installs/{Names.Part(install)}";
        // A worklist is only as good as its survey: read first, so that what is confirmed is what is there.
        var reading = await call.Api.PostAsync($"{path}/verify", ContractsJson.Default.JobView, call.Cancel);
        reading = await JobProgress.FollowAsync(call.Screen, call.Api, reading, $"reading for {install}", null, call.Cancel);
        if (reading.State != "done") throw new ClientException(ExitCode.Unread, reading.Message ?? "the survey did not end well");
        var worklist = await call.Api.GetAsync($"{path}/worklist", ContractsJson.Default.WorklistView, call.Cancel);
        if (listOnly && call.Screen.IsJson)
        {
            Screen.Json(worklist, ContractsJson.Default.WorklistView);
            return ExitCode.Fine;
        }

        var steps = remove ? worklist.Remove : worklist.Give;
        if (!call.Screen.IsJson) List(call.Screen, worklist, steps, remove);
        var ready = steps.Where(s => s.Blocked is null).ToList();
        if (ready.Count == 0 || listOnly)
        {
            if (call.Screen.IsJson) Screen.Json(worklist, ContractsJson.Default.WorklistView);
            return ready.Count == 0 && steps.Count > 0 ? ExitCode.Unread : ExitCode.Fine;
        }

        if (!yes && !Confirm(call.Screen, ready.Count, remove)) return ExitCode.Fine;
        var job = await call.Api.PostAsync($"{path}/grant", new GrantOrder(remove, [.. ready.Select(s => s.Id)]), ContractsJson.Default.GrantOrder, ContractsJson.Default.JobView, call.Cancel);
        Action<JobStepView>? print = call.Screen.IsJson ? null : step => call.Screen.Line($"  {Sign(step.State)} {step.Number,2}  {Markup.Escape(step.Words)}{(step.State == "made" ? "" : $"  [grey]{Markup.Escape(step.After ?? "")}[/]")}");
        job = await JobProgress.FollowAsync(call.Screen, call.Api, job, "granting", print, call.Cancel);
        if (call.Screen.IsJson) Screen.Json(job, ContractsJson.Default.JobView);
        else call.Screen.Line(Markup.Escape(job.Message ?? job.State));
        return job.State == "done" ? ExitCode.Fine : ExitCode.Misfit;
    }

    private static void List(Screen screen, WorklistView worklist, IReadOnlyList<StepView> steps, bool remove)
    {
        if (worklist.Pretend) screen.Line("[bold]pretend estate[/] (the lab)");
        if (steps.Count == 0) screen.Line(remove ? "Nothing is to be taken away." : "Nothing is left to give.");
        var table = Screen.List("", remove ? "to take away" : "to give", "giver", "why");
        foreach (var s in steps) table.AddRow(new Text($"{s.Number}"), new Text(s.Words), new Text(s.Giver), new Markup(s.Blocked is null ? $"[grey]{Markup.Escape(s.Why)}[/]" : $"[bold]blocked:[/] {Markup.Escape(s.Blocked)}"));
        if (steps.Count > 0) screen.Write(table);
        if (!remove && worklist.LeftToSetup.Count > 0) screen.Line($"[grey]{worklist.LeftToSetup.Count} more will be given by the product's setup.[/]");
        if (remove)
            foreach (var left in worklist.NotOffered) screen.Line($"[grey]not offered:[/] {Markup.Escape(left.For)}: {Markup.Escape(left.Reason)}");
    }

    private static bool Confirm(Screen screen, int count, bool remove)
    {
        if (Console.IsInputRedirected || screen.IsJson) throw new ClientException(ExitCode.BadInput, "Nobody is here to confirm the steps.", "Look at them with --list, then run again with --yes.");
        screen.Error.Markup(remove ? $"Take away these {count}? Type yes: " : $"Make these {count} changes? Type yes: ");
        if (string.Equals(Console.ReadLine()?.Trim(), "yes", StringComparison.OrdinalIgnoreCase)) return true;
        screen.Error.MarkupLine("Nothing was changed.");
        return false;
    }

    private static string Sign(string state) => state switch
    {
        "made" => "[green]made   [/]",
        "skipped" => "[grey]skipped[/]",
        "failed" => "[bold]failed [/]",
        _ => $"[grey]{state,-7}[/]",
    };
}
