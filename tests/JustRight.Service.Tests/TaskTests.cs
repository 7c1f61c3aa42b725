using System.Net;
using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>Tasks through the service: done by a person, proved in words that are kept apart, and can be erased.</summary>
public sealed class TaskTests : IAsyncLifetime
{
    private const string Install = "millrace-gateway", Path = $"/api/installs/{Install}/confirmations";
    private const string Proof = "the gateway refused the name on page 5, ticket CHG0012345";
    private TestedService _service = null!;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        _service = await PreparedData.Demo.StartProcessAsync();
        await _service.RunAsync($"installs/{Install}/verify");
    }

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Fact]
    public async Task One_waits_for_another_and_each_is_confirmed_with_its_proof()
    {
        (await TasksAsync()).ShouldBe([
            ("alarm-address", "pending", "it waits until the task 'first-administrator' is done"),
            ("first-administrator", "unseen", "nobody has confirmed yet that it is done")]);
        await RefusedAsync(Order() with { Proof = " " }, "the gateway refuses the name that the operator's book prints");
        await SaidAsync(Order());
        (await TasksAsync()).Select(t => t.Verdict).ShouldBe(["unseen", "met"]);
        var word = (await WordsAsync()).ShouldHaveSingleItem();
        (word.Role, word.Held, word.Proof, word.Until - word.At).ShouldBe(
            ("first-administrator", true, Proof, TimeSpan.FromDays(180)));
        var entry = (await _service.LogAsync()).First(e => e.Action == "confirm");
        entry.Detail.ShouldContain(word.ProofHash!);
        entry.Detail.ShouldNotContain("page 5");
    }

    [Fact]
    public async Task What_looks_like_a_secret_is_kept_nowhere()
    {
        const string kept = "kettle and cup";
        (await _service.Http.PutAsJsonAsync(
            "/api/secrets/gate", new SecretValue(kept), ContractsJson.Default.SecretValue, Cancel)).EnsureSuccessStatusCode();
        await RefusedAsync(Order() with { Proof = $"entered {kept} and was let in" }, "a secret that is kept here");
        await RefusedAsync(Order() with { Proof = "the new password is Xk9!pqLm22" }, "looks like it holds");
        (await WordsAsync()).ShouldBeEmpty();
        await _service.StopAsync();
        foreach (var file in Directory.GetFiles(_service.Data, "*", SearchOption.AllDirectories))
            (await File.ReadAllTextAsync(file, Cancel)).ShouldNotContain("Xk9!pqLm22", Case.Sensitive, file);
    }

    [Fact]
    public async Task An_owner_erases_a_proof_and_the_word_its_hash_and_the_verdict_stay()
    {
        await SaidAsync(Order());
        var word = (await WordsAsync()).Single();
        var granter = await _service.ClientAsync("granter", "granter");
        (await granter.DeleteAsync($"{Path}/{word.Number}/proof", Cancel)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await _service.Http.DeleteAsync($"{Path}/{word.Number}/proof", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var erased = (await WordsAsync()).Single();
        (erased.Proof, erased.ProofHash, erased.ErasedBy).ShouldBe((null, word.ProofHash, "tester"));
        (await TasksAsync()).Single(t => t.Task == "first-administrator").Verdict.ShouldBe("met");
        (await _service.Http.DeleteAsync($"{Path}/{word.Number}/proof", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await _service.LogAsync())[0].Action.ShouldBe("proof-erase");
        await _service.StopAsync();
        foreach (var file in Directory.GetFiles(_service.Data, "*", SearchOption.AllDirectories))
            (await File.ReadAllTextAsync(file, Cancel)).ShouldNotContain("page 5, ticket", Case.Sensitive, file);
    }

    [Fact]
    public async Task It_is_handed_over_as_something_that_no_script_does()
    {
        var bundle = (await _service.GetAsync($"installs/{Install}/handovers", ContractsJson.Default.IReadOnlyListHandoverView))
            .Single(h => h.Team == "product");
        bundle.Folder.ShouldBe("millrace-gateway-product-fm-gate01-tasks");
        bundle.Steps.ShouldHaveSingleItem().Words.ShouldBe(
            "task 'first-administrator' at fm-gate01: Change the name and the password of the gateway's first administrator");
        (await _service.GetAsync("estates/fennmoor/calendar", ContractsJson.Default.CalendarView)).Entries
            .ShouldNotContain(e => e.Kind == "confirmation");
        await SaidAsync(Order());
        (await _service.GetAsync("estates/fennmoor/calendar", ContractsJson.Default.CalendarView)).Entries
            .ShouldContain(e => e.Kind == "confirmation");
    }

    private static ConfirmationOrder Order() => new("lookup", "first-administrator", true, "Maud Ferris", Proof);

    private async Task RefusedAsync(ConfirmationOrder order, string says)
    {
        using var answer = await _service.Http.PostAsJsonAsync(Path, order, ContractsJson.Default.ConfirmationOrder, Cancel);
        var text = await answer.Content.ReadAsStringAsync(Cancel);
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest, text);
        System.Text.RegularExpressions.Regex.Unescape(text).ShouldContain(says);
    }

    private async Task SaidAsync(ConfirmationOrder order) =>
        (await _service.Http.PostAsJsonAsync(Path, order, ContractsJson.Default.ConfirmationOrder, Cancel))
            .EnsureSuccessStatusCode();

    private async Task<IReadOnlyList<(string Task, string Verdict, string Reason)>> TasksAsync() =>
        [.. (await _service.GetAsync($"installs/{Install}/fit", ContractsJson.Default.FitView)).Accounts
            .SelectMany(a => a.Rights).Where(r => r.Kind == "task").OrderBy(r => r.Right, StringComparer.Ordinal)
            .Select(r => (r.Right, r.Verdict, r.Reason))];

    private Task<IReadOnlyList<ConfirmationView>> WordsAsync() =>
        _service.GetAsync($"installs/{Install}/confirmations", ContractsJson.Default.IReadOnlyListConfirmationView);
}
