using Quartz;

namespace JustRight.Service.Jobs.Schedules;

/// <summary>
/// The scheduler's call to look at an estate. It only lines a survey up: jobs run one after another, so no two surveys of one
/// install are ever under way at once.
/// </summary>
[DisallowConcurrentExecution]
internal sealed class ScheduledSurveyJob(ScheduledSurveys watcher, SchedulePlan plan, ILogger<ScheduledSurveyJob> logger) : IJob
{
    /// <inheritdoc/>
    public async ValueTask Execute(IJobExecutionContext context, CancellationToken cancellationToken)
    {
        var estate = context.JobDetail.Key.Name;
        await plan.GoOnAsync(estate, cancellationToken);
        var (job, fresh) = await watcher.LookAsync(estate, cancellationToken);
        if (!fresh)
            logger.LogInformation("The scheduled survey of {Estate} is skipped: survey {Job} is under way", estate, job.Id);
    }
}
