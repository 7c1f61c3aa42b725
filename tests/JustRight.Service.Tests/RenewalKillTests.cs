using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>The service is killed again and again while it renews a password.</summary>
public sealed class RenewalKillTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Renewing_goes_on_after_every_kill()
    {
        for (var (killed, round) = (0, 0); killed < Killing.Each; round++)
        {
            await using var service = await PasswordTests.Ready.StartProcessAsync();
            var random = new Random(round);
            await service.StopAsync();
            await Killing.HaltingAsync(service, 1, Killing.Stages, random);
            using var begun = await service.Http.PostAsync($"/api/{PasswordTests.Path}/renewals", null, Cancel);
            var renewal = (await begun.Content.ReadFromJsonAsync(ContractsJson.Default.RenewalView, Cancel))!;
            for (var step = 2; step <= 8; step++)
            {
                var ended = async () =>
                    await service.GetAsync(
                    $"renewals/{renewal.Id}", ContractsJson.Default.RenewalView) is { State: not ("queued" or "running") };
                if (await Killing.KilledAsync(service, ended)) killed++;
                else await service.StopAsync();
                await Killing.HaltingAsync(service, step, Killing.Stages, random);
                if (step != 5) continue;
                renewal = await RenewalCrashTests.AtRestAsync(service, renewal.Id);
                await service.StopAsync();
                await Killing.HaltingAsync(service, 6, Killing.Stages, random);
                (await service.Http.PostAsync($"/api/runs/{renewal.Id}/steps/5", PasswordTests.Word("done"), Cancel))
                    .EnsureSuccessStatusCode();
            }

            renewal = await RenewalCrashTests.AtRestAsync(service, renewal.Id);
            renewal.ShouldSatisfyAllConditions(r => r.Words.ShouldBe("renewed"), r => r.Divided.ShouldBeEmpty());
            await Killing.OnceAsync(service, renewal.Steps.Where(s => s.Act is not ("type" or "check")).Select(s => s.Words));
        }
    }
}
