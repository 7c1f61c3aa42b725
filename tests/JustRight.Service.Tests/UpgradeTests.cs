using System.Net;
using System.Net.Http.Json;
using System.Text;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// An install moves on to another release of its product: while the former one is installed, nothing that it needs is excess and
/// nothing is taken from it; afterwards what only it needed goes.
/// </summary>
public sealed class UpgradeTests : IAsyncLifetime
{
    private const string Install = "thermograph-dataroom", Former = "thermograph-dataroom-4-2", Later = "thermograph@5.0";
    private const string Administrators = "poller/excess/local-group:administrators@fm-temp01";

    private static readonly UpgradeOrder Order = new(
        Later, null, null, new Dictionary<string, IReadOnlyList<string>> { ["places.web-server"] = ["fm-temp02"] });

    private TestedService _service = null!;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        _service = await PreparedData.Demo.StartAsync();
        (await _service.AddAsync("sheets", "later/thermograph-5.0.yaml")).EnsureSuccessStatusCode();
    }

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Fact]
    public async Task Of_two_who_move_an_install_at_the_same_moment_one_is_told_that_the_other_did()
    {
        await GiveAsync(Install);
        await StageAsync(Install, "installed");
        var answers = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => _service.Http.PostAsJsonAsync(
            $"/api/installs/{Install}/upgrade", Order, ContractsJson.Default.UpgradeOrder, Cancel)));
        answers.Count(a => a.IsSuccessStatusCode).ShouldBe(1);
        // whoever came too late was told so, before anything was kept or at that moment
        answers.Where(a => !a.IsSuccessStatusCode).ShouldAllBe(
            a => a.StatusCode == HttpStatusCode.Conflict || a.StatusCode == HttpStatusCode.BadRequest);
        (await _service.InstallsAsync()).Count(i => i.Name == Former).ShouldBe(1);
        (await _service.Http.GetStringAsync($"/api/log?search=moved+from+{Install}", Cancel))
            .Split("moved from").Length.ShouldBe(2);
    }

    [Fact]
    public async Task The_former_release_keeps_what_it_needs_until_it_is_retired()
    {
        await GiveAsync(Install);
        await StageAsync(Install, "installed");
        var told = await TellAsync(Order);
        told.ShouldSatisfyAllConditions(
            t => t.Former.ShouldBe(Former), t => t.Asked.ShouldBeEmpty(), t => t.LeftOut.ShouldBe(["accounts.reports"]),
            t => t.Differences.Select(d => d.Change).Distinct().ShouldBe(["anew", "no-more", "differently"], ignoreOrder: true),
            t => t.Give!.Count.ShouldBeGreaterThan(3));
        (await _service.InstallsAsync()).ShouldNotContain(i => i.Name == Former); // telling stores nothing

        var moved = await MoveAsync(Order);
        moved.Summary.ShouldSatisfyAllConditions(s => s.Sheet.ShouldBe(Later), s => s.Stage.ShouldBe("planned"));
        (await ShowAsync(Former)).Summary.ShouldSatisfyAllConditions(
            s => s.Sheet.ShouldBe("thermograph@4.2"), s => s.Stage.ShouldBe("installed"));
        (await WorklistAsync(Install)).Give.Select(s => s.Words).ShouldBe(told.Give!.Select(s => s.Words));
        await NothingIsTakenAsync();
        await GiveAsync(Install);
        await NothingIsTakenAsync(); // nor is what the later release was given excess for the former

        await StageAsync(Install, "installed");
        await StageAsync(Former, "retiring");
        (await FitAsync(Install)).ShouldContain(Administrators);
        (await WorklistAsync(Former)).Remove.Select(s => s.Words).ShouldContain(
            w => w.Contains("delete the empty group", StringComparison.Ordinal)
                && w.Contains("app-thermo-log-readers", StringComparison.Ordinal));
        using var refused = await _service.Http.DeleteAsync($"/api/installs/{Former}", Cancel);
        (await refused.Content.ReadAsStringAsync(Cancel)).ShouldContain("still-given"); // by steps of its successor
        await TakeAsync(Install);
        (await FitAsync(Install)).ShouldNotContain(Administrators);
    }

    [Fact]
    public async Task What_people_confirmed_and_accepted_counts_for_both()
    {
        await GiveAsync(Install);
        await StageAsync(Install, "installed");
        var accepted = (await FitViewAsync(Install)).Accounts.SelectMany(a => a.Rights).First(r => r.Verdict == "excess");
        using var allowed = await _service.Http.PostAsJsonAsync(
            $"/api/installs/{Install}/exceptions",
            new ExceptionOrder(accepted.Id, "until the spring", DateOnly.FromDateTime(DateTime.UtcNow.AddDays(60)), "h.marsh"),
            ContractsJson.Default.ExceptionOrder, Cancel);
        allowed.EnsureSuccessStatusCode();
        await MoveAsync(Order);
        foreach (var install in new[] { Install, Former })
            (await FitViewAsync(install)).Accounts.SelectMany(a => a.Rights).First(r => r.Id == accepted.Id).Accepted
                .ShouldNotBeNull(install);
    }

    [Fact]
    public async Task One_that_was_given_nothing_just_moves()
    {
        (await TellAsync(Order)).Former.ShouldBeNull();
        await MoveAsync(Order);
        (await _service.InstallsAsync()).Count(i => i.Name.StartsWith(Install, StringComparison.Ordinal)).ShouldBe(1);
    }

    [Fact]
    public async Task A_file_of_another_release_does_not_just_replace_what_was_given()
    {
        var text = (await ShowAsync(Install)).Text.Replace("\"4.2\"", "\"5.0\"", StringComparison.Ordinal)
            .Replace("places:\n", "places:\n  web-server: fm-temp02\n", StringComparison.Ordinal)
            .Replace("  reports: { existing: svc-reports }\n", "", StringComparison.Ordinal);
        await GiveAsync(Install);
        using var refused = await _service.AddAsync("installs", "dataroom.yaml", Encoding.UTF8.GetBytes(text));
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await refused.Content.ReadAsStringAsync(Cancel)).ShouldContain("install upgrade");
        var with = new UpgradeOrder(Later, "dataroom.yaml", text, null);
        (await TellAsync(with)).ShouldSatisfyAllConditions(t => t.Former.ShouldBe(Former), t => t.Text.ShouldBe(text));
        (await MoveAsync(with)).Text.ShouldBe(text);
        (await ShowAsync(Former)).Summary.Stage.ShouldBe("retiring"); // it was never installed
    }

    [Theory]
    [InlineData("thermograph@5.1", null, 404, "thermograph@5.0")]
    [InlineData("thermograph@4.2", null, 400, "already")]
    [InlineData("curdhouse@7.1", null, 400, "another product")]
    [InlineData("thermograph@5.0", "install: 2", 400, "faulty-file")]
    [InlineData("thermograph@5.0", "name: another", 400, "'name'")]
    [InlineData("thermograph@5.0", "release: \"4.2\"", 400, "'release'")]
    [InlineData("thermograph@5.0", "stage: installed", 400, "'stage'")]
    [InlineData("thermograph@5.0", "estate: fennmoor\nsucceeded-by: curdhouse-books", 400, "not-by-hand")]
    public async Task What_cannot_be_is_one_clear_error(string to, string? line, int status, string says)
    {
        var text = line is null ? null : Changed((await ShowAsync(Install)).Text, line);
        using var told = await PostAsync("upgrading", new UpgradeOrder(to, "dataroom.yaml", text, null));
        ((int)told.StatusCode).ShouldBe(status);
        (await told.Content.ReadAsStringAsync(Cancel)).Replace("\\u0027", "'", StringComparison.Ordinal)
            .ShouldContain(says.Trim('\''), Case.Insensitive);
    }

    [Fact]
    public async Task What_is_asked_anew_must_be_said_before_it_moves()
    {
        var open = Order with { Said = null };
        (await TellAsync(open)).ShouldSatisfyAllConditions(
            t => t.Asked.Single().Field.ShouldBe("places.web-server"), t => t.Differences.ShouldBeEmpty(),
                t => t.Give.ShouldBeNull());
        using var refused = await PostAsync("upgrade", open);
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await refused.Content.ReadAsStringAsync(Cancel)).ShouldContain("places.web-server");
        (await ShowAsync(Install)).Summary.Sheet.ShouldBe("thermograph@4.2");
    }

    [Fact]
    public async Task No_file_calls_itself_a_former_release()
    {
        var text = (await ShowAsync("curdhouse-books")).Text + $"\nsucceeded-by: {Install}\n";
        using var refused = await _service.AddAsync("installs", "books.yaml", Encoding.UTF8.GetBytes(text));
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await refused.Content.ReadAsStringAsync(Cancel)).ShouldContain("succeeded-by");
        await GiveAsync(Install);
        await MoveAsync(Order);
        var former = (await ShowAsync(Former)).Text; // as it was written, it may come back
        (await _service.AddAsync("installs", "former.yaml", Encoding.UTF8.GetBytes(former))).EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task An_answer_to_what_is_not_asked_is_told_with_the_nearest_field()
    {
        using var told = await PostAsync("upgrading", Order with
        {
            Said = new Dictionary<string, IReadOnlyList<string>> { ["places.web-sever"] = ["fm-temp02"] },
        });
        told.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await told.Content.ReadAsStringAsync(Cancel)).ShouldContain("places.web-server");
    }

    private static string Changed(string text, string line)
    {
        var key = line[..line.IndexOf(':', StringComparison.Ordinal)];
        return string.Join('\n', text.Replace("\"4.2\"", "\"5.0\"", StringComparison.Ordinal).Split('\n')
            .Select(l => l.StartsWith($"{key}:", StringComparison.Ordinal) ? line : l));
    }

    /// <summary>Neither release's install has anything to remove that the other needs.</summary>
    private async Task NothingIsTakenAsync()
    {
        (await FitAsync(Install)).ShouldNotContain(Administrators);
        (await FitAsync(Former)).ShouldNotContain(id => id.Contains("poller/excess/local-group:event", StringComparison.Ordinal)
            || id.Contains("logon:service", StringComparison.Ordinal));
        foreach (var install in new[] { Install, Former })
            (await WorklistAsync(install)).Remove.ShouldNotContain(
                s => s.Words.Contains("Administrators", StringComparison.Ordinal)
                    || s.Words.Contains("app-thermo-log-readers", StringComparison.Ordinal));
    }

    private async Task<IEnumerable<string>> FitAsync(string install) =>
        (await FitViewAsync(install)).Accounts.SelectMany(a => a.Rights).Where(r => r.Verdict == "excess").Select(r => r.Id);

    private Task<FitView> FitViewAsync(string install) => _service.GetAsync($"installs/{install}/fit",
        ContractsJson.Default.FitView);

    private Task<WorklistView> WorklistAsync(string install) =>
        _service.GetAsync($"installs/{install}/worklist", ContractsJson.Default.WorklistView);

    private Task<InstallView> ShowAsync(string install) => _service.GetAsync($"installs/{install}",
        ContractsJson.Default.InstallView);

    private async Task GiveAsync(string install)
    {
        await _service.RunAsync($"installs/{install}/verify");
        await _service.GrantAllAsync(install);
    }

    private Task<JobView> TakeAsync(string install) => _service.GrantAllAsync(install, remove: true);

    private async Task StageAsync(string install, string stage)
    {
        using var set = await _service.Http.PostAsJsonAsync(
            $"/api/installs/{install}/stage", new StageOrder(stage), ContractsJson.Default.StageOrder, Cancel);
        set.EnsureSuccessStatusCode();
    }

    private Task<HttpResponseMessage> PostAsync(string call, UpgradeOrder order) => _service.Http.PostAsJsonAsync(
        $"/api/installs/{Install}/{call}", order, ContractsJson.Default.UpgradeOrder, Cancel);

    private async Task<UpgradeView> TellAsync(UpgradeOrder order)
    {
        using var told = await PostAsync("upgrading", order);
        told.StatusCode.ShouldBe(HttpStatusCode.OK, await told.Content.ReadAsStringAsync(Cancel));
        return (await told.Content.ReadFromJsonAsync(ContractsJson.Default.UpgradeView, Cancel))!;
    }

    private async Task<InstallView> MoveAsync(UpgradeOrder order)
    {
        using var moved = await PostAsync("upgrade", order);
        moved.StatusCode.ShouldBe(HttpStatusCode.OK, await moved.Content.ReadAsStringAsync(Cancel));
        return (await moved.Content.ReadFromJsonAsync(ContractsJson.Default.InstallView, Cancel))!;
    }
}
