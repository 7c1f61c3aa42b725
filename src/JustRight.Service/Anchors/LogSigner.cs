namespace JustRight.Service.Anchors;

/// <summary>Has the head of the log signed: hourly, every thousand entries, and when the service stops.</summary>
internal sealed class LogSigner(LogHeads heads, TimeProvider time) : BackgroundService
{
    private const long MostUnsigned = 1000;
    private static readonly TimeSpan Hour = TimeSpan.FromHours(1);
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(20);

    /// <inheritdoc/>
    public override async Task StopAsync(CancellationToken cancellationToken)
    {
        await base.StopAsync(cancellationToken);
        if (await heads.UnsignedAsync(CancellationToken.None) > 0) await heads.SignAsync(CancellationToken.None);
    }

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var signed = time.GetUtcNow();
        using var timer = new PeriodicTimer(Pause, time);
        try
        {
            while (await timer.WaitForNextTickAsync(stoppingToken))
            {
                var unsigned = await heads.UnsignedAsync(stoppingToken);
                if (unsigned == 0 || (unsigned < MostUnsigned && time.GetUtcNow() - signed < Hour)) continue;
                await heads.SignAsync(stoppingToken);
                signed = time.GetUtcNow();
            }
        }
        catch (OperationCanceledException)
        {
            // The service stops: the head is signed once more above.
        }
    }
}
