using System.Net;
using System.Net.Http.Json;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>Many questions about access at once, and everything about one object, through the API on the simulation.</summary>
public sealed class AccessAnswerTests(ApiFixture fixture) : IClassFixture<ApiFixture>
{
    private const string Northam = "CN=Milo Northam,OU=Saltmere,OU=People,OU=Fennmoor,DC=fennmoor,DC=example";
    private readonly TestedService _service = fixture.Service;

    private static AccessQuestionOrder Phone { get; } =
        new("svc-roundsman", "write attributes", ["telephoneNumber"], null, "m.northam", null);

    [Fact]
    public async Task Each_question_is_answered_as_a_trace_answers_it_and_in_its_place()
    {
        AccessQuestionOrder[] questions =
        [
            Phone, Phone with { Act = "read attributes", Attributes = ["displayName"] },
            new("svc-roundsman", "change membership", null, null, null, "teams"),
            new("svc-roundsman", "create", null, "group", "teams", null), Phone with { At = "no-one" },
            Phone with { Act = "change membership", Attributes = null },
            Phone with { Account = "roundsman-dataroom/copier", At = Northam },
            Phone with { Act = "read attributes", Attributes = ["mail"], At = null, Below = "people" },
        ];
        var answers = await AskAsync(questions);
        (answers.Simulated, answers.ReadFrom, answers.Answers.Count).ShouldBe((true, "the simulation", questions.Length));
        answers.Answers.Select(a => a.Answer).ShouldBe(["no", "yes", "no", "no", "unseen", "no", "no", "yes"]);
        (answers.Answers[0].At, answers.Answers[6].Account).ShouldBe((Northam, @"FENNMOOR\svc-roundsman"));
        answers.Answers[5].Words.ShouldBe("objects of class user have no members");
        answers.Answers[7].ShouldSatisfyAllConditions(a => a.Can.ShouldBe(26), a => a.Words.ShouldBeEmpty());
        for (var i = 0; i < questions.Length; i++)
        {
            var (question, answer) = (questions[i], answers.Answers[i]);
            var trace = await _service.TraceAsync(
                "fennmoor",
                new TraceOrder(
                    question.Account, null, null, question.Act, question.Attributes, question.Of, question.Below,
                    question.At is null ? null : [question.At], null, null));
            (answer.Can, answer.Cannot, answer.Unseen).ShouldBe(
                (trace.Can, trace.Cannot, trace.Unseen + trace.NotFound.Count), $"question {i}");
        }
    }

    public static TheoryData<string, string, AccessQuestionOrder> Faulty => new()
    {
        { "questions[1].act", "Did you mean 'unlock'?", Phone with { Act = "unlok" } },
        { "questions[1].attributes", "Did you mean 'roomNumber'?", Phone with { Attributes = ["roomNumbr"] } },
        { "questions[1].attributes", "attributes: a list", Phone with { Attributes = null } },
        { "questions[1].of", "Did you mean 'user'?", Phone with { At = null, Below = "people", Of = "usr" } },
        { "questions[1].below", "a branch of the estate", Phone with { At = null, Below = "peeple" } },
        { "questions[1].at", "an object or a branch", Phone with { Below = "people" } },
        { "questions[1].at", "an object or a branch", Phone with { At = null } },
        { "questions[1].account", "an account", Phone with { Account = "" } },
    };

    [Theory]
    [MemberData(nameof(Faulty))]
    public async Task A_question_that_cannot_be_asked_is_named_by_its_number_and_field(
        string field, string help, AccessQuestionOrder question)
    {
        using var response = await PostAsync(Phone, question);
        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var problem = (await response.Content.ReadFromJsonAsync(ContractsJson.Default.ProblemView))!;
        problem.Faults!.ShouldHaveSingleItem().Field.ShouldBe(field);
        problem.Detail!.ShouldContain(help);
    }

    [Fact]
    public async Task No_questions_and_too_many_are_refused_and_an_account_that_is_not_there_is_not_found()
    {
        using var none = await PostAsync();
        none.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        using var many = await PostAsync([.. Enumerable.Repeat(Phone, 10_001)]);
        many.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        using var nobody = await PostAsync(Phone with { Account = "svc-nobody" });
        nobody.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await nobody.Content.ReadAsStringAsync()).ShouldContain("svc-nobody");
    }

    [Fact]
    public async Task Everything_about_one_object_agrees_with_questions_about_it()
    {
        using var response = await _service.Http.PostAsJsonAsync(
            "/api/estates/fennmoor/access/everything", new WholeAccessOrder("roundsman-dataroom/copier", "m.northam"),
            ContractsJson.Default.WholeAccessOrder);
        var told = ClosedSets.Checked((await response.Content.ReadFromJsonAsync(ContractsJson.Default.WholeAccessView))!);
        (told.Account, told.At, told.Class).ShouldBe((@"FENNMOOR\svc-roundsman", Northam, "user"));
        var reads = told.Acts.Where(a => a.Kind == "read").Select(a => a.What["read ".Length..]).ToList();
        reads.Count.ShouldBeGreaterThan(50);
        var answers = await AskAsync(
            [.. reads.Select(r => Phone with { Act = "read attributes", Attributes = [r] })]);
        answers.Answers.Select(a => a.Answer).ShouldBe(told.Acts.Where(a => a.Kind == "read").Select(a => a.Answer));
        told.Acts.Where(a => a.Entry > 0).ShouldNotBeEmpty();
        told.Acts.Where(a => a.Entry > 0).ShouldAllBe(a => a.From.Length > 0 && a.By.Length > 0);
        using var nothing = await _service.Http.PostAsJsonAsync(
            "/api/estates/fennmoor/access/everything", new WholeAccessOrder("svc-roundsman", "no-one"),
            ContractsJson.Default.WholeAccessOrder);
        nothing.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    private Task<HttpResponseMessage> PostAsync(params AccessQuestionOrder[] questions) => _service.Http.PostAsJsonAsync(
        "/api/estates/fennmoor/access", new AccessOrder(questions), ContractsJson.Default.AccessOrder);

    private async Task<AccessAnswersView> AskAsync(params AccessQuestionOrder[] questions)
    {
        using var response = await PostAsync(questions);
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return ClosedSets.Checked((await response.Content.ReadFromJsonAsync(ContractsJson.Default.AccessAnswersView))!);
    }
}
