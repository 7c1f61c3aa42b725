using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// Two estates over the same systems: while a run of one goes on, a survey of the other waits, and judges nothing half made.
/// </summary>
public sealed class SharedPlacesTests
{
    private const string Install = "thermograph-dataroom";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_survey_waits_for_the_run_of_another_estate_with_the_same_hosts()
    {
        await using var service = await PreparedData.Demo.StartProcessAsync("--JustRight:RehearseHaltAt", "6:made");
        var text = (await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"), Cancel))
            .Replace("name: fennmoor\n", "name: fennmoor-again\n", StringComparison.Ordinal);
        using (var added = await service.Http.PostAsync(
            "/api/estates?file=again.yaml", new StringContent(text, null, "application/yaml"), Cancel))
            added.IsSuccessStatusCode.ShouldBeTrue(await added.Content.ReadAsStringAsync(Cancel));

        await service.RunAsync($"installs/{Install}/verify");
        var worklist = await service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView);
        var order = new GrantOrder(false, [.. worklist.Give.Where(s => s.Blocked is null).Select(s => s.Id)]);
        using var began = await service.Http.PostAsJsonAsync(
            $"/api/installs/{Install}/grant", order, ContractsJson.Default.GrantOrder, Cancel);
        var run = (await began.Content.ReadFromJsonAsync(ContractsJson.Default.JobView, Cancel))!;
        await service.HaltedAsync();

        using var asked = await service.Http.PostAsync("/api/estates/fennmoor-again/survey", null, Cancel);
        var survey = (await asked.Content.ReadFromJsonAsync(ContractsJson.Default.JobView, Cancel))!;
        await Task.Delay(1000, Cancel);
        (await service.GetAsync($"jobs/{survey.Id}", ContractsJson.Default.JobView)).State.ShouldBe("queued");

        await service.KillAsync();
        await service.RestartAsync();
        (await service.EndOfAsync(run.Id)).State.ShouldBe("done");
        (await service.EndOfAsync(survey.Id)).State.ShouldBe("interrupted", "what only reads is asked for again");
        // once the places are free it has its turn; that there is no simulation under its name is another matter
        (await service.RunAsync("estates/fennmoor-again/survey")).EndedAt.ShouldNotBeNull();
    }
}
