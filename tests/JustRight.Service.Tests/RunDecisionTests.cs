using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using JustRight.Contracts;
using JustRight.Service.Jobs.Queue;

namespace JustRight.Service.Tests;

/// <summary>
/// What people decide about a run, by the API: a step is skipped, handed over, said to be done, tried again; and undone as far as
/// it was made.
/// </summary>
public sealed class RunDecisionTests : IAsyncLifetime
{
    private const string Install = "thermograph-dataroom", Host = "fm-temp02", Readers = "Event Log Readers";
    private TestedService _service = null!;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync() => _service = await PreparedData.Demo.StartAsync();

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Fact]
    public async Task A_step_that_a_person_does_is_looked_at_and_their_word_alone_does_not_count()
    {
        var run = await FailedAsync();
        var step = run.Steps.Single(s => s.State == "refused");
        var handed = await SaidAsync(run.Id, step.Number, "hand-over", "to the host team, ticket 4711");
        handed.ShouldSatisfyAllConditions(
            r => r.State.ShouldBe("waiting"), r => r.Next.ShouldBe(step.Number), r => r.CanBeStopped.ShouldBeTrue(),
            r => r.Steps[step.Number - 1].ByPerson.ShouldBeTrue(), r => r.Message!.ShouldContain("waits for a person"));

        await RenameAsync("Event Log Reader", Readers);
        var before = await SaidAsync(run.Id, step.Number, "done", null);
        before.State.ShouldBe("failed");
        before.Steps[step.Number - 1].After!.ShouldContain("tester says it is done, and it is not seen");
        (await SaidAsync(run.Id, step.Number, "retry", null)).State.ShouldBe("waiting", "it is the person's still");

        var group = await GroupAsync();
        await _service.ChangeSimulationAsync(
            s => s["hosts"].Named(Host)["localGroups"].Named(Readers)["members"]!.AsArray().Add(group), Cancel);
        var after = await SaidAsync(run.Id, step.Number, "done", "added by J. Lind");
        after.State.ShouldBe("done", after.Message);
        after.Steps[step.Number - 1].ShouldSatisfyAllConditions(
            s => s.State.ShouldBe("made"), s => s.By.ShouldBe("tester"), s => s.After!.ShouldContain("added by J. Lind"));
    }

    [Fact]
    public async Task A_skipped_step_takes_along_what_hangs_on_it_and_stays_mentioned()
    {
        var order = await OrderAsync();
        await _service.ChangeSimulationAsync(s => s["instances"].Named("fm-sql01")["name"] = "fm-sql01-away", Cancel);
        var run = await _service.RunAsync($"installs/{Install}/grant", order);
        var failed = run.Steps.First(s => s.State == "refused" && s.LeftOutWithIt.Count > 0);
        using (var unreasoned = await PostAsync(run.Id, failed.Number, "skip", " "))
            unreasoned.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var skipped = await SaidAsync(run.Id, failed.Number, "skip", "the instance moves on Friday");
        foreach (var number in failed.LeftOutWithIt)
            skipped.Steps[number - 1].ShouldSatisfyAllConditions(
                s => s.State.ShouldBe("skipped"), s => s.After.ShouldBe($"it hangs on step {failed.Number}"));
        while (skipped.State == "failed")
            skipped = await SaidAsync(run.Id, skipped.Next!.Value, "skip", "the instance moves on Friday");
        skipped.State.ShouldBe("done", skipped.Message);
        skipped.Message!.ShouldContain("left out");
        (await _service.GetAsync("log?take=100", ContractsJson.Default.LogPage)).Items.ShouldContain(
            e => e.Action == "leave out" && e.Detail.Contains($"; with it step", StringComparison.Ordinal));

        await _service.ChangeSimulationAsync(s => s["instances"].Named("fm-sql01-away")["name"] = "fm-sql01", Cancel);
        await _service.RunAsync("estates/fennmoor/survey"); // what cannot be read counts as use, and keeps accounts
        var undone = await _service.RunAsync($"runs/{run.Id}/undo");
        undone.State.ShouldBe("done", undone.Message);
        var after = await _service.GetAsync($"runs/{run.Id}", ContractsJson.Default.JobView);
        after.CanBeUndone.ShouldBeFalse();
        // what only made others count, a refresh or a restart, has nothing to be undone
        after.Steps.Where(s => s.State is not ("undone" or "skipped")).ShouldAllBe(
            s => s.State == "made" && s.Words.StartsWith("re", StringComparison.Ordinal));
    }

    [Fact]
    public async Task What_cannot_be_decided_is_refused_with_what_can()
    {
        var run = await FailedAsync();
        var made = run.Steps.First(s => s.State == "made").Number;
        foreach (var (id, number, word, status, says) in new[]
        {
            ("nothing", 1, "skip", HttpStatusCode.NotFound, "no run called"),
            (run.Id, 99, "skip", HttpStatusCode.NotFound, "no step of this run"),
            (run.Id, 1, "forget", HttpStatusCode.BadRequest, "hand-over"),
            (run.Id, made, "skip", HttpStatusCode.Conflict, "It is over"),
            (run.Id, made, "done", HttpStatusCode.Conflict, "It is over"),
            (run.Id, run.Next!.Value, "restart-now", HttpStatusCode.Conflict, "retry it, skip it"),
        })
        {
            using var answer = await PostAsync(id, number, word, "because");
            var text = await answer.Content.ReadAsStringAsync(Cancel);
            answer.StatusCode.ShouldBe(status, $"{word}: {text}");
            text.ShouldContain(says);
        }

        using var stop = await _service.Http.PostAsync($"/api/runs/{run.Id}/stop", null, Cancel);
        stop.StatusCode.ShouldBe(HttpStatusCode.Conflict, "it does not run");
        using var estate = await _service.Http.GetAsync("/api/runs?estate=fenmoor", Cancel);
        (await estate.Content.ReadAsStringAsync(Cancel)).ShouldContain("Did you mean 'fennmoor'?");
        using var many = await _service.Http.GetAsync("/api/runs?take=0", Cancel);
        many.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await _service.GetAsync("runs?estate=fennmoor", ContractsJson.Default.RunPage)).Items.Single()
            .ShouldSatisfyAllConditions(r => r.Id.ShouldBe(run.Id), r => r.Steps.ShouldBeEmpty(), r =>
                r.Total.ShouldBe(run.Total));
    }

    [Fact]
    public async Task A_run_that_waits_for_a_person_is_undone_as_far_as_it_was_made_and_waits_no_more()
    {
        var run = await FailedAsync();
        var step = run.Steps.Single(s => s.State == "refused").Number;
        (await SaidAsync(run.Id, step, "hand-over", null)).State.ShouldBe("waiting");
        (await _service.RunAsync($"runs/{run.Id}/undo")).State.ShouldBe("done");
        (await _service.GetAsync($"runs/{run.Id}", ContractsJson.Default.JobView)).State.ShouldBe("stopped");
        using var late = await PostAsync(run.Id, step, "done", null);
        (late.StatusCode, await late.Content.ReadAsStringAsync(Cancel)).ShouldSatisfyAllConditions(
            a => a.StatusCode.ShouldBe(HttpStatusCode.Conflict), a => a.Item2.ShouldContain("was undone"));
    }

    [Fact]
    public async Task Of_many_that_undo_at_once_or_try_again_at_once_one_does()
    {
        var run = await FailedAsync();
        var again = await Task.WhenAll(
            Enumerable.Range(0, 5).Select(_ => _service.Http.PostAsync($"/api/runs/{run.Id}/continue", null, Cancel)));
        again.Count(a => a.StatusCode == HttpStatusCode.Accepted).ShouldBe(1);
        await _service.EndOfAsync(run.Id);
        var undone = await Task.WhenAll(
            Enumerable.Range(0, 5).Select(_ => _service.Http.PostAsync($"/api/runs/{run.Id}/undo", null, Cancel)));
        undone.Count(a => a.StatusCode == HttpStatusCode.Accepted).ShouldBe(1);
        (await _service.GetAsync("runs", ContractsJson.Default.RunPage)).Items.Count(r => r.Kind == "undo").ShouldBe(1);
    }

    [Fact]
    public async Task Who_watches_again_gets_what_came_after_and_who_watched_an_earlier_start_gets_all()
    {
        var feed = new JobFeed();
        feed.Open("job");
        for (var i = 1; i <= 3; i++) feed.Tell("job", Event(i));
        var first = new List<(string Id, JobEvent Event)>();
        await foreach (var what in feed.WatchAsync("job", null, Cancel))
        {
            first.Add(what);
            if (first.Count == 3) break;
        }

        feed.Tell("job", Event(4));
        var rest = CollectAsync(first[1].Id);
        var all = CollectAsync("of-an-earlier-start.2");
        feed.Close("job", Event(5));
        (await rest).ShouldBe([3, 4, 5]);
        (await all).ShouldBe([1, 2, 3, 4, 5]);

        static JobEvent Event(int done) => new("running", done, 5, "", null);

        async Task<List<int>> CollectAsync(string last)
        {
            var seen = new List<int>();
            await foreach (var (_, what) in feed.WatchAsync("job", last, Cancel)) seen.Add(what.Done);
            return seen;
        }
    }

    /// <summary>A grant whose only failed step is a local group that somebody renamed meanwhile.</summary>
    private async Task<JobView> FailedAsync()
    {
        var order = await OrderAsync();
        await RenameAsync(Readers, "Event Log Reader");
        var run = await _service.RunAsync($"installs/{Install}/grant", order);
        run.State.ShouldBe("failed", run.Message);
        return run;
    }

    private async Task<GrantOrder> OrderAsync()
    {
        for (var i = 0; i < 2; i++) await _service.RunAsync($"installs/{Install}/verify"); // one host restarts first
        var worklist = await _service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView);
        return new GrantOrder(false, [.. worklist.Give.Where(s => s.Blocked is null).Select(s => s.Id)]);
    }

    /// <summary>Who is in that group on the other host, where the grant added it.</summary>
    private async Task<JsonNode> GroupAsync()
    {
        JsonNode? member = null;
        await _service.SimulationAsync(s => member = s["hosts"]!.AsArray()
            .Where(h => (string?)h!["name"] != Host)
            .SelectMany(h => h!["localGroups"]!.AsArray().Where(g => (string?)g!["name"] == Readers))
            .SelectMany(g => g!["members"]!.AsArray()).First(m => ((string)m!).Contains("thermo", StringComparison.Ordinal))!
            .DeepClone());
        return member!;
    }

    private Task RenameAsync(string from, string to) =>
        _service.ChangeSimulationAsync(s => s["hosts"].Named(Host)["localGroups"].Named(from)["name"] = to, Cancel);

    private Task<HttpResponseMessage> PostAsync(string run, int step, string word, string? note) =>
        _service.Http.PostAsync($"/api/runs/{run}/steps/{step}", PasswordTests.Word(word, note), Cancel);

    private async Task<JobView> SaidAsync(string run, int step, string word, string? note)
    {
        using var said = await PostAsync(run, step, word, note);
        said.StatusCode.ShouldBe(HttpStatusCode.Accepted, await said.Content.ReadAsStringAsync(Cancel));
        return await _service.EndOfAsync(run);
    }
}
