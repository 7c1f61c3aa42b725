using JustRight.Core.Faults;
using JustRight.Service.Data.Documents;
using JustRight.Service.Jobs.Notifications;
using Quartz;

namespace JustRight.Service.Jobs.Schedules;

/// <summary>The scheduler's call to remind of what is due.</summary>
[DisallowConcurrentExecution]
internal sealed class RemindersJob(Library library, NotificationService notices) : IJob
{
    /// <inheritdoc/>
    public async ValueTask Execute(IJobExecutionContext context, CancellationToken cancellationToken)
    {
        foreach (var row in await library.ListAsync(Library.EstateKind, cancellationToken))
        {
            try
            {
                await notices.RemindAsync(Library.ReadEstate(row), cancellationToken);
            }
            catch (FaultException)
            {
                // An estate that no longer can be read says so on its own page; the others are reminded of.
            }
        }
    }
}
