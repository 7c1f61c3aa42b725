namespace JustRight.Tests.Shared;

/// <summary>
/// Waits for what is expected. The bound is there for what hangs: a machine that is only busy does not reach it.
/// </summary>
public static class Waiting
{
    private static readonly TimeSpan Bound = TimeSpan.FromMinutes(5);
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(50);

    /// <summary>Looks until something is there, and returns it.</summary>
    /// <param name="what">What is waited for, in words for the error.</param>
    /// <param name="look">Returns null while it is not there.</param>
    public static async Task<T> ForAsync<T>(string what, Func<Task<T?>> look)
        where T : class
    {
        T? found = null;
        await UntilAsync(what, async () => (found = await look()) is not null);
        return found!;
    }

    /// <summary>Looks until something holds.</summary>
    /// <inheritdoc cref="ForAsync"/>
    public static async Task UntilAsync(string what, Func<Task<bool>> look)
    {
        using var bound = new CancellationTokenSource(Bound);
        while (!await look())
        {
            if (bound.IsCancellationRequested) throw new TimeoutException($"Not within {Bound.TotalMinutes:0} minutes: {what}.");
            await Task.Delay(Pause);
        }
    }

    /// <inheritdoc cref="UntilAsync(string, Func{Task{bool}})"/>
    public static Task UntilAsync(string what, Func<bool> look) => UntilAsync(what, () => Task.FromResult(look()));
}
