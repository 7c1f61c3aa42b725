using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using JustRight.Contracts;

namespace JustRight.Cli.Tests;

/// <summary>
/// A run from the client: a step that fails in the middle holds back what hangs on it and nothing else, and is tried again; steps
/// are chosen; and who stops watching is told that it goes on.
/// </summary>
public sealed class RunTests() : ClientScene(() => PreparedData.Demo.StartAsync())
{
    private const string Install = "thermograph-dataroom";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_step_that_fails_holds_back_what_hangs_on_it_alone_and_is_tried_again()
    {
        await RunAsync("verify", Install);
        var offered = await ListedAsync();
        // between looking at the list and carrying it out a local group is renamed, and an instance is taken away
        await ChangeAsync(s => Group(s, "Event Log Readers")["name"] = "Event Log Reader");
        await ChangeAsync(s => Instance(s, "fm-sql01")["name"] = "fm-sql01-away");
        var order = new GrantOrder(false, [.. offered.Select(s => s.GetProperty("id").GetString()!)]);
        var granted = await Service.RunAsync($"installs/{Install}/grant", order);
        granted.State.ShouldBe("failed", granted.Message);

        var id = (await NewestAsync()).GetProperty("id").GetString()!;
        (await RunAsync("run", "show", id)).ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("which failed"),
            r => r.Out.ShouldContain($"justright run continue {id}"), r => r.Out.ShouldContain($"justright run skip {id} "));
        var steps = (await ShownAsync(id)).GetProperty("steps").EnumerateArray().ToList();
        steps.ShouldContain(s => State(s) == "waiting", "a user of a database hangs on its login");
        steps.Count(s => State(s) is "failed" or "refused").ShouldBeGreaterThan(1, granted.Message);
        foreach (var waits in steps.Where(s => State(s) == "waiting"))
            State(steps[waits.GetProperty("heldBy").GetInt32() - 1]).ShouldBe("refused");
        steps.Count(s => State(s) == "made").ShouldBeGreaterThan(offered.Count / 2);

        await ChangeAsync(s => Group(s, "Event Log Reader")["name"] = "Event Log Readers");
        await ChangeAsync(s => Instance(s, "fm-sql01-away")["name"] = "fm-sql01");
        var again = await RunAsync("run", "continue", id);
        again.Code.ShouldBe(0, again.Out + again.Error);
        (await ShownAsync(id)).GetProperty("steps").EnumerateArray().ShouldAllBe(s => State(s) == "made");
        (await RunAsync("run", "continue", id))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("There is nothing to try again"));
        (await RunAsync("run", "list", Install)).Out.ShouldContain(id);
        (await RunAsync("run", "show", id)).Out.ShouldContain("made");
        var undone = await RunAsync("undo", id, "--yes");
        undone.Code.ShouldBe(0, undone.Out + undone.Error);
        (await RunAsync("log", "check")).Out.ShouldContain("The log is sound");
    }

    [Fact]
    public async Task A_step_is_handed_to_a_person_skipped_with_what_hangs_on_it_and_the_half_run_undone()
    {
        await RunAsync("verify", Install);
        var offered = await ListedAsync();
        await ChangeAsync(s => Group(s, "Event Log Readers")["name"] = "Event Log Reader");
        await ChangeAsync(s => Instance(s, "fm-sql01")["name"] = "fm-sql01-away");
        await Service.RunAsync(
            $"installs/{Install}/grant", new GrantOrder(false, [.. offered.Select(s => s.GetProperty("id").GetString()!)]));
        var id = (await NewestAsync()).GetProperty("id").GetString()!;
        var steps = (await ShownAsync(id)).GetProperty("steps").EnumerateArray().ToList();
        var member = Number(steps.Single(s => State(s) == "refused" && Words(s).Contains("Event Log Readers")));
        (await RunAsync("run", "hand-over", id, member, "--note", "ticket 4711")).ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(4), r => r.Out.ShouldContain($"justright run done {id} {member}"));
        await ChangeAsync(s => Group(s, "Event Log Reader")["name"] = "Event Log Readers");
        (await RunAsync("run", "done", id, member)).ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(1, "it is looked at"), r => r.Out.ShouldContain("and it is not seen"));
        (await RunAsync("run", "skip", id, member)).Code.ShouldBe(2, "not without a reason");

        var login = steps.First(s => State(s) == "refused" && s.GetProperty("leftOutWithIt").GetArrayLength() > 0);
        var skipped = await RunAsync("run", "skip", id, Number(login), "--why", "the instance moves on Friday");
        skipped.Code.ShouldBe(1, "another one failed as well");
        foreach (var along in login.GetProperty("leftOutWithIt").EnumerateArray())
            State((await ShownAsync(id)).GetProperty("steps")[along.GetInt32() - 1]).ShouldBe("skipped");
        (await RunAsync("run", "retry", id, member)).Out.ShouldContain("is for a person");

        (await RunAsync("run", "stop", id)).ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("stopped by"), r => r.Out.ShouldContain($"run continue {id}"));
        (await RunAsync("run", "stop", id)).Code.ShouldBe(2);
        (await RunAsync("run", "list", "fennmoor")).Out.ShouldContain(id);
        (await RunAsync("run", "list", "fenmoor")).ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("Did you mean 'fennmoor'?"));
        await ChangeAsync(s => Instance(s, "fm-sql01-away")["name"] = "fm-sql01");
        await RunAsync("verify", Install);
        var undone = await RunAsync("run", "undo", id, "--yes");
        undone.Code.ShouldBe(0, undone.Out + undone.Error);
        // what a person did was theirs, and what only made others count has nothing to be undone
        (await ShownAsync(id)).GetProperty("steps").EnumerateArray().Where(s => State(s) == "made")
            .ShouldAllBe(s => Words(s).StartsWith("re", StringComparison.Ordinal));
        (await RunAsync("log", "check")).Out.ShouldContain("The log is sound");
    }

    [Fact]
    public async Task A_run_that_is_stopped_makes_its_step_to_the_end_and_is_gone_on_with()
    {
        await RunAsync("verify", Install);
        var offered = await ListedAsync();
        await Service.StopAsync();
        await Service.RestartAsync("--JustRight:RehearseHaltAt", "3:made");
        using var began = await Service.Http.PostAsJsonAsync(
            $"/api/installs/{Install}/grant",
            new GrantOrder(false, [.. offered.Select(s => s.GetProperty("id").GetString()!)]), ContractsJson.Default.GrantOrder,
            Cancel);
        await Service.HaltedAsync();
        var id = (await NewestAsync()).GetProperty("id").GetString()!;
        using var stop = await Service.Http.PostAsync($"/api/runs/{id}/stop", null, Cancel);
        stop.EnsureSuccessStatusCode();
        await Service.StopAsync(); // also then it is known that it was to stop
        await Service.RestartAsync();
        var rests = await Service.EndOfAsync(id);
        rests.State.ShouldBe("stopped");
        rests.Steps.Count(s => s.State == "made").ShouldBe(3, "what was begun is not left in doubt");
        (await RunAsync("run", "continue", id)).Code.ShouldBe(0);
        (await ShownAsync(id)).GetProperty("steps").EnumerateArray().ShouldAllBe(s => State(s) == "made");
    }

    [Fact]
    public async Task Chosen_steps_bring_along_what_they_hang_on_and_left_out_ones_take_along_what_hangs_on_them()
    {
        await RunAsync("verify", Install);
        var steps = await ListedAsync();
        var member = steps.FindIndex(s => s.GetProperty("hangsOn").GetArrayLength() > 0) + 1;
        var only = await RunAsync("grant", Install, "--only", $"{member}", "--yes");
        only.Code.ShouldBe(0, only.Out + only.Error);
        only.Out.ShouldContain($"comes along, for step {member} hangs on it");
        var made = (await ShownAsync((await NewestAsync()).GetProperty("id").GetString()!)).GetProperty("steps")
            .EnumerateArray().ToList();
        made.Count.ShouldBe(1 + only.Out.Split('\n').Count(l => l.Contains("comes along", StringComparison.Ordinal)));
        made.ShouldAllBe(s => State(s) == "made");

        var left = await ListedAsync();
        var maker = left.FindIndex(s => left.Any(o =>
            o.GetProperty("hangsOn").EnumerateArray().Any(n => n.GetInt32() == s.GetProperty("number").GetInt32()))) + 1;
        var without = await RunAsync("grant", Install, "--without", $"{maker}", "--yes");
        without.Out.ShouldContain($"is left out too, for it hangs on step {maker}");
        without.Code.ShouldBe(0, without.Out + without.Error);
        (await RunAsync("grant", Install, "--only", "99", "--yes"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("'99' names no steps"));
    }

    [Fact]
    public async Task Who_stops_watching_is_told_that_it_goes_on_and_how_to_see_it()
    {
        await RunAsync("verify", Install);
        await Service.StopAsync();
        await Service.RestartAsync("--JustRight:RehearseHaltAt", "3:made");
        var stopped = await RunAsync(["grant", Install, "--yes"], "", running => _ = Task.Run(async () =>
        {
            await Service.HaltedAsync();
            await Programs.MustRunAsync("kill", "-INT", running.Id.ToString(CultureInfo.InvariantCulture));
        }, Cancel));
        stopped.Code.ShouldBe(5, stopped.Error);
        stopped.Error.ShouldContain("It goes on in the service");
        var run = await NewestAsync();
        stopped.Error.ShouldContain($"justright run show {run.GetProperty("id").GetString()}");
        run.GetProperty("state").GetString().ShouldBe("running");
        await Service.StopAsync(); // it stands still for the rehearsal, and goes on at the next start
        await Service.RestartAsync();
        var seen = await RunAsync("run", "show", run.GetProperty("id").GetString()!);
        seen.Code.ShouldBe(0, seen.Out + seen.Error);
        (await NewestAsync()).GetProperty("state").GetString().ShouldBe("done");
    }

    private async Task<List<JsonElement>> ListedAsync() =>
        [.. JsonDocument.Parse((await RunAsync("grant", Install, "--list", "--json")).Out).RootElement.GetProperty("give")
            .EnumerateArray().Where(s => s.GetProperty("blocked").ValueKind == JsonValueKind.Null)];

    private async Task<JsonElement> NewestAsync() =>
        JsonDocument.Parse((await RunAsync("run", "list", Install, "--json")).Out).RootElement.GetProperty("items")
            .EnumerateArray()
            .First(j => j.GetProperty("kind").GetString() == "grant");

    private async Task<JsonElement> ShownAsync(string id) =>
        JsonDocument.Parse((await RunAsync("run", "show", id, "--json")).Out).RootElement;

    private static string Number(JsonElement step) =>
        step.GetProperty("number").GetInt32().ToString(CultureInfo.InvariantCulture);

    private static string Words(JsonElement step) => step.GetProperty("words").GetString()!;

    private static JsonObject Group(JsonObject state, string name) =>
        state["hosts"].Named("fm-temp02")["localGroups"].Named(name);

    private static JsonObject Instance(JsonObject state, string name) => state["instances"].Named(name);

    private static string State(JsonElement step) => step.GetProperty("state").GetString()!;

    private Task ChangeAsync(Action<JsonObject> change) => Service.ChangeSimulationAsync(change, Cancel);
}
