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

        var simulation = Path.Combine(service.Data, "simulation", "fennmoor.json");
        var state = JsonNode.Parse(await File.ReadAllTextAsync(simulation, Cancel))!;
        state["hosts"]!.AsArray().Single(h => (string?)h!["name"] == "fm-book01")!["localGroups"]!.AsArray()
            .Single(g => (string?)g!["name"] == "Event Log Readers")!["members"]!.AsArray().Add("svc-curd-labeller");
        await File.WriteAllTextAsync(simulation, state.ToJsonString(), Cancel);
        await service.RunAsync($"installs/{Install}/verify");
        var drift = await service.GetAsync($"installs/{Install}/drift", ContractsJson.Default.DriftView);
        drift.Lines.ShouldHaveSingleItem().ShouldSatisfyAllConditions(
            l => l.Way.ShouldBe("worse"), l => l.Account.ShouldBe("svc-curd-labeller"), l => l.Words.ShouldStartWith(
                "svc-curd-labeller: Event Log Readers on fm-book01: new, and nothing asks for it"), l => l.MadeHere.ShouldBeNull());
        (await service.GetAsync("log?take=20", ContractsJson.Default.IReadOnlyListLogEntryView))
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

    private static Task<IReadOnlyList<KeptFitView>> HistoryAsync(TestedService service) =>
        service.GetAsync($"installs/{Install}/history", ContractsJson.Default.IReadOnlyListKeptFitView);
}
