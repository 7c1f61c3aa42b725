using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Service.Access;
using JustRight.Service.Answers;
using JustRight.Service.Log;
using JustRight.Service.Storage;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs;

/// <summary>Trying again what failed of a job, and with it what was held back.</summary>
internal static class ContinueEndpoint
{
    public static void MapContinue(this IEndpointRouteBuilder api) =>
        api.MapPost("/jobs/{id}/continue", ContinueAsync)
            .WithName("Continue").WithSummary("Tries the failed steps of a job again, and makes what they held back")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> ContinueAsync(
        string id, ClaimsPrincipal user, JobQueue queue, LogStore log, CancellationToken cancel)
    {
        if (await queue.FindAsync(id, cancel) is not { } job) return Problems.NotFound("job", id, []);
        if (!JobQueue.CanContinue(job))
            return Problems.Of(
                409, "nothing-failed", $"There is nothing to try again: this {job.Kind.Word()} is {job.State.Word()}.",
                "Only what ended with failed steps can be continued.");
        if (await queue.IsUndoneAsync(id, cancel))
            return Problems.Of(409, "undone-already", "This job was undone, or a proposal to do so is open.");
        var failed = job.Steps.Where(s => s.State == JournalState.Failed).Select(s => $"{s.Number}").ToList();
        var who = user.Identity!.Name!;
        var begun = await log.AddIfAsync(
            db =>
            {
                var row = db.Jobs.Include(j => j.Steps).First(j => j.Id == id);
                if (!JobQueue.CanContinue(row)) return false; // somebody was quicker
                JobRun.TryAgain(row);
                (row.State, row.EndedAt) = (JobState.Queued, null);
                return true;
            },
            who, "continue", job.Subject,
            $"{job.Kind.Word()} {id}: {(failed.Count == 1 ? "step" : "steps")} {string.Join(", ", failed)} again", cancel);
        if (begun) queue.LineUp(id);
        return TypedResults.Accepted($"/api/jobs/{id}", JobQueue.View((await queue.FindAsync(id, cancel))!));
    }
}
