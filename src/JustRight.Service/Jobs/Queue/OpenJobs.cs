using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs.Queue;

/// <summary>What goes on with a document, or waits to; a proposal to change or remove the document is none of these.</summary>
internal static class OpenJobs
{
    private static readonly JobState[] States =
        [JobState.Queued, JobState.Running, JobState.Waiting, JobState.Proposed, JobState.Approved];

    /// <summary>Those of a document.</summary>
    public static IQueryable<JobRow> Of(AppDb db, string subject) =>
        db.Jobs.Where(j => j.Subject == subject && j.Kind != JobKind.Document && States.Contains(j.State));

    /// <summary>The answer where something goes on; null where nothing does.</summary>
    public static async Task<ProblemHttpResult?> BusyAsync(AppDb db, string subject, CancellationToken cancel) =>
        await Of(db, subject).FirstOrDefaultAsync(cancel) is { } job
            ? Problems.Of(
                409, "in-use", $"{job.Kind.Word()} {job.Id} of {subject} is not over.",
                "Wait for it, or stop it, or take its proposal back; then try again.")
            : null;
}
