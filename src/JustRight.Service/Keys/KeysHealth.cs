using JustRight.Service.Hosting;
using Microsoft.Extensions.Diagnostics.HealthChecks;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Keys;

/// <summary>Says whether the keys are encrypted. That they are not is no illness, and whoever runs the service should know.</summary>
internal sealed class KeysHealth(IOptions<ServiceSettings> settings) : IHealthCheck
{
    /// <inheritdoc/>
    public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default) =>
        Task.FromResult(HealthCheckResult.Healthy(
            settings.Value.Keys.AreEncrypted
                ? "The keys are encrypted."
                : "The keys are not encrypted: whoever has the data folder has the secrets. See JustRight:Keys in docs/operations.md."));
}
