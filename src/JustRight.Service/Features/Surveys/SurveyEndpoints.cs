using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Surveys;

/// <summary>Reading an estate, for itself or to verify an install.</summary>
internal static class SurveyEndpoints
{
    public static void MapSurveys(this IEndpointRouteBuilder api)
    {
        api.MapPost("/estates/{name}/survey", SurveyAsync)
            .WithName("Survey").WithSummary("Reads an estate")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404);

        api.MapPost("/installs/{name}/verify", VerifyAsync)
            .WithName("Verify").WithSummary("Reads the estate and judges an install")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404);
    }

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> SurveyAsync(
        string name, ClaimsPrincipal user, Library library, JobQueue queue, CancellationToken cancel) =>
        await library.MissingAsync(Library.EstateKind, name, cancel) is { } missing
            ? missing
            : Accepted(await queue.AddAsync(new JobOrder(JobKind.Survey, name, user.Identity!.Name!), cancel));

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> VerifyAsync(
        string name, ClaimsPrincipal user, Library library, JobQueue queue, CancellationToken cancel) =>
        await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing
            ? missing
            : Accepted(await queue.AddAsync(new JobOrder(JobKind.Verify, name, user.Identity!.Name!), cancel));

    private static Accepted<JobView> Accepted(JobRow job) => TypedResults.Accepted($"/api/jobs/{job.Id}", JobViews.Of(job));
}
