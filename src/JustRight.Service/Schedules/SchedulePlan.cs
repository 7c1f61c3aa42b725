using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Service.Answers;
using JustRight.Service.Documents;
using JustRight.Service.Storage;
using Quartz;

namespace JustRight.Service.Schedules;

/// <summary>
/// Keeps the scheduler's plan as the estates say: each watched one at its own times, and reminders of all each hour.
/// </summary>
internal sealed class SchedulePlan(ISchedulerFactory schedulers, Library library, TimeProvider time) : IHostedService
{
    private const string Looks = "looks";
    private static readonly TimeSpan RemindersEvery = TimeSpan.FromHours(1);

    /// <inheritdoc/>
    public async Task StartAsync(CancellationToken cancellationToken)
    {
        var scheduler = await schedulers.GetScheduler(cancellationToken);
        var reminders = JobBuilder.Create<RemindersJob>().WithIdentity("reminders").Build();
        await scheduler.ScheduleJob(
            reminders, Repeating(time.GetUtcNow().AddMinutes(1), RemindersEvery), cancellationToken: cancellationToken);
        foreach (var row in await library.ListAsync(Library.EstateKind, cancellationToken))
            await FollowAsync(row, cancellationToken);
    }

    /// <inheritdoc/>
    public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    /// <summary>Plans the looks at an estate anew, after what it says may have changed.</summary>
    public async Task FollowAsync(Estate estate, CancellationToken cancel)
    {
        var scheduler = await schedulers.GetScheduler(cancel);
        var key = new JobKey(estate.Name, Looks);
        await scheduler.DeleteJob(key, cancel);
        if (estate.Rules.Schedule is not { } watch) return;
        var job = JobBuilder.Create<ScheduledSurveyJob>().WithIdentity(key).Build();
        await scheduler.ScheduleJob(
            job, Repeating(watch.Next(estate.Name, time.GetUtcNow()), watch.Every), cancellationToken: cancel);
    }

    private async Task FollowAsync(DocumentRow row, CancellationToken cancel)
    {
        try
        {
            await FollowAsync(Library.ReadEstate(row), cancel);
        }
        catch (FaultException)
        {
            // A newer release reads this estate differently: its own page says why, and the others are watched.
        }
    }

    /// <summary>Times that were missed while the machine slept are not made up for.</summary>
    private static ITrigger Repeating(DateTimeOffset start, TimeSpan every) =>
        TriggerBuilder.Create().StartAt(start)
            .WithSimpleSchedule(s =>
                s.WithInterval(every).RepeatForever()
                    .WithMisfireInstruction(SimpleTriggerMisfireInstruction.NextWithRemainingCount))
            .Build();

    /// <summary>When an estate is looked at next, or null when nobody watches it.</summary>
    public async Task<DateTimeOffset?> NextAsync(string estate, CancellationToken cancel)
    {
        var scheduler = await schedulers.GetScheduler(cancel);
        return (await scheduler.GetTriggersOfJob(new JobKey(estate, Looks), cancel)).Select(t => t.NextFireTimeUtc)
            .FirstOrDefault();
    }
}
