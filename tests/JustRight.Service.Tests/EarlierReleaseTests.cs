using System.Net;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// What an earlier release stored is read, whatever this one thinks of it: it breaks no list, and takes nobody's needs away.
/// </summary>
public sealed class EarlierReleaseTests : IAsyncLifetime
{
    private TestedService _service = null!;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync() => _service = await PreparedData.Demo.StartAsync();

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Theory]
    [InlineData("sheet", "tallystick@9.0", "\nsource:", "\nformerly-known: yes\nsource:")]
    [InlineData("estate", "fennmoor", "\ntitle:", "\nformerly-known: yes\ntitle:")]
    [InlineData("install", "tallystick-dataroom", "\nestate:", "\nformerly-known: yes\nestate:")]
    public async Task A_key_that_is_known_no_more_is_left_aside_and_named(string kind, string name, string old, string now)
    {
        await ReplaceAsync(kind, name, old, now);
        (await RemarksAsync(kind, name)).ShouldHaveSingleItem().ShouldSatisfyAllConditions(
            r => r.ShouldStartWith("left aside: "), r => r.ShouldContain("'formerly-known' is not a known key here"));
        await _service.RunAsync("installs/tallystick-dataroom/verify");
        (await _service.GetAsync("installs/tallystick-dataroom/worklist", ContractsJson.Default.WorklistView)).Give
            .ShouldNotBeEmpty();
    }

    [Theory]
    [InlineData("sheet", "tallystick@9.0", "\naccounts:", "\naccuonts:")]
    [InlineData("install", "tallystick-dataroom", "\nplaces:", "\nplcaes:")]
    [InlineData("install", "tallystick-dataroom", "\nplaces:", "\n\t: {")]
    public async Task What_cannot_be_read_breaks_no_list_and_says_why(string kind, string name, string old, string now)
    {
        await ReplaceAsync(kind, name, old, now);
        if (kind == "sheet") (await RemarksAsync(kind, name))[0].ShouldStartWith("cannot be read: ");
        var all = await _service.InstallsAsync();
        all.Count.ShouldBe(11);
        all.Single(i => i.Name == "tallystick-dataroom").Next.ShouldStartWith(
            kind == "sheet" ? "cannot be planned: " : "cannot be read: ");
        foreach (var path in new[] { "sheets", "estates", "installs", "secrets", "proposals", "log",
            "installs/thermograph-dataroom", "estates/fennmoor", "estates/fennmoor/passwords", "estates/fennmoor/calendar",
            "estates/fennmoor/password-places", "adoptions" })
        {
            using var read = await _service.Http.GetAsync($"/api/{path}", Cancel);
            read.StatusCode.ShouldBe(HttpStatusCode.OK, $"{path}: {await read.Content.ReadAsStringAsync(Cancel)}");
        }

        await _service.RunAsync("installs/thermograph-dataroom/verify");
        using var own = await _service.Http.GetAsync("/api/installs/tallystick-dataroom/plan", Cancel);
        own.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task An_estate_that_cannot_be_read_breaks_no_list()
    {
        await ReplaceAsync("estate", "fennmoor", "\ndomain:", "\ndomian:");
        (await RemarksAsync("estate", "fennmoor"))[0].ShouldStartWith("cannot be read: ");
        (await _service.InstallsAsync()).ShouldAllBe(
            i => i.Next.StartsWith("cannot be planned: "));
        (await _service.Http.GetAsync("/api/secrets", Cancel)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Theory]
    [InlineData("sheet", "tallystick@9.0", "\naccounts:", "\naccuonts:")]
    [InlineData("install", "tallystick-dataroom", "\nplaces:", "\n\t: {")]
    public async Task What_another_install_may_need_is_unseen_and_not_excess(string kind, string name, string old, string now)
    {
        // Thermograph and Tallystick share an account: what one of them needs is not excess for the other.
        (await _service.AddAsync("installs", "later/thermograph-depot.yaml")).EnsureSuccessStatusCode();
        for (var i = 0; i < 2; i++) await _service.RunAsync("installs/thermograph-depot/verify");
        (await _service.GrantAllAsync("tallystick-dataroom")).State.ShouldBe("done");
        await _service.RunAsync("installs/thermograph-depot/verify");
        var before = await ExcessAsync();
        await ReplaceAsync(kind, name, old, now);
        var after = await ExcessAsync();
        after.Except(before).ShouldBeEmpty("nothing becomes excess by what cannot be read");
        (await _service.GetAsync("installs/thermograph-depot/worklist", ContractsJson.Default.WorklistView)).Remove
            .ShouldBeEmpty();
        var unseen = (await _service.GetAsync("installs/thermograph-depot/fit", ContractsJson.Default.FitView)).Accounts
            .SelectMany(a => a.Rights)
            .Where(r => r.Reason.Contains("whether tallystick-dataroom needs it is not known", StringComparison.Ordinal))
                .ToList();
        unseen.ShouldNotBeEmpty();
        unseen.ShouldAllBe(r => r.Verdict == "unseen");
    }

    private async Task<List<string>> ExcessAsync() =>
        [.. (await _service.GetAsync("installs/thermograph-depot/fit", ContractsJson.Default.FitView)).Accounts.SelectMany(
            a => a.Rights).Where(r => r.Verdict == "excess").Select(r => r.Id)];

    private async Task ReplaceAsync(string kind, string name, string old, string now)
    {
        await _service.StopAsync();
        await _service.ReplaceAsync(kind, name, old, now);
        await _service.RestartAsync();
    }

    private async Task<IReadOnlyList<string>> RemarksAsync(string kind, string name) => kind switch
    {
        "sheet" =>
            (await _service.GetAsync("sheets", ContractsJson.Default.IReadOnlyListSheetSummary)).Single(
            s => s.Name == name).Remarks,
        "estate" =>
            (await _service.GetAsync("estates", ContractsJson.Default.IReadOnlyListEstateSummary)).Single(
            s => s.Name == name).Remarks,
        _ => (await _service.InstallsAsync()).Single(
            s => s.Name == name).Remarks,
    };
}
