using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Formats.Changes;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Jobs.Traces;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Traces;

/// <summary>Traces of delegated rights, and their remedies.</summary>
internal static class TraceEndpoints
{
    public static void MapTraces(this IEndpointRouteBuilder api)
    {
        api.MapPost("/estates/{name}/trace", TraceAsync)
            .WithName("Trace").WithSummary("Shows why an account can or cannot do something in the directory")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(400);

        api.MapGet("/jobs/{id}/trace", ShowTraceAsync)
            .WithName("ShowTrace").WithSummary("The answer of a trace, or of the trace after a fix")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);

        api.MapGet("/estates/{name}/traces", ListTracesAsync)
            .WithName("ListTraces").WithSummary("Traces of an estate, what was fixed and undone, newest first")
            .RequireAuthorization(Roles.Reader);

        api.MapPost("/jobs/{id}/fix", FixAsync)
            .WithName("Fix").WithSummary("Carries out a fix of a trace that a person has confirmed")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);

        api.MapGet("/jobs/{id}/remedies/{remedy}/ldif", LdifAsync)
            .WithName("ShowRemedyLdif").WithSummary("A fix of a trace as LDIF, for an ordinary LDAP client")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409).ProducesProblem(400);
    }

    private static async Task<Results<Ok<TraceView>, ProblemHttpResult>> ShowTraceAsync(
        string id, JobQueue queue, CancellationToken cancel) =>
        await queue.FindAsync(id, cancel) is not { ResultJson: { } json }
            ? Problems.NotFound("trace", id, [])
            : TypedResults.Ok(StoredJson.Read<KeptTrace>(json).View);

    private static async Task<Ok<IReadOnlyList<JobView>>> ListTracesAsync(
        string name, IDbContextFactory<AppDb> databases, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var jobs = await db.Jobs.AsNoTracking().Include(j => j.Steps)
            .Where(j =>
                j.Subject == name && (JobKinds.OfDirectory.Contains(j.Kind) || j.Kind == JobKind.Undo)
                    && j.Kind != JobKind.Renew)
            .OrderByDescending(j => j.Id).Take(50).ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<JobView>>([.. jobs.Select(JobViews.Of)]);
    }

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> TraceAsync(
        string name, TraceOrder order, ClaimsPrincipal user, Library library, TraceQuestions questions, JobQueue queue,
        CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var (settled, problem) = await questions.SettleAsync(estate, order, cancel);
        if (problem is not null) return problem;
        return Accepted(await queue.AddAsync(
            new JobOrder(JobKind.Trace, name, user.Identity!.Name!) { OrderJson = StoredJson.Write(settled) }, cancel));
    }

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> FixAsync(
        string id, FixOrder order, ClaimsPrincipal user, Library library, JobQueue queue, ProposalService proposals,
        CancellationToken cancel)
    {
        if (await queue.FindAsync(id, cancel) is not { ResultJson: { } json, OrderJson: { } question } job)
            return Problems.NotFound("trace", id, []);
        var kept = StoredJson.Read<KeptTrace>(json);
        if (!kept.Changes.TryGetValue(order.Remedy ?? "", out var changes)) return NoRemedy(kept, order.Remedy);
        if (kept.View.Supposed.Count > 0)
            return Problems.Of(
                409, "supposed", "This trace assumes something that is not so.", "Trace again without assumptions.");
        if (await DirectoryFiles.RefusalAsync(
            library, job.Subject, changes.Select(ChangeJson.Read), cancel) is { } refusal)
            return refusal;
        return Accepted(await proposals.AddAsync(
            job.Subject,
            new JobOrder(JobKind.Fix, job.Subject, user.Identity!.Name!)
            {
                OrderJson = question,
                Changes = [.. changes.Select(ChangeJson.Read)],
                Log = _ => new LogWords(
                    "confirm remedy",
                    $"{order.Remedy} of trace {id}: {changes.Count} {(changes.Count == 1 ? "step" : "steps")}"),
            },
            cancel));
    }

    private static async Task<Results<Ok<LdifView>, ProblemHttpResult>> LdifAsync(
        string id, string remedy, JobQueue queue, Library library, SurveyStore surveys, CancellationToken cancel)
    {
        if (await queue.FindAsync(id, cancel) is not { ResultJson: { } json } job) return Problems.NotFound("trace", id, []);
        if (await library.RehearsalAsync(job.Subject, cancel) is { } rehearsal)
            return RealOnly.Refused("No LDIF is written", rehearsal);
        var kept = StoredJson.Read<KeptTrace>(json);
        if (!kept.Changes.TryGetValue(remedy, out var changes)) return NoRemedy(kept, remedy);
        if (await surveys.LatestAsync(job.Subject, cancel) is not { } view)
            return Problems.Of(
                409, "not-surveyed", "No survey of this estate was taken yet.",
                $"Survey it first: justright survey {job.Subject}");
        return TypedResults.Ok(
            new LdifView(
                job.Subject, false, LdifFiles.Write($"fix {remedy} of trace {id}", changes.Select(ChangeJson.Read), view)));
    }

    private static ProblemHttpResult NoRemedy(KeptTrace kept, string? remedy) =>
        Problems.Bad(
            "remedy", "This trace has no such fix.",
            kept.Changes.Count == 0 ? "none: no ACE fixes this trace" : string.Join(", ", kept.Changes.Keys), remedy,
            [.. kept.Changes.Keys]);

    private static Accepted<JobView> Accepted(JobRow job) => TypedResults.Accepted($"/api/jobs/{job.Id}", JobViews.Of(job));
}
