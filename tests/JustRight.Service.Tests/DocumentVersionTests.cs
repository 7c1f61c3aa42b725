using System.Net;
using System.Net.Http.Json;
using System.Text;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>Every text of a document is kept, and documents go where nothing hangs on them.</summary>
public sealed class DocumentVersionTests : IAsyncLifetime
{
    private const string Estate = "fennmoor", Install = "thermograph-dataroom", Sheet = "thermograph@4.2";
    private TestedService _service = null!;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync() => _service = await PreparedData.Demo.StartAsync();

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Fact]
    public async Task Each_text_is_a_version_that_can_be_shown_and_compared()
    {
        (await VersionsAsync("estate", Estate)).Single().ShouldSatisfyAllConditions(
            v => v.Number.ShouldBe(1), v => v.File.ShouldBe("fennmoor.yaml"), v => v.RemovedAt.ShouldBeNull());
        var text = (await _service.GetAsync($"estates/{Estate}", ContractsJson.Default.EstateView)).Text;
        await AddAsync("estates", text); // the same again is no version
        await AddAsync("estates", text.Replace("every-days: 180", "every-days: 90", StringComparison.Ordinal));
        await AddAsync("estates", text);
        (await VersionsAsync("estate", Estate)).Select(v => v.Number).ShouldBe([3, 2, 1]);
        (await _service.GetAsync($"documents/estate/{Estate}/versions/2", ContractsJson.Default.DocumentTextView)).Text
            .ShouldContain("every-days: 90");
        var last = await ChangesAsync("");
        last.ShouldSatisfyAllConditions(c => c.From.Number.ShouldBe(2), c => c.To.Number.ShouldBe(3));
        last.Changes.Single().ShouldSatisfyAllConditions(c => c.ShouldContain("90"), c => c.ShouldContain("180"));
        (await ChangesAsync("?from=1&to=3")).Changes.ShouldBeEmpty();
        (await RefusedAsync($"documents/estate/{Estate}/versions/7", HttpStatusCode.NotFound)).ShouldContain("3");
        (await RefusedAsync("documents/estate/fenmoor/versions", HttpStatusCode.NotFound)).ShouldContain("fennmoor");
    }

    [Fact]
    public async Task What_replacing_would_change_is_told_before_and_for_whom()
    {
        var sheet = (await _service.GetAsync($"sheets/{Sheet}", ContractsJson.Default.SheetView)).Text;
        (await ReplacingAsync("sheet", sheet)).ShouldSatisfyAllConditions(
            r => r.IsThere.ShouldBeTrue(), r => r.Changes.ShouldBeEmpty(), r => r.Installs.ShouldBe([Install]));
        (await ReplacingAsync("sheet", sheet.Replace("Performance Log Users", "Users", StringComparison.Ordinal)
            .Replace("db_ddladmin", "db_owner", StringComparison.Ordinal).Replace("title: Thermograph", "title: Thermo",
                StringComparison.Ordinal)))
            .Changes.ShouldContain(c => c.Contains("title"));
        (await ReplacingAsync("sheet", sheet.Replace("release: \"4.2\"", "release: \"4.3\"", StringComparison.Ordinal)))
            .ShouldSatisfyAllConditions(r => r.Name.ShouldBe("thermograph@4.3"), r => r.IsThere.ShouldBeFalse());
        var estate = (await _service.GetAsync($"estates/{Estate}", ContractsJson.Default.EstateView)).Text;
        (await ReplacingAsync("estate", estate.Replace("every-days: 180", "every-days: 90", StringComparison.Ordinal)))
            .ShouldSatisfyAllConditions(r => r.Changes.Single().ShouldContain("90"), r => r.Installs.Count.ShouldBe(11));
        using var faulty = await _service.AddAsync("documents/estate/replacing", "bad.yaml", Encoding.UTF8.GetBytes("estate: 2"));
        faulty.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await VersionsAsync("sheet", Sheet)).Count.ShouldBe(1);
    }

    [Fact]
    public async Task The_file_of_an_install_gives_its_first_stage_and_no_other()
    {
        var text = (await _service.GetAsync($"installs/{Install}", ContractsJson.Default.InstallView)).Text;
        (await StageAsync(Install, "installed")).EnsureSuccessStatusCode();
        (await ReplacingAsync("install", text)).Changes.ShouldBeEmpty();
        await AddAsync("installs", text);
        (await _service.GetAsync($"installs/{Install}", ContractsJson.Default.InstallView)).ShouldSatisfyAllConditions(
            i => i.Summary.Stage.ShouldBe("installed"), i => i.Text.ShouldContain("stage: installed"));
        await AddAsync("installs", text.Replace("stage: planned\n", "", StringComparison.Ordinal)
            .Replace($"name: {Install}", $"name: {Install}\nstage: retiring", StringComparison.Ordinal));
        (await _service.GetAsync($"installs/{Install}", ContractsJson.Default.InstallView)).Summary.Stage.ShouldBe("installed");
        (await VersionsAsync("install", Install)).Count.ShouldBe(3); // the stage, and the text in another order
    }

    [Fact]
    public async Task A_stage_is_a_version_too()
    {
        (await StageAsync(Install, "installed")).EnsureSuccessStatusCode();
        var changes = await _service.GetAsync(
            $"documents/install/{Install}/changes", ContractsJson.Default.DocumentChangesView);
        changes.Changes.Single().ShouldContain("installed");
    }

    [Fact]
    public async Task What_something_hangs_on_is_not_removed()
    {
        (await RefusedAsync($"sheets/{Sheet}")).ShouldContain($"{Install} uses {Sheet}");
        (await RefusedAsync($"estates/{Estate}")).ShouldContain("and 6 more use fennmoor");
        (await RefusedAsync("sheets/thermograph@4.1", HttpStatusCode.NotFound, HttpMethod.Delete)).ShouldContain(Sheet);
        await _service.RunAsync($"installs/{Install}/verify");
        (await _service.GrantAllAsync(Install)).Steps.ShouldContain(s => s.State == "made");
        (await RefusedAsync($"installs/{Install}")).ShouldContain($"justright install stage {Install} retiring");
        (await StageAsync(Install, "retiring")).EnsureSuccessStatusCode();
        await _service.GrantAllAsync(Install, remove: true);
        (await RefusedAsync($"installs/{Install}")).ShouldContain("is not retired"); // disabled accounts wait for their time
    }

    [Fact]
    public async Task An_install_that_was_given_nothing_goes_and_leaves_its_record()
    {
        await _service.RunAsync($"installs/{Install}/verify");
        await RemoveAsync($"installs/{Install}");
        await RefusedAsync($"installs/{Install}", HttpStatusCode.NotFound, HttpMethod.Get);
        (await _service.InstallsAsync()).ShouldNotContain(i => i.Name == Install);
        (await VersionsAsync("install", Install)).Single().RemovedBy.ShouldNotBeNull();
        (await _service.LogAsync()).ShouldContain(e => e.Action == "install" && e.Subject == Install && e.Detail == "removed");
        await RemoveAsync($"sheets/{Sheet}");

        // added again, it goes on with its versions and begins without names of before
        (await _service.AddAsync("sheets", "sheets/thermograph.yaml")).EnsureSuccessStatusCode();
        (await _service.AddAsync("installs", $"installs/{Install}.yaml")).EnsureSuccessStatusCode();
        (await VersionsAsync("install", Install)).Select(v => v.Number).ShouldBe([2, 1]);
        (await _service.InstallsAsync()).Single(i => i.Name == Install).IsBeingJudged.ShouldBeFalse();
    }

    [Fact]
    public async Task One_that_was_given_rights_can_be_forgotten_and_says_so()
    {
        await _service.RunAsync($"installs/{Install}/verify");
        await _service.GrantAllAsync(Install);
        await RemoveAsync($"installs/{Install}?forget=true");
        (await _service.LogAsync()).ShouldContain(e => e.Detail == "removed: forgotten: what it was given stays");
        var others = await _service.InstallsAsync();
        others.ShouldAllBe(i => !i.IsBeingJudged);
        others.Count.ShouldBe(10);
    }

    [Fact]
    public async Task An_estate_goes_with_what_was_read_of_it_once_its_installs_are_gone()
    {
        await _service.RunAsync($"estates/{Estate}/survey");
        foreach (var install in await _service.InstallsAsync()) await RemoveAsync($"installs/{install.Name}");
        await RemoveAsync($"estates/{Estate}");
        (await _service.GetAsync("estates", ContractsJson.Default.IReadOnlyListEstateSummary)).ShouldBeEmpty();
        (await _service.AddAsync("estates", "estates/fennmoor.yaml")).EnsureSuccessStatusCode();
        (await _service.GetAsync($"estates/{Estate}", ContractsJson.Default.EstateView)).Survey.ShouldBeNull();
    }

    [Fact]
    public async Task Where_two_must_agree_a_removal_waits_for_the_second()
    {
        var text = (await _service.GetAsync($"estates/{Estate}", ContractsJson.Default.EstateView)).Text;
        await AddAsync("estates", text.Replace("rules:\n", "rules:\n  two-person-approval: yes\n", StringComparison.Ordinal));
        (await RefusedAsync($"installs/{Install}")).ShouldContain("two-person-approval");
        (await _service.InstallsAsync()).ShouldContain(i => i.Name == Install);
        using var second = await _service.ClientAsync("maud", "granter");
        var proposals = await _service.GetAsync("proposals", ContractsJson.Default.IReadOnlyListJobView);
        using var approved = await second.PostAsync($"/api/proposals/{proposals.Single().Id}/approve", null, Cancel);
        approved.EnsureSuccessStatusCode();
        (await RefusedAsync($"installs/{Install}?forget=true")).ShouldContain("two-person-approval"); // that was not approved
        await RemoveAsync($"installs/{Install}");
        (await RefusedAsync("installs/tallystick-dataroom")).ShouldContain("two-person-approval"); // nor is another
    }

    private async Task<ReplacingView> ReplacingAsync(string kind, string text)
    {
        using var told = await _service.AddAsync($"documents/{kind}/replacing", "file.yaml", Encoding.UTF8.GetBytes(text));
        told.StatusCode.ShouldBe(HttpStatusCode.OK, await told.Content.ReadAsStringAsync(Cancel));
        return (await told.Content.ReadFromJsonAsync(ContractsJson.Default.ReplacingView, Cancel))!;
    }

    private Task<IReadOnlyList<DocumentVersionView>> VersionsAsync(string kind, string name) =>
        _service.GetAsync($"documents/{kind}/{name}/versions", ContractsJson.Default.IReadOnlyListDocumentVersionView);

    private Task<DocumentChangesView> ChangesAsync(string query) =>
        _service.GetAsync($"documents/estate/{Estate}/changes{query}", ContractsJson.Default.DocumentChangesView);

    private async Task AddAsync(string collection, string text) =>
        (await _service.AddAsync(collection, "fennmoor.yaml", Encoding.UTF8.GetBytes(text))).EnsureSuccessStatusCode();

    private Task<HttpResponseMessage> StageAsync(string install, string stage) => _service.Http.PostAsync(
        $"/api/installs/{install}/stage", new StringContent($"{{\"stage\":\"{stage}\"}}", Encoding.UTF8, "application/json"),
        Cancel);

    private async Task RemoveAsync(string path)
    {
        using var answer = await _service.Http.DeleteAsync($"/api/{path}", Cancel);
        answer.StatusCode.ShouldBe(HttpStatusCode.NoContent, await answer.Content.ReadAsStringAsync(Cancel));
    }

    private Task<string> RefusedAsync(string path) => RefusedAsync(path, HttpStatusCode.Conflict, HttpMethod.Delete);

    private Task<string> RefusedAsync(string path, HttpStatusCode code) => RefusedAsync(path, code, HttpMethod.Get);

    private async Task<string> RefusedAsync(string path, HttpStatusCode code, HttpMethod method)
    {
        using var request = new HttpRequestMessage(method, $"/api/{path}");
        using var answer = await _service.Http.SendAsync(request, Cancel);
        var text = await answer.Content.ReadAsStringAsync(Cancel);
        answer.StatusCode.ShouldBe(code, text);
        return text;
    }
}
