using System.Net;
using System.Net.Http.Json;
using System.Text;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>What is stored, and what stays true about it: names, replaced files, what comes next, tokens, secrets.</summary>
public sealed class StoredDocumentsTests : IAsyncLifetime
{
    private const string Install = "thermograph-dataroom";
    private TestedService _service = null!;

    public async ValueTask InitializeAsync() => _service = await TestedService.StartAsync();

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Fact]
    public async Task A_name_in_use_gives_way_and_then_stays_whatever_is_planned_later()
    {
        // The first install of another product takes the pattern's name for good; the directory holds svc-archive already.
        var sheet = File.ReadAllText(Path.Combine(Checkout.Top, "demo-data", "sheets", "tallystick.yaml"))
            .Replace("product: tallystick", "product: archive", StringComparison.Ordinal);
        await AddAsync("sheets", "archive.yaml", sheet);
        await AddDemoFileAsync(
            "estates", "fennmoor.yaml", "tallystick: tally,", "tallystick: tally, archive: x,",
            "accounts: svc-{product}-{account}", "accounts: svc-{account}");
        await AddDemoFileAsync(
            "installs", "tallystick-dataroom.yaml", "name: tallystick-dataroom", "name: archive-dataroom", "product: tallystick",
            "product: archive", "  counter: { existing: svc-tally }", "  installer: { existing: svc-reports }");
        (await PlanAsync("archive-dataroom")).Notes.ShouldContain(n =>
            n.StartsWith("Names were not checked", StringComparison.Ordinal));
        await _service.RunAsync("installs/archive-dataroom/verify");
        var plan = await PlanAsync("archive-dataroom");
        plan.Notes.ShouldNotContain(n => n.StartsWith("Names were not checked", StringComparison.Ordinal));
        plan.Accounts.Single(a => a.Key == "counter").Name.ShouldBe("svc-counter");

        await _service.GrantAllAsync("archive-dataroom");
        await _service.RunAsync("installs/archive-dataroom/verify");
        // its own account is no clash
        (await PlanAsync("archive-dataroom")).Accounts.Single(a => a.Key == "counter").Name.ShouldBe("svc-counter");
        var second = await AddDemoFileAsync(
            "installs", "tallystick-dataroom.yaml", "name: tallystick-dataroom", "name: archive-saltmere", "product: tallystick",
            "product: archive", "  counter: { existing: svc-tally }", "  installer: { existing: svc-reports }");
        second.EnsureSuccessStatusCode();
        (await PlanAsync("archive-saltmere")).Accounts.Single(a => a.Key == "counter").Name.ShouldBe("svc-counter2");
    }

    [Fact]
    public async Task What_comes_next_follows_the_work()
    {
        await _service.AddDemoAsync();
        (await NextAsync()).ShouldBe("verify");
        await _service.RunAsync($"installs/{Install}/verify");
        (await NextAsync()).ShouldStartWith("grant 19 (directory, host, database)"); // one host is restarting
        await _service.RunAsync($"installs/{Install}/verify");
        await _service.GrantAllAsync(Install);
        (await NextAsync()).ShouldBe("remove 3 (directory, database)");
        await _service.GrantAllAsync(Install, remove: true);
        (await NextAsync()).ShouldBe("run the product's setup");

        // Setup is said to have run, and gave nothing.
        using var staged = await _service.Http.PostAsJsonAsync(
            $"/api/installs/{Install}/stage", new StageOrder("installed"), ContractsJson.Default.StageOrder);
        staged.EnsureSuccessStatusCode();
        var fit = await _service.GetAsync($"installs/{Install}/fit", ContractsJson.Default.FitView);
        fit.Accounts.SelectMany(a => a.Rights).Where(r => r.Verdict == "missing")
            .ShouldAllBe(r =>
                r.Reason == "setup should have given this"
                    || r.Reason.EndsWith("setup should have created it", StringComparison.Ordinal));
        (await NextAsync()).ShouldBe("find out why: no step would fix it");
    }

    [Fact]
    public async Task An_install_that_cannot_be_planned_is_not_kept_and_one_that_no_longer_can_says_so()
    {
        await _service.AddDemoAsync();
        using var refused = await AddDemoFileAsync(
            "installs", "thermograph-dataroom.yaml", "name: thermograph-dataroom", "name: other", "[fm-temp01, fm-temp02]",
            "[fm-temp01, fm-temp03]");
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await refused.Content.ReadFromJsonAsync(ContractsJson.Default.ProblemView))!.Faults!.ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(
            f => f.Code.ShouldBe("unknown-host"), f => f.Line.ShouldBe(9), f => f.Nearest.ShouldBe("fm-temp01"));
        (await _service.Http.GetAsync("/api/installs/other")).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        await AddDemoFileAsync("estates", "fennmoor.yaml", "  fm-temp02: {}\n", "");
        (await NextAsync()).ShouldStartWith("cannot be planned: thermograph-dataroom.yaml:9");
        using var plan = await _service.Http.GetAsync($"/api/installs/{Install}/plan");
        plan.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task A_file_added_again_replaces_and_the_log_says_which()
    {
        await _service.AddDemoAsync();
        await AddDemoFileAsync("sheets", "thermograph.yaml");
        await AddDemoFileAsync("sheets", "thermograph.yaml", "chapter 3", "chapter 4");
        var log = (await _service.GetAsync("log?search=thermograph@4.2", ContractsJson.Default.LogPage)).Items;
        log.Select(e => e.Detail)
            .ShouldBe([
                "replaced from thermograph.yaml: source: was Thermograph 4.2 setup guide, chapter 3, is Thermograph 4.2 setup guide, chapter 4",
                "added again from thermograph.yaml, unchanged", "added from thermograph.yaml"]);
        (await _service.GetAsync("sheets/thermograph@4.2", ContractsJson.Default.SheetView)).Text.ShouldContain("chapter 4");
    }

    [Theory]
    [InlineData("", "reader", 1)]
    [InlineData("a/b", "reader", 1)]
    [InlineData("ok", "king", 1)]
    [InlineData("ok", "reader", 0)]
    [InlineData("ok", "reader", 400)]
    public async Task A_token_that_does_not_fit_is_refused(string name, string role, int days)
    {
        using var response = await _service.Http.PostAsJsonAsync(
            "/api/tokens", new TokenOrder(name, role, days), ContractsJson.Default.TokenOrder);
        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await response.Content.ReadFromJsonAsync(
            ContractsJson.Default.ProblemView))!.Faults!.ShouldHaveSingleItem().Expected.ShouldNotBeNull();
    }

    [Fact]
    public async Task A_revoked_token_is_good_for_nothing_and_a_secret_is_never_shown()
    {
        using var made = await _service.Http.PostAsJsonAsync(
            "/api/tokens", new TokenOrder("night", "reader", 1), ContractsJson.Default.TokenOrder);
        var token = (await made.Content.ReadFromJsonAsync(ContractsJson.Default.NewTokenView))!.Token;
        using var night = new HttpClient
        {
            BaseAddress = new Uri(_service.Address),
            DefaultRequestHeaders = { { "Authorization", "Bearer " + token } },
        };
        (await night.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await _service.Http.DeleteAsync("/api/tokens/night")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await night.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);

        (await _service.Http.PutAsJsonAsync(
            "/api/secrets/controller", new SecretValue("Marker-1"), ContractsJson.Default.SecretValue)).StatusCode.ShouldBe(
            HttpStatusCode.NoContent);
        (await _service.Http.PutAsJsonAsync(
            "/api/secrets/Not A Name", new SecretValue("Marker-1"), ContractsJson.Default.SecretValue)).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest);
        (await _service.Http.PutAsJsonAsync(
            "/api/secrets/empty", new SecretValue(""), ContractsJson.Default.SecretValue)).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest);
        (await _service.Http.GetStringAsync("/api/secrets"))
            .ShouldSatisfyAllConditions(s => s.ShouldContain("controller"), s => s.ShouldNotContain("Marker-1"));
        (await _service.Http.DeleteAsync("/api/secrets/controller")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task A_body_that_is_no_json_is_one_clear_problem()
    {
        using var response = await _service.Http.PostAsync(
            "/api/tokens", new StringContent("{\"name\": 3}", Encoding.UTF8, "application/json"));
        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await response.Content.ReadFromJsonAsync(ContractsJson.Default.ProblemView))!.Title.ShouldContain("$.name");
    }

    private async Task<string> NextAsync() =>
        (await _service.InstallsAsync())
            .Single(i => i.Name == Install).Next;

    private Task<PlanView> PlanAsync(string install) =>
        _service.GetAsync($"installs/{install}/plan", ContractsJson.Default.PlanView);

    private async Task AddAsync(string collection, string file, string text) =>
        (await _service.AddAsync(collection, file, Encoding.UTF8.GetBytes(text))).EnsureSuccessStatusCode();

    /// <summary>Adds a demo file with parts replaced, each of which must be there.</summary>
    private Task<HttpResponseMessage> AddDemoFileAsync(string collection, string file, params string[] replacements)
    {
        var text = File.ReadAllText(Path.Combine(Checkout.Top, "demo-data", collection, file));
        foreach (var pair in replacements.Chunk(2))
        {
            text.ShouldContain(pair[0]);
            text = text.Replace(pair[0], pair[1], StringComparison.Ordinal);
        }

        return _service.AddAsync(collection, file, Encoding.UTF8.GetBytes(text));
    }
}
