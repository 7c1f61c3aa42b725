using JustRight.Service.Platform.Settings;
using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace JustRight.Service.Platform.Keys;

/// <summary>
/// Says whether the keys are encrypted. That they are not is no illness, and whoever runs the service should know.
/// </summary>
internal sealed class KeysHealth(KeySettings settings) : IHealthCheck
{
    /// <inheritdoc/>
    public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default) =>
        Task.FromResult(HealthCheckResult.Healthy(
            settings.AreEncrypted
                ? "The keys are encrypted."
                : "The keys are not encrypted: whoever has the data folder has the secrets (docs/operations.md)."));
}
