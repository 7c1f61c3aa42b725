using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

public sealed class ApiTests(ApiFixture fixture) : IClassFixture<ApiFixture>
{
    private const string Install = "thermograph-dataroom";
    private readonly TestedService _service = fixture.Service;

    public static TheoryData<string> Broken => [.. BrokenSheets.All.Select(b => b.Name)];

    [Theory]
    [MemberData(nameof(Broken))]
    public async Task A_broken_sheet_is_problem_json_with_its_place_and_leaves_the_store_untouched(string name)
    {
        var broken = BrokenSheets.All.Single(b => b.Name == name);
        var before = await BooksAsync();
        using var response = await _service.AddAsync("sheets", "broken.yaml", broken.Bytes);
        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        response.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        var problem = (await response.Content.ReadFromJsonAsync(ContractsJson.Default.ProblemView))!;
        problem.Type.ShouldBe("urn:justright:faulty-file");
        problem.Faults!.ShouldContain(f =>
            f.Code == broken.Code && f.File == "broken.yaml" && f.Line == broken.Line && f.Column == broken.Column);
        (await BooksAsync()).ShouldBe(before);
    }

    [Theory]
    [InlineData("reader", "GET", "installs", HttpStatusCode.OK)]
    [InlineData("reader", "POST", "installs/thermograph-dataroom/verify", HttpStatusCode.Forbidden)]
    [InlineData("planner", "POST", "installs/thermograph-dataroom/verify", HttpStatusCode.Accepted)]
    [InlineData("planner", "POST", "installs/thermograph-dataroom/grant", HttpStatusCode.Forbidden)]
    [InlineData("reader", "GET", "installs/rennet-roster-plants/sign-in", HttpStatusCode.OK)]
    [InlineData("reader", "POST", "installs/rennet-roster-plants/sign-in/tests", HttpStatusCode.Forbidden)]
    [InlineData("reader", "POST", "estates/fennmoor/people-directories/staff/filter/ask", HttpStatusCode.Forbidden)]
    [InlineData(null, "POST", "estates/fennmoor/people-directories/staff/filter", HttpStatusCode.Unauthorized)]
    [InlineData("granter", "GET", "tokens", HttpStatusCode.Forbidden)]
    [InlineData("granter", "GET", "secrets", HttpStatusCode.Forbidden)]
    [InlineData("owner", "GET", "secrets", HttpStatusCode.OK)]
    [InlineData(null, "GET", "installs", HttpStatusCode.Unauthorized)]
    [InlineData("wrong", "GET", "installs", HttpStatusCode.Unauthorized)]
    public async Task Roles_may_what_they_may(string? role, string method, string path, HttpStatusCode status)
    {
        using var http = new HttpClient { BaseAddress = new Uri(_service.Address) };
        if (role is not null)
            http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue(
                "Bearer", role == "wrong" ? "jr_wrong" : await TokenAsync(role));
        using var request = new HttpRequestMessage(new HttpMethod(method), "/api/" + path);
        if (path.EndsWith("/grant", StringComparison.Ordinal))
            request.Content = JsonContent.Create(new GrantOrder(false, ["x"]), ContractsJson.Default.GrantOrder);
        using var response = await http.SendAsync(request);
        response.StatusCode.ShouldBe(status);
        if ((int)status >= 400) response.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        // what it logs must not come in the middle of another test
        if (status == HttpStatusCode.Accepted)
            await _service.EndOfAsync((await response.Content.ReadFromJsonAsync(ContractsJson.Default.JobView))!.Id);
    }

    [Fact]
    public async Task A_code_signs_in_once_and_the_console_gets_a_cookie_that_scripts_cannot_read()
    {
        await using var own = await TestedService.StartAsync();
        using var http = new HttpClient { BaseAddress = new Uri(own.Address) };
        var code = new SignInCode(TestedService.CodeOf(own.Links[1]));
        using var first = await http.PostAsJsonAsync("/api/sign-in", code, ContractsJson.Default.SignInCode);
        first.StatusCode.ShouldBe(HttpStatusCode.OK);
        first.Headers.GetValues("Set-Cookie").Single()
            .ShouldSatisfyAllConditions(c => c.ShouldContain("httponly"), c => c.ShouldContain("samesite=strict"));
        (await http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
        using var second = await new HttpClient { BaseAddress = new Uri(own.Address) }.PostAsJsonAsync(
            "/api/sign-in", code, ContractsJson.Default.SignInCode);
        second.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);

        // A page of another site may not use the cookie, and guessing codes is slowed down.
        using var foreign = new HttpRequestMessage(HttpMethod.Post, "/api/estates/fennmoor/survey");
        foreign.Headers.Add("Origin", "http://elsewhere.example");
        (await http.SendAsync(foreign)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        var statuses = new List<HttpStatusCode>();
        for (var i = 0; i < 12; i++)
            statuses.Add((await http.PostAsJsonAsync(
                "/api/sign-in", new SignInCode("guess" + i), ContractsJson.Default.SignInCode)).StatusCode);
        statuses.ShouldContain(HttpStatusCode.TooManyRequests);
    }

    [Fact]
    public async Task A_step_that_the_worklist_does_not_offer_cannot_be_made()
    {
        await _service.RunAsync($"installs/{Install}/verify");
        using var response = await _service.Http.PostAsync(
            $"/api/installs/{Install}/grant",
            JsonContent.Create(
                new GrantOrder(false, [@"add fennmoor\svc-archive to fennmoor\domain admins"]),
                ContractsJson.Default.GrantOrder));
        response.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await response.Content.ReadFromJsonAsync(ContractsJson.Default.ProblemView))!.Type.ShouldBe(
            "urn:justright:worklist-changed");
    }

    [Theory]
    [InlineData("installs/thermograf-dataroom", "Did you mean 'thermograph-dataroom'?")]
    [InlineData("sheets/thermograph@4.3", "Did you mean 'thermograph@4.2'?")]
    [InlineData("estates/fenmoor", "Did you mean 'fennmoor'?")]
    public async Task What_is_not_there_is_404_with_the_nearest_name(string path, string detail)
    {
        using var response = await _service.Http.GetAsync("/api/" + path);
        response.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await response.Content.ReadFromJsonAsync(ContractsJson.Default.ProblemView))!.Detail.ShouldBe(detail);
    }

    [Fact]
    public async Task Progress_comes_as_server_sent_events_to_the_end()
    {
        using var response = await _service.Http.PostAsync($"/api/installs/{Install}/verify", null);
        var job = (await response.Content.ReadFromJsonAsync(ContractsJson.Default.JobView))!;
        var text = await _service.Http.GetStringAsync($"/api/jobs/{job.Id}/events");
        text.ShouldContain("event: progress");
        text.ShouldContain("reading fm-sql01");
        text.TrimEnd().Split("\n\n")[^1].ShouldContain("\"state\":\"done\"");
    }

    [Fact]
    public async Task The_api_description_in_the_repository_is_the_one_served()
    {
        var served = await _service.Http.GetStringAsync("/openapi/v1.json");
        var file = Path.Combine(Checkout.Top, "docs", "api", "openapi.json");
        if (Environment.GetEnvironmentVariable("JUSTRIGHT_WRITE_API") == "yes") await File.WriteAllTextAsync(file, served);
        (await File.ReadAllTextAsync(file))
            .ShouldBe(
                served,
                "Run the tests once with JUSTRIGHT_WRITE_API=yes, then npm run types in console/, and commit what changes.");
    }

    [Fact]
    public async Task Health_metrics_and_pages_answer_with_headers_that_keep_them_to_themselves()
    {
        (await _service.Http.GetStringAsync("/health")).ShouldContain("\"status\":\"Healthy\"");
        (await _service.Http.GetStringAsync("/metrics")).ShouldContain("http_server_request_duration");
        using var page = await _service.Http.GetAsync("/installs");
        page.Headers.GetValues("Content-Security-Policy").Single().ShouldContain("default-src 'self'");
        (await page.Content.ReadAsStringAsync()).ShouldContain("<div id=\"root\">");
        (await _service.Http.GetAsync("/api/nothing")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    private async Task<string> TokenAsync(string role)
    {
        using var response = await _service.Http.PostAsJsonAsync(
            "/api/tokens", new TokenOrder($"{role}-{Guid.NewGuid():N}", role, 1), ContractsJson.Default.TokenOrder);
        return (await response.Content.ReadFromJsonAsync(ContractsJson.Default.NewTokenView))!.Token;
    }

    private async Task<string> BooksAsync() =>
        string.Join(
            ';',
            (await _service.GetAsync("sheets", ContractsJson.Default.IReadOnlyListSheetSummary))
                .Select(s => s.ToString())) + (await _service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).LastHash;
}
