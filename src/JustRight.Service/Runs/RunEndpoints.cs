using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Service.Answers;
using JustRight.Service.Documents;
using JustRight.Service.Jobs;
using JustRight.Service.Storage;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Runs;

/// <summary>Runs: what changes an estate step by step, and what people decide about it.</summary>
internal static class RunEndpoints
{
    private const int DefaultTake = 50, MostTaken = 500;

    public static void MapRuns(this IEndpointRouteBuilder api)
    {
        api.MapGet("/runs", ListAsync)
            .WithName("ListRuns").WithSummary("Runs of an estate or an install, newest first, without their steps")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);

        api.MapGet("/runs/{id}", async Task<Results<Ok<JobView>, ProblemHttpResult>> (
            string id, JobQueue queue, JobEstates estates, CancellationToken cancel) =>
            await FindAsync(id, queue, cancel) is { } job
                ? TypedResults.Ok(
                    JobViews.Of(job) with { Simulated = (await estates.FindAsync(job, cancel))?.IsSimulated })
                : NotFound(id))
            .WithName("ShowRun").WithSummary("A run, its steps, and what it waits for").RequireAuthorization(Roles.Reader)
            .ProducesProblem(404);

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

    private static async Task<Results<Ok<IReadOnlyList<JobView>>, ProblemHttpResult>> ListAsync(
        string? estate, string? install, int? take, Library library, IDbContextFactory<AppDb> databases, CancellationToken cancel)
    {
        if (take is < 1 or > MostTaken)
            return Problems.Bad("take", "This is not a number of runs to take.", $"1 to {MostTaken}", $"{take}");
        var subjects = new List<string>();
        if (estate is not null)
        {
            if (await library.FindAsync(Library.EstateKind, estate, cancel) is null)
                return Problems.NotFound(
                    "estate", estate, (await library.ListAsync(Library.EstateKind, cancel)).Select(d => d.Name));
            var installs = await library.ListAsync(Library.InstallKind, cancel);
            subjects.AddRange(
                installs.Where(r => Library.OpenInstall(r).Document?.Estate == estate).Select(r => r.Name).Append(estate));
        }

        if (install is not null)
        {
            if (await library.FindAsync(Library.InstallKind, install, cancel) is null)
                return Problems.NotFound(
                    "install", install, (await library.ListAsync(Library.InstallKind, cancel)).Select(d => d.Name));
            subjects = estate is null || subjects.Contains(install) ? [install] : [];
        }

        await using var db = await databases.CreateDbContextAsync(cancel);
        var all = estate is null && install is null;
        var jobs = await db.Jobs.AsNoTracking().Include(j => j.Steps)
            .Where(j => JobKinds.GoOn.Contains(j.Kind) && (all || subjects.Contains(j.Subject)))
            .OrderByDescending(j => j.Id).Take(take ?? DefaultTake).ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<JobView>>([.. jobs.Select(JobViews.Brief)]);
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
