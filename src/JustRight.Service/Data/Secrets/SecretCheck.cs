using System.Security.Cryptography;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Faults;
using JustRight.Service.Platform.Keys;
using JustRight.Service.Platform.Settings;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Secrets;

/// <summary>
/// Opens at the start what is kept encrypted. A service whose keys are gone would look healthy, and fail at night with the first
/// survey that needs a secret.
/// </summary>
internal sealed class SecretCheck(
    SecretStore secrets, PasswordKeys keys, LogStore log, KeySettings settings, KeyFolder folder,
    IDbContextFactory<AppDb> databases,
    ILogger<SecretCheck> logger)
{
    /// <summary>Checks every secret and every kept password.</summary>
    /// <exception cref="StartFault">Some cannot be opened, and nobody said to drop them.</exception>
    public async Task RunAsync(CancellationToken cancel)
    {
        if (!settings.AreEncrypted)
        {
            logger.LogWarning(
                "The keys in {Folder} are not encrypted: whoever has the data folder has the secrets (docs/security.md)",
                folder.Path);
        }

        await using var db = await databases.CreateDbContextAsync(cancel);
        var passwords = await db.Passwords.AsNoTracking().Where(p => p.Protected != null).ToListAsync(cancel);
        var names = await db.Secrets.AsNoTracking().ToListAsync(cancel);
        var lostSecrets = names.Where(s => !Opens(() => secrets.OpenSecret(s))).Select(s => s.Id).ToList();
        var lostPasswords = passwords.Where(p => !Opens(() => secrets.Open(p))).Select(p => p.Id).ToList();
        if (lostSecrets.Count + lostPasswords.Count > 0)
        {
            if (!settings.DropUnreadable)
            {
                throw new StartFault(
                    StartFault.Keys,
                    $"{lostSecrets.Count} of {names.Count} secrets and {lostPasswords.Count} of {passwords.Count} kept passwords "
                    + "cannot be decrypted: "
                    + $"the keys in {folder.Path} are missing, or the passphrase or certificate for them is another one. "
                    + "Restore them from the backup. If they are lost for good, start once with "
                    + "--JustRight:Keys:DropUnreadable true, and set the secrets again.");
            }

            await log.AddWithAsync(
                journal =>
                {
                    journal.Secrets.RemoveRange(journal.Secrets.Where(s => lostSecrets.Contains(s.Id)));
                    foreach (var row in journal.Passwords.Where(p => lostPasswords.Contains(p.Id)))
                        (row.Protected, row.KeyName) = (null, null);
                },
                "the service", "secret", "all that cannot be decrypted",
                $"dropped: {lostSecrets.Count} secrets and {lostPasswords.Count} kept passwords, whose keys are gone", cancel);
        }

        keys.DestroyOthers(passwords.Select(p => p.KeyName).OfType<string>().ToHashSet(StringComparer.Ordinal));
    }

    private static bool Opens(Func<string> open)
    {
        try
        {
            open();
            return true;
        }
        catch (CryptographicException)
        {
            return false;
        }
    }
}
