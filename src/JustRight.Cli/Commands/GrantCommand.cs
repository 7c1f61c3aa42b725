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
        var remove = new Option<bool>("--remove")
        {
            Description = "Remove what is excess or forbidden, instead of granting what is missing",
        };
        var yes = new Option<bool>("--yes") { Description = "Do not ask; for scripts" };
        var list = new Option<bool>("--list") { Description = "Only list the steps" };
        var only = new Option<string?>("--only")
        {
            Description = "Make these steps alone, with what they hang on: numbers as listed, such as 1,4-6",
            HelpName = "STEPS",
        };
        var without = new Option<string?>("--without")
        {
            Description = "Make all but these steps, and what hangs on them",
            HelpName = "STEPS",
        };
        return CommandKit.Make(
            "grant", "Carries out the worklist: lists the steps, asks, logs each one before it is made, and checks it afterwards",
            [
                "justright grant thermograph-dataroom", "justright grant thermograph-dataroom --list",
                "justright grant thermograph-dataroom --only 1-3,7", "justright grant thermograph-dataroom --remove --yes"],
            [install, remove, yes, list, only, without], c =>
                RunAsync(
                    c, c.Parsed.GetValue(install)!, c.Parsed.GetValue(remove), c.Parsed.GetValue(yes), c.Parsed.GetValue(list),
                    c.Parsed.GetValue(only), c.Parsed.GetValue(without)))
            .Answers(j => j.JobView, j => j.WorklistView);
    }

    private static async Task<int> RunAsync(
        Call call, string install, bool remove, bool yes, bool listOnly, string? only, string? without)
    {
        var path = $"installs/{Names.Part(install)}";
        // A worklist is only as good as its survey: read first, so that what is confirmed is what is there.
        var reading = await call.Api.PostAsync($"{path}/verify", ContractsJson.Default.JobView, call.Cancel);
        reading = await JobProgress.FollowAsync(call.Screen, call.Api, reading, $"reading for {install}", null, call.Cancel);
        if (reading.State != "done") throw new ClientException(ExitCode.Unread, reading.Message ?? "the survey did not end well");
        var worklist = await call.Api.GetAsync($"{path}/worklist", ContractsJson.Default.WorklistView, call.Cancel);
        if (listOnly && call.Screen.IsJson)
        {
            call.Screen.Json(worklist, ContractsJson.Default.WorklistView);
            return ExitCode.Fine;
        }

        var steps = remove ? worklist.Remove : worklist.Give;
        if (!call.Screen.IsJson) List(call.Screen, worklist, steps, remove);
        var ready = steps.Where(s => s.Blocked is null).ToList();
        if (ready.Count == 0 || listOnly)
        {
            if (call.Screen.IsJson) call.Screen.Json(worklist, ContractsJson.Default.WorklistView);
            return listOnly || steps.Count == 0 ? ExitCode.Fine : ExitCode.Waits; // all that is left is blocked
        }

        var choice = StepChoice.Of(
            ready, only is null ? null : NumberRange.All(only, ready.Count, "--only"),
            without is null ? new SortedSet<int>() : NumberRange.All(without, ready.Count, "--without"));
        if (!call.Screen.IsJson) foreach (var remark in choice.Remarks) call.Screen.Line($"[grey]{Markup.Escape(remark)}[/]");
        ready = [.. choice.Steps];
        if (ready.Count == 0)
            throw new ClientException(ExitCode.BadInput, "No step is left to make.", "Leave out fewer: see --list.");
        await AskPasswordsAsync(call, ready);
        if (!yes
            && !StepPrinter.Confirm(
                call.Screen, remove ? $"Take away these {ready.Count}?" : $"Make these {ready.Count} changes?"))
            return ExitCode.Waits;
        var job = await call.Api.PostAsync(
            $"{path}/grant", new GrantOrder(remove, [.. ready.Select(s => s.Id)]), ContractsJson.Default.GrantOrder,
            ContractsJson.Default.JobView, call.Cancel);
        return await StepPrinter.FollowAsync(call, job, "granting");
    }

    /// <summary>A password that a step will take is asked for before anything begins, and kept as a secret.</summary>
    private static async Task AskPasswordsAsync(Call call, IReadOnlyList<StepView> steps)
    {
        // who cannot be asked is told by the service, before anything begins
        if (Console.IsInputRedirected || call.Screen.IsJson) return;
        foreach (var account in steps.Select(s => s.Asks).OfType<AskedPasswordView>().Distinct())
        {
            var password = await PasswordPrompt.ReadAsync(
                call, $"Password of {account.Account}, which services are to be given:");
            await call.Api.SendAsync(
                HttpMethod.Put, $"secrets/{Names.Part(account.Secret)}", new SecretValue(password),
                ContractsJson.Default.SecretValue, call.Cancel);
        }
    }

    /// <summary>Whose they are: the account is the first part of each id.</summary>
    private static string ByAccount(IReadOnlyList<string> ids) => string.Join(
        ", ", ids.GroupBy(i => i.Split('/')[0]).Select(g => $"{Markup.Escape(g.Key)} {g.Count()}"));

    private static string Why(StepView step) =>
        step.Blocked is null ? $"[grey]{Markup.Escape(step.Why)}[/]" : $"[bold]blocked:[/] {Markup.Escape(step.Blocked)}";

    private static void List(Screen screen, WorklistView worklist, IReadOnlyList<StepView> steps, bool remove)
    {
        if (worklist.Simulated) screen.Line("[bold]simulated estate[/]");
        if (steps.Count == 0) screen.Line(remove ? "Nothing to remove." : "Nothing left to grant.");
        var table = Screen.List("", remove ? "to remove" : "to grant", "hangs on", "team", "why");
        var numbers = new Dictionary<int, int>(); // as the job will count those that it makes
        foreach (var s in steps)
        {
            if (s.Blocked is null) numbers[s.Number] = numbers.Count + 1;
            table.AddRow(
                new Text(s.Blocked is null ? $"{numbers.Count}" : "–"),
                new Text(s.Words),
                new Text(string.Join(", ", s.HangsOn.Where(numbers.ContainsKey).Select(a => numbers[a]))),
                new Text(s.Team),
                new Markup(Why(s)));
        }

        if (steps.Count > 0) screen.Write(table);
        if (!remove && worklist.LeftToSetup.Count > 0)
            screen.Line($"[grey]{worklist.LeftToSetup.Count} more come with the product's setup: {ByAccount(worklist.LeftToSetup)}.[/]");
        foreach (var left in worklist.NotOffered)
            screen.Line($"[grey]not offered:[/] {Markup.Escape(left.For)}: {Markup.Escape(left.Reason)}");
    }
}
