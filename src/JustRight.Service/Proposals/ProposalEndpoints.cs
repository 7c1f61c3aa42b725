using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Service.Access;
using JustRight.Service.Answers;
using JustRight.Service.Jobs;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Proposals;

/// <summary>What waits for another person's eyes.</summary>
internal static class ProposalEndpoints
{
    public static void MapProposals(this IEndpointRouteBuilder api)
    {
        api.MapGet("/proposals", async (ProposalService desk, CancellationToken cancel) => TypedResults.Ok<IReadOnlyList<JobView>>([.. (await desk.OpenAsync(cancel)).Select(JobQueue.View)]))
            .WithName("ListProposals").WithSummary("The proposals that wait for approval or for being carried out").RequireAuthorization(Roles.Reader);
        api.MapPost("/proposals/{id}/approve", (string id, ClaimsPrincipal user, ProposalService desk, CancellationToken cancel) => ActAsync(id, ["proposed"], desk, job => desk.ReleaseAsync(job, user.Identity!.Name!, cancel), cancel))
            .WithName("ApproveProposal").WithSummary("Approves another person's proposal; void if it changed").RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);
        api.MapPost("/proposals/{id}/carry-out", (string id, ClaimsPrincipal user, ProposalService desk, CancellationToken cancel) => ActAsync(id, ["approved"], desk, job => desk.CarryOutAsync(job, user.Identity!.Name!, cancel), cancel))
            .WithName("CarryOutProposal").WithSummary("Carries out an approved proposal; void if it changed").RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);
        api.MapPost("/proposals/{id}/withdraw", (string id, ClaimsPrincipal user, ProposalService desk, CancellationToken cancel) => ActAsync(id, ["proposed", "approved"], desk, async job =>
        {
            await desk.WithdrawAsync(job, user.Identity!.Name!, cancel);
            return null;
        }, cancel)).WithName("WithdrawProposal").WithSummary("Withdraws a proposal, approved or not").RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> ActAsync(string id, string[] states, ProposalService desk, Func<Storage.JobRow, Task<string?>> act, CancellationToken cancel)
    {
        var open = await desk.OpenAsync(cancel);
        if (open.FirstOrDefault(j => j.Id == id) is not { } job) return Problems.NotFound("proposal that is open", id, open.Select(j => j.Id));
        if (!states.Contains(job.State)) return Problems.Of(409, "not-approved", job.State == "approved" ? "It was approved already." : "Nobody has approved it yet.", job.State == "approved" ? $"Carry it out: justright proposal carry-out {id}" : $"A granter other than {job.StartedBy} must approve it: justright proposal approve {id}");
        if (await act(job) is { } refused) return Problems.Of(409, "two-person-approval", "This proposal cannot be carried out.", refused);
        return TypedResults.Ok(JobQueue.View((await desk.FindAsync(id, cancel))!));
    }
}
