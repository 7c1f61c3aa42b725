using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// Runs of the kinds that the other tests of kills do not kill, a fix and a protection, are killed at every stage of a step: each
/// step is made once, and said once.
/// </summary>
public sealed class RunKillTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static readonly PreparedData Ready = new(async service =>
    {
        await service.AddDemoAsync();
        await service.GrantAllAsync("roundsman-dataroom");
    });

    [Fact]
    public async Task A_protection_goes_on_after_a_kill_at_every_stage()
    {
        await using var service = await Ready.StartProcessAsync();
        await EveryStageAsync(service, async () => await AskedAsync(
            service, "estates/fennmoor/protection",
            JsonContent.Create(new ProtectionOrder("people", true), ContractsJson.Default.ProtectionOrder)));
    }

    [Fact]
    public async Task A_fix_goes_on_after_a_kill_at_every_stage()
    {
        await using var service = await Ready.StartProcessAsync();
        await EveryStageAsync(service, async () =>
        {
            var trace = await service.TraceAsync("fennmoor", TraceTests.Order);
            return await AskedAsync(
                service, $"jobs/{trace.Id}/fix", JsonContent.Create(new FixOrder("1-spot"), ContractsJson.Default.FixOrder));
        });
    }

    /// <summary>Begins a run, kills it at one stage after the other, and undoes it.</summary>
    private static async Task EveryStageAsync(TestedService service, Func<Task<JobView>> begin)
    {
        var rounds = 0;
        foreach (var stage in Killing.Stages)
        {
            var made = await KilledAsync(service, stage, begin);
            made.Steps.ShouldAllBe(s => s.State == "made");
            var undone = await service.StartedAsync($"runs/{made.Id}/undo", null);
            undone.Steps.ShouldAllBe(s => s.State == "made");
            (await service.GetAsync($"runs/{made.Id}", ContractsJson.Default.JobView)).Steps
                .ShouldAllBe(s => s.State == "undone");
            rounds++;
            var log = (await service.GetAsync("log?take=500", ContractsJson.Default.LogPage)).Items;
            foreach (var step in made.Steps.Concat(undone.Steps).Select(s => s.Words))
                foreach (var action in new[] { "intend", "make" })
                    log.Count(e => e.Action == action && e.Detail.StartsWith(step + ";", StringComparison.Ordinal))
                        .ShouldBe(rounds, $"{action} {step}, {stage}");
        }

        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
    }

    private static async Task<JobView> KilledAsync(TestedService service, string stage, Func<Task<JobView>> begin)
    {
        await service.StopAsync();
        await Killing.HaltingAsync(service, 1, [stage], new Random(0));
        var run = await begin();
        await service.HaltedAsync();
        await service.KillAsync();
        await service.RestartAsync();
        var ended = await service.EndOfAsync(run.Id);
        ended.State.ShouldBe("done", ended.Message);
        return ended;
    }

    private static async Task<JobView> AskedAsync(TestedService service, string path, HttpContent? body)
    {
        using var asked = await service.Http.PostAsync("/api/" + path, body, Cancel);
        asked.IsSuccessStatusCode.ShouldBeTrue(await asked.Content.ReadAsStringAsync(Cancel));
        return (await asked.Content.ReadFromJsonAsync(ContractsJson.Default.JobView, Cancel))!;
    }
}
