using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>estate</c> and <c>survey</c>: the administrator's surroundings and what was read of them.</summary>
internal static class EstateCommands
{
    public static Command Make()
    {
        var (file, replacing) = (Names.File(), new Replacing());
        var estate = Names.Estate();
        return CommandKit.Group(
            "estate", "Estates: your own surroundings",
            CommandKit.Make(
                "check", "Checks an estate and lists all its faults", ["justright estate check fennmoor.yaml"], [file],
                c => SendAsync(c, "estates/check", c.Parsed.GetValue(file)!, "is sound"))
                .Answers(j => j.EstateView),
            CommandKit.Make(
                "add", "Checks an estate and adds it to Just Right, or replaces the one that is there",
                ["justright estate add fennmoor.yaml", "justright estate add fennmoor.yaml --list"],
                [file, .. replacing.Options], c => AddAsync(c, c.Parsed.GetValue(file)!, replacing))
                .Answers(j => j.EstateView, j => j.ReplacingView),
            CommandKit.Make("list", "Lists the estates", [], [], ListAsync)
                .Answers(j => j.IReadOnlyListEstateSummary),
            CommandKit.Make(
                "show", "Shows an estate as its author wrote it", ["justright estate show fennmoor"], [estate],
                c => ShowAsync(c, c.Parsed.GetValue(estate)!))
                .Answers(j => j.EstateView),
            EstateNewCommand.Make(),
            RehearseCommand.Make(),
            VersionCommands.MakeVersions("estate", Names.Estate(), "fennmoor"),
            VersionCommands.MakeRemove(
                "estates", Names.Estate(),
                "Removes an estate without installs and adoptions, and what was read of it; its versions stay on record",
                "justright estate remove fennmoor"));
    }

    public static Command MakeSurvey()
    {
        var estate = Names.Estate();
        var from = new Option<string?>("--from")
        {
            Description = "An LDIF file exported from the directory, where no connection is allowed",
            HelpName = "FILE",
        };
        var readAt = new Option<DateTimeOffset?>("--read-at")
        {
            Description = "When the file was exported, if the file does not say so; the file's own time by default",
            HelpName = "TIME",
        };
        var facts = new Option<string[]>("--facts")
        {
            Description = "Files with host facts from the hosts' owners, one file per host",
            HelpName = "FILE",
            AllowMultipleArgumentsPerToken = true,
        };
        return CommandKit.Make(
            "survey", "Surveys an estate: directory, hosts, instances",
            [
                "justright survey fennmoor", "justright survey fennmoor --json",
                "justright survey fennmoor --from fennmoor.ldif --read-at 2026-11-25T09:30Z",
                "justright survey fennmoor --facts fm-rec01.json fm-line01.json"],
            [estate, from, readAt, facts], c =>
                SurveyAsync(
                    c, c.Parsed.GetValue(estate)!, c.Parsed.GetValue(from), c.Parsed.GetValue(readAt),
                    c.Parsed.GetValue(facts) ?? []))
            .Answers(j => j.SurveyView);
    }

    private static async Task<int> AddAsync(Call call, string file, Replacing replacing) =>
        await replacing.WhyNotAsync(call, "estate", file) ?? await SendAsync(call, "estates", file, "added");

    private static async Task<int> SendAsync(Call call, string path, string file, string done)
    {
        var estate = await call.Api.PostFileAsync(path, file, ContractsJson.Default.EstateView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(estate, ContractsJson.Default.EstateView);
        else
            call.Screen.Line(Markup.Escape(
                $"{(done == "added" ? "added " + estate.Summary.Name : $"{file} is sound")}: {estate.Summary.Title}, {estate.Summary.Domain}, {estate.Summary.Hosts} hosts, {estate.Summary.Instances} instances{(estate.Summary.Simulated ? " (simulated)" : "")}"));
        return ExitCode.Fine;
    }

    private static async Task<int> ListAsync(Call call)
    {
        var estates = await call.Api.GetAsync("estates", ContractsJson.Default.IReadOnlyListEstateSummary, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(estates, ContractsJson.Default.IReadOnlyListEstateSummary);
            return ExitCode.Fine;
        }

        if (estates.Count == 0) call.Screen.Line("No estates yet. Add one: justright estate add FILE");
        var table = Screen.List("estate", "title", "domain", "reached by", "hosts", "instances", "added");
        foreach (var e in estates)
            table.AddRow(
                new Text(e.Name), new Text(e.Title), new Text(e.Domain),
                new Text(e.Rehearses is { } of ? $"simulated, a rehearsal of {of}" : e.Simulated ? "simulated" : e.Reach),
                new Text($"{e.Hosts}"), new Text($"{e.Instances}"), new Text($"{Times.Exact(e.AddedAt!.Value)} by {e.AddedBy}"));
        if (estates.Count > 0) call.Screen.Write(table);
        return ExitCode.Fine;
    }

    private static async Task<int> ShowAsync(Call call, string name)
    {
        var estate = await call.Api.GetAsync($"estates/{Names.Part(name)}", ContractsJson.Default.EstateView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(estate, ContractsJson.Default.EstateView);
        else Screen.Text(estate.Text);
        return ExitCode.Fine;
    }

    private static async Task<int> SurveyAsync(Call call, string name, string? from, DateTimeOffset? readAt, string[] facts)
    {
        if (from is not null) await GiveFileAsync(call, name, from, readAt);
        foreach (var file in facts) await GiveFactsAsync(call, name, file);
        var job = await call.Api.PostAsync($"estates/{Names.Part(name)}/survey", ContractsJson.Default.JobView, call.Cancel);
        job = await JobProgress.FollowAsync(call.Screen, call.Api, job, $"surveying {name}", null, call.Cancel);
        if (job.State != "done") throw new ClientException(ExitCode.Unread, job.Message ?? "the survey did not end well");
        var survey = (await call.Api.GetAsync(
            $"estates/{Names.Part(name)}", ContractsJson.Default.EstateView, call.Cancel)).Survey!;
        if (call.Screen.IsJson)
        {
            call.Screen.Json(survey, ContractsJson.Default.SurveyView);
        }
        else
        {
            call.Screen.Line(Markup.Escape(
                $"{name}{(survey.Simulated ? " (simulated)" : "")}: {survey.Accounts} accounts, {survey.Groups} groups, {survey.Hosts} hosts, {survey.Instances} instances read at {Times.Exact(survey.TakenAt)} from {(survey.ReadFrom.Length == 0 ? "nowhere" : survey.ReadFrom)}"));
            if (survey.DirectoryReadAt < survey.TakenAt.AddMinutes(-1))
                call.Screen.Line(Markup.Escape($"the directory is as it was at {Times.Exact(survey.DirectoryReadAt)}"));
            foreach (var remark in survey.Remarks) call.Screen.Line(Markup.Escape(remark));
            foreach (var part in survey.Unseen)
                call.Screen.Line($"{Balance.Verdict("unseen")}  {Markup.Escape($"{part.Place}: {part.Reason}")}");
        }

        return survey.Unseen.Count > 0 ? ExitCode.Unread : ExitCode.Fine;
    }

    private static async Task GiveFactsAsync(Call call, string name, string file)
    {
        var given = await call.Api.PostFileAsync(
            $"estates/{Names.Part(name)}/host-facts", file, ContractsJson.Default.HostFactsView, call.Cancel, null, "text/plain");
        if (!call.Screen.IsJson)
            call.Screen.Line(Markup.Escape(
                $"{given.Host}: {given.LocalGroups} local groups, {given.Services} services, read at {Times.Exact(given.ReadAt)}{(given.ReadBy.Length > 0 ? " by " + given.ReadBy : "")}"));
    }

    private static async Task GiveFileAsync(Call call, string name, string from, DateTimeOffset? readAt)
    {
        var time = readAt ?? (File.Exists(from) ? File.GetLastWriteTimeUtc(from) : DateTimeOffset.UtcNow);
        var given = await call.Api.PostFileAsync(
            $"estates/{Names.Part(name)}/directory-file", from, ContractsJson.Default.DirectoryFileView, call.Cancel,
            $"read-at={Uri.EscapeDataString(time.ToString("O", System.Globalization.CultureInfo.InvariantCulture))}",
            "text/plain");
        if (!call.Screen.IsJson)
            call.Screen.Line(Markup.Escape(
                $"{given.File}: {given.Objects} objects, read from the directory at {Times.Exact(given.ReadAt)}"));
    }
}
