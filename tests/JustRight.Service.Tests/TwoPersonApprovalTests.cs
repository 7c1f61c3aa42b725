using System.Net;
using System.Net.Http.Json;
using System.Text;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>Two-person approval: what one proposed another approves, and what was changed in between is void.</summary>
public sealed class TwoPersonApprovalTests
{
    private const string Install = "nightchurn-dataroom";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_one_proposed_is_carried_out_after_another_released_it_and_not_before()
    {
        await using var service = await StartAsync();
        using var second = await service.ClientAsync("maud", "granter");
        var proposed = await ProposeAsync(service);
        (proposed.State, proposed.StartedBy).ShouldBe(("proposed", "tester"));
        proposed.Steps.ShouldAllBe(s => s.State == "waiting");

        await RefusedAsync(service.Http, proposed.Id, "approve", "another person must approve it");
        await RefusedAsync(service.Http, proposed.Id, "carry-out", "must approve it", "Nobody has approved it yet");
        var approved = await ActAsync(second, proposed.Id, "approve");
        (approved.State, approved.ApprovedBy).ShouldBe(("approved", "maud"));
        await service.StopAsync();
        await service.RestartAsync(); // a restart carries nothing out that nobody asked to be
        (await service.GetAsync($"jobs/{proposed.Id}", ContractsJson.Default.JobView)).State.ShouldBe("approved");
        await ActAsync(service.Http, proposed.Id, "carry-out");
        var done = await service.EndOfAsync(proposed.Id);
        (done.State, done.ApprovedBy).ShouldBe(("done", "maud"));
        done.Steps.ShouldAllBe(s => s.State == "made");
        (await service.GetAsync("proposals", ContractsJson.Default.IReadOnlyListJobView)).ShouldBeEmpty();
        var log = (await service.GetAsync("log?take=100", ContractsJson.Default.LogPage)).Items;
        log.ShouldContain(l => l.Action == "propose" && l.Who == "tester");
        log.ShouldContain(l => l.Action == "approve" && l.Who == "maud");
        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
    }

    [Fact]
    public async Task What_was_changed_after_the_release_is_void()
    {
        await using var service = await StartAsync();
        using var second = await service.ClientAsync("maud", "granter");

        var first = await ProposeAsync(service);
        await ActAsync(second, first.Id, "approve");
        var instead = await ProposeAsync(service, 1); // another list in its place
        (await service.GetAsync($"jobs/{first.Id}", ContractsJson.Default.JobView))
            .ShouldSatisfyAllConditions(
                j => j.State.ShouldBe("void"), j => j.Message.ShouldNotBeNull().ShouldContain("replaced by another proposal"));
        await RefusedAsync(service.Http, first.Id, "carry-out", "", status: HttpStatusCode.NotFound);

        await ActAsync(second, instead.Id, "approve");
        await ReplaceEstateAsync(service, second, "  survey-no-older-than-hours: 71"); // what it rests on is other
        await RefusedAsync(service.Http, instead.Id, "carry-out", "changed since the proposal");
        (await service.GetAsync($"jobs/{instead.Id}", ContractsJson.Default.JobView)).State.ShouldBe("void");

        var third = await ProposeAsync(service);
        await ActAsync(service.Http, third.Id, "withdraw");
        (await service.GetAsync($"jobs/{third.Id}", ContractsJson.Default.JobView)).Steps.ShouldAllBe(s => s.State == "waiting");
        (await service.GetAsync("log?take=100", ContractsJson.Default.LogPage)).Items
            .ShouldNotContain(l => l.Action == "make");
    }

    [Fact]
    public async Task A_protection_waits_for_a_second_person_too()
    {
        await using var service = await StartAsync();
        using var second = await service.ClientAsync("maud", "granter");
        using var asked = await service.Http.PostAsJsonAsync(
            "/api/estates/fennmoor/protection", new ProtectionOrder("OU=Teams,OU=Fennmoor,DC=fennmoor,DC=example", true),
            ContractsJson.Default.ProtectionOrder, Cancel);
        var job = (await asked.Content.ReadFromJsonAsync(ContractsJson.Default.JobView, Cancel))!;
        job.State.ShouldBe("proposed");
        await ActAsync(second, job.Id, "approve");
        await ActAsync(second, job.Id, "carry-out");
        (await service.EndOfAsync(job.Id)).State.ShouldBe("done");
    }

    private static async Task<TestedService> StartAsync()
    {
        var service = await PreparedData.Demo.StartAsync();
        await AddEstateAsync(service, "  survey-no-older-than-hours: 72");
        for (var i = 0; i < 2; i++) await service.RunAsync($"installs/{Install}/verify");
        return service;
    }

    private static async Task AddEstateAsync(TestedService service, string age)
    {
        (await service.AddAsync("estates", "fennmoor.yaml", EstateText(age))).EnsureSuccessStatusCode();
    }

    private static byte[] EstateText(string age) => Encoding.UTF8.GetBytes(
        File.ReadAllText(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"))
            .Replace("  survey-no-older-than-hours: 72", $"  two-person-approval: yes\n{age}", StringComparison.Ordinal));

    /// <summary>Another estate in its place, which waits for another person too.</summary>
    private static async Task ReplaceEstateAsync(TestedService service, HttpClient second, string age)
    {
        using var refused = await service.AddAsync("estates", "fennmoor.yaml", EstateText(age));
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var proposals = (await service.GetAsync("proposals", ContractsJson.Default.IReadOnlyListJobView));
        await ActAsync(second, proposals.Single(p => p.Kind == "document").Id, "approve");
        await AddEstateAsync(service, age);
    }

    private static async Task<JobView> ProposeAsync(TestedService service, int most = int.MaxValue)
    {
        var steps = (await service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView)).Give.Where(s =>
            s.Blocked is null)
            .Take(most).Select(s => s.Id);
        using var response = await service.Http.PostAsJsonAsync(
            $"/api/installs/{Install}/grant", new GrantOrder(false, [.. steps]), ContractsJson.Default.GrantOrder, Cancel);
        return (await response.Content.ReadFromJsonAsync(ContractsJson.Default.JobView, Cancel))!;
    }

    private static async Task<JobView> ActAsync(HttpClient who, string id, string act)
    {
        using var response = await who.PostAsync($"/api/proposals/{id}/{act}", null, Cancel);
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync(Cancel));
        return (await response.Content.ReadFromJsonAsync(ContractsJson.Default.JobView, Cancel))!;
    }

    private static async Task RefusedAsync(
        HttpClient who, string id, string act, string detail, string title = "", HttpStatusCode status = HttpStatusCode.Conflict)
    {
        using var response = await who.PostAsync($"/api/proposals/{id}/{act}", null, Cancel);
        (response.StatusCode, await response.Content.ReadAsStringAsync(Cancel))
            .ShouldSatisfyAllConditions(
                r => r.StatusCode.ShouldBe(status), r => r.Item2.ShouldContain(detail, Case.Insensitive),
                r => r.Item2.ShouldContain(title));
    }
}
