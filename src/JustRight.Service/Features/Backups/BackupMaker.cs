using System.Security.Cryptography.X509Certificates;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Keys;
using JustRight.Service.Platform.Settings;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Features.Backups;

/// <summary>Makes backups while the service runs: of one moment, whatever is written meanwhile. One at a time.</summary>
internal sealed class BackupMaker(IOptions<ServiceSettings> settings, KeyFolder keys, TimeProvider time) : IDisposable
{
    private readonly SemaphoreSlim _one = new(1);

    /// <summary>Makes a backup.</summary>
    /// <param name="recipient">To whom what is secret is encrypted; null for nothing secret in it.</param>
    /// <returns>The file, opened; nothing else of it is left.</returns>
    public async Task<FileStream> MakeAsync(X509Certificate2? recipient, string who, CancellationToken cancel)
    {
        await _one.WaitAsync(cancel);
        var work = WorkFolder(settings.Value.Data);
        try
        {
            var parts = Path.Combine(work, "parts");
            PrivateFile.MakeFolder(parts);
            var manifest = new BackupManifest(
                BackupArchive.Layout, ProgramRelease.Number, time.GetUtcNow(), who,
                recipient is null ? null : $"{recipient.Subject} ({recipient.Thumbprint})", new Dictionary<string, string>());
            var keysThen = Path.Combine(work, "keys");
            Copy(Path.Combine(parts, BackupArchive.Database), keysThen);
            var taken = recipient is null ? null : Path.Combine(work, "taken.db");
            SecretParts.Take(Path.Combine(parts, BackupArchive.Database), taken);
            if (recipient is not null)
            {
                var secret = Recipient.Encrypt(await SecretParts.PackAsync(taken!, keysThen, cancel), recipient);
                await File.WriteAllBytesAsync(Path.Combine(parts, BackupArchive.Secrets), secret, cancel);
            }

            var file = Path.Combine(work, "backup");
            await BackupArchive.PackAsync(parts, manifest, file, cancel);
            return File.OpenRead(file);
        }
        finally
        {
            // Copies of keys must not outlive what they encrypt. The opened file has no name any more, and is gone when it is
            // closed.
            Clear(settings.Value.Data);
            _one.Release();
        }
    }

    /// <summary>Removes what a backup that was cut off left in a data folder.</summary>
    public static void Clear(string data)
    {
        if (Directory.Exists(WorkFolder(data))) Directory.Delete(WorkFolder(data), recursive: true);
    }

    /// <inheritdoc/>
    public void Dispose() => _one.Dispose();

    private static string WorkFolder(string data) => Path.Combine(data, "backup-in-making");

    /// <summary>
    /// Copies the database, the keys and the simulation of one moment. Nothing is written while the moment is taken: a key is
    /// made before what it encrypts is stored, and destroyed after that is gone, so that what is stored then has its keys then.
    /// The database itself is copied from its snapshot of that moment, while others write again.
    /// </summary>
    private void Copy(string database, string keysThen)
    {
        using var source = SecretParts.Open(settings.Value.DatabaseFile);
        using (var writer = SecretParts.Open(settings.Value.DatabaseFile))
        using (writer.BeginTransaction(deferred: false))
        {
            CopyFiles(keys.Path, keysThen);
            CopySimulation(Path.Combine(Path.GetDirectoryName(database)!, BackupArchive.Simulation));
            Snapshot(source);
        }

        using var copy = SecretParts.Open(database);
        source.BackupDatabase(copy);
    }

    /// <summary>Begins to read: what the connection reads from now on is of this moment.</summary>
    private static void Snapshot(SqliteConnection source)
    {
        using var begin = source.CreateCommand();
        begin.CommandText = "BEGIN; SELECT count(*) FROM sqlite_master";
        begin.ExecuteScalar();
    }

    private void CopySimulation(string to)
    {
        var from = Path.Combine(settings.Value.Data, BackupArchive.Simulation);
        if (Directory.Exists(from)) CopyFiles(from, to);
    }

    private static void CopyFiles(string from, string to)
    {
        foreach (var file in Directory.GetFiles(from, "*", SearchOption.AllDirectories))
        {
            var place = Path.Combine(to, Path.GetRelativePath(from, file));
            PrivateFile.MakeFolder(Path.GetDirectoryName(place)!);
            File.Copy(file, place);
        }
    }
}
