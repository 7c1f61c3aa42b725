using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Core.Passwords;
using JustRight.Core.Runs;
using JustRight.Core.Worklists.Undo;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Jobs.Renewals;
using JustRight.Service.Jobs.Runs;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Undo;

/// <summary>Undoing what a job changed.</summary>
internal static class UndoEndpoints
{
    public static void MapUndo(this IEndpointRouteBuilder api)
    {
        api.MapGet(
            "/runs/{id}/undo", async Task<Results<Ok<UndoView>, ProblemHttpResult>> (
            string id, UndoService undo, JobQueue queue, CancellationToken cancel) =>
        {
            var (job, refused) = await FindAsync(id, queue, cancel);
            return refused is not null ? refused
                : job!.Kind == JobKind.Renew ? TypedResults.Ok(WayBack(job))
                : TypedResults.Ok(View(id, await undo.PlanAsync(job, cancel)));
        }).WithName("ShowUndo").WithSummary("What undoing a run would do: the steps, why it is blocked, what stays")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);

        api.MapPost("/runs/{id}/undo", UndoAsync)
            .WithName("Undo")
            .WithSummary("Undoes what a run changed, the last change first; of a renewal, restores the old password")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);
    }

    private static UndoView View(string id, UndoPlan plan) =>
        new(id, [.. plan.Changes.Select(c => c.Words)], plan.Blocked, plan.Left);

    private static async Task<(JobRow? Job, ProblemHttpResult? Refused)> FindAsync(
        string id, JobQueue queue, CancellationToken cancel)
    {
        if (await queue.FindAsync(id, cancel) is not { } job) return (null, Problems.NotFound("run", id, []));
        if (job.Kind == JobKind.Renew) return WhyNotBack(job) is { } no ? (null, no) : (job, null);
        if (await queue.IsUndoneAsync(id, cancel)) return (null, UndoneAlready());
        var made = UndoService.MadeBy(job);
        if (!JobKinds.Undoable.Contains(job.Kind) || made.Count == 0) return (
            null, Problems.Of(409, "nothing-to-undo", $"This {job.Kind.Word()} changed nothing."));
        if (job.State is JobState.Queued or JobState.Running) return (
            null, Problems.Of(409, "still-running", "This run is still going on.", "Wait for its end, or stop it."));
        return Undoing.FirstFinal(made) is { } final
            ? (null, Problems.Of(409, "cannot-be-undone", $"Nothing undoes this: {final.Words}."))
            : (job, null);
    }

    private static UndoView WayBack(JobRow job)
    {
        var book = RenewalRows.BookOf(job);
        return new(job.Id, [.. book.Undo().Steps.Skip(book.Steps.Count).Select(s => s.Words)], [], []);
    }

    private static ProblemHttpResult? WhyNotBack(JobRow job)
    {
        if (job.State is JobState.Queued or JobState.Running)
            return Problems.Of(409, "busy", "Steps of this renewal are being made now.", "Wait for them to end, or stop it.");
        if (job.State == JobState.Done)
            return Problems.Of(409, "over", "This renewal is over and keeps neither password. Renew again.");
        if (RenewalRows.OrderOf(job).GoesBack) return Problems.Of(409, "goes-back", "This renewal is being undone already.");
        return job.CanGoBack || RenewalRows.BookOf(job).InDirectory == WhichPassword.Old ? null : Problems.Of(
            409, "no-way-back", "The old password is not known here: the renewal cannot be undone.",
            "Retry the failed step, or skip it with a reason.");
    }

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> UndoAsync(
        string id, ClaimsPrincipal user, UndoService undo, JobQueue queue, RunStore runs, ProposalService proposals,
        TimeProvider time, CancellationToken cancel)
    {
        var (job, refused) = await FindAsync(id, queue, cancel);
        if (refused is not null) return refused;
        var who = user.Identity!.Name!;
        if (job!.Kind == JobKind.Renew) return await BackAsync(job, who, queue, runs, cancel);
        var plan = await undo.PlanAsync(job, cancel);
        if (plan.Blocked.Count > 0) return Problems.Of(
            409, "undo-blocked", "This cannot be undone as things are.", $"{string.Join(". ", plan.Blocked)}.");
        if (plan.Changes.Count == 0) return Problems.Of(
            409, "nothing-to-undo", "There is nothing left that undoing would change.", string.Join(" ", plan.Left));
        var order = new JobOrder(JobKind.Undo, job.Subject, who)
        {
            OrderJson = job.OrderJson,
            Undoes = id,
            Changes = plan.Changes,
            UndoneSteps = UndoService.StepsUndone(job, plan.Changes),
            Words = plan.Left,
            Log = _ => new LogWords(
                "confirm undo",
                $"{plan.Changes.Count} {(plan.Changes.Count == 1 ? "step" : "steps")} of {job.Kind.Word()} {id}"),
            Guard = (db, _) => !JobQueue.IsUndone(db, id) && NoLongerWaits(db.Jobs.First(j => j.Id == id), who, time.GetUtcNow()),
        };
        return await proposals.AddIfAsync(await undo.EstateOfAsync(job, cancel), order, cancel) is { } made
            ? TypedResults.Accepted($"/api/jobs/{made.Id}", JobViews.Of(made))
            : UndoneAlready();
    }

    /// <summary>Nobody is waited for any more by a run that is undone as far as it was made.</summary>
    private static bool NoLongerWaits(JobRow undone, string who, DateTimeOffset now)
    {
        if (undone.State == JobState.Waiting)
            (undone.State, undone.EndedAt, undone.Message) = (JobState.Stopped, now, $"stopped by {who}, who undid it");
        return true;
    }

    /// <summary>A renewal goes back by further steps of its own.</summary>
    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> BackAsync(
        JobRow seen, string who, JobQueue queue, RunStore runs, CancellationToken cancel)
    {
        var done = seen.Steps.Count(s => s.State == RunStepState.Made);
        ProblemHttpResult? refused = null;
        await runs.GoOnAsync(
            seen,
            (_, job) =>
            {
                refused = WhyNotBack(job);
                if (refused is null) RenewalStore.GoBack(job);
                return refused is null;
            },
            who, "undo renewal", $"after {done} {(done == 1 ? "step" : "steps")}", cancel);
        return refused is not null
            ? refused
            : TypedResults.Accepted($"/api/jobs/{seen.Id}", JobViews.Of((await queue.FindAsync(seen.Id, cancel))!));
    }

    private static ProblemHttpResult UndoneAlready() => Problems.Of(
        409, "undone-already", "This run was undone already, or a proposal to do so is open.");
}
