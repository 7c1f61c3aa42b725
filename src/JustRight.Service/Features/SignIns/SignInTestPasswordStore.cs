using System.Collections.Concurrent;
using JustRight.Connectors.People;

namespace JustRight.Service.Features.SignIns;

/// <summary>
/// Passwords typed for sign-in tests that wait to run: in memory alone, and gone when the sign-in test takes them.
/// </summary>
internal sealed class SignInTestPasswordStore
{
    private readonly ConcurrentDictionary<string, SignInTestPasswords> _waiting = new(StringComparer.Ordinal);

    /// <summary>Holds passwords for a job.</summary>
    public void Put(string job, SignInTestPasswords passwords) => _waiting[job] = passwords;

    /// <summary>Takes a job's passwords; none when the service was started anew since.</summary>
    public SignInTestPasswords Take(string job) =>
        _waiting.TryRemove(job, out var passwords) ? passwords : new SignInTestPasswords(null, null);
}
