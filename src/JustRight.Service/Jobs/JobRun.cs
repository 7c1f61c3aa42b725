using JustRight.Core.Runs;
using JustRight.Formats.Changes;
using JustRight.Service.Storage;

namespace JustRight.Service.Jobs;

/// <summary>The run that a job's steps are.</summary>
public static class JobRun
{
    /// <summary>The run as the journal has it.</summary>
    public static Run Of(JobRow job) =>
        Run.Of([.. job.Steps.OrderBy(s => s.Number).Select(s => (ChangeJson.Read(s.ChangeJson), StateOf(s.State)))]);

    /// <summary>What came of it so far.</summary>
    public static string Words(JobRow job) => Of(job).Words(n => job.Steps.First(s => s.Number == n).After);

    /// <summary>
    /// Lets what failed be tried again: a step that was begun is looked at first, for it may have been made.
    /// </summary>
    public static void TryAgain(JobRow job)
    {
        foreach (var step in job.Steps.Where(s => s.State == JournalState.Failed))
            step.State = step.Before is null ? JournalState.Waiting : JournalState.Intended;
    }

    private static RunStepState StateOf(JournalState state) => state switch
    {
        JournalState.Waiting => RunStepState.Waiting,
        JournalState.Intended => RunStepState.Intended,
        JournalState.Made => RunStepState.Made,
        JournalState.Skipped => RunStepState.AlreadySo,
        JournalState.Failed => RunStepState.Failed,
    };
}
