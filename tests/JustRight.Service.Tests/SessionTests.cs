using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>Sessions of the console end when somebody says so, and a token that signs nobody in says why.</summary>
public sealed class SessionTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Signing_out_ends_the_session_for_whoever_kept_the_cookie()
    {
        await using var service = await TestedService.StartAsync();
        var cookies = new CookieContainer();
        using var browser = Browser(service, new HttpClientHandler { CookieContainer = cookies });
        await SignInAsync(browser, service.Links[1]);
        var kept = cookies.GetCookieHeader(new Uri(service.Address));
        (await StatusAsync(service, kept)).ShouldBe(HttpStatusCode.OK);
        var session = (await SessionsAsync(service)).ShouldHaveSingleItem();
        (session.Role, session.ExpiresAt - session.StartedAt).ShouldBe(("owner", TimeSpan.FromHours(12)));

        (await browser.PostAsync("/api/sign-out", null, Cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await StatusAsync(service, kept)).ShouldBe(HttpStatusCode.Unauthorized);
        (await SessionsAsync(service)).ShouldBeEmpty();
    }

    [Fact]
    public async Task An_owner_ends_a_session_and_a_restart_ends_none()
    {
        await using var service = await TestedService.StartAsync();
        var cookies = new CookieContainer();
        using var browser = Browser(service, new HttpClientHandler { CookieContainer = cookies });
        await SignInAsync(browser, service.Links[1]);
        var kept = cookies.GetCookieHeader(new Uri(service.Address));
        await service.StopAsync();
        await service.RestartAsync();
        (await StatusAsync(service, kept)).ShouldBe(HttpStatusCode.OK);

        var session = (await SessionsAsync(service)).ShouldHaveSingleItem();
        (await service.Http.DeleteAsync($"/api/sessions/{session.Id}", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await StatusAsync(service, kept)).ShouldBe(HttpStatusCode.Unauthorized);
        (await service.Http.DeleteAsync($"/api/sessions/{session.Id}", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await service.Http.GetStringAsync("/api/log", Cancel)).ShouldContain("ended: signed in at");
    }

    [Fact]
    public async Task A_token_that_does_not_sign_in_says_why()
    {
        await using var service = await TestedService.StartAsync();
        using var night = await service.ClientAsync("night", "reader");
        var token = night.DefaultRequestHeaders.Authorization!.Parameter!;
        (await TitleAsync(service, "jr_nonsense")).ShouldBe((HttpStatusCode.Unauthorized, "This token is not known here."));
        (await service.Http.DeleteAsync("/api/tokens/night", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var (status, title) = await TitleAsync(service, token);
        status.ShouldBe(HttpStatusCode.Unauthorized);
        title.ShouldStartWith("This token was revoked at ");
        title.ShouldEndWith(" by tester.");
        // The name is free again, and a revoked token cannot be revoked.
        (await service.GetAsync("tokens", ContractsJson.Default.IReadOnlyListTokenView)).ShouldAllBe(t => t.Name != "night");
        (await service.Http.DeleteAsync("/api/tokens/night", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        using var again = await service.ClientAsync("night", "reader");
    }

    [Fact]
    public async Task A_token_is_its_persons()
    {
        await using var service = await TestedService.StartAsync();
        using var client = await service.ClientAsync("ada", "planner", @"FENNMOOR\a.brandt");
        (await client.GetFromJsonAsync("/api/me", ContractsJson.Default.WhoView, Cancel))!.Name.ShouldBe(@"FENNMOOR\a.brandt");
        (await service.Http.GetStringAsync("/api/log", Cancel)).ShouldContain(@"made for FENNMOOR\\a.brandt");
    }

    private static HttpClient Browser(TestedService service, HttpClientHandler handler) =>
        new(handler) { BaseAddress = new Uri(service.Address) };

    private static Task<IReadOnlyList<SessionView>> SessionsAsync(TestedService service) =>
        service.GetAsync("sessions", ContractsJson.Default.IReadOnlyListSessionView);

    private static async Task SignInAsync(HttpClient browser, string link)
    {
        using var response = await browser.PostAsJsonAsync(
            "/api/sign-in", new SignInCode(TestedService.CodeOf(link)), ContractsJson.Default.SignInCode, Cancel);
        response.StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    private static async Task<HttpStatusCode> StatusAsync(TestedService service, string cookie)
    {
        using var client = Browser(service, new HttpClientHandler { UseCookies = false });
        client.DefaultRequestHeaders.Add("Cookie", cookie);
        using var response = await client.GetAsync("/api/me", Cancel);
        return response.StatusCode;
    }

    private static async Task<(HttpStatusCode Status, string Title)> TitleAsync(TestedService service, string token)
    {
        using var client = new HttpClient { BaseAddress = new Uri(service.Address) };
        client.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token);
        using var response = await client.GetAsync("/api/me", Cancel);
        var problem = await response.Content.ReadFromJsonAsync(ContractsJson.Default.ProblemView, Cancel);
        return (response.StatusCode, problem!.Title);
    }
}
