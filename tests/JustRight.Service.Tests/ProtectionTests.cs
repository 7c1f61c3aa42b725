using System.Net;
using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>The protection from accidental deletion, through the API on the simulation; and the note of what we made.</summary>
public sealed class ProtectionTests
{
    private const string People = "OU=People,OU=Fennmoor,DC=fennmoor,DC=example";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_protection_is_set_seen_lifted_and_put_back_by_undoing_and_what_cannot_be_is_said()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        var open = await ProtectAsync("people");
        (open.Dn, open.IsOn, open.Simulated, open.Set.Count, open.Lift.Count).ShouldBe((People, false, true, 2, 0));
        (await ProblemAsync(false, HttpStatusCode.Conflict)).Title.ShouldBe($"{People} is not protected.");

        (await ChangeAsync(true)).Message!.ShouldBe("2 made");
        (await ProtectAsync(People)).IsOn.ShouldBeTrue();
        (await ProblemAsync(true, HttpStatusCode.Conflict)).Title.ShouldBe($"{People} is protected already.");

        var lifted = await ChangeAsync(false);
        (lifted.Kind, lifted.CanBeUndone, lifted.Steps.Count).ShouldBe(("protect", true, 1));
        (await ProtectAsync("people")).IsOn.ShouldBeFalse();
        (await service.RunAsync($"runs/{lifted.Id}/undo")).State.ShouldBe("done");
        (await ProtectAsync("people")).IsOn.ShouldBeTrue();
        (await service.Http.GetFromJsonAsync<JobView[]>("/api/estates/fennmoor/traces", Cancel))!.Select(j => j.Kind)
            .ShouldBe(["undo", "protect", "protect"]);

        using var nowhere = await service.Http.GetAsync("/api/estates/fennmoor/protection?object=peeple", Cancel);
        nowhere.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        using var absent = await service.Http.GetAsync($"/api/estates/fennmoor/protection?object=OU=Absent,{People}", Cancel);
        absent.StatusCode.ShouldBe(HttpStatusCode.NotFound);

        Task<ProtectionView> ProtectAsync(string which) =>
            service.GetAsync($"estates/fennmoor/protection?object={which}", ContractsJson.Default.ProtectionView);

        async Task<JobView> ChangeAsync(bool on) =>
            await service.StartedAsync(
                "estates/fennmoor/protection",
                JsonContent.Create(new ProtectionOrder("people", on), ContractsJson.Default.ProtectionOrder));

        async Task<ProblemView> ProblemAsync(bool on, HttpStatusCode status)
        {
            using var response = await service.Http.PostAsJsonAsync(
                "/api/estates/fennmoor/protection", new ProtectionOrder("people", on), ContractsJson.Default.ProtectionOrder,
                Cancel);
            response.StatusCode.ShouldBe(status);
            return (await response.Content.ReadFromJsonAsync(ContractsJson.Default.ProblemView, Cancel))!;
        }
    }

    [Fact]
    public async Task What_a_grant_makes_says_who_made_it_when_and_what_for_and_undoing_takes_it_away_again()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        var grant = await service.GrantAllAsync("thermograph-dataroom");
        var exists = await ExistsAsync();
        exists.Count(r => r.EndsWith("with Just Right, for thermograph-dataroom", StringComparison.Ordinal))
            .ShouldBe(grant.Steps.Count(s => s.Words.StartsWith("create the account", StringComparison.Ordinal)));
        exists.ShouldContain(r => r.Contains("; its note: Made by tester at 20", StringComparison.Ordinal));
        (await service.RunAsync($"runs/{grant.Id}/undo")).State.ShouldBe("done");
        (await ExistsAsync()).ShouldAllBe(r => !r.Contains("its note", StringComparison.Ordinal));

        async Task<List<string>> ExistsAsync() =>
            [.. (await service.GetAsync("installs/thermograph-dataroom/fit", ContractsJson.Default.FitView)).Accounts.Select(
                a => a.Rights.First(r => r.Kind == "account").Reason)];
    }
}
