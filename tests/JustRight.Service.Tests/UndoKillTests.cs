using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>The service is killed again and again while it undoes a grant.</summary>
public sealed class UndoKillTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Undoing_goes_on_after_every_kill()
    {
        for (var (killed, round) = (0, 0); killed < Killing.Each; round++)
        {
            await using var service = await Killing.Granted.StartProcessAsync();
            var grant = (await service.GetAsync($"runs?install={Killing.Install}", ContractsJson.Default.RunPage)).Items
                .Single(j => j.Kind == "grant");
            var (job, kills) = await Killing.RunAsync(
                service, $"runs/{grant.Id}/undo", null, new Random(round), Killing.Each - killed);
            killed += kills;
            job.Steps.Select(s => s.State).Distinct().ShouldBe(["made"]);
            (await service.GetAsync($"installs/{Killing.Install}/worklist", ContractsJson.Default.WorklistView)).Give.Count
                .ShouldBeGreaterThanOrEqualTo(grant.Total);
        }
    }
}
