using System.Collections.Concurrent;
using JustRight.Connectors.People;

namespace JustRight.Service.SignIns;

/// <summary>Passwords typed for trials that wait to run: in memory alone, and gone when the trial takes them.</summary>
internal sealed class TrialPasswordShelf
{
    private readonly ConcurrentDictionary<string, TrialPasswords> _waiting = new(StringComparer.Ordinal);

    /// <summary>Holds passwords for a job.</summary>
    public void Put(string job, TrialPasswords passwords) => _waiting[job] = passwords;

    /// <summary>Takes a job's passwords; none when the service was started anew since.</summary>
    public TrialPasswords Take(string job) => _waiting.TryRemove(job, out var passwords) ? passwords : new TrialPasswords(null, null);
}
