using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>install</c> and <c>plan</c>.</summary>
internal static class InstallCommands
{
    /// <summary>How many seconds a list waits for what is being judged anew.</summary>
    private const string Patience = "10";

    public static Command Make()
    {
        var (file, replacing) = (Names.File(), new Replacing());
        var install = Names.Install();
        var stage = new Argument<string>("stage") { Description = "planned, installed or retiring" };
        stage.CompletionSources.Add("planned", "installed", "retiring");
        return CommandKit.Group(
            "install", "Installs: one product in one estate",
            CommandKit.Make(
                "add",
                "Checks that an install can be planned, and adds it to Just Right, or replaces the one that is there.\n"
                + "The stage in the file is that of a new install; afterwards only install stage changes it",
                ["justright install add thermograph-dataroom.yaml", "justright install add thermograph-dataroom.yaml --list"],
                [file, .. replacing.Options], c => AddAsync(c, c.Parsed.GetValue(file)!, replacing))
                .Answers(j => j.InstallView, j => j.ReplacingView),
            InstallNewCommand.Make(),
            InstallUpgradeCommand.Make(),
            MakeList(),
            CommandKit.Make(
                "show", "Shows an install as its author wrote it", ["justright install show thermograph-dataroom"], [install],
                c => ShowAsync(c, c.Parsed.GetValue(install)!))
                .Answers(j => j.InstallView),
            CommandKit.Make(
                "stage", "Sets the stage of an install; retiring: what only it needed is to be removed", [
                    "justright install stage thermograph-dataroom installed",
                    "justright install stage tallystick-dataroom retiring"],
                [install, stage], c => StageAsync(c, c.Parsed.GetValue(install)!, c.Parsed.GetValue(stage)!))
                .Answers(j => j.InstallView),
            VersionCommands.MakeVersions("install", Names.Install(), "thermograph-dataroom"),
            VersionCommands.MakeRemoveInstall());
    }

    public static Command MakePlan()
    {
        var install = Names.Install();
        return CommandKit.Make(
            "plan", "Shows what is needed: accounts, groups, grants, each with its line of the sheet",
            ["justright plan thermograph-dataroom", "justright plan thermograph-dataroom --json"], [install],
            c => PlanAsync(c, c.Parsed.GetValue(install)!))
            .Answers(j => j.PlanView);
    }

    private static async Task<int> AddAsync(Call call, string file, Replacing replacing)
    {
        if (await replacing.WhyNotAsync(call, "install", file) is { } code) return code;
        var install = await call.Api.PostFileAsync("installs", file, ContractsJson.Default.InstallView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(install, ContractsJson.Default.InstallView);
        else
            call.Screen.Line(Markup.Escape(
                $"added {install.Summary.Name}: {install.Summary.Title} into {install.Summary.Estate}, {install.Summary.Stage}{(install.Summary.Simulated ? " (simulated)" : "")}"));
        return ExitCode.Fine;
    }

    private static Command MakeList()
    {
        var order = new ListOptions("name", "title", "sheet", "estate", "stage", "fit", "next", "surveyed");
        var estate = new Option<string?>("--estate") { Description = "Only those of this estate", HelpName = "ESTATE" };
        var stage = new Option<string?>("--stage") { Description = "Only those in this stage: planned, installed or retiring" };
        stage.CompletionSources.Add("planned", "installed", "retiring");
        var fit = new Option<string?>("--fit")
        {
            Description = "Only those of which the fit says this: missing, excess, pending, unseen, nothing-off or not-verified",
        };
        fit.CompletionSources.Add("missing", "excess", "pending", "unseen", "nothing-off", "not-verified");
        return CommandKit.Make(
            "list",
            "Lists the installs with their fit\n"
            + "What changed is judged anew in the background; the list waits some seconds for that, and marks what is still old.",
            ["justright install list", "justright install list --fit missing --sort -fit", "justright install list --search ledger"],
            [.. order.All, estate, stage, fit],
            c => ListAsync(c, order.Query(
                c, ("estate", c.Parsed.GetValue(estate)), ("stage", c.Parsed.GetValue(stage)), ("fit", c.Parsed.GetValue(fit)))))
            .Answers(j => j.InstallPage);
    }

    private static async Task<int> ListAsync(Call call, ListQuery query)
    {
        var page = await call.Api.GetAsync($"installs?{query.Text}&wait={Patience}", ContractsJson.Default.InstallPage, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(page, ContractsJson.Default.InstallPage);
            return ExitCode.Fine;
        }

        if (page.Total == 0)
            call.Screen.Line(query.IsNarrowed ? "No install matches." : "No installs yet. Add one: justright install add FILE");
        var table = Screen.List("install", "sheet", "stage", "fit", "", "next", "surveyed");
        foreach (var i in page.Items)
        {
            var old = i.IsBeingJudged ? " [grey](being judged anew)[/]" : "";
            table.AddRow(
                new Text(i.Name), new Text(i.Sheet), new Text(i.Stage), new Markup(i.Fit is null ? "" : Balance.Sign(i.Fit)),
                new Markup(Markup.Escape(i.Fit?.Words ?? "not verified yet") + old), new Text(i.Next),
                new Text(i.SurveyedAt is { } at ? Times.Exact(at) : ""));
        }

        if (page.Items.Count > 0) call.Screen.Write(table);
        ListOptions.Tell(call, page.Items.Count, page.Skipped, page.Total, "installs");
        if (page.Items.Any(i => i.Simulated)) call.Screen.Line("[grey]simulated estate[/]");
        return ExitCode.Fine;
    }

    private static async Task<int> StageAsync(Call call, string name, string stage)
    {
        var install = await call.Api.PostAsync(
            $"installs/{Names.Part(name)}/stage", new StageOrder(stage), ContractsJson.Default.StageOrder,
            ContractsJson.Default.InstallView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(install, ContractsJson.Default.InstallView);
        else
            call.Screen.Line(Markup.Escape(
                $"{install.Summary.Name} is {install.Summary.Stage} now. {(install.Summary.Stage == "retiring" ? $"See what goes and what stays: justright grant {name} --remove --list" : $"Next: justright verify {name}")}"));
        return ExitCode.Fine;
    }

    private static async Task<int> ShowAsync(Call call, string name)
    {
        var install = await call.Api.GetAsync($"installs/{Names.Part(name)}", ContractsJson.Default.InstallView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(install, ContractsJson.Default.InstallView);
        else Screen.Text(install.Text);
        return ExitCode.Fine;
    }

    private static async Task<int> PlanAsync(Call call, string name)
    {
        var plan = await call.Api.GetAsync($"installs/{Names.Part(name)}/plan", ContractsJson.Default.PlanView, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(plan, ContractsJson.Default.PlanView);
            return ExitCode.Fine;
        }

        var screen = call.Screen;
        screen.Line($"[bold]{Markup.Escape(plan.Title)}[/]  {Markup.Escape(plan.Install)}  {plan.Stage}{(plan.Simulated ? "  [bold]simulated estate[/]" : "")}");
        screen.Line();
        var groups = Screen.List("group", "name", "scope", "members", "asked for at");
        foreach (var g in plan.Groups)
            groups.AddRow(
                new Text(g.Key), new Text(g.Name), new Text(g.Scope), new Text(string.Join(", ", g.Members)), new Text(g.At));
        if (plan.Groups.Count > 0) screen.Write(groups);
        foreach (var account in plan.Accounts)
        {
            screen.Line();
            screen.Line($"[bold]{Markup.Escape(account.Key)}[/]  {Markup.Escape(account.Name)}  [grey]{Markup.Escape(account.Purpose)}[/]");
            screen.Line($"  [grey]{Markup.Escape(account.Existing ? "existing account" : account.Dn!)}[/]");
            var grants = new Table().Border(TableBorder.None).HideHeaders().Collapse();
            for (var i = 0; i < 5; i++) grants.AddColumn(new TableColumn("") { Padding = new Padding(0, 0, 2, 0) });
            foreach (var g in plan.Grants.Where(g => g.Account == account.Key))
                grants.AddRow(
                    new Text("  " + g.Right), new Text(g.Place), new Text(g.Through is null ? "" : $"through {g.Through}"),
                    new Text((g.GivenBy == "setup" ? "setup gives it" : $"{g.Team} team gives it") + (
                        g.Until == "installed" ? ", until installed" : "")),
                    new Markup($"[grey]{Markup.Escape(g.At)}[/]"));
            screen.Write(grants);
        }

        foreach (var d in plan.Decisions)
        {
            screen.Line();
            screen.Line($"[bold]{Markup.Escape(d.Id)}[/]: {Markup.Escape(d.Taken)}  [grey]{Markup.Escape(d.Reason)} ({Markup.Escape(d.At)})[/]");
        }

        if (plan.Notes.Count > 0) screen.Line();
        foreach (var note in plan.Notes) screen.Line($"Note: {Markup.Escape(note)}");
        return ExitCode.Fine;
    }
}
