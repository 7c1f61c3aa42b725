using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Proposals;

/// <summary>What waits for another person's eyes.</summary>
internal static class ProposalEndpoints
{
    public static void MapProposals(this IEndpointRouteBuilder api)
    {
        api.MapGet("/proposals", ListAsync)
            .WithName("ListProposals").WithSummary("The proposals that wait for approval or for being carried out")
            .RequireAuthorization(Roles.Reader);
        api.MapPost("/proposals/{id}/approve", ApproveAsync)
            .WithName("ApproveProposal").WithSummary("Approves another person's proposal; void if it changed")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);
        api.MapPost("/proposals/{id}/carry-out", CarryOutAsync)
            .WithName("CarryOutProposal").WithSummary("Carries out an approved proposal; void if it changed")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);
        api.MapPost("/proposals/{id}/withdraw", WithdrawAsync)
            .WithName("WithdrawProposal")
            .WithSummary("Withdraws a proposal, approved or not; a planner withdraws what they proposed themselves")
            .RequireAuthorization(Roles.Planner).ProducesProblem(403).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Ok<IReadOnlyList<JobView>>> ListAsync(ProposalService proposals, CancellationToken cancel) =>
        TypedResults.Ok<IReadOnlyList<JobView>>([.. (await proposals.OpenAsync(cancel)).Select(JobViews.Of)]);

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> ApproveAsync(
        string id, ClaimsPrincipal user, ProposalService proposals, JobQueue queue, CancellationToken cancel)
    {
        var (job, missing) = await FindAsync(id, proposals, cancel);
        if (missing is not null) return missing;
        if (job!.State == JobState.Approved)
            return Problems.Of(
                409, "not-approved", "It was approved already.", $"Carry it out: justright proposal carry-out {id}");
        return await proposals.ReleaseAsync(job, user.Identity!.Name!, cancel) is { } refused
            ? Refused(refused)
            : await AfterAsync(id, queue, cancel);
    }

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> CarryOutAsync(
        string id, ClaimsPrincipal user, ProposalService proposals, JobQueue queue, CancellationToken cancel)
    {
        var (job, missing) = await FindAsync(id, proposals, cancel);
        if (missing is not null) return missing;
        if (job!.State == JobState.Proposed)
        {
            return Problems.Of(
                409, "not-approved", "Nobody has approved it yet.",
                $"A granter other than {job.StartedBy} must approve it: justright proposal approve {id}");
        }

        return await proposals.CarryOutAsync(job, user.Identity!.Name!, cancel) is { } refused
            ? Refused(refused)
            : await AfterAsync(id, queue, cancel);
    }

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> WithdrawAsync(
        string id, ClaimsPrincipal user, ProposalService proposals, JobQueue queue, CancellationToken cancel)
    {
        var (job, missing) = await FindAsync(id, proposals, cancel);
        if (missing is not null) return missing;
        var who = user.Identity!.Name!;
        if (!string.Equals(job!.StartedBy, who, StringComparison.OrdinalIgnoreCase) && user.IsInRole(Roles.Planner))
        {
            return Problems.Of(
                403, "role", $"This is the proposal of {job.StartedBy}.",
                "To withdraw what another proposed needs the role granter; yours is planner.");
        }

        await proposals.WithdrawAsync(job, who, cancel);
        return await AfterAsync(id, queue, cancel);
    }

    private static async Task<(JobRow? Job, ProblemHttpResult? Missing)> FindAsync(
        string id, ProposalService proposals, CancellationToken cancel)
    {
        var open = await proposals.OpenAsync(cancel);
        return open.FirstOrDefault(j => j.Id == id) is { } job
            ? (job, null)
            : (null, Problems.NotFound("proposal that is open", id, open.Select(j => j.Id)));
    }

    private static ProblemHttpResult Refused(string why) =>
        Problems.Of(409, "two-person-approval", "This proposal cannot be carried out.", why);

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> AfterAsync(
        string id, JobQueue queue, CancellationToken cancel) =>
        TypedResults.Ok(JobViews.Of((await queue.FindAsync(id, cancel))!));
}
