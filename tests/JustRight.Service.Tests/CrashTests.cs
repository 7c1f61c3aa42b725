using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>The service is killed between each pair of stages of a step, and started again: no step is lost, doubled or half recorded.</summary>
public sealed class CrashTests
{
    private const string Install = "thermograph-dataroom";

    private static readonly PreparedData Verified = new(async service =>
    {
        await service.AddDemoAsync();
        await service.RunAsync($"installs/{Install}/verify");
        await service.RunAsync($"installs/{Install}/verify"); // the host that was restarting is back
    });

    // Step 4 creates an account with its password; step 8 changes a host.
    public static TheoryData<string> Halts =>
    [
        .. from step in new[] { 4, 8 }
           from stage in new[] { "looked", "intended", "made", "looked-again", "recorded" }
           select $"{step}:{stage}",
    ];

    [Theory]
    [MemberData(nameof(Halts))]
    public async Task A_grant_goes_on_after_a_kill(string halt)
    {
        await using var service = await Verified.StartProcessAsync("--JustRight:RehearseHaltAt", halt);
        var worklist = await service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView);
        var order = new GrantOrder(false, [.. worklist.Give.Select(s => s.Id)]);
        using var response = await service.Http.PostAsync(
            $"/api/installs/{Install}/grant", JsonContent.Create(order, ContractsJson.Default.GrantOrder));
        var job = (await response.Content.ReadFromJsonAsync(ContractsJson.Default.JobView))!;
        await service.HaltedAsync();

        await service.KillAsync();
        await service.RestartAsync();
        var ended = await service.EndOfAsync(job.Id);

        ended.State.ShouldBe("done", ended.Message);
        ended.Steps.Count.ShouldBe(order.Steps.Count);
        ended.Steps.ShouldAllBe(s => s.State == "made");
        var log = (await service.GetAsync("log?take=500", ContractsJson.Default.LogPage)).Items;
        foreach (var step in ended.Steps)
        {
            log.Count(e => e.Action == "intend" && e.Detail.StartsWith(step.Words + ";", StringComparison.Ordinal))
                .ShouldBe(1, step.Words);
            log.Count(e => e.Action == "make" && e.Detail.StartsWith(step.Words + ";", StringComparison.Ordinal))
                .ShouldBe(1, step.Words);
        }

        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
        (await service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView)).Give.ShouldBeEmpty();
        (await service.GetAsync(
            $"installs/{Install}/passwords", ContractsJson.Default.IReadOnlyListPasswordView)).Count.ShouldBe(2);
    }

    [Fact]
    public async Task A_verification_that_was_interrupted_says_so_and_a_graceful_stop_ends_with_code_0()
    {
        await using var service = await PreparedData.Demo.StartProcessAsync();
        await service.RunAsync($"installs/{Install}/verify");
        (await service.StopAsync()).ShouldBe(0);
        await service.RestartAsync();
        // kept over the restart
        (await service.GetAsync($"installs/{Install}/fit", ContractsJson.Default.FitView)).Counts.Forbidden.ShouldBe(1);
    }
}
