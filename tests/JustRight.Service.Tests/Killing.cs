using System.Globalization;
using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// Kills the service again and again, each time at another step and stage, and lets it go on: nothing is lost, doubled or
/// unknown.
/// <c>JUSTRIGHT_KILLS</c> sets how many kills there are in undoing, retiring and renewing together; 15 unless it says so.
/// </summary>
internal static class Killing
{
    public const string Install = "thermograph-dataroom";

    public static readonly string[] Stages = ["looked", "intended", "made", "looked-again", "recorded"];

    /// <summary>How many kills there are of each.</summary>
    public static readonly int Each = int.Parse(
        Environment.GetEnvironmentVariable("JUSTRIGHT_KILLS") ?? "15", CultureInfo.InvariantCulture) / 3;

    /// <summary>The demo with one install granted.</summary>
    public static readonly PreparedData Granted = new(async service =>
    {
        await service.AddDemoAsync();
        for (var i = 0; i < 2; i++) await service.RunAsync($"installs/{Install}/verify");
        (await service.GrantAllAsync(Install)).State.ShouldBe("done");
    });

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>Runs a job and kills the service once a step, at a stage of chance, as often as is left.</summary>
    public static async Task<(JobView Job, int Kills)> RunAsync(
        TestedService service, string path, HttpContent? order, Random random, int most)
    {
        await service.StopAsync();
        await HaltingAsync(service, 1, Stages, random);
        using var asked = await service.Http.PostAsync($"/api/{path}", order, Cancel);
        var job = (await asked.Content.ReadFromJsonAsync(ContractsJson.Default.JobView, Cancel))!;
        var kills = 0;
        for (var step = 2; kills < most && await KilledAsync(service, EndedAsync); step++)
        {
            kills++;
            await HaltingAsync(service, step, Stages, random);
        }

        if (!await EndedAsync())
        {
            await service.KillAsync();
            await service.RestartAsync();
        }

        job = await service.EndOfAsync(job.Id);
        job.State.ShouldBe("done", job.Message);
        await OnceAsync(service, job.Steps.Select(s => s.Words));
        return (job, kills);

        async Task<bool> EndedAsync() =>
            await service.GetAsync($"jobs/{job.Id}", ContractsJson.Default.JobView) is { State: not ("queued" or "running") };
    }

    /// <summary>Starts the service so that it stands still at a stage of a step.</summary>
    public static async Task HaltingAsync(TestedService service, int step, string[] stages, Random random)
    {
        File.Delete(Path.Combine(service.Data, "halted-for-rehearsal"));
        await service.RestartAsync("--JustRight:RehearseHaltAt", $"{step}:{stages[random.Next(stages.Length)]}");
    }

    /// <summary>Kills the service when it stands still; false, and the service runs on, when what it does ended first.</summary>
    public static async Task<bool> KilledAsync(TestedService service, Func<Task<bool>> ended)
    {
        var halted = false;
        await Waiting.UntilAsync(
            "the halt or the end was reached", async () =>
            (halted = File.Exists(Path.Combine(service.Data, "halted-for-rehearsal"))) || await ended());
        if (halted) await service.KillAsync();
        return halted;
    }

    /// <summary>Each step was meant once and made once, and the log is whole.</summary>
    public static async Task OnceAsync(TestedService service, IEnumerable<string> steps)
    {
        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
        var log = (await service.GetAsync("log?take=500", ContractsJson.Default.LogPage)).Items;
        foreach (var step in steps)
        {
            log.Count(e => e.Action == "intend" && e.Detail.StartsWith(step + ";", StringComparison.Ordinal)).ShouldBe(1, step);
            log.Count(e => e.Action == "make" && e.Detail.StartsWith(step + ";", StringComparison.Ordinal)).ShouldBe(1, step);
        }
    }
}
