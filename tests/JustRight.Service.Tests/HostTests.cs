using System.IO.Compression;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// Hosts through the API on the simulation: facts that owners hand over, bundles that go out, services that are swapped and
/// swapped back.
/// </summary>
public sealed class HostTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_host_that_its_owner_reads_goes_out_as_a_bundle_and_comes_back_as_facts()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        var estate = (await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"), Cancel))
            .Replace("fm-rec01: {}", "fm-rec01: { reach: handed-over }", StringComparison.Ordinal);
        (await service.AddAsync("estates", "fennmoor.yaml", Encoding.UTF8.GetBytes(estate))).EnsureSuccessStatusCode();

        // Nothing was handed over yet: what is there is unseen, with the way to fix it.
        await service.RunAsync("installs/wheyline-lines/verify");
        var first = await service.GetAsync("installs/wheyline-lines/fit", ContractsJson.Default.FitView);
        first.Unseen.ShouldContain(c =>
            c.Reason == "no facts of fm-rec01 were given yet: justright survey fennmoor --facts FILE");

        (await FactsAsync(service, Facts("fm-rec01", "S-1-5-21-1004336348-1177238915-682003330-1239"))).ReadBy.ShouldBe(
            @"FENNMOOR\t.okoro");
        await service.RunAsync("installs/wheyline-lines/verify");
        var worklist = await service.GetAsync("installs/wheyline-lines/worklist", ContractsJson.Default.WorklistView);
        worklist.Give.Single(s => s.Place == "fm-rec01").Blocked.ShouldBe(
            "its owner makes this change (reach: handed-over): justright handover INSTALL makes the bundle");
        using var refused = await service.Http.PostAsJsonAsync("/api/installs/wheyline-lines/grant",
            new GrantOrder(false, [worklist.Give.Single(s => s.Place == "fm-rec01").Id]), ContractsJson.Default.GrantOrder,
            Cancel);
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);

        var handovers = await service.GetAsync("installs/wheyline-lines/handovers",
            ContractsJson.Default.IReadOnlyListHandoverView);
        handovers.Select(h => $"{h.Team} {h.Place}")
            .ShouldBe(["directory FENNMOOR", "host fm-line01", "host fm-rec01", "database fm-sql02",
            "product Wheyline milk-line recorder", "host fm-line02"]);
        await using var bundle = await service.Http.GetStreamAsync(
            "/api/installs/wheyline-lines/handovers/wheyline-lines-host-fm-rec01", Cancel);
        using var zip = new ZipArchive(bundle);
        zip.Entries.Select(e => e.FullName)
            .ShouldBe(handovers.Single(h => h.Place == "fm-rec01").Files.Select(f => $"wheyline-lines-host-fm-rec01/{f}"));
        (await service.Http.GetStringAsync("/api/installs/wheyline-lines/handovers/wheyline-lines-host-fm-rec01?form=csv",
            Cancel)).ShouldContain("add FENNMOOR\\app-whey-senders to fm-rec01\\Wheyline Writers");
        using var badForm = await service.Http.GetAsync(
            "/api/installs/wheyline-lines/handovers/wheyline-lines-host-fm-rec01?form=pdf", Cancel);
        badForm.StatusCode.ShouldBe(HttpStatusCode.BadRequest);

        var host = await service.GetAsync("estates/fennmoor/hosts/fm-rec01", ContractsJson.Default.HostView);
        (host.Reach, host.ReadBy, host.Installs.Single()).ShouldBe(("handed-over", @"FENNMOOR\t.okoro", "wheyline-lines"));
        host.Groups.Single(g => g.Name == "Wheyline Writers").Members.ShouldHaveSingleItem()
            .ShouldBe(new HostHolderView(@"FENNMOOR\FM-LINE01$", "S-1-5-21-1004336348-1177238915-682003330-1239", true, true));
    }

    [Fact]
    public async Task Facts_that_cannot_be_taken_are_refused_with_the_place()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        foreach (var (facts, code) in new[]
        {
            (Facts("fm-rec09", "S-1-5-32-544"), "unknown-host"), (Facts("fm-rec01", "S-1-5-32-544"), "not-handed-over"),
                ("{}", "missing-key"), ("nothing", "json"), (Facts("fm-rec01", "no-sid"), "wrong-value"),
        })
        {
            using var response = await service.Http.PostAsync("/api/estates/fennmoor/host-facts?file=back.json",
                new StringContent(facts), Cancel);
            response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
            var problem = (await response.Content.ReadFromJsonAsync(ContractsJson.Default.ProblemView, Cancel))!;
            problem.Faults![0].Code.ShouldBe(code);
            problem.Faults[0].File.ShouldBe("back.json");
        }
    }

    [Fact]
    public async Task A_service_is_swapped_with_a_password_that_no_place_shows_and_swapped_back()
    {
        const string password = "simulated-svc-whey-sender"; // the one that the simulation takes
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync("installs/wheyline-lines/verify");
        var asks = (await service.GetAsync("installs/wheyline-lines/worklist", ContractsJson.Default.WorklistView)).Give
            .Single(s => s.Asks is not null);
        asks.Asks.ShouldBe(new AskedPasswordView(@"FENNMOOR\svc-whey-sender", "svc-whey-sender"));
        using var without = await service.Http.PostAsJsonAsync(
            "/api/installs/wheyline-lines/grant", new GrantOrder(false, [asks.Id]), ContractsJson.Default.GrantOrder, Cancel);
        without.StatusCode.ShouldBe(HttpStatusCode.Conflict, "it is asked for before anything begins");
        (await without.Content.ReadAsStringAsync(Cancel)).ShouldContain("justright secret set svc-whey-sender");

        (await service.Http.PutAsJsonAsync("/api/secrets/svc-whey-sender", new SecretValue(password),
            ContractsJson.Default.SecretValue, Cancel)).EnsureSuccessStatusCode();
        var granted = await service.GrantAllAsync("wheyline-lines");
        granted.Message!.ShouldEndWith("now 8 excess, 1 unseen");
        granted.CanBeUndone.ShouldBeTrue();
        (await service.RunAsync($"runs/{granted.Id}/undo")).State.ShouldBe("done");
        var line = await service.GetAsync("estates/fennmoor/hosts/fm-line01", ContractsJson.Default.HostView);
        line.Services.Single(s => s.Name == "WheylineSender")
            .ShouldSatisfyAllConditions(s => s.Account.ShouldBe(@"NT AUTHORITY\NetworkService"), s =>
            s.RunsNowAs.ShouldBe(@"NT AUTHORITY\NetworkService"), s => s.RestartPending.ShouldBeFalse());

        await service.StopAsync();
        foreach (var file in service.DataFiles)
            Encoding.Latin1.GetString(await File.ReadAllBytesAsync(file, Cancel)).ShouldNotContain(password, customMessage: file);
        service.Output.ShouldNotContain(password);
    }

    [Fact]
    public async Task A_hosts_page_says_which_policy_decides_and_what_the_next_refresh_takes_back()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        using var early = await service.Http.GetAsync("/api/estates/fennmoor/hosts/fm-night01", Cancel);
        early.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        await service.RunAsync("installs/nightchurn-dataroom/verify");
        var host = await service.GetAsync("estates/fennmoor/hosts/fm-night01", ContractsJson.Default.HostView);
        host.Rights.Single(r => r.Constant == "SeBatchLogonRight")
            .ShouldSatisfyAllConditions(r => r.Policy.ShouldBe("Job servers: who may log on"), r =>
            r.TakenBack.ShouldHaveSingleItem().ShouldBe(@"FENNMOOR\svc-nightjobs"));
        host.Policies.Select(p => (p.Name, p.Fate))
            .ShouldBe([("Job servers: who may log on", "applies"), ("Default Domain Policy", "applies")]);
        var recorder = await service.GetAsync("estates/fennmoor/hosts/fm-rec01", ContractsJson.Default.HostView);
        recorder.Services.Single(s => s.Name == "WheylinePages").Obstacle.ShouldBe(
            "it waits for WheylineMail, which is disabled");
        using var unknown = await service.Http.GetAsync("/api/estates/fennmoor/hosts/fm-rec9", Cancel);
        unknown.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    private static string Facts(string host, string member) => $$"""
        {
          "host-facts": 1, "read-at": "{{DateTimeOffset.UtcNow:yyyy-MM-ddTHH:mm:ssZ}}", "read-by": "FENNMOOR\\t.okoro", "host": { "name": "{{host.ToUpperInvariant()}}", "domain": "fennmoor.example", "role": "member" },
          "local-groups": [ { "name": "Wheyline Writers", "sid": "S-1-5-21-2110880335-884357618-1801674531-1002", "members": [ { "sid": "{{member}}" } ] } ],
          "rights": [ { "right": "SeServiceLogonRight", "entries": [ "*S-1-5-80-0", "FENNMOOR\\svc-whey-rec" ] } ],
          "services": [ { "name": "WheylineRecorder", "account": "FENNMOOR\\svc-whey-rec", "start": "automatic", "running": true, "waits-for": [ "WheylineStore" ], "runs-now-as": "FENNMOOR\\svc-whey-rec" },
                        { "name": "WheylineStore", "start": "automatic", "running": true } ]
        }
        """;

    private static async Task<HostFactsView> FactsAsync(TestedService service, string facts)
    {
        using var response = await service.Http.PostAsync("/api/estates/fennmoor/host-facts?file=back.json",
            new StringContent(facts), Cancel);
        response.EnsureSuccessStatusCode();
        return (await response.Content.ReadFromJsonAsync(ContractsJson.Default.HostFactsView, Cancel))!;
    }
}
