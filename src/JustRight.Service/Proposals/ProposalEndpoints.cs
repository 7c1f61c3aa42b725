using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Service.Access;
using JustRight.Service.Hosting;
using JustRight.Service.Jobs;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Proposals;

/// <summary>What waits for another person's eyes.</summary>
internal static class ProposalEndpoints
{
    public static void MapProposals(this IEndpointRouteBuilder api)
    {
        api.MapGet("/proposals", async (ProposalDesk desk, CancellationToken cancel) => TypedResults.Ok<IReadOnlyList<JobView>>([.. (await desk.OpenAsync(cancel)).Select(JobQueue.View)]))
            .WithName("ListProposals").WithSummary("What waits for another person's release, or for being carried out after it").RequireAuthorization(Roles.Reader);
        api.MapPost("/proposals/{id}/release", (string id, ClaimsPrincipal user, ProposalDesk desk, CancellationToken cancel) => ActAsync(id, ["proposed"], desk, job => desk.ReleaseAsync(job, user.Identity!.Name!, cancel), cancel))
            .WithName("ReleaseProposal").WithSummary("Releases what another proposed; void when it no longer is what was proposed").RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);
        api.MapPost("/proposals/{id}/carry-out", (string id, ClaimsPrincipal user, ProposalDesk desk, CancellationToken cancel) => ActAsync(id, ["released"], desk, job => desk.CarryOutAsync(job, user.Identity!.Name!, cancel), cancel))
            .WithName("CarryOutProposal").WithSummary("Carries out what was released; void when it no longer is what was released").RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);
        api.MapPost("/proposals/{id}/withdraw", (string id, ClaimsPrincipal user, ProposalDesk desk, CancellationToken cancel) => ActAsync(id, ["proposed", "released"], desk, async job =>
        {
            await desk.WithdrawAsync(job, user.Identity!.Name!, cancel);
            return null;
        }, cancel)).WithName("WithdrawProposal").WithSummary("Withdraws a proposal, released or not").RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> ActAsync(string id, string[] states, ProposalDesk desk, Func<Storage.JobRow, Task<string?>> act, CancellationToken cancel)
    {
        var open = await desk.OpenAsync(cancel);
        if (open.FirstOrDefault(j => j.Id == id) is not { } job) return Problems.NotFound("proposal that is open", id, open.Select(j => j.Id));
        if (!states.Contains(job.State)) return Problems.Of(409, "not-released", job.State == "released" ? "It was released already." : "Nobody has released it yet.", job.State == "released" ? $"Carry it out: justright proposal carry-out {id}" : $"Another granter than {job.StartedBy} releases it: justright proposal release {id}");
        if (await act(job) is { } refused) return Problems.Of(409, "four-eyes", "This proposal cannot go on.", refused);
        return TypedResults.Ok(JobQueue.View((await desk.FindAsync(id, cancel))!));
    }
}
