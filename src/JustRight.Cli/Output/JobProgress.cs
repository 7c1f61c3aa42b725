using JustRight.Cli.Api;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Output;

/// <summary>Follows a job to its end: a bar where a person watches, nothing where not.</summary>
internal static class JobProgress
{
    /// <summary>Waits for the end and returns the job as it ended.</summary>
    /// <param name="onStep">Called for each finished step of a grant.</param>
    public static async Task<JobView> FollowAsync(
        Screen screen, ApiClient api, JobView job, string title, Action<JobStepView>? onStep, CancellationToken cancel)
    {
        if (!screen.IsWatched)
        {
            await foreach (var what in api.WatchAsync(job.Id, cancel))
                if (what.Step is not null) onStep?.Invoke(what.Step);
        }
        else
        {
            var steps = new List<JobStepView>();
            await screen.Error.Progress().AutoClear(true).HideCompleted(false)
                .Columns(new TaskDescriptionColumn { Alignment = Justify.Left }, new ProgressBarColumn(), new PercentageColumn())
                .StartAsync(async progress =>
                {
                    var task = progress.AddTask(Markup.Escape(title));
                    await foreach (var what in api.WatchAsync(job.Id, cancel))
                    {
                        task.MaxValue = Math.Max(1, what.Total);
                        task.Value = what.Done;
                        task.Description = Markup.Escape(what.State == "running" ? what.Text : title);
                        if (what.Step is not null) steps.Add(what.Step);
                    }
                });
            foreach (var step in steps) onStep?.Invoke(step);
        }

        return await api.GetAsync($"jobs/{job.Id}", ContractsJson.Default.JobView, cancel);
    }
}
