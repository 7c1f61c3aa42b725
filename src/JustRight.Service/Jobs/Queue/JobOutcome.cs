using JustRight.Service.Data.Storage;

namespace JustRight.Service.Jobs.Queue;

/// <summary>What came of running a job.</summary>
/// <param name="State">The state it is in from now on.</param>
/// <param name="Message">In one line.</param>
internal sealed record JobOutcome(JobState State, string Message)
{
    /// <summary>It ended as it was asked for.</summary>
    public static JobOutcome Done(string message) => new(JobState.Done, message);
}
