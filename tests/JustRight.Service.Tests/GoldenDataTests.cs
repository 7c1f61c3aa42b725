using System.Net.Http.Json;
using System.Text.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// What each release left behind, made by that release itself (scripts/golden.sh), is read whole by this one, and work goes on
/// with it: what was begun is ended, what was made is undone, what was kept secret is used.
/// </summary>
public sealed class GoldenDataTests
{
    private static readonly string Golden = Path.Combine(Checkout.Top, "tests", "golden");

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>The releases whose data is kept.</summary>
    public static TheoryData<string> Releases => [.. Directory.GetDirectories(Golden).Select(d => Path.GetFileName(d)!).Order()];

    [Theory]
    [MemberData(nameof(Releases))]
    public async Task What_a_release_left_behind_is_all_there(string release)
    {
        await using var service = await StartAsync(release);
        using var facts = JsonDocument.Parse(await File.ReadAllTextAsync(Path.Combine(Golden, release, "facts.json"), Cancel));

        await SecretsAsync(service, facts.RootElement);
        await CountsAsync(service, facts.RootElement);
        foreach (var install in facts.RootElement.GetProperty("installs").EnumerateObject())
            await InstallAsync(service, install.Name, install.Value);
        foreach (var path in await EverythingElseAsync(service)) await ReadAsync(service, path);
    }

    [Theory]
    [MemberData(nameof(Releases))]
    public async Task Work_goes_on_with_what_a_release_left_behind(string release)
    {
        await using var service = await StartAsync(release);
        await service.RunAsync("estates/fennmoor/survey");

        await RenewalEndsAsync(service);
        await ProposalIsCarriedOutAsync(service);
        await GrantIsUndoneAsync(service);
        await AdoptionIsFinishedAsync(service);
        await SecretsAreUsedAsync(service);
        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
    }

    private static Task<TestedService> StartAsync(string release) =>
        TestedService.StartOnAsync(Path.Combine(Golden, release, "data.tar.gz"));

    private static async Task<JsonElement> ReadAsync(TestedService service, string path)
    {
        using var response = await service.Http.GetAsync("/api/" + path, Cancel);
        var text = await response.Content.ReadAsStringAsync(Cancel);
        response.IsSuccessStatusCode.ShouldBeTrue($"{path}: {(int)response.StatusCode} {text}");
        if (response.Content.Headers.ContentType?.MediaType?.EndsWith("json", StringComparison.Ordinal) != true) return default;
        using var document = JsonDocument.Parse(text);
        return document.RootElement.Clone();
    }

    private static async Task CountsAsync(TestedService service, JsonElement facts)
    {
        var log = await service.GetAsync("log/check", ContractsJson.Default.LogCheckView);
        log.Sound.ShouldBeTrue();
        log.Entries.ShouldBeGreaterThanOrEqualTo(facts.GetProperty("log").GetInt64()); // signing in to look wrote one more
        foreach (var (fact, path) in new[]
        {
            ("sheets", "sheets"), ("estates", "estates"), ("proposals", "proposals"),
            ("adoptions", "adoptions"), ("traces", "estates/fennmoor/traces"),
        }) (await ReadAsync(service, path)).GetArrayLength().ShouldBe(facts.GetProperty(fact).GetInt32(), path);
        (await ReadAsync(service, "estates/fennmoor/notifications")).GetProperty("total").GetInt32()
            .ShouldBe(facts.GetProperty("notices").GetInt32());
    }

    /// <summary>Every secret is there, and none may be used for anything until an owner says so.</summary>
    private static async Task SecretsAsync(TestedService service, JsonElement facts)
    {
        var all = await service.GetAsync("secrets", ContractsJson.Default.IReadOnlyListSecretView);
        all.Count(s => s.SetAt is not null && !s.Name.Contains('\\', StringComparison.Ordinal))
            .ShouldBe(facts.GetProperty("secrets").GetInt32());
        all.SelectMany(s => s.Uses).ShouldAllBe(u => u.AllowedAt == null);
    }

    private static async Task InstallAsync(TestedService service, string install, JsonElement facts)
    {
        foreach (var (fact, part) in new[]
        {
            ("fits", "history"), ("exceptions", "exceptions"), ("reviews", "reviews"),
            ("confirmations", "confirmations"), ("passwords", "passwords"),
        })
        {
            var path = $"installs/{install}/{part}";
            (await ReadAsync(service, path)).GetArrayLength().ShouldBe(facts.GetProperty(fact).GetInt32(), path);
        }

        var grants = (await service.GetAsync($"runs?install={install}", ContractsJson.Default.RunPage)).Items
            .Count(r => r.Kind == "grant");
        var confirmed = (await service.GetAsync("log?take=500", ContractsJson.Default.LogPage)).Items
            .Count(e => e.Action is "confirm grant" or "confirm removal" && e.Subject == install);
        grants.ShouldBeGreaterThanOrEqualTo(confirmed, $"no run of {install} was lost");
        foreach (var part in new[] { "", "/plan", "/fit", "/worklist", "/ldif", "/handovers", "/evidence", "/report?form=csv" })
            await ReadAsync(service, $"installs/{install}{part}");
        var fits = await service.GetAsync($"installs/{install}/history?take=1000",
            ContractsJson.Default.IReadOnlyListKeptFitView);
        foreach (var (newer, older) in fits.Zip(fits.Skip(1)))
            await ReadAsync(service, $"installs/{install}/drift?from={older.Number}&to={newer.Number}");
        await ConfirmedStandsAsync(service, install);
    }

    /// <summary>What was confirmed is known by the id that it has today: the fit finds it.</summary>
    private static async Task ConfirmedStandsAsync(TestedService service, string install)
    {
        var words = await service.GetAsync(
            $"installs/{install}/confirmations", ContractsJson.Default.IReadOnlyListConfirmationView);
        if (words.Count == 0) return;
        var fit = await service.GetAsync($"installs/{install}/fit", ContractsJson.Default.FitView);
        foreach (var word in words)
            fit.Accounts.SelectMany(a => a.Rights).Select(j => j.Confirmable)
                .ShouldContain(p => p != null && p.Name == word.Role && p.SeenBy == word.SeenBy && p.At == word.At);
    }

    /// <summary>What is not an install's own: each job with its steps and what came of it, renewals, adoptions, people.</summary>
    private static async Task<IReadOnlyList<string>> EverythingElseAsync(TestedService service)
    {
        List<string> paths =
        [
            "tokens", "installs", "log?take=500", "estates/fennmoor", "estates/fennmoor/schedule", "estates/fennmoor/calendar",
            "estates/fennmoor/passwords", "estates/fennmoor/password-places", "estates/papers", "evidence-key",
            "installs/brinebook-contractors/sign-in",
        ];
        var installs = await service.InstallsAsync();
        List<IReadOnlyList<JobView>> lists =
            [await service.GetAsync("estates/fennmoor/traces", ContractsJson.Default.IReadOnlyListJobView)];
        foreach (var install in installs)
            lists.Add((await service.GetAsync($"runs?install={install.Name}", ContractsJson.Default.RunPage)).Items);
        foreach (var jobs in lists)
        {
            paths.AddRange(jobs.Select(j => $"jobs/{j.Id}"));
            paths.AddRange(jobs.Where(j => j.HasTrace).Select(j => $"jobs/{j.Id}/trace"));
        }

        foreach (var adoption in await service.GetAsync("adoptions", ContractsJson.Default.IReadOnlyListAdoptionSummary))
            paths.AddRange($"adoptions/{adoption.Name}", $"adoptions/{adoption.Name}/draft");
        var passwords = await service.GetAsync("estates/fennmoor/passwords", ContractsJson.Default.PasswordsView);
        paths.AddRange(passwords.Accounts.Select(a => $"estates/fennmoor/passwords/{a.Account}"));
        return paths;
    }

    /// <summary>
    /// The renewal that waited for a person: both its passwords are kept encrypted, and its steps as its journal.
    /// </summary>
    private static async Task RenewalEndsAsync(TestedService service)
    {
        var detail = await service.GetAsync("estates/fennmoor/passwords/svc-curd-read", ContractsJson.Default.PasswordDetailView);
        detail.Renewals.Count.ShouldBe(2);
        var renewal = detail.Renewals.Single(r => r.EndedAt is null);
        while (renewal is { EndedAt: null, Next: "person" })
        {
            await PostAsync(service, $"runs/{renewal.Id}/steps/{renewal.Current}", PasswordTests.Word("done"));
            renewal = await RenewalCrashTests.AtRestAsync(service, renewal.Id);
        }

        renewal.Words.ShouldBe("renewed");
    }

    /// <summary>The proposal that was approved then is carried out now; the one that still waited is approved.</summary>
    private static async Task ProposalIsCarriedOutAsync(TestedService service)
    {
        var proposals = (await service.GetAsync("proposals", ContractsJson.Default.IReadOnlyListJobView));
        var approved = proposals.Single(p => p.ApprovedBy is not null);
        await PostAsync(service, $"proposals/{approved.Id}/carry-out");
        var ended = await service.EndOfAsync(approved.Id);
        ended.State.ShouldBe("done", ended.Message);
        ended.Steps.ShouldContain(s => s.State == "made");

        // Its database is not there: what must fail is no longer offered, and a proposal to do it is void and says why.
        var open = proposals.Single(p => p.ApprovedBy is null).Id;
        using var refused = await service.Http.PostAsync($"/api/proposals/{open}/approve", null, Cancel);
        refused.StatusCode.ShouldBe(System.Net.HttpStatusCode.Conflict);
        (await refused.Content.ReadAsStringAsync(Cancel)).ShouldContain("the worklist no longer has its step ");
        (await service.GetAsync($"jobs/{open}", ContractsJson.Default.JobView)).State.ShouldBe("void");
    }

    /// <summary>What was made then is taken back by its journal.</summary>
    private static async Task GrantIsUndoneAsync(TestedService service)
    {
        var jobs = (await service.GetAsync("runs?install=nightchurn-dataroom", ContractsJson.Default.RunPage)).Items;
        var grant = jobs.Single(j => j is { Kind: "grant", CanBeUndone: true });
        var undo = await service.StartedAsync($"runs/{grant.Id}/undo", null);
        undo.State.ShouldBe("proposed", "two must agree in this estate");
        using var second = await service.ClientAsync("second", "granter");
        (await second.PostAsync($"/api/proposals/{undo.Id}/approve", null, Cancel)).EnsureSuccessStatusCode();
        await PostAsync(service, $"proposals/{undo.Id}/carry-out");
        undo = await service.EndOfAsync(undo.Id);
        undo.State.ShouldBe("done", undo.Message);
        undo.Steps.ShouldContain(s => s.State == "made");
        undo.Steps.ShouldAllBe(s => s.State == "made" || s.State == "already-so");
    }

    private static async Task AdoptionIsFinishedAsync(TestedService service)
    {
        var adoption = await service.GetAsync("adoptions/thermo-found", ContractsJson.Default.AdoptionView);
        adoption.Items.ShouldContain(i => i.Word == "not-sure");
        var open = adoption.Items.Where(i => i.Word is null).Select(i => i.Id).ToList();
        await PostAsync(service, "adoptions/thermo-found/answers", JsonContent.Create(
            new AdoptionAnswerOrder(open, "needed", "so it stands in the guide"), ContractsJson.Default.AdoptionAnswerOrder));
        await PostAsync(service, "adoptions/thermo-found/finish");
        await ReadAsync(service, "installs/thermo-found/fit");
    }

    /// <summary>A secret opens a directory, and a password not handed over yet is shown: both with the keys of then.</summary>
    private static async Task SecretsAreUsedAsync(TestedService service)
    {
        var job = await service.StartedAsync("installs/brinebook-contractors/sign-in/tests", JsonContent.Create(
            new SignInTestOrder(null, null), ContractsJson.Default.SignInTestOrder));
        var test = await service.GetAsync($"jobs/{job.Id}/sign-in-test", ContractsJson.Default.SignInTestView);
        test.Checks.Single(c => c.Id == "bind").Verdict.ShouldBe("pass");

        var passwords = await service.GetAsync(
            "installs/thermograph-dataroom/passwords", ContractsJson.Default.IReadOnlyListPasswordView);
        passwords.Count(p => p.HandedOverAt is not null).ShouldBe(1);
        var kept = passwords.Single(p => p.HandedOverAt is null).Account.Split('\\')[1];
        using var waits = await service.Http.PostAsync($"/api/estates/fennmoor/passwords/{kept}/show", null, Cancel);
        waits.StatusCode.ShouldBe(System.Net.HttpStatusCode.Conflict, "two must agree in this estate");
        using var third = await service.ClientAsync("third", "granter");
        var proposals = (await service.GetAsync("proposals", ContractsJson.Default.IReadOnlyListJobView));
        var asked = proposals.Single(p => p.Kind == "hand-over").Id;
        (await third.PostAsync($"/api/proposals/{asked}/approve", null, Cancel)).EnsureSuccessStatusCode();
        using var shown = await service.Http.PostAsync($"/api/estates/fennmoor/passwords/{kept}/show", null, Cancel);
        var password = (await shown.Content.ReadFromJsonAsync(ContractsJson.Default.ShownPassword, Cancel))!.Password;
        password.Length.ShouldBeGreaterThan(20);
    }

    private static async Task PostAsync(TestedService service, string path, HttpContent? body = null)
    {
        using var response = await service.Http.PostAsync("/api/" + path, body, Cancel);
        response.IsSuccessStatusCode.ShouldBeTrue($"{path}: {await response.Content.ReadAsStringAsync(Cancel)}");
    }
}
