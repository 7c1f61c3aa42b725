using JustRight.Service.Data.Storage;

namespace JustRight.Service.Jobs.Queue;

/// <summary>Does the long work of some kinds.</summary>
internal interface IJobHandler
{
    /// <summary>The kinds that it does; each kind has one handler.</summary>
    IReadOnlyList<JobKind> Kinds { get; }

    /// <summary>Does a job, or goes on with it.</summary>
    /// <param name="db">Follows the job: what is set on it is kept at its end.</param>
    Task<JobOutcome> RunAsync(AppDb db, JobRow job, CancellationToken cancel);
}
