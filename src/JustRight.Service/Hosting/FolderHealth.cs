using JustRight.Service.Platform.Faults;
using JustRight.Service.Platform.Settings;
using Microsoft.Extensions.Diagnostics.HealthChecks;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Hosting;

/// <summary>Healthy while the data folder can be written: a few bytes are, at most every ten seconds.</summary>
internal sealed class FolderHealth(IOptions<ServiceSettings> settings, TimeProvider time) : IHealthCheck, IDisposable
{
    private static readonly TimeSpan ProbedEvery = TimeSpan.FromSeconds(10);
    private static readonly byte[] Bytes = new byte[4096];
    private readonly SemaphoreSlim _one = new(1);
    private DateTimeOffset _probedAt = DateTimeOffset.MinValue;
    private HealthCheckResult _last;

    public async Task<HealthCheckResult> CheckHealthAsync(
        HealthCheckContext context, CancellationToken cancellationToken = default)
    {
        await _one.WaitAsync(cancellationToken);
        try
        {
            if (time.GetUtcNow() - _probedAt < ProbedEvery) return _last;
            (_last, _probedAt) = (await ProbeAsync(cancellationToken), time.GetUtcNow());
            return _last;
        }
        finally
        {
            _one.Release();
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _one.Dispose();

    private async Task<HealthCheckResult> ProbeAsync(CancellationToken cancel)
    {
        var file = Path.Combine(settings.Value.Data, "write-probe");
        try
        {
            await using (var probe = new FileStream(file, FileMode.Create, FileAccess.Write, FileShare.None))
            {
                await probe.WriteAsync(Bytes, cancel);
                probe.Flush(flushToDisk: true);
            }

            File.Delete(file);
            return HealthCheckResult.Healthy("The data folder can be written.");
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return HealthCheckResult.Unhealthy(StartFault.IsFull(e)
                ? "The disk of the data folder is full: make room. Work goes on then."
                : $"The data folder cannot be written: {e.Message}");
        }
    }
}
