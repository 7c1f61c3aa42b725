namespace JustRight.Service.Jobs.Queue;

/// <summary>
/// Keeps two jobs from one place, whichever estates they come from: a place is known by its address. Many may read it at once;
/// who changes it has it alone. All places of a job are taken at once and in the order the jobs came, so that none waits for
/// ever and no two wait for each other.
/// </summary>
public sealed class PlaceLocks
{
    private readonly Lock _lock = new();
    private readonly List<Claim> _claims = [];

    /// <summary>Waits until places are free for what is to be done there, and takes them; disposing gives them back.</summary>
    /// <param name="places">Their addresses.</param>
    /// <param name="alone">Whether they are changed, and not only read.</param>
    public async Task<IDisposable> TakeAsync(IEnumerable<string> places, bool alone, CancellationToken cancel)
    {
        var claim = new Claim(this, places.ToHashSet(StringComparer.OrdinalIgnoreCase), alone);
        lock (_lock)
        {
            _claims.Add(claim);
            Grant();
        }

        try
        {
            await claim.Granted.Task.WaitAsync(cancel);
        }
        catch (OperationCanceledException)
        {
            claim.Dispose();
            throw;
        }

        return claim;
    }

    private void Release(Claim claim)
    {
        lock (_lock)
        {
            _claims.Remove(claim);
            Grant();
        }
    }

    private void Grant()
    {
        for (var i = 0; i < _claims.Count; i++)
            if (!_claims[i].Granted.Task.IsCompleted && !_claims.Take(i)
                .Any(_claims[i].Conflicts)) _claims[i].Granted.SetResult();
    }

    private sealed class Claim(PlaceLocks locks, HashSet<string> places, bool alone) : IDisposable
    {
        private readonly HashSet<string> _places = places;
        private readonly bool _alone = alone;

        public TaskCompletionSource Granted { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);

        public bool Conflicts(Claim other) => (_alone || other._alone) && _places.Overlaps(other._places);

        public void Dispose() => locks.Release(this);
    }
}
