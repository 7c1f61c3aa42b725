using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// The service is killed between the stages of the steps of a renewal, and started again: the password ends in every place, and
/// each step is made once.
/// </summary>
public sealed class RenewalCrashTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public static TheoryData<string> Halts =>
    [
        "1:looked", "1:intended", "1:made", "1:recorded", "2:made", "4:intended",
        "4:made", "6:made",
    ];

    [Theory]
    [MemberData(nameof(Halts))]
    public async Task A_renewal_goes_on_after_a_kill(string halt)
    {
        await using var service = await PasswordTests.Ready.StartProcessAsync("--JustRight:RehearseHaltAt", halt);
        using var begun = await service.Http.PostAsync($"/api/{PasswordTests.Path}/renewals", null, Cancel);
        var renewal = (await begun.Content.ReadFromJsonAsync(ContractsJson.Default.RenewalView, Cancel))!;
        if (halt.StartsWith('6'))
        {
            await service.EndOfAsync(renewal.Id);
            (await service.Http.PostAsync($"/api/runs/{renewal.Id}/steps/5", PasswordTests.Word("done"), Cancel))
                .EnsureSuccessStatusCode();
        }

        await service.HaltedAsync();
        await service.KillAsync();
        await service.RestartAsync();

        renewal = await AtRestAsync(service, renewal.Id);
        if (!halt.StartsWith('6'))
        {
            (renewal.Next, renewal.Current).ShouldBe(("person", 5), renewal.Words);
            (await service.Http.PostAsync($"/api/runs/{renewal.Id}/steps/5", PasswordTests.Word("done"), Cancel))
                .EnsureSuccessStatusCode();
            renewal = await AtRestAsync(service, renewal.Id);
        }

        renewal.ShouldSatisfyAllConditions(r => r.Words.ShouldBe("renewed"), r => r.Divided.ShouldBeEmpty());
        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
        var log = (await service.GetAsync("log?take=500", ContractsJson.Default.LogPage)).Items;
        foreach (var step in renewal.Steps.Where(s => s.Act is not ("type" or "check")))
            log.Count(e => e.Action == "make" && e.Detail.StartsWith(step.Words + ";", StringComparison.Ordinal))
                .ShouldBe(1, step.Words);
    }

    /// <summary>Waits until the steps that are ours are made, and somebody is needed or it is over.</summary>
    internal static Task<RenewalView> AtRestAsync(TestedService service, string id) =>
        Waiting.ForAsync("the renewal comes to rest", async () =>
        await service.GetAsync($"renewals/{id}",
            ContractsJson.Default.RenewalView) is { State: not ("queued" or "running") } renewal
            ? renewal
            : null);
}
