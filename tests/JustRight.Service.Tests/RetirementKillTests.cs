using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>The service is killed again and again while it retires an install.</summary>
public sealed class RetirementKillTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Retiring_goes_on_after_every_kill()
    {
        for (var (killed, round) = (0, 0); killed < Killing.Each; round++)
        {
            await using var service = await Killing.Granted.StartProcessAsync();
            (await service.Http.PostAsJsonAsync(
                $"/api/installs/{Killing.Install}/stage", new StageOrder("retiring"), ContractsJson.Default.StageOrder,
                Cancel)).EnsureSuccessStatusCode();
            var worklist = await service.GetAsync($"installs/{Killing.Install}/worklist", ContractsJson.Default.WorklistView);
            var order = new GrantOrder(true, [.. worklist.Remove.Where(s => s.Blocked is null).Select(s => s.Id)]);
            var (job, kills) = await Killing.RunAsync(
                service, $"installs/{Killing.Install}/grant", JsonContent.Create(order, ContractsJson.Default.GrantOrder),
                new Random(round), Killing.Each - killed);
            killed += kills;
            job.Steps.Select(s => s.State).Distinct().ShouldBe(["made"]);
            (await service.GetAsync($"installs/{Killing.Install}/worklist", ContractsJson.Default.WorklistView)).Remove
                .ShouldNotContain(s => order.Steps.Contains(s.Id));
        }
    }
}
