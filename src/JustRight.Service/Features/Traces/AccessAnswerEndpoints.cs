using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Service.Data.Documents;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Traces;

/// <summary>Questions about access that are answered at once: many of them, or everything about one object.</summary>
internal static class AccessAnswerEndpoints
{
    public static void MapAccessAnswers(this IEndpointRouteBuilder api)
    {
        api.MapPost("/estates/{name}/access", AnswerAsync)
            .WithName("AnswerAccess").WithSummary("Answers many questions about access from one reading of the directory")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(400).ProducesProblem(502);
        api.MapPost("/estates/{name}/access/everything", TellAsync)
            .WithName("TellWholeAccess").WithSummary("Tells everything that an account can do to one object, and what decides it")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(400).ProducesProblem(502);
    }

    private static async Task<Results<Ok<AccessAnswersView>, ProblemHttpResult>> AnswerAsync(
        string name, AccessOrder order, Library library, AccessQuestions questions, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        try
        {
            var (answers, problem) = await questions.AnswerAsync(estate, order, cancel);
            return problem is not null ? problem : TypedResults.Ok(answers!);
        }
        catch (ConnectorException e)
        {
            return Refused(e);
        }
    }

    private static async Task<Results<Ok<WholeAccessView>, ProblemHttpResult>> TellAsync(
        string name, WholeAccessOrder order, Library library, WholeAccesses accesses, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        if (string.IsNullOrEmpty(order.Account)) return Problems.Bad("account", "Whose rights?", "an account");
        if (string.IsNullOrEmpty(order.At) || order.At == Estate.WholeDomain)
            return Problems.Bad("at", "To which object?", "a distinguished name, a logon name, or an OU of the estate", order.At);
        try
        {
            return await accesses.TellAsync(estate, order, cancel) is { } told
                ? TypedResults.Ok(told)
                : Problems.Of(404, "not-found", $"{order.At} does not exist, or may not be seen.");
        }
        catch (ConnectorException e)
        {
            return Refused(e);
        }
    }

    private static ProblemHttpResult Refused(ConnectorException e) =>
        e.Failure == ConnectorFailure.NotFound
            ? Problems.Of(404, "not-found", e.Message)
            : Problems.Of(502, "unreachable", e.Message);
}
