using System.Net;
using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>Exceptions and reviews: who allowed what until when, at which fit, in every report.</summary>
public sealed class ReviewTests
{
    private const string Install = "quernstone-sql01";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static DateOnly Today => DateOnly.FromDateTime(DateTime.UtcNow);

    [Fact]
    public async Task What_was_accepted_stands_in_every_report_until_it_ends()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync($"installs/{Install}/verify"); // a host and an instance do not answer at first
        await service.RunAsync($"installs/{Install}/verify");
        var excess = (await FitAsync(service)).Accounts.SelectMany(a => a.Rights).Single(r => r.Verdict == "excess");

        await RefusedAsync(
            service, new ExceptionOrder("no such", "why", Today.AddDays(9)), HttpStatusCode.Conflict, "No deviation");
        await RefusedAsync(service, new ExceptionOrder(excess.Id, " ", Today.AddDays(9)), HttpStatusCode.BadRequest, "reason");
        await RefusedAsync(
            service, new ExceptionOrder(excess.Id, "why", Today.AddDays(-2)), HttpStatusCode.BadRequest, "ends within a year");
        await RefusedAsync(
            service, new ExceptionOrder(excess.Id, "why", Today.AddDays(400)), HttpStatusCode.BadRequest, "ends within a year");
        var accepted = await PostAsync(
            service, "exceptions", new ExceptionOrder(excess.Id, "until the release = March", Today.AddDays(90), "Maud Ferris"),
            ContractsJson.Default.ExceptionOrder, ContractsJson.Default.ExceptionView);
        (accepted.By, accepted.WrittenBy, accepted.Stands, accepted.Verdict).ShouldBe(("Maud Ferris", "tester", true, "excess"));

        var fit = await FitAsync(service);
        (fit.Counts.Excess, fit.Counts.Accepted, fit.Counts.Words).ShouldBe((1, 1, "1 excess, accepted"));
        (await service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView)).Remove.ShouldBeEmpty();
        foreach (var form in new[] { "markdown", "csv", "html" })
            (await service.Http.GetStringAsync($"/api/installs/{Install}/report?form={form}", Cancel))
                .ShouldSatisfyAllConditions(
                    r => r.ShouldContain("Maud Ferris"), r => r.ShouldContain("until the release = March"),
                    r => r.ShouldContain("sysadmin"));

        var latest = (await service.GetAsync(
            $"installs/{Install}/history", ContractsJson.Default.IReadOnlyListKeptFitView))[0].Number;
        using var stale = await service.Http.PostAsJsonAsync(
            $"/api/installs/{Install}/reviews", new ReviewOrder(latest - 1), ContractsJson.Default.ReviewOrder, Cancel);
        (stale.StatusCode, await stale.Content.ReadAsStringAsync(Cancel))
            .ShouldSatisfyAllConditions(
                s => s.StatusCode.ShouldBe(HttpStatusCode.Conflict), s => s.Item2.ShouldContain($"--from {latest - 1}"));
        var review = await PostAsync(
            service, "reviews", new ReviewOrder(latest, "Jory Lind", Today.AddDays(100), "again with the release"),
            ContractsJson.Default.ReviewOrder, ContractsJson.Default.ReviewView);
        review.Off.ShouldHaveSingleItem().Accepted!.By.ShouldBe("Maud Ferris");
        var due = (await service.GetAsync("estates/fennmoor/calendar", ContractsJson.Default.CalendarView)).Entries;
        due.ShouldContain(e => e.Kind == "exception" && e.Subject == Install && e.Words.Contains("Maud Ferris"));
        due.ShouldContain(e =>
            e.Kind == "review" && e.Subject == Install && DateOnly.FromDateTime(e.At.UtcDateTime) == Today.AddDays(100));

        using var ended = await service.Http.PostAsync($"/api/installs/{Install}/exceptions/{accepted.Number}/end", null, Cancel);
        ended.StatusCode.ShouldBe(HttpStatusCode.OK);
        using var twice = await service.Http.PostAsync($"/api/installs/{Install}/exceptions/{accepted.Number}/end", null, Cancel);
        twice.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await FitAsync(service)).Counts.Words.ShouldBe("1 excess");
        (await service.GetAsync("estates/fennmoor/notifications", ContractsJson.Default.NotificationPage)).Items
            .ShouldContain(
                n => n.Kind == "drift" && n.Text.Contains("no longer accepted"),
                "an end that no survey saw is told all the same");
        (await service.GetAsync(
            $"installs/{Install}/drift", ContractsJson.Default.DriftView)).Lines.ShouldHaveSingleItem().Words.ShouldContain(
            "still excess, and no longer accepted");
        (await service.GetAsync($"installs/{Install}/reviews", ContractsJson.Default.IReadOnlyListReviewView))
            .ShouldHaveSingleItem().Off[0].Accepted.ShouldNotBeNull("what was so at the review stays so in it");
        (await service.GetAsync("log?take=50", ContractsJson.Default.LogPage)).Items.Select(l => l.Action)
            .ShouldContain("review");
        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
    }

    [Fact]
    public async Task What_is_forbidden_only_an_owner_accepts()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync("installs/thermograph-dataroom/verify");
        var forbidden = (await service.GetAsync(
            "installs/thermograph-dataroom/fit", ContractsJson.Default.FitView)).Accounts.SelectMany(a => a.Rights)
            .First(r => r.Verdict == "forbidden");
        using var made = await service.Http.PostAsJsonAsync(
            "/api/tokens", new TokenOrder("granting", "granter", 1), ContractsJson.Default.TokenOrder, Cancel);
        using var granter = new HttpClient { BaseAddress = new Uri(service.Address) };
        granter.DefaultRequestHeaders.Authorization = new(
            "Bearer", (await made.Content.ReadFromJsonAsync(ContractsJson.Default.NewTokenView, Cancel))!.Token);
        var order = new ExceptionOrder(forbidden.Id, "moved in spring", Today.AddDays(30));
        using var refused = await granter.PostAsJsonAsync(
            "/api/installs/thermograph-dataroom/exceptions", order, ContractsJson.Default.ExceptionOrder, Cancel);
        refused.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        using var allowed = await service.Http.PostAsJsonAsync(
            "/api/installs/thermograph-dataroom/exceptions", order, ContractsJson.Default.ExceptionOrder, Cancel);
        allowed.StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    private static Task<FitView> FitAsync(TestedService service) =>
        service.GetAsync($"installs/{Install}/fit", ContractsJson.Default.FitView);

    private static async Task RefusedAsync(TestedService service, ExceptionOrder order, HttpStatusCode status, string says)
    {
        using var response = await service.Http.PostAsJsonAsync(
            $"/api/installs/{Install}/exceptions", order, ContractsJson.Default.ExceptionOrder, Cancel);
        (response.StatusCode, await response.Content.ReadAsStringAsync(Cancel))
            .ShouldSatisfyAllConditions(r => r.StatusCode.ShouldBe(status), r => r.Item2.ShouldContain(says));
    }

    private static async Task<TView> PostAsync<TOrder, TView>(
        TestedService service, string path, TOrder order, System.Text.Json.Serialization.Metadata.JsonTypeInfo<TOrder> type,
        System.Text.Json.Serialization.Metadata.JsonTypeInfo<TView> answer)
    {
        using var response = await service.Http.PostAsJsonAsync($"/api/installs/{Install}/{path}", order, type, Cancel);
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync(Cancel));
        return (await response.Content.ReadFromJsonAsync(answer, Cancel))!;
    }
}
