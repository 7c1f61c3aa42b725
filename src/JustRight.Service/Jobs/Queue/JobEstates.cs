using JustRight.Core.Estates;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Jobs.Queue;

/// <summary>Which estate a job is about.</summary>
internal sealed class JobEstates(Library library)
{
    /// <summary>The estate's name: that of the job's install, or what the job is about itself.</summary>
    public async Task<string> NameAsync(JobRow job, CancellationToken cancel) =>
        await library.FindAsync(Library.InstallKind, job.Subject, cancel) is { } install && job.OrderJson is null
            ? Library.OpenInstall(install).Document?.Estate ?? job.Subject
            : job.Subject;

    /// <summary>The estate; null when it is no longer there.</summary>
    public async Task<Estate?> FindAsync(JobRow job, CancellationToken cancel) =>
        await library.FindAsync(Library.EstateKind, await NameAsync(job, cancel), cancel) is { } row
            ? Library.OpenEstate(row).Document
            : null;
}
