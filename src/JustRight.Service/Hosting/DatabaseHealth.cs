using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Faults;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace JustRight.Service.Hosting;

/// <summary>Healthy while the database answers, and nothing met damage in it.</summary>
internal sealed class DatabaseHealth(IDbContextFactory<AppDb> databases, StorageFault faults) : IHealthCheck
{
    public async Task<HealthCheckResult> CheckHealthAsync(
        HealthCheckContext context, CancellationToken cancellationToken = default)
    {
        try
        {
            await using var db = await databases.CreateDbContextAsync(cancellationToken);
            _ = await db.Log.AsNoTracking().OrderByDescending(l => l.Number).FirstOrDefaultAsync(cancellationToken);
            return faults.Damage is { } damage
                ? HealthCheckResult.Unhealthy(damage) : HealthCheckResult.Healthy("The database answers.");
        }
        catch (SqliteException e)
        {
            return HealthCheckResult.Unhealthy(faults.Of(e)?.Message ?? $"The database does not answer: {e.Message}");
        }
    }
}
