using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Core.Worklists.Undo;
using JustRight.Service.Access;
using JustRight.Service.Answers;
using JustRight.Service.Jobs;
using JustRight.Service.Log;
using JustRight.Service.Proposals;
using JustRight.Service.Storage;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Undo;

/// <summary>Undoing what a job changed.</summary>
internal static class UndoEndpoints
{
    public static void MapUndo(this IEndpointRouteBuilder api)
    {
        api.MapGet(
            "/jobs/{id}/undo", async Task<Results<Ok<UndoView>, ProblemHttpResult>> (
            string id, UndoService undo, JobQueue queue, CancellationToken cancel) =>
        {
            var (job, refused) = await FindAsync(id, queue, cancel);
            return refused is not null ? refused : TypedResults.Ok(View(id, await undo.PlanAsync(job!, cancel)));
        }).WithName("ShowUndo").WithSummary("What undoing a job would do: the steps, why it is blocked, what stays")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);

        api.MapPost("/jobs/{id}/undo", UndoAsync)
            .WithName("Undo").WithSummary("Undoes what a job changed, the last change first").RequireAuthorization(Roles.Granter)
                .ProducesProblem(404).ProducesProblem(409);
    }

    private static UndoView View(string id, UndoPlan plan) =>
        new(id, [.. plan.Changes.Select(c => c.Words)], plan.Blocked, plan.Left);

    private static async Task<(JobRow? Job, ProblemHttpResult? Refused)> FindAsync(
        string id, JobQueue queue, CancellationToken cancel)
    {
        if (await queue.FindAsync(id, cancel) is not { } job) return (null, Problems.NotFound("job", id, []));
        var made = UndoService.MadeBy(job);
        if (!JobKinds.Undoable.Contains(job.Kind) || made.Count == 0) return (
            null, Problems.Of(409, "nothing-to-undo", $"This {job.Kind.Word()} changed nothing."));
        if (job.State is JobState.Queued or JobState.Running) return (
            null, Problems.Of(409, "still-running", "This job is still running.", "Wait for its end."));
        if (Undoing.FirstFinal(made) is { } final) return (
            null, Problems.Of(409, "cannot-be-undone", $"Nothing undoes this: {final.Words}."));
        return await queue.IsUndoneAsync(id, cancel)
            ? (null, Problems.Of(409, "undone-already", "This job was undone already, or a proposal to do so is open."))
            : (job, null);
    }

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> UndoAsync(
        string id, ClaimsPrincipal user, UndoService undo, JobQueue queue, ProposalService proposals,
            LogStore log, CancellationToken cancel)
    {
        var (job, refused) = await FindAsync(id, queue, cancel);
        if (refused is not null) return refused;
        var plan = await undo.PlanAsync(job!, cancel);
        if (plan.Blocked.Count > 0) return Problems.Of(
            409, "undo-blocked", "This cannot be undone as things are.", $"{string.Join(". ", plan.Blocked)}.");
        if (plan.Changes.Count == 0) return Problems.Of(
            409, "nothing-to-undo", "There is nothing left that undoing would change.", string.Join(" ", plan.Left));
        var who = user.Identity!.Name!;
        await log.AddAsync(
            who, "confirm undo", job!.Subject,
            $"{plan.Changes.Count} {(plan.Changes.Count == 1 ? "step" : "steps")} of {job.Kind.Word()} {id}", cancel);
        var order = new JobOrder(JobKind.Undo, job.Subject, who)
        { OrderJson = job.OrderJson, Undoes = id, Changes = plan.Changes, Words = plan.Left };
        var made = await proposals.AddAsync(await undo.EstateOfAsync(job, cancel), order, cancel);
        return TypedResults.Accepted($"/api/jobs/{made.Id}", JobQueue.View(made));
    }
}
