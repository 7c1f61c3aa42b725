using System.Net;
using System.Net.Http.Json;
using System.Text;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// Passwords of the demo, through the service, in the simulation: due, typed where, renewed in order, tried with care.
/// </summary>
public sealed class PasswordTests : IAsyncLifetime
{
    internal const string Account = "svc-curd-cards", Path = $"estates/fennmoor/passwords/{Account}";
    private TestedService _service = null!;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>The demo with the reader's password known and its services under its account.</summary>
    internal static PreparedData Ready { get; } = new(ReadyAsync);

    public async ValueTask InitializeAsync() => _service = await Ready.StartAsync();

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Fact]
    public async Task Each_account_is_due_when_its_own_policy_or_the_organization_says_and_changed_by_whom_it_concerns()
    {
        var all = (await _service.GetAsync(
            "estates/fennmoor/passwords", ContractsJson.Default.PasswordsView)).Accounts.ToDictionary(a => a.Account);
        all["svc-curd-lookup$"]
            .ShouldSatisfyAllConditions(
                a => a.Keeper.ShouldBe("directory"), a => a.Standing.ShouldBe("managed"), a => a.Places.ShouldBe(0));
        all["svc-curd-book"]
            .ShouldSatisfyAllConditions(
                a => a.Keeper.ShouldBe("product"), a => a.KeptBy.ShouldStartWith("Curdhouse"),
                a => a.Words.ShouldContain("Maud Ferris"));
        all[Account]
            .ShouldSatisfyAllConditions(
                a => a.Keeper.ShouldBe("us"),
                a => a.Due.ShouldBe(
                    DateTimeOffset.Parse("2027-01-05T09:20:00Z", System.Globalization.CultureInfo.InvariantCulture)),
                a => a.Places.ShouldBe(4));
        all["svc-curd-fitter"].Standing.ShouldBe("unreasoned");

        using var product = await _service.Http.PostAsync("/api/estates/fennmoor/passwords/svc-curd-book/renewals", null, Cancel);
        (product.StatusCode, await product.Content.ReadAsStringAsync(Cancel))
            .ShouldSatisfyAllConditions(
                r => r.StatusCode.ShouldBe(HttpStatusCode.Conflict), r => r.Item2.ShouldContain("changes it, in the directory"));
        using var unknown = await _service.Http.GetAsync("/api/estates/fennmoor/passwords/svc-curd-raed", Cancel);
        (await unknown.Content.ReadAsStringAsync(Cancel)).ShouldContain(Account); // the nearest name
    }

    [Fact]
    public async Task One_typed_in_several_places_is_renewed_in_order_and_its_services_run_on_it()
    {
        var detail = await ShowAsync();
        detail.Order.Select(s => s.Act)
            .ShouldBe(["set-in-directory", "keep", "set", "set", "type", "restart", "restart", "check"]);
        detail.ManagedObstacles!.ShouldContain(o => o.Contains("does not support gMSAs"));

        var waits = await GoOnAsync(await PostAsync($"{Path}/renewals", null));
        waits.ShouldSatisfyAllConditions(
            r => r.Next.ShouldBe("person"), r => r.Current.ShouldBe(5),
            r => r.Divided.ShouldHaveSingleItem()
                .ShouldBe("Account for the scanner in Card sources: it has the old one, the directory the new one"));
        using var twice = await _service.Http.PostAsync($"/api/{Path}/renewals", null, Cancel);
        twice.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        using var wrong = await _service.Http.PostAsync($"/api/runs/{waits.Id}/steps/6", Word("done"), Cancel);
        wrong.StatusCode.ShouldBe(HttpStatusCode.Conflict);

        var both = await Task.WhenAll(
            Enumerable.Range(0, 2).Select(_ => _service.Http.PostAsync($"/api/{Path}/show", null, Cancel)));
        using var handed = both.Single(r => r.StatusCode == HttpStatusCode.OK); // of two who ask at once, one gets it
        var shown = (await handed.Content.ReadFromJsonAsync(ContractsJson.Default.ShownPassword, Cancel))!.Password;
        shown.Length.ShouldBe(32);
        using var again = await _service.Http.PostAsync($"/api/{Path}/show", null, Cancel);
        again.StatusCode.ShouldBe(HttpStatusCode.Conflict); // once

        var over = await GoOnAsync(await PostAsync($"runs/{waits.Id}/steps/5", Word("done", "typed by J. Lind")));
        over.ShouldSatisfyAllConditions(
            r => r.Next.ShouldBe("over"), r => r.Words.ShouldBe("renewed"), r => r.Divided.ShouldBeEmpty(),
            r => r.Steps.ShouldAllBe(s => s.State == "made"), r => r.Steps[^1].Note.ShouldContain("2 services run on it"));
        (await TryAsync(shown)).Works.ShouldBe(true);
        await _service.RunAsync("installs/curdhouse-books/verify");
        var drift = await _service.GetAsync("installs/curdhouse-books/drift", ContractsJson.Default.DriftView);
        drift.Lines.Single(l => l.Words.Contains("its password was", StringComparison.Ordinal))
            .ShouldSatisfyAllConditions(l => l.Way.ShouldBe("other"), l =>
                l.Words.ShouldBe($"{Account}: its password was renewed here (tester)"));
        var after = await ShowAsync();
        after.Password.Standing.ShouldBe("later");
        after.Places.Single(p => p.Kind == "setting").LastBy.ShouldNotBeNull();
        (await _service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
        await NowhereAsync(_service, shown);
    }

    [Fact]
    public async Task A_renewal_that_fails_in_the_middle_goes_back_to_the_old_one_everywhere()
    {
        // The service of the second host is set to another account behind our back, after the estate was read.
        var simulation = System.IO.Path.Combine(_service.Data, "simulation", "fennmoor.json");
        var state = System.Text.Json.Nodes.JsonNode.Parse(await File.ReadAllTextAsync(simulation, Cancel))!;
        state["hosts"]!.AsArray().Single(h => (string?)h!["name"] == "fm-book02")!["services"]!.AsArray()
            .Single(s => (string?)s!["name"] == "CurdCards")!["account"] = @"FENNMOOR\svc-curd-labeller";
        await File.WriteAllTextAsync(simulation, state.ToJsonString(), Cancel);
        var waits = await GoOnAsync(await PostAsync($"{Path}/renewals", null));
        waits.ShouldSatisfyAllConditions(
            r => r.Next.ShouldBe("decision"), r => r.Current.ShouldBe(4), r => r.CanGoBack.ShouldBeTrue(),
            r => r.Words.ShouldContain("is set to run as"));
        waits.Divided.Count.ShouldBe(2);
        using var unreasoned = await _service.Http.PostAsync($"/api/runs/{waits.Id}/steps/4", Word("skip"), Cancel);
        unreasoned.StatusCode.ShouldBe(HttpStatusCode.BadRequest);

        var back = await GoOnAsync(await PostAsync($"runs/{waits.Id}/undo", null));
        back.ShouldSatisfyAllConditions(
            r => r.Next.ShouldBe("over"), r => r.GoesBack.ShouldBeTrue(), r => r.Divided.ShouldBeEmpty(),
            r => r.Words.ShouldBe("undone: the old password holds"));
        (await TryAsync($"simulated-{Account}")).Works.ShouldBe(true);
    }

    [Fact]
    public async Task Of_many_that_begin_at_once_one_does()
    {
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 6).Select(_ => _service.Http.PostAsync($"/api/{Path}/renewals", null, Cancel)));
        answers.Count(a => a.StatusCode == HttpStatusCode.Accepted).ShouldBe(1);
        answers.Count(a => a.StatusCode == HttpStatusCode.Conflict).ShouldBe(5);
        (await ShowAsync()).Renewals.ShouldHaveSingleItem();
        (await _service.GetAsync("log?take=100", ContractsJson.Default.LogPage)).Items
            .Count(e => e.Action == "renew").ShouldBe(1);
    }

    [Fact]
    public async Task No_service_is_restarted_onto_a_password_that_somebody_has_changed_meanwhile()
    {
        var waits = await GoOnAsync(await PostAsync($"{Path}/renewals", null));
        // somebody sets another password in the directory while a person is to type ours
        var simulation = System.IO.Path.Combine(_service.Data, "simulation", "fennmoor.json");
        var state = System.Text.Json.Nodes.JsonNode.Parse(await File.ReadAllTextAsync(simulation, Cancel))!;
        var account = state["principals"]!.AsArray().Single(p => (string?)p!["name"] == Account)!.AsObject();
        account["passwordProof"] = account["passwordProof"] is { } proof ? new string([.. ((string)proof!).Reverse()])
            : "another";
        await File.WriteAllTextAsync(simulation, state.ToJsonString(), Cancel);
        var before = RunsSince(state);

        var stopped = await GoOnAsync(await PostAsync($"runs/{waits.Id}/steps/5", Word("done")));
        stopped.ShouldSatisfyAllConditions(
            r => r.Next.ShouldBe("decision"), r => r.Current.ShouldBe(6),
            r => r.Words.ShouldContain("the directory no longer takes this password"));
        RunsSince(System.Text.Json.Nodes.JsonNode.Parse(await File.ReadAllTextAsync(simulation, Cancel))!).ShouldBe(before);

        static List<string> RunsSince(System.Text.Json.Nodes.JsonNode state) =>
            [.. state["hosts"]!.AsArray().SelectMany(h => h!["services"]!.AsArray())
                .Select(s => $"{s!["name"]} {s["runsSince"]}")];
    }

    [Fact]
    public async Task A_place_that_is_left_out_stays_mentioned()
    {
        var waits = await GoOnAsync(await PostAsync($"{Path}/renewals", null));
        var over = await GoOnAsync(
            await PostAsync($"runs/{waits.Id}/steps/5", Word("skip", "the page is retired on Friday")));
        over.ShouldSatisfyAllConditions(
            r => r.Next.ShouldBe("over"), r => r.Words.ShouldContain("1 place is with another password"),
            r => r.Divided.ShouldHaveSingleItem().ShouldContain("it has the old one"));
        (await ShowAsync()).Renewals[0].Divided.Count.ShouldBe(1);
    }

    [Fact]
    public async Task A_place_that_a_person_tells_of_is_part_of_the_order_until_it_is_forgotten()
    {
        var order = new PlaceOrder("fm-book01", "/srv/label/print.conf", "store.password", "labels are no longer printed", null);
        (await _service.Http.PostAsJsonAsync($"/api/{Path}/places", order, ContractsJson.Default.PlaceOrder, Cancel))
            .EnsureSuccessStatusCode();
        using var twice = await _service.Http.PostAsJsonAsync(
            $"/api/{Path}/places", order, ContractsJson.Default.PlaceOrder, Cancel);
        twice.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        using var nowhere = await _service.Http.PostAsJsonAsync(
            $"/api/{Path}/places", order with { Host = "fm-book09" }, ContractsJson.Default.PlaceOrder, Cancel);
        (await nowhere.Content.ReadAsStringAsync(Cancel)).ShouldContain("fm-book0");
        var told = (await ShowAsync()).Places.Single(p => p.Told is not null);
        (await ShowAsync()).Order.ShouldContain(s => s.Words.Contains("store.password in /srv/label/print.conf on fm-book01"));
        (await _service.Http.DeleteAsync($"/api/{Path}/places/{told.Told}", Cancel)).EnsureSuccessStatusCode();
        (await ShowAsync()).Places.ShouldNotContain(p => p.Told != null);
    }

    [Fact]
    public async Task The_last_try_before_an_account_is_locked_is_never_spent()
    {
        for (var i = 0; i < 4; i++) (await TryAsync("a wrong one")).Works.ShouldBe(false);
        var refused = await TryAsync("a wrong one");
        refused.ShouldSatisfyAllConditions(
            t => t.Works.ShouldBeNull(), t => t.Words.ShouldContain("one more would lock it"), t => t.WrongCounted.ShouldBe(4));
        (await _service.GetAsync("log?take=10", ContractsJson.Default.LogPage)).Items
            .ShouldNotContain(e => e.Detail.Contains("a wrong one was"));
    }

    /// <summary>Curdhouse after its reader was given its own account on both hosts.</summary>
    private static async Task ReadyAsync(TestedService service)
    {
        await service.AddDemoAsync();
        await KnowCardsAsync(service);
    }

    /// <summary>Tells the password of the card reader, and sets its services to run as it.</summary>
    internal static async Task KnowCardsAsync(TestedService service)
    {
        (await service.Http.PutAsJsonAsync(
            $"/api/secrets/{Account}", new SecretValue($"simulated-{Account}"), ContractsJson.Default.SecretValue, Cancel))
            .EnsureSuccessStatusCode();
        await service.RunAsync("installs/curdhouse-books/verify");
        var worklist = await service.GetAsync("installs/curdhouse-books/worklist", ContractsJson.Default.WorklistView);
        var granted = await service.RunAsync(
            "installs/curdhouse-books/grant",
            new GrantOrder(false, [.. worklist.Give.Where(s => s.Words.Contains("CurdCards")).Select(s => s.Id)]));
        granted.State.ShouldBe("done", granted.Message);
    }

    internal static StringContent Word(string word, string? note = null) =>
        new($"{{\"word\":\"{word}\",\"note\":{(note is null ? "null" : $"\"{note}\"")}}}", Encoding.UTF8, "application/json");

    private Task<PasswordDetailView> ShowAsync() => _service.GetAsync(Path, ContractsJson.Default.PasswordDetailView);

    private async Task<PasswordTryView> TryAsync(string password)
    {
        using var response = await _service.Http.PostAsJsonAsync(
            $"/api/{Path}/try", new PasswordTryOrder(password), ContractsJson.Default.PasswordTryOrder, Cancel);
        return (await response.Content.ReadFromJsonAsync(ContractsJson.Default.PasswordTryView, Cancel))!;
    }

    private async Task<RenewalView> PostAsync(string path, HttpContent? body)
    {
        using var response = await _service.Http.PostAsync($"/api/{path}", body, Cancel);
        response.StatusCode.ShouldBe(HttpStatusCode.Accepted, await response.Content.ReadAsStringAsync(Cancel));
        using var answer = System.Text.Json.JsonDocument.Parse(await response.Content.ReadAsStringAsync(Cancel));
        return await _service.GetAsync(
            $"renewals/{answer.RootElement.GetProperty("id").GetString()}", ContractsJson.Default.RenewalView);
    }

    private async Task<RenewalView> GoOnAsync(RenewalView renewal)
    {
        await _service.EndOfAsync(renewal.Id);
        return await _service.GetAsync($"renewals/{renewal.Id}", ContractsJson.Default.RenewalView);
    }

    private static async Task NowhereAsync(TestedService service, string secret)
    {
        await service.StopAsync();
        foreach (var file in service.DataFiles)
            Encoding.Latin1.GetString(await File.ReadAllBytesAsync(file, Cancel)).ShouldNotContain(secret, customMessage: file);
        service.Output.ShouldNotContain(secret);
    }
}
