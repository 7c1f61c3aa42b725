using JustRight.Service.Platform.Faults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Storage;

/// <summary>Whether this program knows what wrote a database.</summary>
internal static class KnownReleases
{
    /// <summary>Checks it.</summary>
    /// <exception cref="StartFault">A newer release wrote it.</exception>
    public static async Task CheckAsync(AppDb db, CancellationToken cancel)
    {
        var known = db.Database.GetMigrations().ToHashSet(StringComparer.Ordinal);
        if ((await db.Database.GetAppliedMigrationsAsync(cancel)).FirstOrDefault(m => !known.Contains(m)) is { } newer)
        {
            throw new StartFault(
                StartFault.Database,
                $"The database is of a newer release ({newer}) than this program: run that release, or restore the backup "
                + "from before.");
        }
    }
}
