using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Jobs.Schedules;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Schedules;

/// <summary>How estates are watched.</summary>
internal static class ScheduleEndpoints
{
    public static void MapSchedule(this IEndpointRouteBuilder api)
    {
        api.MapGet("/estates/{name}/schedule", ShowScheduleAsync)
            .WithName("ShowSchedule").WithSummary("The schedule of an estate: the interval, the next survey, the recipients")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);

        api.MapPost("/estates/{name}/schedule", SurveyNowAsync)
            .WithName("SurveyNow").WithSummary("Starts the scheduled survey now; a survey that is under way counts")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404);
    }

    private static async Task<Results<Ok<ScheduleView>, ProblemHttpResult>> ShowScheduleAsync(
        string name, Library library, ScheduledSurveys watcher, SchedulePlan plan, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate)
            return await library.NoEstateAsync(name, cancel);
        var last = await watcher.LastAsync(name, cancel);
        return TypedResults.Ok(
            new ScheduleView(
                name, (int?)estate.Rules.Schedule?.Every.TotalHours, await plan.NextAsync(name, cancel),
                last?.EndedAt ?? last?.CreatedAt, last is null ? null : last.Message ?? last.State.Word(),
                Told(estate.Rules.Notifications)));
    }

    private static async Task<Results<Accepted<JobView>, ProblemHttpResult>> SurveyNowAsync(
        string name, Library library, ScheduledSurveys watcher, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is null)
            return await library.NoEstateAsync(name, cancel);
        var (job, _) = await watcher.LookAsync(name, cancel);
        return TypedResults.Accepted($"/api/jobs/{job.Id}", JobViews.Of(job));
    }

    private static IReadOnlyList<string> Told(NotificationRules rules) =>
        rules.Webhook is { } webhook ? [.. rules.Mail, webhook.ToString()] : rules.Mail;
}
