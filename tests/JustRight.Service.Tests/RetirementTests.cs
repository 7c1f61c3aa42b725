using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>Taking installs away, in the simulation, through the service.</summary>
public sealed class RetirementTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Tallystick_goes_and_leaves_what_Thermograph_needs_with_a_way_back_until_it_is_removed()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync("installs/tallystick-dataroom/verify");
        (await service.GrantAllAsync("tallystick-dataroom", remove: false)).State.ShouldBe("done");
        (await service.AddAsync("installs", "later/thermograph-depot.yaml")).EnsureSuccessStatusCode();
        await service.RunAsync("installs/thermograph-depot/verify");
        var before = await FitsAsync(service);
        var held = await SimulationAsync(service);

        using var wrong = await StageAsync(service, "tallystick-dataroom", "gone");
        (wrong.StatusCode, await wrong.Content.ReadAsStringAsync(Cancel))
            .ShouldSatisfyAllConditions(
                w => w.StatusCode.ShouldBe(HttpStatusCode.BadRequest),
                w => w.Item2.ShouldContain("planned, installed, retiring"));
        (await StageAsync(service, "tallystick-dataroom", "retiring")).EnsureSuccessStatusCode();
        var worklist = await WorklistAsync(service);
        worklist.NotOffered.ShouldContain(n => n.Reason == "kept: thermograph-depot uses it");
        worklist.Remove[0].Words.ShouldBe(@"disable the account FENNMOOR\svc-tally-installer");
        worklist.Remove.ShouldNotContain(s => s.Words == @"remove FENNMOOR\svc-tally from fm-tally01\Administrators");
        var done = await service.GrantAllAsync("tallystick-dataroom", remove: true);
        (done.State, done.CanBeUndone).ShouldBe(("done", true), done.Message);
        done.Message!.ShouldEndWith("now nothing left");
        (await FitsAsync(service)).Where(f => f.Name != "tallystick-dataroom")
            .ShouldBe(before.Where(f => f.Name != "tallystick-dataroom"));
        (await service.GetAsync("estates/fennmoor/passwords", ContractsJson.Default.PasswordsView)).Accounts.ShouldNotContain(
            p => p.Account == "svc-tally-installer");

        // What is left waits: nothing can be removed before its time, by whatever way it is asked for.
        var waiting = (await WorklistAsync(service)).Remove;
        waiting.Select(s => s.Words).ShouldContain(@"delete the account FENNMOOR\svc-tally-installer");
        waiting.ShouldAllBe(s => s.Blocked!.StartsWith("not before", StringComparison.Ordinal));
        using var early = await service.Http.PostAsJsonAsync(
            "/api/installs/tallystick-dataroom/grant", new GrantOrder(true, [waiting[0].Id]), ContractsJson.Default.GrantOrder,
            Cancel);
        early.StatusCode.ShouldBe(HttpStatusCode.Conflict);

        var removal = (await service.GetAsync("estates/fennmoor/calendar", ContractsJson.Default.CalendarView)).Entries.Single(
            e => e.Subject == "tallystick-dataroom");
        removal.Kind.ShouldBe("removal");
        removal.At.ShouldBe(DateTimeOffset.UtcNow.AddDays(30), TimeSpan.FromMinutes(10));

        (await service.RunAsync($"runs/{done.Id}/undo")).State.ShouldBe("done");
        (await SimulationAsync(service)).ShouldBe(held);
        (await WorklistAsync(service)).Remove[0].Words.ShouldBe(@"disable the account FENNMOOR\svc-tally-installer");
    }

    [Fact]
    public async Task Whichever_install_goes_no_other_misses_anything_by_it()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        (await service.AddAsync("installs", "later/thermograph-depot.yaml")).EnsureSuccessStatusCode();
        // hosts that restart answer later
        for (var i = 0; i < 3; i++) await service.RunAsync("installs/thermograph-depot/verify");
        foreach (var install in await FitsAsync(service)) await GiveAsync(service, install.Name);
        foreach (var (name, _) in await FitsAsync(service))
        {
            var before = await FitsAsync(service);
            (await StageAsync(service, name, "retiring")).EnsureSuccessStatusCode();
            var steps = (await service.GetAsync($"installs/{name}/worklist", ContractsJson.Default.WorklistView)).Remove.Where(
                s => s.Blocked is null)
                .Select(s => s.Id).ToList();
            if (steps.Count == 0) continue;
            var job = await service.RunAsync($"installs/{name}/grant", new GrantOrder(true, steps));
            job.State.ShouldBe("done", $"{name}: {job.Message}");
            foreach (var (other, missing) in (await FitsAsync(service)).Where(f => f.Name != name))
                missing.ShouldBeLessThanOrEqualTo(
                    before.First(b => b.Name == other).Missing, $"{name} was retired, {other} lost something");
            (await service.RunAsync($"runs/{job.Id}/undo")).State.ShouldBe("done", name);
            (await StageAsync(service, name, "planned")).EnsureSuccessStatusCode();
        }
    }

    private static async Task GiveAsync(TestedService service, string install)
    {
        var steps = (await service.GetAsync($"installs/{install}/worklist", ContractsJson.Default.WorklistView)).Give
            .Where(s => s is { Blocked: null, Asks: null }).Select(s => s.Id).ToList();
        if (steps.Count > 0) await service.RunAsync($"installs/{install}/grant", new GrantOrder(false, steps));
    }

    /// <summary>Installs with what they miss: what others hold too much may well become less.</summary>
    private static async Task<List<(string Name, int Missing)>> FitsAsync(TestedService service) =>
        [.. (await service.InstallsAsync()).Select(i =>
            (i.Name, i.Fit?.Missing ?? 0))];

    private static Task<WorklistView> WorklistAsync(TestedService service) =>
        service.GetAsync("installs/tallystick-dataroom/worklist", ContractsJson.Default.WorklistView);

    private static Task<HttpResponseMessage> StageAsync(TestedService service, string install, string stage) =>
        service.Http.PostAsJsonAsync(
            $"/api/installs/{install}/stage", new StageOrder(stage), ContractsJson.Default.StageOrder, Cancel);

    /// <summary>The simulated estate, without regard to the order of members, in which undoing puts them back last.</summary>
    private static async Task<string> SimulationAsync(TestedService service)
    {
        return Sorted(JsonNode.Parse(
            await File.ReadAllTextAsync(Path.Combine(service.Data, "simulation", "fennmoor.json"), Cancel))!)!.ToJsonString();

        static JsonNode? Sorted(JsonNode? node) => node switch
        {
            JsonArray array => new JsonArray([.. array.Select(Sorted).OrderBy(n => n?.ToJsonString(), StringComparer.Ordinal)]),
            JsonObject members => new JsonObject(members.Select(m => KeyValuePair.Create(m.Key, Sorted(m.Value)))),
            _ => node?.DeepClone(),
        };
    }
}
