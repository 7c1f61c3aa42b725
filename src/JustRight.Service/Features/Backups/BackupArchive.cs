using System.Formats.Tar;
using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Json;
using JustRight.Service.Platform.Faults;
using JustRight.Service.Platform.Keys;

namespace JustRight.Service.Features.Backups;

/// <summary>
/// The file of a backup: a gzip-compressed tar archive [RFC 1952, POSIX.1-2001 pax] that begins with a manifest. Everything else
/// stands in the manifest with its SHA-256, and is one of the parts that are known.
/// </summary>
internal static class BackupArchive
{
    /// <summary>What a file of this layout is.</summary>
    public const int Layout = 1;

    /// <summary>The database, without what is secret.</summary>
    public const string Database = "justright.db";

    /// <summary>What is secret, encrypted to the recipient.</summary>
    public const string Secrets = "secrets.p7m";

    /// <summary>The folder of the simulation's states.</summary>
    public const string Simulation = "simulation";

    private const string Manifest = "manifest.json";
    private const UnixFileMode OwnerOnly = UnixFileMode.UserRead | UnixFileMode.UserWrite;
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { WriteIndented = true };

    /// <summary>Packs a folder.</summary>
    /// <param name="folder">Holds the parts.</param>
    /// <param name="manifest">What is said of the whole; the parts are filled in.</param>
    /// <param name="file">Is made.</param>
    public static async Task PackAsync(string folder, BackupManifest manifest, string file, CancellationToken cancel)
    {
        var parts = Directory.GetFiles(folder, "*", SearchOption.AllDirectories)
            .ToDictionary(f => Path.GetRelativePath(folder, f).Replace('\\', '/'), HashOf, StringComparer.Ordinal);
        await using var packed = new FileStream(file, PrivateFile.New());
        await using var gzip = new GZipStream(packed, CompressionLevel.Fastest);
        await using var tar = new TarWriter(gzip, TarEntryFormat.Pax);
        using (var text = new MemoryStream(JsonSerializer.SerializeToUtf8Bytes(manifest with { Parts = parts }, Json)))
            await tar.WriteEntryAsync(
                new PaxTarEntry(TarEntryType.RegularFile, Manifest) { DataStream = text, Mode = OwnerOnly }, cancel);
        foreach (var (name, _) in parts.OrderBy(p => p.Key, StringComparer.Ordinal))
        {
            await using var content = File.OpenRead(Path.Combine(folder, name));
            await tar.WriteEntryAsync(
                new PaxTarEntry(TarEntryType.RegularFile, name) { DataStream = content, Mode = OwnerOnly }, cancel);
        }
    }

    /// <summary>Unpacks into a folder of its own, and checks every part.</summary>
    /// <exception cref="StartFault">It is no backup, is damaged, or is of a newer release.</exception>
    public static async Task<BackupManifest> UnpackAsync(string file, string folder, CancellationToken cancel)
    {
        try
        {
            await using var packed = File.OpenRead(file);
            await using var gzip = new GZipStream(packed, CompressionMode.Decompress);
            await using var tar = new TarReader(gzip);
            var manifest = await ManifestAsync(tar, file, cancel);
            var missing = manifest.Parts.Keys.ToHashSet(StringComparer.Ordinal);
            while (await tar.GetNextEntryAsync(cancellationToken: cancel) is { } entry)
            {
                if (entry.EntryType != TarEntryType.RegularFile || !IsPart(entry.Name) || !missing.Remove(entry.Name))
                    throw Damaged(file, $"'{entry.Name}' does not belong into it");
                await PartAsync(entry, Path.Combine(folder, entry.Name), cancel);
                if (HashOf(Path.Combine(folder, entry.Name)) != manifest.Parts[entry.Name])
                    throw Damaged(file, $"'{entry.Name}' is not what was backed up");
            }

            return missing.Count == 0 ? manifest
                : throw Damaged(file, $"'{missing.Order(StringComparer.Ordinal).First()}' is missing");
        }
        catch (Exception e) when (e is InvalidDataException or EndOfStreamException or JsonException or FormatException)
        {
            throw Damaged(file, e.Message);
        }
        catch (Exception e) when (e is FileNotFoundException or DirectoryNotFoundException or UnauthorizedAccessException)
        {
            throw new StartFault(StartFault.Backup, $"The backup {file} cannot be read: {e.Message}");
        }
    }

    /// <summary>
    /// Whether a name is one that a backup may have: a known part, and one level below what it may have files of.
    /// </summary>
    public static bool IsPart(string name) => name is Database or Secrets
        || name.StartsWith(Simulation + "/", StringComparison.Ordinal) && PlainFile.IsName(name[(Simulation.Length + 1)..]);

    private static async Task<BackupManifest> ManifestAsync(TarReader tar, string file, CancellationToken cancel)
    {
        var first = await tar.GetNextEntryAsync(cancellationToken: cancel);
        if (first is not { Name: Manifest, DataStream: { } text }) throw Damaged(file, "it does not begin with a manifest");
        var manifest = await JsonSerializer.DeserializeAsync<BackupManifest>(text, Json, cancel);
        if (manifest?.Parts is null) throw Damaged(file, "its manifest is empty");
        return manifest.Layout <= Layout ? manifest : throw new StartFault(
            StartFault.Backup,
            $"The backup {file} was made by a newer release ({manifest.Release}): restore it with that release.");
    }

    private static async Task PartAsync(TarEntry entry, string place, CancellationToken cancel)
    {
        PrivateFile.MakeFolder(Path.GetDirectoryName(place)!);
        await using var made = new FileStream(place, PrivateFile.New());
        if (entry.DataStream is { } content) await content.CopyToAsync(made, cancel);
        made.Flush(flushToDisk: true);
    }

    private static StartFault Damaged(string file, string why) =>
        new(StartFault.Backup, $"The file {file} is no backup of ours, or is damaged ({why}): take another one.");

    private static string HashOf(string file)
    {
        using var content = File.OpenRead(file);
        return Convert.ToHexStringLower(SHA256.HashData(content));
    }
}

/// <summary>What a backup says of itself.</summary>
/// <param name="Layout">How its file is laid out: <see cref="BackupArchive.Layout"/>.</param>
/// <param name="Release">The release of the service that made it.</param>
/// <param name="MadeBy">Who asked for it.</param>
/// <param name="EncryptedTo">Who can open what is secret in it; null when nothing secret is in it.</param>
/// <param name="Parts">The SHA-256 of each part by its name.</param>
internal sealed record BackupManifest(
    int Layout, string Release, DateTimeOffset MadeAt, string MadeBy, string? EncryptedTo,
    IReadOnlyDictionary<string, string> Parts);
