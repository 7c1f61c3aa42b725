using System.Net;
using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>A person's word on what no survey reads, through the service.</summary>
public sealed class ConfirmationTests : IAsyncLifetime
{
    private const string Install = "wheyline-lines", Path = "/api/installs/" + Install + "/confirmations";
    private TestedService _service = null!;

    public async ValueTask InitializeAsync()
    {
        _service = await PreparedData.Demo.StartProcessAsync();
    }

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Fact]
    public async Task It_is_kept_with_both_names_a_time_and_an_end_and_all_words_stay()
    {
        await _service.RunAsync($"installs/{Install}/verify");
        (await NextAsync()).ShouldStartWith("grant 13");
        var judged = await SayAsync(new ConfirmationOrder("sender", "Tanker clerk", true, "Nell Hathersage"));
        judged.ShouldHaveSingleItem().Verdict.ShouldBe("met");
        await SayAsync(new ConfirmationOrder("svc-whey-sender", "TANKER CLERK", false));
        await _service.KillAsync();
        await _service.RestartAsync();
        var words = await _service.GetAsync(
            $"installs/{Install}/confirmations", ContractsJson.Default.IReadOnlyListConfirmationView);
        words.Select(w => (w.SeenBy, w.WrittenBy, w.Held))
            .ShouldBe([("tester", "tester", false), ("Nell Hathersage", "tester", true)]);
        words.ShouldAllBe(w => w.Until - w.At == TimeSpan.FromDays(180) && w.Lets.Count == 2 && w.Principal == "svc-whey-sender");
        (await _service.GetAsync($"installs/{Install}/fit", ContractsJson.Default.FitView)).Accounts.SelectMany(a => a.Rights)
            .Single(r => r.Confirmable is not null).Verdict.ShouldBe("missing");
    }

    [Fact]
    public async Task When_nothing_else_is_left_the_word_is_what_comes_next()
    {
        (await _service.Http.PutAsJsonAsync(
            "/api/secrets/svc-whey-sender", new SecretValue("simulated-svc-whey-sender"), ContractsJson.Default.SecretValue))
            .EnsureSuccessStatusCode();
        await _service.GrantAllAsync(Install);
        (await NextAsync()).ShouldStartWith("remove 8");
        await _service.GrantAllAsync(Install, remove: true);
        (await NextAsync()).ShouldBe("confirm 1 inside the product");
        await SayAsync(new ConfirmationOrder("sender", "Tanker clerk", true));
        (await NextAsync()).ShouldBe("nothing");
    }

    [Fact]
    public async Task Bad_words_are_refused_with_what_would_do()
    {
        await RefusedAsync(
            new ConfirmationOrder("sender", "Tanker clerk", true), HttpStatusCode.Conflict, "justright verify wheyline-lines");
        await _service.RunAsync($"installs/{Install}/verify");
        await RefusedAsync(new ConfirmationOrder("sendr", "Tanker clerk", true), HttpStatusCode.NotFound, "sender");
        await RefusedAsync(new ConfirmationOrder("sender", "Sender", true), HttpStatusCode.NotFound, "Tanker clerk");
        await RefusedAsync(
            new ConfirmationOrder("sender", "Tanker clerk", true, "two\nlines"), HttpStatusCode.BadRequest, "on one line");
        (await _service.GetAsync($"installs/{Install}/confirmations", ContractsJson.Default.IReadOnlyListConfirmationView))
            .ShouldBeEmpty();
    }

    private async Task RefusedAsync(ConfirmationOrder order, HttpStatusCode status, string says)
    {
        using var answer = await _service.Http.PostAsJsonAsync(Path, order, ContractsJson.Default.ConfirmationOrder);
        (answer.StatusCode, (await answer.Content.ReadAsStringAsync()).Contains(says, StringComparison.Ordinal))
            .ShouldBe((status, true));
    }

    private async Task<IReadOnlyList<JudgementView>> SayAsync(ConfirmationOrder order)
    {
        using var answer = await _service.Http.PostAsJsonAsync(Path, order, ContractsJson.Default.ConfirmationOrder);
        answer.EnsureSuccessStatusCode();
        return (await answer.Content.ReadFromJsonAsync(ContractsJson.Default.IReadOnlyListJudgementView))!;
    }

    private async Task<string> NextAsync() =>
        (await _service.InstallsAsync())
            .Single(i => i.Name == Install).Next;
}
