using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>Undoing a grant, through the service: as careful as retiring.</summary>
public sealed class UndoTests : IAsyncLifetime
{
    private const string Install = Killing.Install;

    private TestedService _service = null!;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync() => _service = await Killing.Granted.StartAsync();

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Fact]
    public async Task What_nobody_used_goes_wholly_and_accounts_are_disabled_first()
    {
        var plan = await PlanAsync();
        plan.ShouldSatisfyAllConditions(
            p => p.Blocked.ShouldBeEmpty(), p => p.Left.ShouldBeEmpty(), p => p.Steps[0].ShouldStartWith("disable the account "));
        var undone = await UndoAsync();
        undone.State.ShouldBe("done", undone.Message);
        undone.Steps.Select(s => s.Words).ShouldBe(plan.Steps);
        undone.Steps.ShouldAllBe(s => s.State == "made");
        (await _service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView)).Give.ShouldContain(
            s => s.Words.StartsWith("create the account", StringComparison.Ordinal));
        using var twice = await _service.Http.PostAsync($"/api/runs/{await GrantAsync()}/undo", null, Cancel);
        (twice.StatusCode, await twice.Content.ReadAsStringAsync(Cancel)).ShouldSatisfyAllConditions(
            r => r.StatusCode.ShouldBe(HttpStatusCode.Conflict), r => r.Item2.ShouldContain("undone already"));
    }

    [Fact]
    public async Task The_accounts_of_a_product_that_was_installed_since_stay_while_its_services_run_as_them()
    {
        var account = await AccountAsync();
        await _service.SimulationAsync(state => state.Named("hosts", "fm-temp01")["services"]!.AsArray().Add(
            new JsonObject
            {
                ["name"] = "ThermographPoller",
                ["title"] = "Thermograph Poller",
                ["account"] = $@"FENNMOOR\{account}",
                ["start"] = "automatic",
                ["waitsFor"] = new JsonArray()
            }));

        // The last survey does not know it yet: the job reads the estate anew before its first step.
        var undone = await UndoAsync();
        undone.State.ShouldBe("failed");
        undone.Message.ShouldBe(
            $"nothing was changed: ThermographPoller on fm-temp01 is set to run as {account}: "
            + "give it another account first, or uninstall it");
        undone.Steps.ShouldAllBe(s => s.State == "waiting");

        using var refused = await _service.Http.PostAsync($"/api/runs/{await GrantAsync()}/undo", null, Cancel);
        (refused.StatusCode, await refused.Content.ReadAsStringAsync(Cancel)).ShouldSatisfyAllConditions(
            r => r.StatusCode.ShouldBe(HttpStatusCode.Conflict), r => r.Item2.ShouldContain("undo-blocked"), r =>
            r.Item2.ShouldContain("ThermographPoller on fm-temp01"));
        (await PlanAsync()).Blocked.ShouldHaveSingleItem();
    }

    [Fact]
    public async Task An_account_whose_password_was_handed_over_is_disabled_and_retiring_ends_it()
    {
        var account = await AccountAsync();
        using var shown = await _service.Http.PostAsync($"/api/estates/fennmoor/passwords/{account}/show", null, Cancel);
        shown.EnsureSuccessStatusCode();
        await StaysAsync(account, "its password was handed over, so it may be in use where nobody looked");

        (await _service.Http.PostAsJsonAsync(
            $"/api/installs/{Install}/stage", new StageOrder("retiring"), ContractsJson.Default.StageOrder,
            Cancel)).EnsureSuccessStatusCode();
        (await _service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView)).Remove
            .ShouldContain(
                s => s.Words == $@"delete the account FENNMOOR\{account}" && s.Blocked!.StartsWith(
                "not before", StringComparison.Ordinal));
    }

    [Fact]
    public async Task An_account_that_signed_in_is_disabled_and_not_deleted()
    {
        var account = await AccountAsync();
        await _service.SimulationAsync(state => state.Named("principals", account)["lastLogon"] = "2026-11-28T09:00:00+00:00");
        await StaysAsync(account, "it signed in at the simulation, last 2026-11-28 09:00 UTC");
    }

    private async Task StaysAsync(string account, string why)
    {
        (await PlanAsync()).Left.ShouldHaveSingleItem().ShouldStartWith(
            $"{account} stays, disabled: {why}. To have it deleted, retire the install");
        var undone = await UndoAsync();
        undone.State.ShouldBe("done", undone.Message);
        undone.Message!.ShouldContain($"{account} stays, disabled");
        undone.Steps.ShouldNotContain(s => s.Words == $@"delete the account FENNMOOR\{account}");
        await _service.SimulationAsync(
            state => ((string)state.Named("principals", account)["state"]!.ToString()).ShouldNotBe("0"));
    }

    private async Task<string> GrantAsync() =>
        (await _service.GetAsync($"runs?install={Install}", ContractsJson.Default.RunPage)).Items.Single(
        j => j.Kind == "grant").Id;

    private async Task<string> AccountAsync()
    {
        const string create = @"create the account FENNMOOR\";
        var job = await _service.GetAsync($"jobs/{await GrantAsync()}", ContractsJson.Default.JobView);
        return job.Steps.First(s => s.Words.StartsWith(create, StringComparison.Ordinal)).Words[create.Length..];
    }

    private async Task<UndoView> PlanAsync() =>
        await _service.GetAsync($"runs/{await GrantAsync()}/undo", ContractsJson.Default.UndoView);

    private async Task<JobView> UndoAsync() => await _service.StartedAsync($"runs/{await GrantAsync()}/undo", null);
}
