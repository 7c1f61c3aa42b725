using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using JustRight.Contracts;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace JustRight.Service.Features.JobProgress;

/// <summary>Long work, whatever it is, and its progress.</summary>
internal static class JobEndpoints
{
    public static void MapJobs(this IEndpointRouteBuilder api)
    {
        api.MapGet("/jobs/{id}", ShowJobAsync)
            .WithName("ShowJob").WithSummary("A job and its steps")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);

        api.MapGet("/jobs/{id}/events", WatchJobAsync)
            .WithName("WatchJob")
            .WithSummary("A job's progress as numbered server-sent events, from its start, or after Last-Event-ID, to its end")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
    }

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> ShowJobAsync(
        string id, JobQueue queue, CancellationToken cancel) =>
        await queue.FindAsync(id, cancel) is { } job ? TypedResults.Ok(JobViews.Of(job)) : Problems.NotFound("job", id, []);

    private static async Task<Results<ServerSentEventsResult<JobEvent>, ProblemHttpResult>> WatchJobAsync(
        string id, [FromHeader(Name = "Last-Event-ID")] string? last, JobFeed feed, JobQueue queue, CancellationToken cancel) =>
        await queue.FindAsync(id, cancel) is null
            ? Problems.NotFound("job", id, [])
            : TypedResults.ServerSentEvents(EventsAsync(id, last, feed, queue, cancel));

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
}
