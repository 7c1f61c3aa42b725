using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>A disk that is full is told, and outlasted: by calls, and by a job under way.</summary>
public sealed class FullDiskTests
{
    private const string Install = "thermograph-dataroom";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task It_is_told_and_work_goes_on_when_there_is_room()
    {
        await using var service = await TestedService.StartProcessAsync();
        await service.StopAsync();
        await using var disk = await SmallDisk.UnderAsync(service);
        await service.RestartAsync();
        await disk.FillAsync();
        var secret = new SecretValue(new string('x', 900));
        await Waiting.UntilAsync("a change meets the full disk", async () =>
        {
            using var set = await service.Http.PutAsJsonAsync(
                "/api/secrets/one", secret, ContractsJson.Default.SecretValue, Cancel);
            return (int)set.StatusCode == 507 && (await set.Content.ReadAsStringAsync(Cancel)).Contains(
                "disk of the data folder is full", StringComparison.Ordinal);
        });
        using var health = await service.Http.GetAsync("/health", Cancel);
        ((int)health.StatusCode, await health.Content.ReadAsStringAsync(Cancel)).ShouldSatisfyAllConditions(
            h => h.Item1.ShouldBe(503), h => h.Item2.ShouldContain("make room"));
        (await service.Http.GetAsync("/health/live", Cancel)).EnsureSuccessStatusCode();

        disk.MakeRoom();
        await service.SetSecretAsync("two", "there is room again");
        await Waiting.UntilAsync(
            "it is healthy again", async () => (await service.Http.GetAsync("/health", Cancel)).IsSuccessStatusCode);
        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
    }

    [Fact]
    public async Task A_job_stands_still_and_goes_on_from_its_journal()
    {
        await using var service = await PreparedData.Demo.StartProcessAsync();
        await service.RunAsync($"installs/{Install}/verify");
        await service.StopAsync();
        await using var disk = await SmallDisk.UnderAsync(service);
        await service.RestartAsync();
        var steps = (await service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView)).Give
            .Where(s => s.Blocked is null).Select(s => s.Id).ToList();
        steps.Count.ShouldBeGreaterThan(10);
        await disk.FillAsync(leave: 200); // for the order and some steps, and not for all
        using var accepted = await service.Http.PostAsJsonAsync(
            $"/api/installs/{Install}/grant", new GrantOrder(false, steps), ContractsJson.Default.GrantOrder, Cancel);
        var job = (await accepted.Content.ReadFromJsonAsync(ContractsJson.Default.JobView, Cancel))!;
        await Waiting.UntilAsync(
            "the job meets the full disk",
            () => service.Output.Contains($"Job {job.Id} stands still", StringComparison.Ordinal));

        disk.MakeRoom();
        var end = await service.EndOfAsync(job.Id);
        end.State.ShouldBe("done", end.Message);
        end.Steps.Select(s => s.State).ShouldAllBe(s => s == "made");
        await service.RunAsync($"installs/{Install}/verify");
        (await service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView)).Give
            .ShouldAllBe(s => !steps.Contains(s.Id));
        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
    }
}
