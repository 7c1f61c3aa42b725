using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// What the list of installs tells is kept, and judged in the background. It is never wrong: either it is what judging now would
/// say, or it is marked as being judged anew.
/// </summary>
public sealed class SummaryTests
{
    private const string Estate = "fennmoor";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>
    /// Whatever changes of what goes in: documents, surveys, what is at the places, people's words and exceptions, their ends,
    /// waiting periods, runs, and restarts.
    /// </summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    [InlineData(7)]
    [InlineData(8)]
    public async Task Whatever_changes_a_line_is_as_judging_now_or_is_marked(int seed)
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync($"estates/{Estate}/survey");
        var random = new Random(seed);
        var (settled, did, lines) = (0, new List<string>(), new HashSet<string>());
        for (var round = 0; round < 40; round++)
        {
            did.Add(await ChangeAsync(service, random));
            await AgreesAsync(service, string.Join("; ", did)); // at once: some lines may still be marked
            if (random.Next(3) == 0) continue;
            foreach (var install in await service.InstallsAsync()) lines.Add(Said(install));
            (await AgreesAsync(service, string.Join("; ", did))).ShouldBe(11 + did.Count(d => d == "one more install"));
            settled++;
        }

        settled.ShouldBeGreaterThan(15);
        lines.Count.ShouldBeGreaterThan(40); // it was not always the same that agreed
    }

    [Fact]
    public async Task A_word_of_a_person_makes_only_the_install_that_it_is_about_judged_anew()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync($"estates/{Estate}/survey");
        var before = (await service.InstallsAsync()).ToDictionary(i => i.Name, i => i.JudgedAt);
        await ConfirmAsync(service, true);
        (await service.InstallsAsync()).Where(i => i.JudgedAt != before[i.Name]).Select(i => i.Name)
            .ShouldBe(["wheyline-lines"]);
    }

    [Fact]
    public async Task The_list_is_searched_filtered_sorted_and_told_page_by_page()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync($"estates/{Estate}/survey");
        var all = await service.InstallsAsync();
        var names = all.Select(i => i.Name).ToList();
        names.ShouldBe(names.Order(StringComparer.Ordinal));
        await ShouldTellAsync("take=4&skip=2", names.Skip(2).Take(4), names.Count);
        await ShouldTellAsync("sort=-name&take=3", names.AsEnumerable().Reverse().Take(3), names.Count);
        await ShouldTellAsync("search=DATAROOM", names.Where(n => n.EndsWith("dataroom", StringComparison.Ordinal)));
        await ShouldTellAsync("search=100%25", []);
        await ShouldTellAsync("skip=400", [], names.Count);
        await ShouldTellAsync("estate=elsewhere", []);
        await ShouldTellAsync("stage=installed", all.Where(i => i.Stage == "installed").Select(i => i.Name));
        await ShouldTellAsync("fit=missing", all.Where(i => i.Fit?.Missing > 0).Select(i => i.Name));
        await ShouldTellAsync("fit=excess", all.Where(i => i.Fit?.Excess + i.Fit?.Forbidden > 0).Select(i => i.Name));
        await ShouldTellAsync("fit=not-verified", []);
        await ShouldTellAsync(
            $"sheet={all.Single(i => i.Name == "quernstone-sql01").Sheet}&sort=-name", ["quernstone-sql02", "quernstone-sql01"]);
        foreach (var column in new[] { "name", "title", "sheet", "estate", "stage", "fit", "next", "surveyed" })
            (await PageAsync(service, $"sort={column}")).Items.Select(i => i.Name).ShouldBe(
                (await PageAsync(service, $"sort=-{column}&take=500")).Items.Select(i => i.Name), ignoreOrder: true);

        async Task ShouldTellAsync(string query, IEnumerable<string> expected, int? total = null)
        {
            var page = await PageAsync(service, query);
            page.Items.Select(i => i.Name).ShouldBe(expected, query);
            page.Total.ShouldBe(total ?? page.Items.Count, query);
        }
    }

    [Theory]
    [InlineData("sort=nme", "sort", "name")]
    [InlineData("take=0", "take", "1 to 500")]
    [InlineData("take=501", "take", "1 to 500")]
    [InlineData("skip=-1", "skip", "0 or more")]
    [InlineData("stage=plannd", "stage", "planned")]
    [InlineData("fit=mising", "fit", "missing")]
    [InlineData("wait=900", "wait", "0 to 60 seconds")]
    public async Task What_cannot_be_told_is_refused_with_what_can(string query, string field, string says)
    {
        await using var service = await PreparedData.Demo.StartAsync();
        using var answer = await service.Http.GetAsync($"/api/installs?{query}", Cancel);
        ((int)answer.StatusCode).ShouldBe(400);
        var body = await answer.Content.ReadAsStringAsync(Cancel);
        body.ShouldContain($"\"field\":\"{field}\"");
        body.ShouldContain(says);
    }

    /// <summary>How many of the lines that are not marked are as judging now; all of them, or the test fails.</summary>
    private static async Task<int> AgreesAsync(TestedService service, string did)
    {
        var page = await PageAsync(service, "take=500");
        var agreed = 0;
        foreach (var kept in page.Items.Where(i => !i.IsBeingJudged))
        {
            var now = (await service.GetAsync($"installs/{kept.Name}", ContractsJson.Default.InstallView)).Summary;
            if (Said(now) != Said(kept) && await IsMarkedNowAsync(service, kept.Name)) continue; // its time came in between
            Said(now).ShouldBe(Said(kept), did);
            agreed++;
        }

        return agreed;
    }

    private static async Task<bool> IsMarkedNowAsync(TestedService service, string install) =>
        (await PageAsync(service, "take=500")).Items.Single(i => i.Name == install).IsBeingJudged;

    private static string Said(InstallSummary summary) =>
        JsonSerializer.Serialize(summary with { IsBeingJudged = false, JudgedAt = null }, ContractsJson.Default.InstallSummary);

    private static Task<InstallPage> PageAsync(TestedService service, string query) =>
        service.GetAsync($"installs?{query}", ContractsJson.Default.InstallPage);

    private static async Task<string> ChangeAsync(TestedService service, Random random)
    {
        var installs = (await PageAsync(service, "take=500")).Items;
        var install = installs[random.Next(installs.Count)];
        switch (random.Next(13))
        {
            case 0:
                var stage = new[] { "planned", "installed", "retiring" }[random.Next(3)];
                await PostAsync(
                    $"installs/{install.Name}/stage",
                        JsonContent.Create(new StageOrder(stage), ContractsJson.Default.StageOrder));
                return $"{install.Name} {stage}";
            case 1:
                return await EditAsync(
                    service, "sheets", random,
                        (text, at) => text.Replace("\ntitle: ", $"\ntitle: {at} ", StringComparison.Ordinal));
            case 2:
                return await EditAsync(service, "sheets", random, (text, at) => WithoutNeed(text, at));
            case 3:
                return await EditAsync(service, "estates", random, (text, at) => Aged(text, at));
            case 4:
                await ConfirmAsync(service, random.Next(3) > 0);
                return "confirmed";
            case 5:
            case 6:
                return await AcceptAsync(service, install.Name, random);
            case 7:
                var jump = TimeSpan.FromHours(random.Next(1, 24 * 12));
                service.Clock.Pass(jump);
                return $"{jump} passed";
            case 8:
                await service.RunAsync($"estates/{Estate}/survey");
                return "surveyed";
            case 9:
                await ChangeHostAsync(service, random);
                return "a group at a host changed";
            case 10:
                return await GrantAsync(service, install);
            case 11 when installs.All(i => i.Name != "thermograph-depot"):
                (await service.AddAsync("installs", "later/thermograph-depot.yaml")).EnsureSuccessStatusCode();
                return "one more install";
            default:
                await service.StopAsync();
                await service.RestartAsync();
                return "restarted";
        }

        async Task PostAsync(string path, HttpContent body) =>
            (await service.Http.PostAsync($"/api/{path}", body, Cancel)).Dispose();
    }

    /// <summary>Grants, or removes, what can be without anybody's help.</summary>
    private static async Task<string> GrantAsync(TestedService service, InstallSummary install)
    {
        using var read = await service.Http.GetAsync($"/api/installs/{install.Name}/worklist", Cancel);
        if (!read.IsSuccessStatusCode) return "nothing to grant";
        var worklist = (await read.Content.ReadFromJsonAsync(ContractsJson.Default.WorklistView, Cancel))!;
        var remove = install.Stage == "retiring";
        var steps = (remove ? worklist.Remove : worklist.Give).Where(s => s is { Blocked: null, Asks: null }).Select(s => s.Id);
        var order = new GrantOrder(remove, [.. steps]);
        using var begun = await service.Http.PostAsJsonAsync(
            $"/api/installs/{install.Name}/grant", order, ContractsJson.Default.GrantOrder, Cancel);
        if (!begun.IsSuccessStatusCode) return $"{install.Name} not granted: {(int)begun.StatusCode}";
        var job = await service.EndOfAsync((await begun.Content.ReadFromJsonAsync(ContractsJson.Default.JobView, Cancel))!.Id);
        return $"{(remove ? "removed from" : "granted")} {install.Name}: {job.State}";
    }

    /// <summary>Edits a document of the demo; an edit that is refused is one, too.</summary>
    private static async Task<string> EditAsync(TestedService service, string kind, Random random, Func<string, int, string> edit)
    {
        var files = Directory.GetFiles(Path.Combine(Checkout.Top, "demo-data", kind), "*.yaml").Order(StringComparer.Ordinal)
            .ToList();
        var file = files[random.Next(files.Count)];
        var text = edit(await File.ReadAllTextAsync(file, Cancel), random.Next(1000));
        using var answer = await service.AddAsync(kind, Path.GetFileName(file), Encoding.UTF8.GetBytes(text));
        return $"{Path.GetFileName(file)} edited: {(int)answer.StatusCode}";
    }

    /// <summary>A sheet without one of the needs that stand on a line of their own.</summary>
    private static string WithoutNeed(string text, int at)
    {
        var lines = text.Split('\n').ToList();
        var needs = Enumerable.Range(0, lines.Count)
            .Where(i => lines[i].TrimStart().StartsWith("- {", StringComparison.Ordinal)).ToList();
        if (needs.Count > 0) lines.RemoveAt(needs[at % needs.Count]);
        return string.Join('\n', lines);
    }

    /// <summary>The estate with other limits of age.</summary>
    private static string Aged(string text, int at) =>
        text.Replace("no-older-than-hours: 72", $"no-older-than-hours: {(at % 200) + 1}", StringComparison.Ordinal);

    private static async Task ConfirmAsync(TestedService service, bool held) =>
        (await service.Http.PostAsJsonAsync(
            "/api/installs/wheyline-lines/confirmations", new ConfirmationOrder("sender", "Tanker clerk", held),
            ContractsJson.Default.ConfirmationOrder, Cancel)).Dispose();

    private static async Task<string> AcceptAsync(TestedService service, string install, Random random)
    {
        using var read = await service.Http.GetAsync($"/api/installs/{install}/fit", Cancel);
        if (!read.IsSuccessStatusCode) return "nothing to accept";
        var fit = (await read.Content.ReadFromJsonAsync(ContractsJson.Default.FitView, Cancel))!;
        var off = fit.Accounts.SelectMany(a => a.Rights).Where(r => r.Verdict is "missing" or "excess" or "forbidden").ToList();
        if (off.Count == 0) return "nothing off";
        var until = DateOnly.FromDateTime(service.Clock.GetUtcNow().Date).AddDays(random.Next(20));
        var order = new ExceptionOrder(off[random.Next(off.Count)].Id, "until the release", until);
        using var answer = await service.Http.PostAsJsonAsync(
            $"/api/installs/{install}/exceptions", order, ContractsJson.Default.ExceptionOrder, Cancel);
        if (random.Next(3) == 0)
            (await service.Http.PostAsync($"/api/installs/{install}/exceptions/1/end", null, Cancel)).Dispose();
        return $"accepted {order.Target} of {install}: {(int)answer.StatusCode}";
    }

    /// <summary>Something changes at a host; nobody has looked since.</summary>
    private static Task ChangeHostAsync(TestedService service, Random random) => service.ChangeSimulationAsync(
        s => s["hosts"].Named("fm-book01")["localGroups"].Named("Event Log Readers")["members"]!.AsArray()
            .Add(random.Next(2) == 0 ? "svc-curd-labeller" : "svc-curd-book"),
        Cancel);
}
