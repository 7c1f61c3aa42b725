using JustRight.Contracts;
using JustRight.Core.Runs;
using JustRight.Core.Worklists.Undo;
using JustRight.Formats.Changes;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Jobs.Queue;

/// <summary>Jobs for the wire.</summary>
internal static class JobViews
{
    /// <summary>A job with its steps.</summary>
    public static JobView Of(JobRow job)
    {
        var run = RunRows.Of(job);
        var held = run.Held();
        return Brief(job, run) with
        {
            Steps = [.. job.Steps.OrderBy(s => s.Number).Select(s => Of(s) with
            {
                HeldBy = held.TryGetValue(s.Number, out var by) ? by : null,
                HangsOn = run.Step(s.Number).HangsOn,
                LeftOutWithIt = run.Step(s.Number).IsOver ? [] : run.HangingOn(s.Number),
            })],
        };
    }

    /// <summary>The same without its steps, for a list.</summary>
    public static JobView Brief(JobRow job) => Brief(job, RunRows.Of(job));

    /// <summary>A step.</summary>
    public static JobStepView Of(StepRow step) =>
        new(step.Number, step.Words, step.Team, step.Place, step.State.Word(), step.Before, step.After, step.At)
        {
            StepId = step.ChangeJson is { } change ? ChangeJson.Read(change).Key : null,
            ByPerson = step.ByPerson,
            By = step.By,
        };

    private static JobView Brief(JobRow job, Run run) => new(
        job.Id, job.Kind.Word(), job.Subject, job.State.Word(), job.StartedBy, job.CreatedAt, job.EndedAt,
        run.Steps.Count(s => !s.IsToDo), run.Steps.Count, job.Message, [], CanBeUndone(job),
        job.ResultJson is not null && job.Kind != JobKind.SignIn, job.Undoes, job.ApprovedBy, job.ApprovedAt)
    {
        Words = job.Words?.Split('\n') ?? [],
        CanContinue = JobStates.CanContinue(job),
        CanBeStopped = JobStates.CanBeStopped(job),
        Next = JobKinds.GoOn.Contains(job.Kind) && job.State is JobState.Waiting or JobState.Failed or JobState.Stopped
            ? run.Next(_ => false).Step?.Number
            : null,
    };

    private static bool CanBeUndone(JobRow job)
    {
        if (job.Kind == JobKind.Renew) return job.CanGoBack;
        if (!JobKinds.Undoable.Contains(job.Kind)) return false;
        var made = job.Steps.Where(s => s.State == RunStepState.Made).Select(s => ChangeJson.Read(s.ChangeJson!)).ToList();
        return made.Exists(c => !c.OnlySettles) && Undoing.FirstFinal(made) is null;
    }
}
