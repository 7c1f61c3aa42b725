using JustRight.Core.Runs;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs.Queue;

/// <summary>What was made for an install from here.</summary>
internal static class MadeSteps
{
    /// <summary>Whether anything was.</summary>
    /// <param name="install">The name under which it was set up: a former release has that of its successor.</param>
    public static Task<bool> AnyAsync(AppDb db, string install, CancellationToken cancel) => db.Steps.AnyAsync(
        s => s.State == RunStepState.Made && db.Jobs.Any(j => j.Id == s.JobId && j.Subject == install), cancel);
}
