using Microsoft.Data.Sqlite;

namespace JustRight.Service.Platform.Faults;

/// <summary>
/// What keeps the service from storing while it runs. Damage does not heal: it is remembered until the next start.
/// </summary>
internal sealed class StorageFault
{
    private volatile string? _damage;

    /// <summary>That the database is damaged, once something met it; or null.</summary>
    public string? Damage => _damage;

    /// <summary>
    /// The fault of the folder, the disk or the database that an exception comes from, or null when it is another one.
    /// </summary>
    public StartFault? Of(Exception exception)
    {
        for (var at = exception; at is not null; at = at.InnerException)
        {
            if (at is not SqliteException && !StartFault.IsFull(at)) continue;
            var fault = StartFault.Of(at);
            if (fault is { Code: StartFault.Database }) _damage = fault.Message;
            return fault;
        }

        return null;
    }
}
