using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// A simulation of one's own estate: the way from a vendor's table to an install that is just right, and the wall between it and
/// what is real.
/// </summary>
public sealed class RehearsalTests : IAsyncLifetime
{
    private const string Estate = "saltmere", Rehearsal = "saltmere-rehearsal";

    private const string Comma = """
        Account,Right,Where,Until,Given by,Why
        Poller,Log on as a service,Console server,,setup,runs the poller
        ,local administrator,Console server,installation,us,"reads counters, all of them"
        Archivist,"db_datareader, db_datawriter",Reporting store,always,us,files the readings
        """;

    private const string Tabs = """
        Accounts that Wheyline 3.2 needs
        Component	Service account	Required permissions	Server	Purpose
        Recorder	svc_rec	SeServiceLogonRight; Performance Log Users	Line host	records the lines
        Recorder	svc_rec	VIEW SERVER STATE	Line store	watches the store
        Mapper	svc_map	Write attributes mail, info of users		keeps the phone book
        """;

    private const string Semicolons = """
        Login;Access;Location
        svc-tally;SQLAgentUserRole;Tally store
        ;Lock pages in memory;Tally server
        svc-web;Log on as a batch job;Tally server
        """;

    private TestedService _service = null!;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync() => _service = await TestedService.StartAsync();

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Theory]
    [InlineData(Comma, "thermograph", "console-server: sm-app01", "reporting-store: sm-sql01/Thermo")]
    [InlineData(Tabs, "wheyline-guide", "line-host: sm-app01", "line-store: sm-sql01", "people: people")]
    [InlineData(Semicolons, "tallystick", "tally-store: sm-sql01/Tally", "tally-server: [sm-app01, sm-sql01]")]
    public async Task From_a_vendors_table_to_just_right(string table, string product, params string[] places)
    {
        var draft = await DraftAsync(table, product);
        draft.Faults.ShouldBeEmpty(draft.Text);
        await AddAsync("sheets", draft.Text);
        await AddAsync("estates", (await EstateTextAsync()).Replace("engine: postgresql", "engine: sqlserver",
            StringComparison.Ordinal));
        await AddAsync("installs", $"""
            install: 1
            name: {product}-plant
            product: {product}
            release: "1"
            estate: {Estate}
            places:
              {string.Join("\n  ", places)}
            """);
        var laid = await LayAsync(Estate);
        laid.ShouldSatisfyAllConditions(
            l => l.Estate.ShouldBe(Rehearsal), l => l.Installs.ShouldBe([$"{product}-plant-rehearsal"]),
            l => l.Hosts.ShouldBe(2), l => l.Instances.ShouldBe(2), l => l.Remarks.ShouldBeEmpty());

        var install = laid.Installs.Single();
        await VerifyAsync(install);
        (await _service.GrantAllAsync(install)).State.ShouldBe("done");
        (await FitAsync(install)).Counts.Words.ShouldStartWith("just right");
        (await PlayAsync(install)).Left.ShouldBeEmpty();
        await VerifyAsync(install);
        if ((await _service.GetAsync($"installs/{install}/worklist", ContractsJson.Default.WorklistView)).Remove.Count > 0)
            await _service.GrantAllAsync(install, remove: true); // what was needed only until it was installed
        var fit = await FitAsync(install);
        fit.ShouldSatisfyAllConditions(
            f => f.Stage.ShouldBe("installed"), f => f.Counts.Words.ShouldBe("just right"), f => f.Simulated.ShouldBeTrue());

        // undone, and begun anew
        await EndAsync();
        (await LayAsync(Estate)).Installs.Single().ShouldBe(install);
        await VerifyAsync(install);
        (await FitAsync(install)).ShouldSatisfyAllConditions(
            f => f.Stage.ShouldBe("planned"), f => f.Counts.Words.ShouldContain("missing"));
    }

    [Fact]
    public async Task What_could_be_taken_for_real_does_not_leave_it()
    {
        await _service.AddDemoAsync();
        await LayAsync("fennmoor");
        const string install = "thermograph-dataroom-rehearsal";
        await VerifyAsync(install);
        await VerifyAsync("rennet-roster-plants-rehearsal");
        foreach (var path in new[]
        {
            $"installs/{install}/ldif", $"installs/{install}/handovers", $"installs/{install}/handovers/directory-fennmoor",
            $"installs/{install}/evidence",
        })
            (await RefusedAsync(HttpMethod.Get, path)).ShouldContain("is a rehearsal");
        (await _service.GetAsync("installs/rennet-roster-plants-rehearsal/sign-in", ContractsJson.Default.SignInView)).Ldif
            .ShouldBeNull();
        (await RefusedAsync(
            HttpMethod.Post, "adoptions",
            JsonContent.Create(
                new AdoptionOrder("copied", "copied", "fennmoor-rehearsal", [new AdoptedAccountOrder("svc-archive")]),
                ContractsJson.Default.AdoptionOrder))).ShouldContain("Nothing is adopted from it");
        foreach (var form in new[] { "csv", "markdown", "html" })
            (await _service.Http.GetStringAsync($"/api/installs/{install}/report?form={form}", Cancel))
                .ShouldContain("simulated", Case.Insensitive);
        var trace = await _service.TraceAsync(
            "fennmoor-rehearsal", new TraceOrder(
                "svc-roundsman", null, null, "write attributes", ["roomNumber"], "user",
                    "OU=People,OU=Fennmoor,DC=fennmoor,DC=example", null, null,
                null));
        (await RefusedAsync(HttpMethod.Get, $"jobs/{trace.Id}/remedies/{trace.Failures[0].Remedies[0].Id}/ldif"))
            .ShouldContain("is a rehearsal");
        (await _service.NotificationsAsync("fennmoor-rehearsal")).ShouldAllBe(n => n.Deliveries.Count == 0);
    }

    [Fact]
    public async Task No_secret_and_no_password_crosses()
    {
        await _service.AddDemoAsync();
        await _service.SetSecretAsync("svc-curd-cards", "the real one, which is nobody's business");
        await VerifyAsync("thermograph-dataroom");
        (await _service.GrantAllAsync("thermograph-dataroom")).State.ShouldBe("done");
        await LayAsync("fennmoor");
        const string install = "thermograph-dataroom-rehearsal", cards = "curdhouse-books-rehearsal";
        await VerifyAsync(install);
        (await _service.GrantAllAsync(install)).State.ShouldBe("done");
        var made = (await KeptAsync(install)).Single(p => p.Account.EndsWith("svc-thermo-poller", StringComparison.Ordinal));
        var real = (await KeptAsync("thermograph-dataroom")).Single(p =>
            p.Account.EndsWith("svc-thermo-poller", StringComparison.Ordinal));
        (made.Account, real.Account).ShouldBe((@"fennmoor-rehearsal/FENNMOOR\svc-thermo-poller", @"FENNMOOR\svc-thermo-poller"));
        (await ShowAsync("fennmoor-rehearsal", "svc-thermo-poller"))
            .ShouldNotBe(await ShowAsync("fennmoor", "svc-thermo-poller"));

        // the account of a service has the password that accounts of a simulation come with, and never the secret of that name
        await VerifyAsync(cards);
        (await _service.GetAsync($"installs/{cards}/worklist", ContractsJson.Default.WorklistView)).Give
            .ShouldAllBe(s => s.Blocked == null || !s.Blocked.Contains("secret"));
        (await PlayAsync(cards)).ShouldSatisfyAllConditions(p => p.Left.ShouldBeEmpty(), p => p.Made.ShouldNotBeEmpty());
        var state = await File.ReadAllTextAsync(Path.Combine(_service.Data, "simulation", "fennmoor-rehearsal.json"), Cancel);
        state.ShouldContain("passwordProof");

        // a name that the one takes is no name that the other must not
        await VerifyAsync("tallystick-dataroom-rehearsal");
        await VerifyAsync("tallystick-dataroom");
        (await FitAsync("tallystick-dataroom")).Accounts.Select(a => a.Name)
            .ShouldBe((await FitAsync("tallystick-dataroom-rehearsal")).Accounts.Select(a => a.Name));

        // with the rehearsal go its passwords, and no others
        await EndAsync("fennmoor");
        (await KeptAsync("thermograph-dataroom")).ShouldContain(p => p.Account == real.Account);
        File.Exists(Path.Combine(_service.Data, "simulation", "fennmoor-rehearsal.json")).ShouldBeFalse();
        (await _service.InstallsAsync()).ShouldAllBe(i => i.Estate == "fennmoor");
    }

    [Fact]
    public async Task It_is_made_from_its_estate_alone_and_nothing_moves_in_or_out()
    {
        await _service.AddDemoAsync();
        await LayAsync("fennmoor");
        var text = (await _service.GetAsync("estates/fennmoor-rehearsal", ContractsJson.Default.EstateView)).Text;
        text.ShouldSatisfyAllConditions(
            t => t.ShouldContain("rehearses: fennmoor\n"), t => t.ShouldNotContain("notices"), t => t.ShouldNotContain("mail"));
        (await RefusedAsync(HttpMethod.Post, "estates", Yaml(text))).ShouldContain("justright estate rehearse fennmoor --fresh");
        (await RefusedAsync(HttpMethod.Post, "estates", Yaml(text.Replace("reach: simulation", "reach: none",
            StringComparison.Ordinal)
            .Replace("name: fennmoor-rehearsal", "name: elsewhere", StringComparison.Ordinal)), HttpStatusCode.BadRequest))
            .ShouldContain("rehearsal-name");
        (await RefusedAsync(HttpMethod.Delete, "estates/fennmoor-rehearsal")).ShouldContain("--end");
        (await RefusedAsync(HttpMethod.Post, "estates/fennmoor-rehearsal/rehearsal", Order()))
            .ShouldContain("a rehearsal itself");
        (await RefusedAsync(HttpMethod.Post, "estates/fennmoor/rehearsal", Order())).ShouldContain("--fresh");
        (await RefusedAsync(HttpMethod.Post, "installs/thermograph-dataroom/rehearsed-setup")).ShouldContain("in no rehearsal");
        (await RefusedAsync(
            HttpMethod.Post, "estates/fennmoor/rehearsal", Order(true, false, "nonsense"), HttpStatusCode.BadRequest))
            .ShouldContain("shared-account");

        var install = (await _service.GetAsync("installs/wheyline-lines-rehearsal", ContractsJson.Default.InstallView)).Text;
        var moved = install.Replace("estate: fennmoor-rehearsal", "estate: fennmoor", StringComparison.Ordinal);
        (await RefusedAsync(HttpMethod.Post, "installs", Yaml(moved)))
            .ShouldContain("does not move into a rehearsal or out of one");
        var real = (await _service.GetAsync("installs/wheyline-lines", ContractsJson.Default.InstallView)).Text;
        (await RefusedAsync(
            HttpMethod.Post, "installs", Yaml(real.Replace("estate: fennmoor", "estate: fennmoor-rehearsal",
                StringComparison.Ordinal))))
            .ShouldContain("does not move");

        // what is added to it stays when it is laid anew
        await AddAsync("installs", install.Replace("name: wheyline-lines-rehearsal", "name: tried", StringComparison.Ordinal));
        (await LayAsync("fennmoor", true, false, "leftover")).ShouldSatisfyAllConditions(
            l => l.Installs.ShouldContain("tried"), l => l.Mistakes.Single().ShouldStartWith("leftover: "));
        (await _service.GetAsync("estates/fennmoor/rehearsal", ContractsJson.Default.RehearsalView)).Mistakes.Single()
            .ShouldStartWith("leftover: ");
        (await _service.LogAsync()).Where(e => e.Action == "rehearse").Select(e => e.Detail.Split(',')[0])
            .ShouldBe(["laid anew", "laid"]);
        (await _service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
    }

    [Fact]
    public async Task It_holds_what_was_surveyed_when_that_is_asked()
    {
        await _service.AddDemoAsync();
        (await RefusedAsync(HttpMethod.Post, "estates/fennmoor/rehearsal", Order(false, true)))
            .ShouldContain("justright survey fennmoor");
        await _service.RunAsync("estates/fennmoor/survey");
        await _service.RunAsync("estates/fennmoor/survey"); // what restarts is back
        (await LayAsync("fennmoor", false, true)).ShouldSatisfyAllConditions(
            l => l.SurveyedAt.ShouldNotBeNull(), l => l.Remarks.ShouldBeEmpty());
        await VerifyAsync("thermograph-dataroom");
        await VerifyAsync("thermograph-dataroom-rehearsal");
        var (real, copy) = (await FitAsync("thermograph-dataroom"), await FitAsync("thermograph-dataroom-rehearsal"));
        copy.Counts.Words.ShouldBe(real.Counts.Words);
        copy.Counts.Forbidden.ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task Two_must_agree_on_the_real_estate_and_not_on_its_rehearsal()
    {
        await AddAsync("sheets", (await DraftAsync(Semicolons, "tallystick")).Text);
        await AddAsync("estates", await EstateTextAsync());
        await AddAsync("installs", $$"""
            install: 1
            name: tally
            product: tallystick
            release: "1"
            estate: saltmere
            places: { tally-store: sm-sql01/Tally, tally-server: sm-app01 }
            """);
        (await LayAsync(Estate)).Remarks.Single().ShouldStartWith("sm-pg01 is not simulated");
        await VerifyAsync("tally-rehearsal");
        (await _service.GrantAllAsync("tally-rehearsal")).State.ShouldBe("done");
        (await FitAsync("tally-rehearsal")).Counts.Words.ShouldBe("just right as far as seen");
        (await RefusedAsync(HttpMethod.Delete, "installs/tally")).ShouldContain("two-person-approval");
        await EndAsync();
    }

    private static async Task<string> EstateTextAsync() =>
        await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "tests", "rehearsal", "saltmere.yaml"), Cancel);

    private async Task<SheetDraftView> DraftAsync(string table, string product)
    {
        using var content = new ByteArrayContent(Encoding.UTF8.GetBytes(table));
        content.Headers.ContentType = new MediaTypeHeaderValue("text/csv");
        using var answer = await _service.Http.PostAsync($"/api/sheets/draft?file=guide.csv&product={product}&release=1",
            content, Cancel);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync(Cancel));
        return (await answer.Content.ReadFromJsonAsync(ContractsJson.Default.SheetDraftView, Cancel))!;
    }

    private async Task AddAsync(string collection, string text)
    {
        using var added = await _service.AddAsync(collection, "file.yaml", Encoding.UTF8.GetBytes(text));
        added.StatusCode.ShouldBe(HttpStatusCode.OK, $"{await added.Content.ReadAsStringAsync(Cancel)}\n{text}");
    }

    private static ByteArrayContent Yaml(string text) => new(Encoding.UTF8.GetBytes(text))
    {
        Headers = { ContentType = new MediaTypeHeaderValue("application/yaml") },
    };

    private static JsonContent Order(bool fresh = false, bool asSurveyed = false, params string[] mistakes) =>
        JsonContent.Create(new RehearsalOrder(fresh, asSurveyed, mistakes), ContractsJson.Default.RehearsalOrder);

    private async Task<RehearsalView> LayAsync(string estate, bool fresh = false, bool asSurveyed = false,
        params string[] mistakes)
    {
        using var answer = await _service.Http.PostAsync(
            $"/api/estates/{estate}/rehearsal", Order(fresh, asSurveyed, mistakes), Cancel);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync(Cancel));
        return (await answer.Content.ReadFromJsonAsync(ContractsJson.Default.RehearsalView, Cancel))!;
    }

    private async Task<SetupPlayedView> PlayAsync(string install)
    {
        using var answer = await _service.Http.PostAsync($"/api/installs/{install}/rehearsed-setup", null, Cancel);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync(Cancel));
        return (await answer.Content.ReadFromJsonAsync(ContractsJson.Default.SetupPlayedView, Cancel))!;
    }

    private async Task EndAsync(string estate = Estate)
    {
        using var answer = await _service.Http.DeleteAsync($"/api/estates/{estate}/rehearsal", Cancel);
        answer.StatusCode.ShouldBe(HttpStatusCode.NoContent, await answer.Content.ReadAsStringAsync(Cancel));
    }

    private Task<JobView> VerifyAsync(string install) => _service.RunAsync($"installs/{install}/verify");

    private Task<FitView> FitAsync(string install) => _service.GetAsync($"installs/{install}/fit", ContractsJson.Default.FitView);

    private Task<IReadOnlyList<PasswordView>> KeptAsync(string install) =>
        _service.GetAsync($"installs/{install}/passwords", ContractsJson.Default.IReadOnlyListPasswordView);

    private async Task<string> ShowAsync(string estate, string account)
    {
        using var shown = await _service.Http.PostAsync($"/api/estates/{estate}/passwords/{account}/show", null, Cancel);
        shown.StatusCode.ShouldBe(HttpStatusCode.OK, await shown.Content.ReadAsStringAsync(Cancel));
        return (await shown.Content.ReadFromJsonAsync(ContractsJson.Default.ShownPassword, Cancel))!.Password;
    }

    private async Task<string> RefusedAsync(
        HttpMethod method, string path, HttpContent? body = null, HttpStatusCode status = HttpStatusCode.Conflict)
    {
        using var request = new HttpRequestMessage(method, "/api/" + path) { Content = body };
        using var answer = await _service.Http.SendAsync(request, Cancel);
        var text = await answer.Content.ReadAsStringAsync(Cancel);
        answer.StatusCode.ShouldBe(status, $"{method} {path}: {text}");
        return text;
    }
}
