using System.Net;
using System.Text.Json.Nodes;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>What is kept of fits, and what is said of the difference between two: made from here, or behind our back.</summary>
public sealed class HistoryTests
{
    private const string Install = "curdhouse-books";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_right_that_somebody_added_shows_once_and_what_we_made_is_said_to_be_ours()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        using var early = await service.Http.GetAsync($"/api/installs/{Install}/drift", Cancel);
        early.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        await service.RunAsync($"installs/{Install}/verify"); // two servers do not answer at first
        await service.RunAsync($"installs/{Install}/verify");
        await service.RunAsync($"installs/{Install}/verify");
        await service.RunAsync($"installs/{Install}/verify");
        var quiet = await HistoryAsync(service);
        quiet[0].Seen.ShouldBeGreaterThan(1); // nothing new: only the end moved
        var count = quiet.Count;

        await ChangeAsync(service, h => h["localGroups"]!.AsArray()
            .Single(g => (string?)g!["name"] == "Event Log Readers")!["members"]!.AsArray().Add("svc-curd-labeller"));
        await service.RunAsync($"installs/{Install}/verify");
        var drift = await service.GetAsync($"installs/{Install}/drift", ContractsJson.Default.DriftView);
        drift.Lines.ShouldHaveSingleItem().ShouldSatisfyAllConditions(
            l => l.Way.ShouldBe("worse"), l => l.Account.ShouldBe("svc-curd-labeller"), l => l.Words.ShouldStartWith(
                "svc-curd-labeller: Event Log Readers on fm-book01: new, and nothing asks for it"), l => l.MadeHere.ShouldBeNull());
        (await service.GetAsync("log?take=20", ContractsJson.Default.LogPage)).Items
            .ShouldContain(e => e.Action == "drift" && e.Subject == Install && e.Detail == drift.Lines[0].Words);

        (await service.GrantAllAsync(Install, remove: true)).State.ShouldBe("done");
        var back = await service.GetAsync($"installs/{Install}/drift?from={count + 1}", ContractsJson.Default.DriftView);
        back.Lines.Single(l => l.Right.StartsWith("Event Log Readers", StringComparison.Ordinal))
            .ShouldSatisfyAllConditions(
                l => l.Way.ShouldBe("better"),
                l => l.MadeHere.ShouldNotBeNull()
                    .ShouldStartWith(@"remove FENNMOOR\svc-curd-labeller from fm-book01\Event Log Readers"));
        (await service.GetAsync($"installs/{Install}/drift?from=1&to=1", ContractsJson.Default.DriftView)).Lines.ShouldBeEmpty();
        using var none = await service.Http.GetAsync($"/api/installs/{Install}/drift?from=99", Cancel);
        (none.StatusCode, await none.Content.ReadAsStringAsync(Cancel))
            .ShouldSatisfyAllConditions(
                n => n.StatusCode.ShouldBe(HttpStatusCode.NotFound), n => n.Item2.ShouldContain("There is no fit 99"));
    }

    [Fact]
    public async Task A_host_that_does_not_answer_is_no_change_and_no_news()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        for (var i = 0; i < 3; i++) await service.RunAsync("estates/fennmoor/survey"); // two servers do not answer at first
        await service.RunAsync($"installs/{Install}/verify");
        await ChangeAsync(service, h => h["localGroups"]!.AsArray()
            .Single(g => (string?)g!["name"] == "Event Log Readers")!["members"]!.AsArray().Add("svc-curd-labeller"));
        await service.RunAsync($"installs/{Install}/verify");
        var before = await HistoryAsync(service);
        var news = (await LogAsync(service)).Count(e => e.Action == "drift");

        await ChangeAsync(service, h => h["unreachable"] = "fm-book01 does not answer: it is away");
        await service.RunAsync("estates/fennmoor/survey");
        var away = await service.GetAsync($"installs/{Install}/drift", ContractsJson.Default.DriftView);
        away.Lines.ShouldAllBe(l => l.Way == "other");
        away.Lines.ShouldContain(l => l.Words.EndsWith("its place could not be read", StringComparison.Ordinal));
        await ChangeAsync(service, h => h["unreachable"] = null);
        await service.RunAsync("estates/fennmoor/survey");
        var back = await service.GetAsync($"installs/{Install}/drift", ContractsJson.Default.DriftView);
        back.Lines.ShouldAllBe(l => l.Way == "other");
        back.Lines.ShouldContain(l =>
            l.Account == "svc-curd-labeller" && l.Words.EndsWith("seen again, as before", StringComparison.Ordinal));

        (await HistoryAsync(service)).Count.ShouldBe(before.Count + 2);
        (await LogAsync(service)).Count(e => e.Action == "drift").ShouldBe(news);
        foreach (var install in (await service.InstallsAsync())
            .Where(i => i.Name != Install))
            (await service.GetAsync($"installs/{install.Name}/history", ContractsJson.Default.IReadOnlyListKeptFitView))
                .Count(f => f.From > before[0].From).ShouldBe(0, install.Name);
    }

    private static Task<IReadOnlyList<LogEntryView>> LogAsync(TestedService service) =>
        service.LogAsync();

    /// <summary>Changes fm-book01 behind our back.</summary>
    private static async Task ChangeAsync(TestedService service, Action<JsonObject> change)
    {
        var simulation = Path.Combine(service.Data, "simulation", "fennmoor.json");
        var state = JsonNode.Parse(await File.ReadAllTextAsync(simulation, Cancel))!;
        change(state["hosts"]!.AsArray().Single(h => (string?)h!["name"] == "fm-book01")!.AsObject());
        await File.WriteAllTextAsync(simulation, state.ToJsonString(), Cancel);
    }

    private static Task<IReadOnlyList<KeptFitView>> HistoryAsync(TestedService service) =>
        service.GetAsync($"installs/{Install}/history", ContractsJson.Default.IReadOnlyListKeptFitView);
}
