using JustRight.Service.Platform.Background;

namespace JustRight.Service.Features.Anchors;

/// <summary>Has the head of the log signed: hourly, every thousand entries, and when the service stops.</summary>
internal sealed class LogSigner(LogHeads heads, TimeProvider time, ILogger<LogSigner> logger) : RepeatedWork(logger)
{
    private const long MostUnsigned = 1000;
    private static readonly TimeSpan Hour = TimeSpan.FromHours(1);
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(20);
    private DateTimeOffset _signed = time.GetUtcNow();

    /// <inheritdoc/>
    public override async Task StopAsync(CancellationToken cancellationToken)
    {
        await base.StopAsync(cancellationToken);
        if (await heads.UnsignedAsync(CancellationToken.None) > 0) await heads.SignAsync(CancellationToken.None);
    }

    /// <inheritdoc/>
    protected override Task WaitAsync(CancellationToken cancel) => Task.Delay(Pause, time, cancel);

    /// <inheritdoc/>
    protected override async Task TurnAsync(CancellationToken cancel)
    {
        var unsigned = await heads.UnsignedAsync(cancel);
        if (unsigned == 0 || (unsigned < MostUnsigned && time.GetUtcNow() - _signed < Hour)) return;
        await heads.SignAsync(cancel);
        _signed = time.GetUtcNow();
    }
}
