using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Platform.Background;
using Quartz;

namespace JustRight.Service.Jobs.Schedules;

/// <summary>
/// Keeps the scheduler's plan as the estates say: each watched one at its own times, and reminders of all each hour. The plan
/// holds moments; so each minute, by a measure of time that nobody sets, it is asked whether the clock was set back under it.
/// </summary>
internal sealed class SchedulePlan(
    ISchedulerFactory schedulers, Library library, SurveyStore surveys, TimeProvider time, ILogger<SchedulePlan> logger)
    : RepeatedWork(logger)
{
    private const string Looks = "looks";
    private static readonly JobKey Reminders = new("reminders");
    private static readonly TimeSpan RemindersEvery = TimeSpan.FromHours(1);
    private static readonly TimeSpan Turn = TimeSpan.FromMinutes(1);

    /// <inheritdoc/>
    public override async Task StartAsync(CancellationToken cancellationToken)
    {
        await RemindAsync(cancellationToken);
        foreach (var estate in await EstatesAsync(cancellationToken)) await FollowAsync(estate, cancellationToken);
        await base.StartAsync(cancellationToken);
    }

    /// <summary>
    /// Plans the looks at an estate anew, after what it says may have changed, or the service was away. A look that was missed
    /// meanwhile is made up for at once, and only one, however many were.
    /// </summary>
    public async Task FollowAsync(Estate estate, CancellationToken cancel)
    {
        if (estate.Rules.Schedule is not { } watch)
        {
            await EndAsync(estate.Name, cancel);
            return;
        }

        var now = time.GetUtcNow();
        var next = watch.Next(estate.Name, now, estate.Rules.TimeZone);
        var last = await surveys.LastTakenAsync(estate.Name, cancel);
        var missed = last is { } taken && watch.Next(estate.Name, taken, estate.Rules.TimeZone) <= now;
        await PlanAsync(estate.Name, missed ? now + Turn : next, cancel);
    }

    /// <summary>No longer looks at an estate.</summary>
    public async Task EndAsync(string estate, CancellationToken cancel) =>
        await (await schedulers.GetScheduler(cancel)).DeleteJob(new JobKey(estate, Looks), cancel);

    /// <summary>Plans the look after the one that was begun just now.</summary>
    public async Task GoOnAsync(string name, CancellationToken cancel)
    {
        if ((await EstatesAsync(cancel)).FirstOrDefault(e => e.Name == name) is not { Rules.Schedule: { } watch } estate) return;
        await PlanAsync(name, watch.Next(name, time.GetUtcNow(), estate.Rules.TimeZone), cancel);
    }

    /// <summary>When an estate is looked at next, or null when nobody watches it.</summary>
    public Task<DateTimeOffset?> NextAsync(string estate, CancellationToken cancel) =>
        NextAsync(new JobKey(estate, Looks), cancel);

    /// <inheritdoc/>
    protected override Task WaitAsync(CancellationToken cancel) => Task.Delay(Turn, time, cancel);

    /// <inheritdoc/>
    protected override async Task TurnAsync(CancellationToken cancel)
    {
        var now = time.GetUtcNow();
        if (await NextAsync(Reminders, cancel) is { } reminder && reminder - now > RemindersEvery) await RemindAsync(cancel);
        foreach (var estate in await EstatesAsync(cancel))
            if (estate.Rules.Schedule is { } watch && await NextAsync(estate.Name, cancel) is { } next
                && next > watch.Next(estate.Name, now, estate.Rules.TimeZone))
                await FollowAsync(estate, cancel);
    }

    private async Task<DateTimeOffset?> NextAsync(JobKey key, CancellationToken cancel) =>
        (await (await schedulers.GetScheduler(cancel)).GetTriggersOfJob(key, cancel)).Select(t => t.NextFireTimeUtc)
            .FirstOrDefault();

    /// <summary>One look: what the machine slept over is made up for when it wakes, and the next is planned from there.</summary>
    private async Task PlanAsync(string estate, DateTimeOffset at, CancellationToken cancel)
    {
        var scheduler = await schedulers.GetScheduler(cancel);
        var job = JobBuilder.Create<ScheduledSurveyJob>().WithIdentity(new JobKey(estate, Looks)).Build();
        await scheduler.DeleteJob(job.Key, cancel);
        var trigger = TriggerBuilder.Create(time).StartAt(at)
            .WithSimpleSchedule(s => s.WithMisfireInstruction(SimpleTriggerMisfireInstruction.FireNow)).Build();
        await scheduler.ScheduleJob(job, trigger, cancellationToken: cancel);
    }

    private async Task RemindAsync(CancellationToken cancel)
    {
        var scheduler = await schedulers.GetScheduler(cancel);
        await scheduler.DeleteJob(Reminders, cancel);
        var trigger = TriggerBuilder.Create(time).StartAt(time.GetUtcNow() + Turn)
            .WithSimpleSchedule(s =>
                s.WithInterval(RemindersEvery).RepeatForever()
                    .WithMisfireInstruction(SimpleTriggerMisfireInstruction.NowWithRemainingCount))
            .Build();
        await scheduler.ScheduleJob(
            JobBuilder.Create<RemindersJob>().WithIdentity(Reminders).Build(), trigger, cancellationToken: cancel);
    }

    /// <summary>Those that can be read; of another, its own page says why it cannot, and the others are watched.</summary>
    private async Task<IReadOnlyList<Estate>> EstatesAsync(CancellationToken cancel)
    {
        var estates = new List<Estate>();
        foreach (var row in await library.ListAsync(Library.EstateKind, cancel))
            if (Library.OpenEstate(row) is ({ } estate, _)) estates.Add(estate);
        return estates;
    }
}
