using System.Net;
using System.Net.Http.Json;
using System.Text;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// Where two must agree, one alone does nothing after which more could be done than before, whatever the way: it waits until
/// another
/// approved just that, and is then done once.
/// </summary>
public sealed class SecondPersonTests : IAsyncLifetime
{
    private const string Install = "thermograph-dataroom";

    /// <summary>
    /// The demo in which two must agree, with a grant made before that, and a password that waits to be handed over.
    /// </summary>
    private static readonly PreparedData TwoMustAgree = new(async service =>
    {
        await service.AddDemoAsync();
        for (var i = 0; i < 2; i++) await service.RunAsync($"installs/{Install}/verify");
        (await service.GrantAllAsync(Install)).State.ShouldBe("done");
        await service.SetSecretAsync("night", "a secret of the owner");
        (await service.AddAsync(
            "estates", "fennmoor.yaml", Text(
            "estates/fennmoor.yaml", "rules:\n", "rules:\n  two-person-approval: yes\n"))).EnsureSuccessStatusCode();
    });

    private TestedService _service = null!;
    private HttpClient _other = null!;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        _service = await TwoMustAgree.StartAsync();
        _other = await _service.ClientAsync("maud", "granter");
    }

    public ValueTask DisposeAsync()
    {
        _other.Dispose();
        return _service.DisposeAsync();
    }

    /// <summary>What loosens, and the words that the other is shown.</summary>
    public static TheoryData<string, string> Loosening => new()
    {
        { "the estate without two-person approval", "estate fennmoor: rules.two-person-approval: was yes, is gone" },
        { "the estate with a rule less", "estate fennmoor: rules.forbidden: " },
        { "another estate over the same domain",
            "estate shadow: it is about the domain fennmoor.example, as fennmoor is, where two must agree" },
        { "the sheet with a need more", "is new" },
        { "the install with other places", "install thermograph-dataroom: places.console-server: fm-temp02 is gone" },
        { "the stage", "set the stage of thermograph-dataroom to retiring" },
        { "an exception", "accept until " },
        { "a password shown", "show the password of FENNMOOR\\" },
        { "a backup with secrets", "make a backup with every secret, kept password and key in it, encrypted to CN=" },
    };

    [Theory]
    [MemberData(nameof(Loosening))]
    public async Task It_waits_for_another_and_is_done_once(string what, string words)
    {
        var ask = await AskingAsync(what);
        var first = await RefusedAsync(await ask());
        (await RefusedAsync(await ask())).ShouldBe(first, "asking again makes no second proposal");
        var proposal = (await _service.GetAsync("proposals", ContractsJson.Default.IReadOnlyListJobView)).ShouldHaveSingleItem();
        (proposal.Id, proposal.StartedBy, proposal.State).ShouldBe((first, "tester", "proposed"));
        proposal.Words.ShouldContain(w => w.Contains(words, StringComparison.Ordinal), string.Join("; ", proposal.Words));

        using var own = await _service.Http.PostAsync($"/api/proposals/{first}/approve", null, Cancel);
        (own.StatusCode, await own.Content.ReadAsStringAsync(Cancel)).ShouldSatisfyAllConditions(
            r => r.StatusCode.ShouldBe(HttpStatusCode.Conflict), r => r.Item2.ShouldContain("another person must approve it"));
        await RefusedAsync(await ask());

        (await _other.PostAsync($"/api/proposals/{first}/approve", null, Cancel)).EnsureSuccessStatusCode();
        using var done = await ask();
        done.StatusCode.ShouldBe(HttpStatusCode.OK, await done.Content.ReadAsStringAsync(Cancel));
        (await _service.GetAsync($"jobs/{first}", ContractsJson.Default.JobView)).ShouldSatisfyAllConditions(
            j => j.State.ShouldBe("done"), j => j.Message.ShouldBe("done by tester, approved by maud"));
        var log = (await _service.GetAsync("log?take=50", ContractsJson.Default.LogPage)).Items;
        log.ShouldContain(l => l.Action == "approve" && l.Who == "maud" && l.Detail.Contains(first, StringComparison.Ordinal));
    }

    [Fact]
    public async Task What_one_puts_in_place_of_the_approved_waits_again()
    {
        var first = await RefusedAsync(await EstateAsync("  survey-no-older-than-hours: 72", "  survey-no-older-than-hours: 71"));
        (await _other.PostAsync($"/api/proposals/{first}/approve", null, Cancel)).EnsureSuccessStatusCode();
        await RefusedAsync(await EstateAsync("  survey-no-older-than-hours: 72", "  survey-no-older-than-hours: 70"));
        (await _service.GetAsync($"jobs/{first}", ContractsJson.Default.JobView)).State.ShouldBe("approved");

        // What it rests on is other in between: it waits again.
        var second = await RefusedAsync(
            await EstateAsync("  survey-no-older-than-hours: 72", "  survey-no-older-than-hours: 69"));
        (await _other.PostAsync($"/api/proposals/{second}/approve", null, Cancel)).EnsureSuccessStatusCode();
        (await EstateAsync("  survey-no-older-than-hours: 72", "  survey-no-older-than-hours: 69")).EnsureSuccessStatusCode();
        await RefusedAsync(await EstateAsync("  survey-no-older-than-hours: 72", "  survey-no-older-than-hours: 71"));
    }

    [Fact]
    public async Task What_loosens_nothing_waits_for_nobody()
    {
        (await EstateAsync("rules:\n", "# a remark\nrules:\n")).EnsureSuccessStatusCode();
        (await EstateAsync("  forbidden:\n", "  forbidden:\n    - { domain-group: tasters, why: nobody who tastes }\n"))
            .EnsureSuccessStatusCode();
        (await _service.AddAsync(
            "installs", "thermograph-dataroom.yaml", Text(
            "installs/thermograph-dataroom.yaml", "name:", "# a remark\nname:"))).EnsureSuccessStatusCode();
        (await _service.GetAsync("proposals", ContractsJson.Default.IReadOnlyListJobView)).ShouldBeEmpty();
        (await _service.GetAsync("log?take=20", ContractsJson.Default.LogPage)).Items
            .ShouldContain(
                l => l.Detail.Contains(
                "rules.forbidden: domain-group tasters, why nobody who tastes is new", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Undoing_waits_for_another_too()
    {
        var grant = (await _service.GetAsync($"runs?install={Install}", ContractsJson.Default.RunPage)).Items.Single(
            j => j.Kind == "grant");
        using var asked = await _service.Http.PostAsync($"/api/runs/{grant.Id}/undo", null, Cancel);
        var undo = (await asked.Content.ReadFromJsonAsync(ContractsJson.Default.JobView, Cancel))!;
        undo.State.ShouldBe("proposed");
        (await _other.PostAsync($"/api/proposals/{undo.Id}/approve", null, Cancel)).EnsureSuccessStatusCode();
        (await _other.PostAsync($"/api/proposals/{undo.Id}/carry-out", null, Cancel)).EnsureSuccessStatusCode();
        var done = await _service.EndOfAsync(undo.Id);
        done.State.ShouldBe("done", done.Message);
    }

    [Fact]
    public async Task A_second_estate_that_was_there_before_gives_no_way_round()
    {
        await _service.StopAsync();
        await _service.SqlAsync(
            """
            INSERT INTO Documents (Kind, Name, File, Text, AddedAt, AddedBy)
            SELECT Kind, 'shadow', 'shadow.yaml',
                REPLACE(REPLACE(Text, 'name: fennmoor', 'name: shadow'), '  two-person-approval: yes', ''), AddedAt, AddedBy
            FROM Documents WHERE Kind = 'estate' AND Name = 'fennmoor'
            """);
        await _service.RestartAsync();
        (await _service.AddAsync(
            "installs", "brine.yaml", Text(
            "installs/brinebook-contractors.yaml", "name: brinebook-contractors", "name: shadowed", "estate: fennmoor",
            "estate: shadow"))).EnsureSuccessStatusCode();
        await RefusedAsync(
            await _service.Http.PostAsJsonAsync(
            "/api/installs/shadowed/stage", new StageOrder("retiring"), ContractsJson.Default.StageOrder, Cancel));
        await RefusedAsync(
            await _service.AddAsync(
            "estates", "shadow.yaml", Text(
            "estates/fennmoor.yaml", "name: fennmoor", "name: shadow", "  survey-no-older-than-hours: 72",
            "  survey-no-older-than-hours: 7")));
    }

    [Fact]
    public async Task An_allowance_waits_for_another_too()
    {
        var withSecret = Text(
            "estates/fennmoor.yaml", "rules:\n", "rules:\n  two-person-approval: yes\n",
            "  notices: { mail: service-accounts@fennmoor.example }",
            "  notices: { webhook: \"https://127.0.0.1:9/here\", webhook-secret: night }");
        var estate = await RefusedAsync(await _service.AddAsync("estates", "fennmoor.yaml", withSecret));
        (await _other.PostAsync($"/api/proposals/{estate}/approve", null, Cancel)).EnsureSuccessStatusCode();
        (await _service.AddAsync("estates", "fennmoor.yaml", withSecret)).EnsureSuccessStatusCode();

        var secrets = await _service.GetAsync("secrets", ContractsJson.Default.IReadOnlyListSecretView);
        var use = secrets.Single(s => s.Name == "night").Uses.ShouldHaveSingleItem();
        var first = await RefusedAsync(await AllowAsync());
        (await _other.PostAsync($"/api/proposals/{first}/approve", null, Cancel)).EnsureSuccessStatusCode();
        (await AllowAsync()).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        Task<HttpResponseMessage> AllowAsync() => _service.Http.PutAsync($"/api/secrets/night/uses/{use.Id}", null, Cancel);
    }

    [Fact]
    public async Task An_estate_that_comes_to_share_and_loosens_at_once_waits_once()
    {
        (await _service.AddAsync("estates", "lane.yaml", Lane("lane", 72))).EnsureSuccessStatusCode();
        var both = Lane("fennmoor", 71);
        var first = await RefusedAsync(await _service.AddAsync("estates", "lane.yaml", both));
        (await _other.PostAsync($"/api/proposals/{first}/approve", null, Cancel)).EnsureSuccessStatusCode();
        (await _service.AddAsync("estates", "lane.yaml", both)).EnsureSuccessStatusCode();

        static byte[] Lane(string domain, int hours) => Encoding.UTF8.GetBytes(
            $$"""
            estate: 1
            name: lane
            title: The branch in the lane
            domain: { dns: {{domain}}.example, short: LANE }
            directory: { reach: simulation }
            branches:
              service-accounts: OU=Service Accounts,DC={{domain}},DC=example
              application-groups: OU=Application Groups,DC={{domain}},DC=example
            naming:
              accounts: svc-{product}-{account}
              groups: app-{product}-{group}
              description: "{purpose}"
              accounts-in: service-accounts
              groups-in: application-groups
            rules:
              two-person-approval: yes
              survey-no-older-than-hours: {{hours}}
            """);
    }

    [Fact]
    public async Task A_sheet_waits_where_an_install_that_no_longer_reads_may_be_of_it()
    {
        await _service.StopAsync();
        await _service.SqlAsync(
            """
            UPDATE Documents SET Text = 'name: thermograph-dataroom' WHERE Kind = 'install' AND Name = 'thermograph-dataroom'
            """);
        await _service.RestartAsync();
        await RefusedAsync(await (await AskingAsync("the sheet with a need more"))());
    }

    [Fact]
    public async Task Who_proposed_withdraws_it_and_another_planner_does_not()
    {
        using var planner = await _service.ClientAsync("edwin", "planner");
        using var another = await _service.ClientAsync("ottilie", "planner");
        var order = new StageOrder("retiring");
        var first = await RefusedAsync(await planner.PostAsJsonAsync(
            $"/api/installs/{Install}/stage", order, ContractsJson.Default.StageOrder, Cancel));
        using var refused = await another.PostAsync($"/api/proposals/{first}/withdraw", null, Cancel);
        refused.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await refused.Content.ReadAsStringAsync(Cancel)).ShouldContain("This is the proposal of edwin.");
        (await planner.PostAsync($"/api/proposals/{first}/withdraw", null, Cancel)).EnsureSuccessStatusCode();
        (await _service.GetAsync($"jobs/{first}", ContractsJson.Default.JobView)).State.ShouldBe("withdrawn");
    }

    /// <summary>What is asked for, again and again the same.</summary>
    private async Task<Func<Task<HttpResponseMessage>>> AskingAsync(string what)
    {
        switch (what)
        {
            case "the estate without two-person approval":
                return () => _service.AddAsync("estates", "fennmoor.yaml", Text("estates/fennmoor.yaml"));
            case "the estate with a rule less":
                const string rule =
                    """    - { domain-group: Enterprise Admins, why: "rule 7: no service account administers the forest" }""";
                return () => EstateAsync(rule, "");
            case "another estate over the same domain":
                return () =>
                    _service.AddAsync("estates", "shadow.yaml", Text("estates/fennmoor.yaml", "name: fennmoor", "name: shadow"));
            case "the sheet with a need more":
                return () =>
                    _service.AddAsync(
                    "sheets", "thermograph.yaml", Text(
                    "sheets/thermograph.yaml", "      - { logon: service, on: console-server, given-by: setup",
                    "      - { local-group: Users, on: console-server, why: more }\n"
                    + "      - { logon: service, on: console-server, given-by: setup"));
            case "the install with other places":
                return () =>
                    _service.AddAsync(
                    "installs", "thermograph-dataroom.yaml", Text(
                    "installs/thermograph-dataroom.yaml", "[fm-temp01, fm-temp02]", "[fm-temp01]"));
            case "the stage":
                return () =>
                    _service.Http.PostAsJsonAsync(
                    $"/api/installs/{Install}/stage", new StageOrder("retiring"), ContractsJson.Default.StageOrder, Cancel);
            case "an exception":
                var fit = await _service.GetAsync($"installs/{Install}/fit", ContractsJson.Default.FitView);
                var off = fit.Accounts.SelectMany(a => a.Rights).First(r => r.Verdict is "excess" or "forbidden");
                var until = DateOnly.FromDateTime(DateTime.UtcNow.AddDays(30));
                return () =>
                    _service.Http.PostAsJsonAsync(
                    $"/api/installs/{Install}/exceptions", new ExceptionOrder(off.Id, "until the move", until, null),
                    ContractsJson.Default.ExceptionOrder, Cancel);
            case "a password shown":
                var password = (
                    await _service.GetAsync($"installs/{Install}/passwords", ContractsJson.Default.IReadOnlyListPasswordView))[0];
                return () =>
                    _service.Http.PostAsync(
                    $"/api/estates/fennmoor/passwords/{password.Account.Split('\\')[1]}/show", null, Cancel);
            case "a backup with secrets":
                using (var authority = new TestAuthority("keeper"))
                {
                    var file = Path.Combine(_service.Data, "keeper.pem");
                    authority.Issue(file, file + ".key", ["keeper"], 30);
                    var order = new BackupOrder { Recipient = await File.ReadAllTextAsync(file, Cancel) };
                    return () => _service.Http.PostAsJsonAsync("/api/backup", order, ContractsJson.Default.BackupOrder, Cancel);
                }

            default:
                throw new InvalidOperationException($"Unknown: {what}.");
        }
    }

    private Task<HttpResponseMessage> EstateAsync(string old, string now) =>
        _service.AddAsync(
            "estates", "fennmoor.yaml", Encoding.UTF8.GetBytes(
            Encoding.UTF8.GetString(Text("estates/fennmoor.yaml", old, now)).Replace(
            "rules:\n", "rules:\n  two-person-approval: yes\n", StringComparison.Ordinal)));

    /// <summary>A file of the demo with texts replaced, each of which must be there.</summary>
    private static byte[] Text(string file, params string[] replacements)
    {
        var text = File.ReadAllText(Path.Combine(Checkout.Top, "demo-data", file));
        for (var i = 0; i < replacements.Length; i += 2)
        {
            text.ShouldContain(replacements[i]);
            text = text.Replace(replacements[i], replacements[i + 1], StringComparison.Ordinal);
        }

        return Encoding.UTF8.GetBytes(text);
    }

    /// <summary>That something waits for a second person; returns the proposal.</summary>
    private static async Task<string> RefusedAsync(HttpResponseMessage response)
    {
        using (response)
        {
            var text = await response.Content.ReadAsStringAsync(Cancel);
            response.StatusCode.ShouldBe(HttpStatusCode.Conflict, text);
            text.ShouldContain("urn:justright:two-person-approval");
            return System.Text.RegularExpressions.Regex.Match(text, "proposal ([0-9a-f]{32})").Groups[1].Value;
        }
    }
}
