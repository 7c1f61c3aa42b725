using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Core.Changes;
using JustRight.Core.Worklists;
using JustRight.Service.Access;
using JustRight.Service.Answers;
using JustRight.Service.Documents;
using JustRight.Service.Estates;
using JustRight.Service.Fits;
using JustRight.Service.Proposals;
using JustRight.Service.Secrets;
using JustRight.Service.Storage;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace JustRight.Service.Jobs;

/// <summary>Long work: surveys, verifications, grants, and their progress.</summary>
internal static class JobEndpoints
{
    public static void MapJobs(this IEndpointRouteBuilder api)
    {
        api.MapPost("/estates/{name}/survey", async Task<Results<Accepted<JobView>, ProblemHttpResult>> (
            string name, ClaimsPrincipal user, Library library, JobQueue queue, CancellationToken cancel) =>
            await library.FindAsync(Library.EstateKind, name, cancel) is null
                ? Problems.NotFound("estate", name, (await library.ListAsync(Library.EstateKind, cancel)).Select(d => d.Name))
                : Accepted(await queue.AddAsync(new JobOrder(JobKind.Survey, name, user.Identity!.Name!), cancel)))
            .WithName("Survey").WithSummary("Reads an estate").RequireAuthorization(Roles.Planner).ProducesProblem(404);

        api.MapPost("/installs/{name}/verify", async Task<Results<Accepted<JobView>, ProblemHttpResult>> (
            string name, ClaimsPrincipal user, Library library, JobQueue queue, CancellationToken cancel) =>
            await FitEndpoints.MissingAsync(name, library, cancel) is { } missing
                ? missing
                : Accepted(await queue.AddAsync(new JobOrder(JobKind.Verify, name, user.Identity!.Name!), cancel)))
            .WithName("Verify").WithSummary("Reads the estate and judges an install").RequireAuthorization(Roles.Planner)
            .ProducesProblem(404);

        api.MapPost("/installs/{name}/grant", GrantAsync)
            .WithName("Grant").WithSummary("Carries out steps of the worklist that a person has confirmed")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409).ProducesProblem(400);

        api.MapGet("/jobs/{id}", async Task<Results<Ok<JobView>, ProblemHttpResult>> (
            string id, JobQueue queue, CancellationToken cancel) =>
            await queue.FindAsync(id, cancel) is { } job ? TypedResults.Ok(JobViews.Of(job)) : Problems.NotFound("job", id, []))
            .WithName("ShowJob").WithSummary("A job and its steps").RequireAuthorization(Roles.Reader).ProducesProblem(404);

        api.MapGet("/jobs/{id}/events", async Task<Results<ServerSentEventsResult<JobEvent>, ProblemHttpResult>> (
            string id, [FromHeader(Name = "Last-Event-ID")] string? last, JobFeed feed, JobQueue queue,
                CancellationToken cancel) =>
            await queue.FindAsync(id, cancel) is null
                ? Problems.NotFound("job", id, [])
                : TypedResults.ServerSentEvents(EventsAsync(id, last, feed, queue, cancel)))
            .WithName("WatchJob")
            .WithSummary("A job's progress as numbered server-sent events, from its start, or after Last-Event-ID, to its end")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
    }

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> GrantAsync(
        string name, GrantOrder order, ClaimsPrincipal user, Library library, FitService fitService, ProposalService proposals,
        SecretStore secrets, TimeProvider time, CancellationToken cancel)
    {
        if (await FitEndpoints.MissingAsync(name, library, cancel) is { } missing) return missing;
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
        if (await DirectoryFileEndpoints.RefusalAsync(
            library, judged.Fit.Plan.Estate, confirmed.Select(s => s.Change), cancel) is { } refusal)
            return refusal;
        if (await AskedPasswords.UnknownAsync(confirmed, secrets, cancel) is { Count: > 0 } unknown)
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

    private static async IAsyncEnumerable<SseItem<JobEvent>> EventsAsync(
        string id, string? last, JobFeed feed, JobQueue queue, [EnumeratorCancellation] CancellationToken cancel)
    {
        var rests = false;
        await foreach (var (number, what) in feed.WatchAsync(id, last, cancel))
        {
            rests = ClosedWords.Read<JobState>(what.State) is not (JobState.Queued or JobState.Running);
            yield return new SseItem<JobEvent>(what, "progress") { EventId = number };
        }

        if (rests || await queue.FindAsync(id, cancel) is not { } job) yield break;
        yield return new SseItem<JobEvent>(
            new JobEvent(job.State.Word(), job.Steps.Count, job.Steps.Count, job.Message ?? "", null), "progress");
    }

    private static Accepted<JobView> Accepted(JobRow job) => TypedResults.Accepted($"/api/jobs/{job.Id}", JobViews.Of(job));
}
