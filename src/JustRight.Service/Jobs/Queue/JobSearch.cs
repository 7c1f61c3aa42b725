using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Lists;

namespace JustRight.Service.Jobs.Queue;

/// <summary>Looks for long work by what is said of it.</summary>
internal static class JobSearch
{
    /// <summary>Those that contain every word; all of them where nothing is looked for.</summary>
    public static IQueryable<JobRow> About(this IQueryable<JobRow> jobs, string? search) =>
        jobs.Containing(search, j => j.Subject, j => j.StartedBy, j => j.Words ?? "", j => j.Message ?? "", j => j.Id);
}
