using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Core.Changes;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Runs;

/// <summary>Beginning a grant, or a removal.</summary>
internal static class GrantEndpoints
{
    public static void MapGrants(this IEndpointRouteBuilder api)
    {
        api.MapPost("/installs/{name}/grant", GrantAsync)
            .WithName("Grant").WithSummary("Carries out steps of the worklist that a person has confirmed")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409).ProducesProblem(400);
    }

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> GrantAsync(
        string name, GrantOrder order, ClaimsPrincipal user, Library library, FitService fitService, ProposalService proposals,
        SecretStore secrets, TimeProvider time, CancellationToken cancel)
    {
        if (await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing) return missing;
        if (await fitService.JudgeAsync(name, cancel) is not { } judged)
            return Problems.Of(
                409, "not-surveyed", "No survey of this estate was taken yet.",
                $"Verify the install first: justright verify {name}");
        var offered = (order.Remove ? judged.Worklist.Remove : judged.Worklist.Give).ToDictionary(s => s.Id);
        // Only what the worklist offers now can be made, and only what the person saw: anything else means that it changed in
        // between.
        if (order.Steps.FirstOrDefault(s => !offered.ContainsKey(s)) is { } gone)
            return Problems.Of(
                409, "worklist-changed", $"The worklist no longer holds this step: {gone}.",
                "Read the worklist again and confirm its current steps.");
        if (order.Steps.Select(s => offered[s]).FirstOrDefault(s => s.Blocked is not null) is { } blocked)
            return Problems.Of(409, "blocked", $"This step cannot be made now: {blocked.Change.Words}.", blocked.Blocked);
        if (order.Steps.Count == 0) return Problems.Bad("steps", "No step was confirmed.", "the ids of steps of the worklist");
        var confirmed = offered.Values.Where(s => order.Steps.Contains(s.Id)).OrderBy(s => s.Number).ToList();
        if (await DirectoryFiles.RefusalAsync(
            library, judged.Fit.Plan.Estate, confirmed.Select(s => s.Change), cancel) is { } refusal)
            return refusal;
        var estate = (await library.EstateAsync(judged.Fit.Plan.Estate, cancel))!;
        if (await AskedPasswords.UnknownAsync(estate, confirmed, secrets, cancel) is { Count: > 0 } unknown)
            return Problems.Of(
                409, "password-needed",
                    $"Services are to be given the password of {string.Join(" and ", unknown.Order())}, which is not known here.",
                "An owner sets it: "
                + string.Join("; ", unknown.Order().Select(a => $"justright secret set {SecretStore.NameFor(a)}"))
                + ". Or leave these steps out.");
        var note = CreationNote.Of(user.Identity!.Name!, time.GetUtcNow(), name);
        return Accepted(await proposals.AddAsync(
            judged.Fit.Plan.Estate,
            new JobOrder(JobKind.Grant, name, user.Identity!.Name!)
            {
                Changes = [.. confirmed.Select(s => s.Change.Noted(note))],
                Log = _ => new LogWords(
                    order.Remove ? "confirm removal" : "confirm grant",
                    $"{confirmed.Count} {(confirmed.Count == 1 ? "step" : "steps")}"),
            },
            cancel));
    }

    private static Accepted<JobView> Accepted(JobRow job) => TypedResults.Accepted($"/api/jobs/{job.Id}", JobViews.Of(job));
}
