using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using System.Text;
using JustRight.Contracts;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Keys;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Passwords;

/// <summary>Hands passwords over, each once: afterwards it is no longer kept.</summary>
internal sealed class PasswordHandOver(
    SecretStore secrets, PasswordKeys keys, LogStore log, TimeProvider time, IDbContextFactory<AppDb> databases)
{
    /// <summary>Whether there is a password of an account to hand over.</summary>
    /// <param name="account"><c>DOMAIN\name</c>.</param>
    public async Task<bool> HasAsync(string account, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var kept = await db.Passwords.AsNoTracking().Where(p => p.Protected != null).Select(p => p.Account).ToListAsync(cancel);
        return kept.Contains(account, StringComparer.OrdinalIgnoreCase);
    }

    /// <summary>Takes a password out for good.</summary>
    /// <param name="account"><c>DOMAIN\name</c>.</param>
    /// <param name="how">How it is handed over, for the log.</param>
    /// <param name="wrap">What becomes of it on its way out.</param>
    /// <returns>Why not, or what it became.</returns>
    public async Task<(PasswordRow? Gone, T? Handed)> TakeAsync<T>(
        string account, string who, string how, Func<string, T> wrap, CancellationToken cancel)
        where T : class
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var row = (await db.Passwords.AsNoTracking().ToListAsync(cancel))
            .Find(p => string.Equals(p.Account, account, StringComparison.OrdinalIgnoreCase))
            ?? new PasswordRow
            {
                Install = "",
                Account = account,
            };
        if (row.Protected is null) return (row, null);
        var handed = wrap(secrets.Open(row));
        var now = time.GetUtcNow();
        try
        {
            // The log is written by one at a time: of two who ask at once, one finds it gone, and nothing of theirs is written.
            await log.AddWithAsync(
                journal =>
                {
                    var kept = journal.Passwords.First(p => p.Id == row.Id);
                    if (kept.Protected is null) throw new GoneException();
                    (kept.Protected, kept.KeyName, kept.HandedOverAt, kept.HandedOverBy) = (null, null, now, who);
                },
                who, "password", row.Account, $"handed over, {how}", cancel);
        }
        catch (GoneException)
        {
            return (row, null);
        }

        keys.Destroy(row.KeyName);
        return (null, handed);
    }

    /// <summary>It was handed over to somebody else a moment ago.</summary>
    private sealed class GoneException : Exception;

    /// <summary>Seals a password to a certificate.</summary>
    public static SealedPassword Seal(string account, string password, X509Certificate2 certificate) => new(
        account, certificate.Subject,
        PemEncoding.WriteString("CMS", Recipient.Encrypt(Encoding.UTF8.GetBytes(password), certificate)));
}
