using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Faults;
using JustRight.Service.Platform.Keys;
using JustRight.Service.Platform.Settings;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Backups;

/// <summary>What is to be restored, and how.</summary>
/// <param name="From">The backup.</param>
/// <param name="Into">The data folder: not there yet, or empty.</param>
/// <param name="KeyFile">The recipient's certificate and key, PEM or PKCS #12; null for none.</param>
/// <param name="KeyPasswordFile">What holds that file's password; null when it has none.</param>
/// <param name="WithoutSecrets">Whether secrets stay away that are in it.</param>
/// <param name="Keys">What encrypts the keys in the data folder.</param>
internal sealed record RestoreOrder(
    string From, string Into, string? KeyFile, string? KeyPasswordFile, bool WithoutSecrets, KeySettings Keys);

/// <summary>
/// Makes a data folder of a backup. It is made beside the one that is asked for, and takes its name only when all of it was
/// checked: the parts, the database, the log's chain, and that every secret opens.
/// </summary>
internal static class Restoring
{
    /// <summary>Restores.</summary>
    /// <returns>What was restored, a line each.</returns>
    /// <exception cref="StartFault">Why not; nothing is left behind.</exception>
    public static async Task<IReadOnlyList<string>> RunAsync(RestoreOrder order, CancellationToken cancel)
    {
        var into = Path.GetFullPath(order.Into);
        if (File.Exists(into) || Directory.Exists(into) && Directory.EnumerateFileSystemEntries(into).Any())
            throw new StartFault(StartFault.Folder, $"{into} is not empty: restore into a new folder.");
        var making = into + ".restoring";
        try
        {
            if (Directory.Exists(making)) Directory.Delete(making, recursive: true);
            PrivateFile.MakeFolder(making);
            var said = await MakeAsync(order, making, cancel);
            if (Directory.Exists(into)) Directory.Delete(into);
            Directory.Move(making, into);
            return said;
        }
        catch
        {
            if (Directory.Exists(making)) Directory.Delete(making, recursive: true);
            throw;
        }
    }

    private static async Task<IReadOnlyList<string>> MakeAsync(RestoreOrder order, string folder, CancellationToken cancel)
    {
        var manifest = await BackupArchive.UnpackAsync(order.From, folder, cancel);
        var database = Path.Combine(folder, BackupArchive.Database);
        if (!File.Exists(database)) throw new StartFault(StartFault.Backup, $"There is no database in {order.From}.");
        CheckPages(database);
        var withSecrets = await PutSecretsBackAsync(order, manifest, folder, database, cancel);

        var services = new ServiceCollection().AddLogging().AddSingleton(TimeProvider.System);
        services.AddDbContextFactory<AppDb>(db => db.UseSqlite($"Data Source={database};Pooling=False"));
        services.AddKeyRing(folder, order.Keys);
        services.AddSingleton<LogStore>().AddSingleton<SecretStore>().AddSingleton<SecretCheck>();
        await using var parts = services.BuildServiceProvider();
        await using var db = await parts.GetRequiredService<IDbContextFactory<AppDb>>().CreateDbContextAsync(cancel);
        await KnownReleases.CheckAsync(db, cancel);
        await db.Database.MigrateAsync(cancel);
        var log = parts.GetRequiredService<LogStore>();
        var chain = await log.CheckAsync(cancel);
        await parts.GetRequiredService<SecretCheck>().RunAsync(cancel);
        var heads = await db.LogHeads.CountAsync(cancel);
        await log.AddWithAsync(
            kept => Stop(kept, withSecrets), "the service", "restore", "all",
            $"from the backup of {manifest.MadeAt:u} by release {manifest.Release}, made by {manifest.MadeBy}, "
            + (withSecrets ? "with its secrets" : $"without secrets; {heads} signed heads went with the key that signed them"),
            cancel);
        return
        [
            $"restored into {Path.GetFullPath(order.Into)}: what was there at {manifest.MadeAt:u}, made by {manifest.MadeBy}",
            chain.Sound ? $"the log is sound: {chain.Entries} entries"
                : $"the log's chain was broken already, at entry {chain.BrokenAt}",
            withSecrets ? $"{await db.Secrets.CountAsync(cancel)} secrets were restored, and each opens"
                : "no secret is in it: set the secrets again (justright secret list)",
            "what was revoked or ended since then is not: look at justright token list",
        ];
    }

    /// <summary>
    /// Jobs under way then do not go on: the estate has moved on since. They are shown as interrupted. Heads of the log that a
    /// key signed which is not there any more prove nothing here: the next ones are signed with a new key.
    /// </summary>
    private static void Stop(AppDb db, bool hasKey)
    {
        if (!hasKey) db.LogHeads.RemoveRange(db.LogHeads);
        foreach (var job in db.Jobs.Where(j => j.State == JobState.Queued || j.State == JobState.Running))
        {
            (job.State, job.EndedAt) = (JobState.Interrupted, DateTimeOffset.UtcNow);
            job.Message = "the service was restored from a backup of when this ran: take a survey, and see what is made";
        }
    }

    private static async Task<bool> PutSecretsBackAsync(
        RestoreOrder order, BackupManifest manifest, string folder, string database, CancellationToken cancel)
    {
        var secrets = Path.Combine(folder, BackupArchive.Secrets);
        if (!File.Exists(secrets)) return false;
        try
        {
            if (order.WithoutSecrets) return false;
            if (order.KeyFile is null)
            {
                throw new StartFault(
                    StartFault.Keys,
                    $"What is secret in {order.From} is encrypted to {manifest.EncryptedTo}: give its certificate and key "
                    + "(--key), or leave the secrets out (--without-secrets).");
            }

            var packed = Recipient.Decrypt(await File.ReadAllBytesAsync(secrets, cancel), await KeyAsync(order, cancel));
            await SecretParts.PutBackAsync(packed, folder, database, cancel);
            return true;
        }
        catch (Exception e) when (e is CryptographicException or IOException or UnauthorizedAccessException)
        {
            throw new StartFault(
                StartFault.Keys, $"What is secret in {order.From} cannot be opened with {order.KeyFile}: {e.Message} "
                + $"It is encrypted to {manifest.EncryptedTo}.");
        }
        finally
        {
            File.Delete(secrets);
        }
    }

    private static async Task<X509Certificate2> KeyAsync(RestoreOrder order, CancellationToken cancel)
    {
        var password = order.KeyPasswordFile is { } file ? (await File.ReadAllTextAsync(file, cancel)).TrimEnd('\r', '\n') : null;
        if (!(await File.ReadAllTextAsync(order.KeyFile!, cancel)).Contains("-----BEGIN", StringComparison.Ordinal))
            return X509CertificateLoader.LoadPkcs12FromFile(order.KeyFile!, password);
        return password is null ? X509Certificate2.CreateFromPemFile(order.KeyFile!)
            : X509Certificate2.CreateFromEncryptedPemFile(order.KeyFile!, password);
    }

    private static void CheckPages(string database)
    {
        try
        {
            using var db = SecretParts.Open(database);
            using var check = db.CreateCommand();
            check.CommandText = "PRAGMA integrity_check(1)";
            if (check.ExecuteScalar() is not "ok")
                throw new StartFault(StartFault.Backup, "The database in it is damaged: take another backup.");
        }
        catch (Microsoft.Data.Sqlite.SqliteException e)
        {
            throw new StartFault(StartFault.Backup, $"The database in it is damaged ({e.Message}): take another backup.");
        }
    }
}
