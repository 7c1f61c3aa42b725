namespace JustRight.Service.Platform.Background;

/// <summary>
/// Work in the background that comes again and again. What fails is logged and tried at the next turn: a full disk must not end
/// it for good.
/// </summary>
internal abstract class RepeatedWork(ILogger logger) : BackgroundService
{
    /// <summary>Waits for the next turn.</summary>
    protected abstract Task WaitAsync(CancellationToken cancel);

    /// <summary>Does the work of one turn.</summary>
    protected abstract Task TurnAsync(CancellationToken cancel);

    /// <inheritdoc/>
    protected sealed override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            while (true)
            {
                await WaitAsync(stoppingToken);
                await TryAsync(stoppingToken);
            }
        }
        catch (OperationCanceledException)
        {
            // A graceful stop.
        }
    }

    private async Task TryAsync(CancellationToken cancel)
    {
        try
        {
            await TurnAsync(cancel);
        }
        catch (Exception e) when (!cancel.IsCancellationRequested) // also what was waited for in vain and given up
        {
            logger.LogError(e, "{Work} failed; it is tried again", GetType().Name);
        }
    }
}
