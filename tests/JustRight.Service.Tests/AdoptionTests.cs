using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>Adopting what is already there, through the service: from accounts to items to a fit.</summary>
public sealed class AdoptionTests
{
    private static readonly AdoptionOrder Curdhouse = new(
        "curdhouse-found", "curdhouse", "fennmoor",
        [new("svc-curd-labeller", WorksAs: "pool"), new("svc-curd-fitter", "setup", "Sets it up")], "7.1", "Curdhouse, as found");

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_accounts_hold_is_confirmed_item_by_item_and_ends_in_a_fit()
    {
        await using var service = await TestedService.StartAsync();
        (await service.AddAsync("estates", "estates/fennmoor.yaml")).EnsureSuccessStatusCode();
        (await PostAsync(service, "adoptions", Curdhouse)).EnsureSuccessStatusCode();
        (await ViewAsync(service)).ShouldSatisfyAllConditions(v => v.SurveyedAt.ShouldBeNull(), v => v.Missing.Count.ShouldBe(2));
        await service.RunAsync("estates/fennmoor/survey");
        await service.RunAsync("estates/fennmoor/survey"); // two servers do not answer at first
        var found = await ViewAsync(service);
        found.ShouldSatisfyAllConditions(
            v => v.Missing.ShouldBeEmpty(), v => v.Open.ShouldBe(v.Items.Count),
            v => v.Services.ShouldContain("CurdLabels on fm-book01 runs as svc-curd-labeller"));
        var owner = found.Items.Single(i => i.Right == "owner");

        (await AnswerAsync(service, "perhaps", owner.Id)).Text.ShouldContain("needed, not-needed, not-sure");
        (await AnswerAsync(service, "needed", "nothing/at-all")).Code.ShouldBe(HttpStatusCode.Conflict);
        using var early = await service.Http.PostAsync("/api/adoptions/curdhouse-found/finish", null, Cancel);
        (early.StatusCode, await early.Content.ReadAsStringAsync(Cancel))
            .ShouldSatisfyAllConditions(
                e => e.StatusCode.ShouldBe(HttpStatusCode.Conflict), e => e.Item2.ShouldContain("are not answered yet"));
        (await AnswerAsync(
            service, "needed",
            [.. found.Items.Where(i => i.Account == "svc-curd-labeller").Select(i => i.Id)])).Code.ShouldBe(HttpStatusCode.OK);
        (await AnswerAsync(
            service, "not-sure",
            [.. found.Items.Where(i => i.Account == "svc-curd-fitter").Select(i => i.Id)])).Code.ShouldBe(HttpStatusCode.OK);
        (await AnswerAsync(service, "not-needed", owner.Id)).Code.ShouldBe(HttpStatusCode.OK); // a later word counts
        (await service.GetAsync(
            "adoptions/curdhouse-found/draft", ContractsJson.Default.AdoptionDraftView)).Sheet.ShouldNotContain("database-owner");

        using var finished = await service.Http.PostAsync("/api/adoptions/curdhouse-found/finish", null, Cancel);
        finished.EnsureSuccessStatusCode();
        var fit = await service.GetAsync("installs/curdhouse-found/fit", ContractsJson.Default.FitView);
        fit.Accounts.SelectMany(a => a.Rights).Where(r => r.Verdict == "excess").ShouldHaveSingleItem().Right.ShouldBe("owner");
        fit.Accounts.SelectMany(a => a.Rights).Single(r => r is { Right: "dbcreator", Place: "fm-sql03" })
            .ShouldSatisfyAllConditions(r => r.Verdict.ShouldBe("met"), r => r.Why!.ShouldStartWith("not sure ("));
        (await service.GetAsync("log?take=20", ContractsJson.Default.LogPage)).Items
            .Count(e => e is { Action: "adopt", Subject: "curdhouse-found" }).ShouldBe(5);

        // Finished again after another word: it writes over what it wrote itself.
        (await AnswerAsync(service, "needed", owner.Id)).Code.ShouldBe(HttpStatusCode.OK);
        using var again = await service.Http.PostAsync("/api/adoptions/curdhouse-found/finish", null, Cancel);
        again.EnsureSuccessStatusCode();
        (await service.GetAsync("installs/curdhouse-found/fit", ContractsJson.Default.FitView)).Accounts.SelectMany(a => a.Rights)
            .ShouldNotContain(r => r.Verdict == "excess");

        // Where two must agree, writing over it waits for another.
        var two = (await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"), Cancel))
            .Replace("rules:\n", "rules:\n  two-person-approval: yes\n", StringComparison.Ordinal);
        (await service.AddAsync("estates", "fennmoor.yaml", System.Text.Encoding.UTF8.GetBytes(two))).EnsureSuccessStatusCode();
        (await AnswerAsync(service, "not-needed", owner.Id)).Code.ShouldBe(HttpStatusCode.OK);
        using var waits = await service.Http.PostAsync("/api/adoptions/curdhouse-found/finish", null, Cancel);
        (await waits.Content.ReadAsStringAsync(Cancel)).ShouldContain("urn:justright:two-person-approval");
    }

    [Fact]
    public async Task What_nobody_is_sure_of_and_no_sheet_has_words_for_is_not_offered_to_be_removed_until_somebody_is_sure()
    {
        const string name = "roundsman-found";
        await using var service = await PreparedData.Demo.StartAsync();
        (await PostAsync(service, "adoptions", new AdoptionOrder(name, "found", "fennmoor", [new("svc-roundsman")])))
            .EnsureSuccessStatusCode();
        for (var i = 0; i < 3; i++) await service.RunAsync("estates/fennmoor/survey");
        var found = await service.GetAsync($"adoptions/{name}", ContractsJson.Default.AdoptionView);
        var mute = found.Items.Where(i => i is { WhyNot: not null, Forbidden: null }).ToList();
        mute.ShouldNotBeEmpty();
        (await AnswerAsync(service, "not-sure", name, [.. found.Items.Select(i => i.Id)])).Code.ShouldBe(HttpStatusCode.OK);
        (await FinishAsync()).StatusCode.ShouldBe(HttpStatusCode.OK);

        await service.RunAsync($"installs/{name}/verify");
        var fit = await service.GetAsync($"installs/{name}/fit", ContractsJson.Default.FitView);
        var kept = fit.Accounts.SelectMany(a => a.Rights).Where(r => r.Verdict == "excess").ToList();
        kept.ShouldAllBe(r => r.Accepted != null
            && r.Accepted.Why.StartsWith("not sure what needs it", StringComparison.Ordinal));
        kept.Count.ShouldBe(mute.Count);
        var worklist = await service.GetAsync($"installs/{name}/worklist", ContractsJson.Default.WorklistView);
        worklist.Remove.ShouldBeEmpty();
        (await service.GetAsync("estates/fennmoor/calendar", ContractsJson.Default.CalendarView)).Entries
            .Count(e => e is { Kind: "exception", Subject: name }).ShouldBe(mute.Count); // it is looked at again

        // finished again, nothing is accepted twice; and what somebody is sure of now goes
        (await FinishAsync()).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await service.GetAsync($"installs/{name}/exceptions", ContractsJson.Default.IReadOnlyListExceptionView)).Count.ShouldBe(
            mute.Count);
        (await AnswerAsync(service, "not-needed", name, [mute[0].Id])).Code.ShouldBe(HttpStatusCode.OK);
        (await FinishAsync()).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await service.GetAsync($"installs/{name}/exceptions", ContractsJson.Default.IReadOnlyListExceptionView))
            .Count(e => e.Stands).ShouldBe(mute.Count - 1);
        (await service.GetAsync($"installs/{name}/fit", ContractsJson.Default.FitView)).Accounts.SelectMany(a => a.Rights)
            .ShouldContain(r => r.Verdict == "excess" && r.Accepted == null);

        Task<HttpResponseMessage> FinishAsync() => service.Http.PostAsync($"/api/adoptions/{name}/finish", null, Cancel);
    }

    [Fact]
    public async Task What_is_denied_is_listed_as_denied_and_begun_again_with_another_account_answers_stay()
    {
        await using var service = await TestedService.StartAsync();
        (await service.AddAsync("estates", "estates/fennmoor.yaml")).EnsureSuccessStatusCode();
        (await PostAsync(service, "adoptions", Curdhouse)).EnsureSuccessStatusCode();
        await service.RunAsync("estates/fennmoor/survey");
        await service.ChangeSimulationAsync(
            s => s["hosts"].Named("fm-book01")["logonRights"]!["SeDenyServiceLogonRight"] = new JsonArray("svc-curd-labeller"),
            Cancel);
        await service.RunAsync("estates/fennmoor/survey");
        var logon = (await ViewAsync(service)).Items.Where(i =>
            i is { Account: "svc-curd-labeller", Right: "log on as a service" }).ToList();
        logon.Single(i => i.Place == "fm-book01").NoEffect.ShouldNotBeNull().ShouldBe("denied by a direct entry");
        logon.Single(i => i.Place == "fm-book02").NoEffect.ShouldBeNull();
        (await AnswerAsync(service, "needed", [.. logon.Select(i => i.Id)])).Code.ShouldBe(HttpStatusCode.OK);

        (await PostAsync(service, "adoptions", Curdhouse with { Accounts = [.. Curdhouse.Accounts, new("svc-curd-cards")] }))
            .EnsureSuccessStatusCode();
        await service.RunAsync("estates/fennmoor/survey");
        var again = await ViewAsync(service);
        again.Items.ShouldContain(i => i.Account == "svc-curd-cards");
        again.Items.Where(i => i.Word == "needed").Select(i => i.Id).ShouldBe(logon.Select(i => i.Id), ignoreOrder: true);

        // what another install needs is said, and removing it is never offered, whatever was answered
        (await service.AddAsync("sheets", "sheets/curdhouse.yaml")).EnsureSuccessStatusCode();
        (await service.AddAsync("installs", "installs/curdhouse-books.yaml")).EnsureSuccessStatusCode();
        (await PostAsync(service, "adoptions", new AdoptionOrder("twice-found", "twice", "fennmoor", [new("svc-curd-labeller")])))
            .EnsureSuccessStatusCode();
        await service.RunAsync("estates/fennmoor/survey");
        var twice = await service.GetAsync("adoptions/twice-found", ContractsJson.Default.AdoptionView);
        var needed = twice.Items.Where(i => i.NeededBy.Contains("curdhouse-books")).ToList();
        needed.Select(i => i.Right).ShouldContain("log on as a service");
        (await AnswerAsync(service, "not-needed", "twice-found", [.. twice.Items.Select(i => i.Id)])).Code.ShouldBe(
            HttpStatusCode.OK);
        (await service.Http.PostAsync("/api/adoptions/twice-found/finish", null, Cancel)).EnsureSuccessStatusCode();
        await service.RunAsync("installs/twice-found/verify");
        var remove = (await service.GetAsync("installs/twice-found/worklist", ContractsJson.Default.WorklistView)).Remove;
        foreach (var item in needed) remove.ShouldNotContain(s => s.Words.Contains(item.Right, StringComparison.Ordinal)
            && s.Place == item.Place);
    }

    [Fact]
    public async Task What_it_did_not_write_it_never_writes_over_and_a_slip_of_the_pen_is_told()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        // the nearest is named
        (await RefusedAsync(service, Curdhouse with { Estate = "fenmoor" }, "fennmoor"))
            .ShouldBe((HttpStatusCode.NotFound, true));
        (await RefusedAsync(service, Curdhouse with { Name = "curdhouse-books" }, "There is an install curdhouse-books"))
            .ShouldBe((HttpStatusCode.Conflict, true));
        (await RefusedAsync(service, Curdhouse, "There is a sheet curdhouse@7.1")).ShouldBe((HttpStatusCode.Conflict, true));
        (await RefusedAsync(service, Curdhouse with { Accounts = [] }, "from 1 to 50"))
            .ShouldBe((HttpStatusCode.BadRequest, true));
        (await RefusedAsync(service, Curdhouse with { Product = "Curd Organization" }, "small letters"))
            .ShouldBe((HttpStatusCode.BadRequest, true));
        (await RefusedAsync(
            service, Curdhouse with { Product = "found", Accounts = [new("svc-curd-labeller", WorksAs: "magic")] }, "works-as"))
            .ShouldBe((HttpStatusCode.BadRequest, true));
        (await RefusedAsync(service, Curdhouse with { Product = "found", Accounts = [new("svc-a"), new("SVC-A")] }, "same key"))
            .ShouldBe((HttpStatusCode.BadRequest, true));

        // What an install in Just Right needs already is said; an account that is not there stops the end.
        (await PostAsync(
            service, "adoptions",
            new AdoptionOrder("roundsman-found", "found", "fennmoor", [new("svc-roundsman"), new("svc-nobody")])))
            .EnsureSuccessStatusCode();
        await service.RunAsync("estates/fennmoor/survey");
        var view = await service.GetAsync("adoptions/roundsman-found", ContractsJson.Default.AdoptionView);
        view.Missing.ShouldBe(["svc-nobody"]);
        var mute = view.Items.First(i => i.WhyNot is not null);
        (await AnswerAsync(service, "needed", "roundsman-found", [mute.Id])).Text.ShouldContain("The sheet cannot ask for this");
        (await AnswerAsync(
            service, "not-sure", "roundsman-found", [.. view.Items.Select(i => i.Id)])).Code.ShouldBe(HttpStatusCode.OK);
        using var finish = await service.Http.PostAsync("/api/adoptions/roundsman-found/finish", null, Cancel);
        (finish.StatusCode, await finish.Content.ReadAsStringAsync(Cancel))
            .ShouldSatisfyAllConditions(
                f => f.StatusCode.ShouldBe(HttpStatusCode.Conflict), f => f.Item2.ShouldContain("svc-nobody"));
    }

    private static async Task<(HttpStatusCode Code, bool Says)> RefusedAsync(
        TestedService service, AdoptionOrder order, string says)
    {
        using var response = await PostAsync(service, "adoptions", order);
        var text = await response.Content.ReadAsStringAsync(Cancel);
        return (response.StatusCode, text.Contains(says, StringComparison.OrdinalIgnoreCase));
    }

    private static Task<HttpResponseMessage> PostAsync(TestedService service, string path, AdoptionOrder order) =>
        service.Http.PostAsJsonAsync($"/api/{path}", order, ContractsJson.Default.AdoptionOrder, Cancel);

    private static Task<(HttpStatusCode Code, string Text)> AnswerAsync(
        TestedService service, string word, params string[] items) => AnswerAsync(service, word, Curdhouse.Name, items);

    private static async Task<(HttpStatusCode Code, string Text)> AnswerAsync(
        TestedService service, string word, string adoption, string[] items)
    {
        using var response = await service.Http.PostAsJsonAsync(
            $"/api/adoptions/{adoption}/answers", new AdoptionAnswerOrder(items, word), ContractsJson.Default.AdoptionAnswerOrder,
            Cancel);
        return (response.StatusCode, await response.Content.ReadAsStringAsync(Cancel));
    }

    private static Task<AdoptionView> ViewAsync(TestedService service) =>
        service.GetAsync("adoptions/curdhouse-found", ContractsJson.Default.AdoptionView);
}
