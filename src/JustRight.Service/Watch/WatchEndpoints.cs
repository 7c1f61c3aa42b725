using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Service.Access;
using JustRight.Service.Documents;
using JustRight.Service.Jobs;
using JustRight.Service.Passwords;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Watch;

/// <summary>How estates are watched.</summary>
internal static class WatchEndpoints
{
    public static void MapWatch(this IEndpointRouteBuilder api)
    {
        api.MapGet("/estates/{name}/watch", async Task<Results<Ok<WatchView>, ProblemHttpResult>> (string name, Library library, Watcher watcher, WatchPlan plan, CancellationToken cancel) =>
        {
            if (await PasswordEndpoints.EstateAsync(name, library, cancel) is not { } estate) return await PasswordEndpoints.MissingAsync(name, library, cancel);
            var last = await watcher.LastAsync(name, cancel);
            return TypedResults.Ok(new WatchView(name, (int?)estate.Rules.Watch?.Every.TotalHours, await plan.NextAsync(name, cancel), last?.EndedAt ?? last?.CreatedAt, last is null ? null : last.Message ?? last.State, Told(estate.Rules.Notices)));
        }).WithName("ShowWatch").WithSummary("How an estate is watched: how often, when next, and who is told").RequireAuthorization(Roles.Reader).ProducesProblem(404);

        api.MapPost("/estates/{name}/watch", async Task<Results<Accepted<JobView>, ProblemHttpResult>> (string name, Library library, Watcher watcher, CancellationToken cancel) =>
        {
            if (await PasswordEndpoints.EstateAsync(name, library, cancel) is null) return await PasswordEndpoints.MissingAsync(name, library, cancel);
            var (job, _) = await watcher.LookAsync(name, cancel);
            return TypedResults.Accepted($"/api/jobs/{job.Id}", JobQueue.View(job));
        }).WithName("LookNow").WithSummary("Lets the watch look now, instead of when it is due; a survey of the estate that is under way counts").RequireAuthorization(Roles.Planner).ProducesProblem(404);
    }

    private static IReadOnlyList<string> Told(NoticeRules rules) => rules.Webhook is { } webhook ? [.. rules.Mail, webhook.ToString()] : rules.Mail;
}
