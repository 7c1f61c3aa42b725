using System.Globalization;
using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// The service is killed again and again while it undoes, retires and renews, each time at another step and stage, and goes on:
/// nothing is lost, doubled or unknown. <c>JUSTRIGHT_KILLS</c> sets how many kills there are in all; 42 unless it says so.
/// </summary>
public sealed class KillTests
{
    private const string Install = "thermograph-dataroom";
    private static readonly int Kills = int.Parse(Environment.GetEnvironmentVariable("JUSTRIGHT_KILLS") ?? "42", CultureInfo.InvariantCulture);
    private static readonly string[] Stages = ["looked", "intended", "made", "looked-again", "recorded"];
    private static readonly string[] RenewalStages = ["renewal-looked", "renewal-intended", "renewal-made", "renewal-recorded"];

    private static readonly PreparedData Granted = new(async service =>
    {
        await service.AddDemoAsync();
        for (var i = 0; i < 2; i++) await service.RunAsync($"installs/{Install}/verify");
        (await service.GrantAllAsync(Install)).State.ShouldBe("done");
    });

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Undoing_goes_on_after_every_kill()
    {
        for (var (killed, round) = (0, 0); killed < Kills / 3; round++)
        {
            await using var service = await Granted.StartAsync();
            var grant = (await service.GetAsync($"installs/{Install}/jobs", ContractsJson.Default.IReadOnlyListJobView)).Single(j => j.Kind == "grant");
            var (job, kills) = await RunAsync(service, $"jobs/{grant.Id}/undo", null, new Random(round), Kills / 3 - killed);
            killed += kills;
            job.Steps.Select(s => s.State).Distinct().ShouldBe(["made"]);
            (await service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView)).Give.Count.ShouldBeGreaterThanOrEqualTo(grant.Steps.Count);
        }
    }

    [Fact]
    public async Task Retiring_goes_on_after_every_kill()
    {
        for (var (killed, round) = (0, 0); killed < Kills / 3; round++)
        {
            await using var service = await Granted.StartAsync();
            (await service.Http.PostAsJsonAsync($"/api/installs/{Install}/stage", new StageOrder("retiring"), ContractsJson.Default.StageOrder, Cancel)).EnsureSuccessStatusCode();
            var worklist = await service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView);
            var order = new GrantOrder(true, [.. worklist.Remove.Where(s => s.Blocked is null).Select(s => s.Id)]);
            var (job, kills) = await RunAsync(service, $"installs/{Install}/grant", JsonContent.Create(order, ContractsJson.Default.GrantOrder), new Random(round), Kills / 3 - killed);
            killed += kills;
            job.Steps.Select(s => s.State).Distinct().ShouldBe(["made"]);
            (await service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView)).Remove.ShouldAllBe(s => s.Blocked != null);
        }
    }

    [Fact]
    public async Task Renewing_goes_on_after_every_kill()
    {
        for (var (killed, round) = (0, 0); killed < Kills / 3; round++)
        {
            await using var service = await PasswordTests.Ready.StartAsync();
            var random = new Random(round);
            await service.StopAsync();
            await HaltingAsync(service, 1, RenewalStages, random);
            using var begun = await service.Http.PostAsync($"/api/{PasswordTests.Path}/renewals", null, Cancel);
            var renewal = (await begun.Content.ReadFromJsonAsync(ContractsJson.Default.RenewalView, Cancel))!;
            for (var step = 2; step <= 8; step++)
            {
                var ended = async () => await service.GetAsync($"renewals/{renewal.Id}", ContractsJson.Default.RenewalView) is { Job: null, Next: not "go" };
                if (await KilledAsync(service, ended)) killed++;
                await HaltingAsync(service, step, RenewalStages, random);
                if (step != 5) continue;
                renewal = await RenewalCrashTests.AtRestAsync(service, renewal.Id);
                await service.StopAsync();
                await HaltingAsync(service, 6, RenewalStages, random);
                (await service.Http.PostAsync($"/api/renewals/{renewal.Id}/steps/5", PasswordTests.Word("done"), Cancel)).EnsureSuccessStatusCode();
            }

            renewal = await RenewalCrashTests.AtRestAsync(service, renewal.Id);
            renewal.ShouldSatisfyAllConditions(r => r.Words.ShouldBe("renewed"), r => r.Divided.ShouldBeEmpty());
            await OnceAsync(service, renewal.Steps.Where(s => s.Act is not ("type" or "check")).Select(s => s.Words));
        }
    }

    /// <summary>Runs a job and kills the service once a step, at a stage of chance, as often as is left.</summary>
    private static async Task<(JobView Job, int Kills)> RunAsync(ServiceProcess service, string path, HttpContent? order, Random random, int most)
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

        async Task<bool> EndedAsync() => await service.GetAsync($"jobs/{job.Id}", ContractsJson.Default.JobView) is { State: not ("queued" or "running") };
    }

    /// <summary>Starts the service so that it stands still at a stage of a step.</summary>
    private static async Task HaltingAsync(ServiceProcess service, int step, string[] stages, Random random)
    {
        File.Delete(Path.Combine(service.Data, "halted-for-rehearsal"));
        await service.RestartAsync("--JustRight:RehearseHaltAt", $"{step}:{stages[random.Next(stages.Length)]}");
    }

    /// <summary>Kills the service when it stands still; false, and the service runs, when what it does ended first.</summary>
    private static async Task<bool> KilledAsync(ServiceProcess service, Func<Task<bool>> ended)
    {
        var halted = false;
        await Waiting.UntilAsync("the halt or the end was reached", async () => (halted = File.Exists(Path.Combine(service.Data, "halted-for-rehearsal"))) || await ended());
        if (halted) await service.KillAsync();
        else await service.StopAsync();
        return halted;
    }

    /// <summary>Each step was meant once and made once, and the log is whole.</summary>
    private static async Task OnceAsync(ServiceProcess service, IEnumerable<string> steps)
    {
        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
        var log = await service.GetAsync("log?take=500", ContractsJson.Default.IReadOnlyListLogEntryView);
        foreach (var step in steps)
        {
            log.Count(e => e.Action == "intend" && e.Detail.StartsWith(step + ";", StringComparison.Ordinal)).ShouldBe(1, step);
            log.Count(e => e.Action == "make" && e.Detail.StartsWith(step + ";", StringComparison.Ordinal)).ShouldBe(1, step);
        }
    }
}
