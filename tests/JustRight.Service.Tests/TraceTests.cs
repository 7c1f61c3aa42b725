using System.Net;
using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>Traces on the simulation through the API: orders that are refused, what-ifs, fixing, undoing, and who may.</summary>
public sealed class TraceTests(ApiFixture fixture) : IClassFixture<ApiFixture>
{
    private const string Saltmere = "OU=Saltmere,OU=People,OU=Fennmoor,DC=fennmoor,DC=example";
    private readonly TestedService _service = fixture.Service;

    internal static TraceOrder Order { get; } = new(
        "svc-roundsman", null, null, "write attributes", ["roomNumber", "wWWHomePage"], "user", null, null, null, null);

    public static TheoryData<string, string, TraceOrder> Refused => new()
    {
        { "act", "Did you mean 'unlock'?", Order with { Act = "unlok" } },
        { "attributes", "Did you mean 'roomNumber'?", Order with { Attributes = ["roomNumbr"] } },
        { "of", "Did you mean 'user'?", Order with { Of = "usr" } },
        { "trace.attributes", "Expected: attributes", Order with { Attributes = [] } },
        { "below", "a branch of the estate", Order with { Below = "peeple" } },
        { "below", "one of them", Order with { Below = "people", Objects = ["a.brandt"] } },
        { "account", "an account, or the service", Order with { Account = null } },
        { "host", "fm-round01", Order with { Account = null, Service = "RoundsmanCopier", Host = "fm-temp01" } },
    };

    [Theory]
    [MemberData(nameof(Refused))]
    public async Task An_order_that_cannot_be_traced_is_refused_with_the_field_and_what_would_do(
        string field, string help, TraceOrder order)
    {
        using var response = await _service.Http.PostAsJsonAsync(
            "/api/estates/fennmoor/trace", order, ContractsJson.Default.TraceOrder);
        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var problem = (await response.Content.ReadFromJsonAsync(ContractsJson.Default.ProblemView))!;
        problem.Faults!.ShouldHaveSingleItem().Field.ShouldBe(field);
        $"{problem.Detail} {problem.Faults![0].Expected} {(problem.Faults[0].Nearest is { } near ? $"Did you mean '{near}'?" : "")}".ShouldContain(help);
    }

    [Theory]
    [InlineData("estates/nowhere/trace", "fennmoor")]
    [InlineData("estates/fennmoor/trace", "RoundsmanCopier")]
    public async Task What_is_not_in_the_books_is_not_found(string path, string known)
    {
        using var response = await _service.Http.PostAsJsonAsync(
            "/api/" + path, Order with { Account = null, Service = "RoundsmanCopyer" }, ContractsJson.Default.TraceOrder);
        response.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        if (path.Contains(known, StringComparison.Ordinal)) (await response.Content.ReadAsStringAsync()).ShouldContain(known);
    }

    [Fact]
    public async Task Only_the_latest_answers_are_kept_and_older_traces_keep_their_line()
    {
        await using var own = await PreparedData.Demo.StartAsync("--JustRight:TracesKept", "2");
        var ids = new List<string>();
        for (var i = 0; i < 3; i++) ids.Add((await own.TraceAsync("fennmoor", Order)).Id);
        (await own.Http.GetFromJsonAsync<JobView[]>("/api/estates/fennmoor/traces"))!.Select(j => (j.Id, j.HasTrace))
            .ShouldBe([(ids[2], true), (ids[1], true), (ids[0], false)]);
        using var gone = await own.Http.GetAsync($"/api/jobs/{ids[0]}/trace");
        gone.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_trace_finds_its_branch_by_the_need_says_why_and_supposing_answers_without_changing_anything()
    {
        await using var own = await PreparedData.Demo.StartAsync();
        var before = await own.TraceAsync("fennmoor", Order);
        (before.Below, before.Words, before.Can)
            .ShouldBe(("OU=People,OU=Fennmoor,DC=fennmoor,DC=example", "26 objects: 26 refuse it", 0));
        before.Failures.ShouldHaveSingleItem().Cause.ShouldBe("nothing-gives-it");
        await own.GrantAllAsync("roundsman-dataroom");

        var trace = await own.TraceAsync("fennmoor", Order);
        (trace.Words, trace.Simulated).ShouldBe(("26 objects: 9 refuse it, 17 grant it", true));
        trace.Tree.Single(b => b.IsCause).ShouldBe(new TraceBranchView(Saltmere, "Saltmere", 3, false, 0, 9, 0, true));
        (await own.TraceAsync("fennmoor", Order with { IfInheriting = [Saltmere] }))
            .ShouldSatisfyAllConditions(t => t.Cannot.ShouldBe(0), t => t.Supposed.Count.ShouldBe(1));
        (await own.TraceAsync("fennmoor", Order with { Attributes = ["telephoneNumber"], Objects = ["m.northam", "no-one"] }))
            .ShouldSatisfyAllConditions(t => t.Words.ShouldBe("one object: refuses it"), t => t.NotFound.ShouldBe(["no-one"]));
        (await own.TraceAsync(
            "fennmoor",
            Order with
            {
                Attributes = ["telephoneNumber"],
                Objects = ["m.northam"],
                IfMemberOf = ["saltmere-office"]
            })).Words.ShouldBe(
            "one object: grants it");
        (await own.TraceAsync("fennmoor", Order with { Objects = ["m.ferris"] })).Failures.ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(f => f.Cause.ShouldBe("protected-group"), f => f.Remedies.ShouldBeEmpty());

        var supposed = await own.TraceAsync("fennmoor", Order with { Attributes = ["mobile"], IfMemberOf = ["post-desk"] });
        using (var refused = await own.Http.PostAsJsonAsync(
            $"/api/jobs/{supposed.Id}/fix", new FixOrder(supposed.Failures[0].Remedies[0].Id), ContractsJson.Default.FixOrder))
            refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);

        var after = await own.FixAsync(trace.Id, "1-spot");
        (after.State, after.CanBeUndone, after.Message).ShouldBe(("done", true, "2 made; now 26 objects: 26 grant it"));
        var undone = await own.RunAsync($"runs/{after.Id}/undo");
        (undone.State, undone.Undoes, undone.Message)
            .ShouldBe(("done", after.Id, "2 made; now 26 objects: 9 refuse it, 17 grant it"));
        using (var again = await own.Http.PostAsync($"/api/runs/{after.Id}/undo", null))
            again.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        using (var nothing = await own.Http.PostAsync($"/api/runs/{trace.Id}/undo", null))
            nothing.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await own.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
    }

    [Fact]
    public async Task A_grant_is_undone_in_the_opposite_order()
    {
        await using var own = await PreparedData.Demo.StartAsync();
        var granted = await own.GrantAllAsync("roundsman-dataroom");
        var before = (await own.GetAsync("installs/roundsman-dataroom/fit", ContractsJson.Default.FitView)).Counts.Words;
        before.ShouldStartWith("1 missing");
        var undone = await own.RunAsync($"runs/{granted.Id}/undo");
        undone.Message.ShouldBe("4 made; now 3 missing, 1 forbidden");
        undone.Steps.Select(s => s.Words).ShouldBe(granted.Steps.Reverse().Select(s => s.Words switch
        {
            var w when w.StartsWith("add ", StringComparison.Ordinal) =>
                w.Replace("add ", "remove ", StringComparison.Ordinal).Replace(" to ", " from ", StringComparison.Ordinal),
            var w => "no longer " + w.Replace(", by an ACE on ", ": remove the ACE on ", StringComparison.Ordinal),
        }));
    }
}
