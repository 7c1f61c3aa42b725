using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Jobs.Runs;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Lists;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Runs;

/// <summary>Runs: what changes an estate step by step, and what people decide about it.</summary>
internal static class RunEndpoints
{
    private static readonly Columns<JobRow> Columns = new(
        Column<JobRow>.Of("begun", j => j.Id), Column<JobRow>.Of("ended", j => j.EndedAt),
        Column<JobRow>.Of("subject", j => j.Subject), Column<JobRow>.Of("kind", j => j.Kind),
        Column<JobRow>.Of("state", j => j.State), Column<JobRow>.Of("by", j => j.StartedBy))
    {
        NewestFirst = true,
    };

    public static void MapRuns(this IEndpointRouteBuilder api)
    {
        api.MapGet("/runs", ListAsync)
            .WithName("ListRuns").WithSummary("Runs, newest first, without their steps: a page, searched, filtered and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);

        api.MapGet("/runs/{id}", ShowRunAsync)
            .WithName("ShowRun").WithSummary("A run, its steps, and what it waits for")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);

        api.MapPost("/runs/{id}/steps/{number}", SayAsync)
            .WithName("SayOfStep")
            .WithSummary("Decides about a step: it is done, retry, skip, hand over to a person, restart now; and continues")
            .RequireAuthorization(Roles.Granter).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);

        api.MapPost("/runs/{id}/continue", ContinueAsync)
            .WithName("Continue")
                .WithSummary("Continues a stopped run, or retries the failed steps of a run with what they held back")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);

        api.MapPost("/runs/{id}/stop", StopAsync)
            .WithName("Stop").WithSummary("Stops a run after the step that is being made; it can be continued, or undone")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> ShowRunAsync(
        string id, JobQueue queue, JobEstates estates, CancellationToken cancel) =>
        await FindAsync(id, queue, cancel) is { } job
            ? TypedResults.Ok(
                JobViews.Of(job) with { Simulated = (await estates.FindAsync(job, cancel))?.IsSimulated })
            : NotFound(id);

    private static async Task<Results<Ok<RunPage>, ProblemHttpResult>> ListAsync(
        string? estate, string? install, string? state, [AsParameters] ListOrder order, Library library,
        IDbContextFactory<AppDb> databases, CancellationToken cancel)
    {
        if (Columns.WhyNot(order) is { } wrong) return wrong;
        if (estate is not null && await library.MissingAsync(Library.EstateKind, estate, cancel) is { } noEstate) return noEstate;
        if (install is not null
            && await library.MissingAsync(Library.InstallKind, install, cancel) is { } noInstall) return noInstall;
        var states = Enum.GetValues<JobState>().Where(s => s.Word() == state).ToList();
        if (state is not null && states.Count == 0)
        {
            var words = Enum.GetValues<JobState>().Select(s => s.Word()).ToList();
            return Problems.Bad("state", "This is not a state of a run.", string.Join(", ", words), state, words);
        }

        await using var db = await databases.CreateDbContextAsync(cancel);
        var matching = db.Jobs.AsNoTracking().Where(j => JobKinds.GoOn.Contains(j.Kind))
            .About(order.Search);
        if (estate is not null)
            matching = matching.Where(j =>
                j.Subject == estate || db.Summaries.Any(s => s.Estate == estate && s.Install == j.Subject));
        if (install is not null) matching = matching.Where(j => j.Subject == install);
        if (state is not null) matching = matching.Where(j => states.Contains(j.State));
        var jobs = await Columns.Page(matching, order).Include(j => j.Steps).ToListAsync(cancel);
        var total = await matching.CountAsync(cancel);
        return TypedResults.Ok(new RunPage([.. jobs.Select(JobViews.Brief)], order.Skipped, total));
    }

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> SayAsync(
        string id, int number, StepWord word, ClaimsPrincipal user, JobQueue queue, RunStore runs, JobEstates estates,
        TimeProvider time, CancellationToken cancel)
    {
        if (await FindAsync(id, queue, cancel) is not { } job) return NotFound(id);
        if (await queue.IsUndoneAsync(id, cancel)) return UndoneAlready();
        var estate = await estates.FindAsync(job, cancel);
        var (who, now) = (user.Identity!.Name!, time.GetUtcNow());
        bool IsOpen(string host) => estate is null || RestartWindows.IsOpen(estate, host, now);
        return await AnswerAsync(
            id, await runs.DecideAsync(id, j => RunDecisions.Of(j, number, word, IsOpen, who, now), who, cancel), queue, cancel);
    }

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> ContinueAsync(
        string id, ClaimsPrincipal user, JobQueue queue, RunStore runs, TimeProvider time, CancellationToken cancel)
    {
        if (await FindAsync(id, queue, cancel) is null) return NotFound(id);
        if (await queue.IsUndoneAsync(id, cancel)) return UndoneAlready();
        var (who, now) = (user.Identity!.Name!, time.GetUtcNow());
        return await AnswerAsync(
            id, await runs.DecideAsync(id, j => RunDecisions.Continue(j, who, now), who, cancel), queue, cancel);
    }

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> StopAsync(
        string id, ClaimsPrincipal user, JobQueue queue, RunStore runs, TimeProvider time, CancellationToken cancel)
    {
        if (await FindAsync(id, queue, cancel) is not { } job) return NotFound(id);
        var stopped = await runs.StopAsync(job, user.Identity!.Name!, time.GetUtcNow(), cancel);
        return await AnswerAsync(
            id,
            stopped ? null : Problems.Of(
                409, "not-running", $"There is nothing to stop: this {job.Kind.Word()} is {job.State.Word()}."),
            queue, cancel);
    }

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> AnswerAsync(
        string id, ProblemHttpResult? refused, JobQueue queue, CancellationToken cancel) =>
        refused is not null
            ? refused
            : TypedResults.Accepted($"/api/jobs/{id}", JobViews.Of((await queue.FindAsync(id, cancel))!));

    private static async Task<JobRow?> FindAsync(string id, JobQueue queue, CancellationToken cancel) =>
        await queue.FindAsync(id, cancel) is { } job && JobKinds.GoOn.Contains(job.Kind) ? job : null;

    private static ProblemHttpResult UndoneAlready() =>
        Problems.Of(409, "undone-already", "This run was undone, or a proposal to do so is open.");

    private static ProblemHttpResult NotFound(string id) => Problems.NotFound("run", id, []);
}
