using System.Net;
using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>How people sign in to the demo's products, through the service, in the simulation.</summary>
public sealed class SignInTests : IAsyncLifetime
{
    private static readonly FilterOrder Everybody = new("(objectClass=inetOrgPerson)", null);
    private const string Roster = "rennet-roster-plants", Log = "brinebook-contractors", Gateway = "millrace-gateway";
    private TestedService _service = null!;

    public async ValueTask InitializeAsync()
    {
        _service = await PreparedData.Demo.StartAsync();
    }

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Fact]
    public async Task The_roster_before_and_after_its_worklist()
    {
        var before = await SettingsAsync(Roster);
        before.Findings.Select(f => f.Code).ShouldBe(["no-people-read", "bind-outside"], ignoreOrder: true);
        (await TryAsync(Roster, new SignInTestOrder(null, null))).Checks.Single(c => c.Id == "bind")
            .ShouldSatisfyAllConditions(c => c.Verdict.ShouldBe("unseen"), c => c.Cause.ShouldBe("password-not-known"));
        await _service.GrantAllAsync(Roster);
        var after = await TryAsync(Roster, new SignInTestOrder(null, "simulated-a.brandt"));
        after.Checks.Where(c => c.Verdict != "pass").Select(c => c.Id).ShouldBe(["empty-password", "confidential"]);
        after.People.ShouldNotBeNull()
            .ShouldSatisfyAllConditions(p => p.Found.ShouldBe(8), p => p.Missing.ShouldBeEmpty(), p => p.Extra.ShouldBeEmpty());
        after.Simulated.ShouldBeTrue();
        var settings = await SettingsAsync(Roster);
        settings.SignInTest.ShouldNotBeNull().Id.ShouldBe(after.Id);
        settings.Findings.ShouldNotContain(f => f.Code == "no-people-read");
        settings.PasswordPlaces.ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(p => p.Setting.ShouldBe("people.reader.password"), p => p.Host.ShouldBe("fm-roster01"));
        (await _service.GetAsync(
            "estates/fennmoor/password-places?account=svc-roster-reader", ContractsJson.Default.IReadOnlyListPasswordPlaceView))
            .ShouldBe(settings.PasswordPlaces);
        (await _service.GetAsync("estates/fennmoor/password-places", ContractsJson.Default.IReadOnlyListPasswordPlaceView))
            .ShouldContain(p => p.Where == "service" && p.Breaks.Contains("which fails", StringComparison.Ordinal));
        // whom the install puts into the group is no unexpected member there
        (await _service.GetAsync($"installs/{Roster}/fit", ContractsJson.Default.FitView)).Findings.ShouldBeEmpty();
    }

    [Fact]
    public async Task The_contractors_log_counts_who_is_missing()
    {
        await KeepAsync("brinebook", "simulated-brinebook");
        var test = await TryAsync(Log, new SignInTestOrder(null, null));
        test.People.ShouldNotBeNull().Missing.Select(m => $"{m.Name}: {m.Why}")
            .ShouldBe(["o.sorel: not in brinebook-users", "r.stroud: not in brinebook-users"]);
        test.People.Extra.Select(e => e.Name).ShouldBe(["t.novik"]);
    }

    [Fact]
    public async Task The_gateway_s_plain_text_gets_no_password_until_the_estate_says_why_and_then_it_shows_its_groups_alone()
    {
        (await SettingsAsync(Gateway)).Findings.ShouldContain(f => f.Code == "plain-text" && f.Weight == "wrong");
        var order = new SignInTestOrder("simulated-svc-millrace", null);
        (await TryAsync(Gateway, order)).Checks.Where(c => c.Verdict != "pass").Select(c => $"{c.Id} {c.Verdict} {c.Cause}")
            .ShouldBe(["protection fail unprotected", "bind unseen unprotected"]);

        var estate = await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"));
        const string offers = "    offers: [tls, start-tls, plain]\n";
        var allowed = estate.Replace(
            offers, offers + "    plain-text-because: the gateway and the controller share a room and a wire\n",
            StringComparison.Ordinal);
        allowed.ShouldNotBe(estate);
        (await _service.AddAsync("estates", "fennmoor.yaml", System.Text.Encoding.UTF8.GetBytes(allowed)))
            .EnsureSuccessStatusCode();
        var test = await TryAsync(Gateway, order);
        test.GroupNames.ShouldBe(["vpn-drivers", "vpn-keepers", "vpn-lab"]);
        test.Checks.Where(c => c.Verdict == "fail").Select(c => c.Id).ShouldBe(["bind-groups", "bind-writes"]);
    }

    [Fact]
    public async Task A_password_that_is_typed_is_kept_nowhere()
    {
        const string bind = "simulated-svc-millrace", person = "typed-only-once-and-wrong";
        await TryAsync(Gateway, new SignInTestOrder(bind, person));
        (await TryAsync(Gateway, new SignInTestOrder(null, null))).Checks.Single(c => c.Id == "bind").Verdict.ShouldBe("unseen");
        await _service.StopAsync();
        _service.Output.ShouldNotContain(person);
        foreach (var file in Directory.EnumerateFiles(_service.Data, "*", SearchOption.AllDirectories).Where(f =>
            !f.Contains($"{Path.DirectorySeparatorChar}simulation{Path.DirectorySeparatorChar}")))
        {
            var text = System.Text.Encoding.Latin1.GetString(await File.ReadAllBytesAsync(file));
            text.ShouldNotContain(person, Case.Sensitive, file);
            text.ShouldNotContain(bind, Case.Sensitive, file);
        }
    }

    [Theory]
    [InlineData("(cn=*", HttpStatusCode.OK, "A parenthesis is not closed.")]
    [InlineData("(objectClass=inetOrgPerson)", HttpStatusCode.OK, null)]
    public async Task A_filter_is_looked_at(string filter, HttpStatusCode status, string? fault)
    {
        await _service.RunAsync("estates/fennmoor/survey");
        using var response = await LookAsync("fennmoor", "contractors/filter", new FilterOrder(filter, null));
        response.StatusCode.ShouldBe(status);
        var view = (await response.Content.ReadFromJsonAsync(ContractsJson.Default.FilterView))!;
        view.Fault?.Message.ShouldBe(fault);
        if (fault is not null) return;
        view.Found.ShouldBe(11);
        view.Words.ShouldBe("objects that are of class inetOrgPerson");
        view.Objects.ShouldAllBe(o => o.Kind == "person" && o.LogonName != null);
    }

    [Fact]
    public async Task Whom_a_filter_finds_is_told_page_by_page_searched_and_sorted()
    {
        await _service.RunAsync("estates/fennmoor/survey");
        foreach (var ask in new[] { "", "/ask" })
        {
            var all = await FoundAsync(ask, "take=500");
            all.ShouldSatisfyAllConditions(
                v => v.Found.ShouldBe(11), v => v.Total.ShouldBe(11), v => v.Skipped.ShouldBe(0),
                v => v.Objects.Select(o => o.Dn).ShouldBe(v.Objects.Select(o => o.Dn).Order(StringComparer.OrdinalIgnoreCase)));
            (await FoundAsync(ask, "take=4&skip=8&sort=-name")).ShouldSatisfyAllConditions(
                v => v.Skipped.ShouldBe(8),
                v => v.Objects.Select(o => o.Name).ShouldBe(
                    all.Objects.Select(o => o.Name).OrderDescending(StringComparer.OrdinalIgnoreCase).Skip(8)));
            var sought = all.Objects[3];
            (await FoundAsync(ask, $"search={sought.LogonName}")).ShouldSatisfyAllConditions(
                v => v.Found.ShouldBe(11), v => v.Total.ShouldBe(v.Objects.Count), v => v.Total.ShouldBeLessThan(11),
                v => v.Objects.ShouldContain(sought));
            await RefusedAsync(LookAsync("fennmoor", $"contractors/filter{ask}?sort=age", Everybody), HttpStatusCode.BadRequest,
                "logon-name");
        }
    }

    [Fact]
    public async Task What_does_not_fit_is_refused_with_what_would_do()
    {
        await RefusedAsync(
            LookAsync("fennmoor", "contractors/filter", new FilterOrder("(cn=*)", null)), HttpStatusCode.Conflict,
            "justright survey fennmoor");
        await RefusedAsync(
            LookAsync("fennmoor", "contractor/filter", new FilterOrder("(cn=*)", null)), HttpStatusCode.NotFound, "contractors");
        await RefusedAsync(
            LookAsync("fennmor", "contractors/filter", new FilterOrder("(cn=*)", null)), HttpStatusCode.NotFound, "fennmoor");
        await RefusedAsync(
            LookAsync("fennmoor", "contractors/filter", new FilterOrder("(cn=*)", "nowhere")), HttpStatusCode.BadRequest,
            "distinguished name");
        await RefusedAsync(
            _service.Http.GetAsync("/api/installs/thermograph-dataroom/sign-in"), HttpStatusCode.NotFound, "sign-in.directory");
        await RefusedAsync(
            _service.Http.PostAsJsonAsync(
                $"/api/installs/{Log}/sign-in/tests", new SignInTestOrder("", null), ContractsJson.Default.SignInTestOrder),
            HttpStatusCode.BadRequest, "An empty password");
        await RefusedAsync(_service.Http.GetAsync("/api/jobs/nothing/sign-in-test"), HttpStatusCode.NotFound, "nothing");
    }

    private Task<SignInView> SettingsAsync(string install) =>
        _service.GetAsync($"installs/{install}/sign-in", ContractsJson.Default.SignInView);

    private async Task<SignInTestView> TryAsync(string install, SignInTestOrder order)
    {
        var job = await _service.StartedAsync(
            $"installs/{install}/sign-in/tests", JsonContent.Create(order, ContractsJson.Default.SignInTestOrder));
        return await _service.GetAsync($"jobs/{job.Id}/sign-in-test", ContractsJson.Default.SignInTestView);
    }

    private async Task KeepAsync(string secret, string value) =>
        (await _service.Http.PutAsJsonAsync($"/api/secrets/{secret}", new SecretValue(value), ContractsJson.Default.SecretValue))
            .EnsureSuccessStatusCode();

    private async Task<FilterView> FoundAsync(string ask, string query)
    {
        using var answer = await LookAsync("fennmoor", $"contractors/filter{ask}?{query}", Everybody);
        return (await answer.EnsureSuccessStatusCode().Content.ReadFromJsonAsync(ContractsJson.Default.FilterView))!;
    }

    private Task<HttpResponseMessage> LookAsync(string estate, string path, FilterOrder order) =>
        _service.Http.PostAsJsonAsync(
            $"/api/estates/{estate}/people-directories/{path}", order, ContractsJson.Default.FilterOrder);

    private static async Task RefusedAsync(Task<HttpResponseMessage> sending, HttpStatusCode status, string says)
    {
        using var response = await sending;
        response.StatusCode.ShouldBe(status);
        response.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        (await response.Content.ReadAsStringAsync()).ShouldContain(says);
    }
}
