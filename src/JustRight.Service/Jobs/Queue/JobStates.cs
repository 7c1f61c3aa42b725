using JustRight.Core.Runs;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Jobs.Queue;

/// <summary>What can be done with a run in the state that it is in.</summary>
internal static class JobStates
{
    /// <summary>Whether it rests, so that something can be decided about it.</summary>
    public static bool IsAtRest(JobRow run) => run.State is JobState.Waiting or JobState.Failed or JobState.Stopped;

    /// <summary>Whether it can be gone on with: steps of it failed, or somebody stopped it.</summary>
    public static bool CanContinue(JobRow run) => JobKinds.GoOn.Contains(run.Kind)
        && (run.State == JobState.Stopped
            || (run.State == JobState.Failed && run.Steps.Any(s => s.State is RunStepState.Failed or RunStepState.Refused)));

    /// <summary>Whether it can be stopped: it runs, waits for its turn, or waits for somebody.</summary>
    public static bool CanBeStopped(JobRow run) =>
        JobKinds.GoOn.Contains(run.Kind) && run.State is JobState.Queued or JobState.Running or JobState.Waiting;
}
