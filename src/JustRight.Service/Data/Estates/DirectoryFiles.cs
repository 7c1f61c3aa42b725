using System.Collections.Concurrent;
using System.IO.Compression;
using System.Text;
using JustRight.Connectors;
using JustRight.Connectors.Directories.Files;
using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Formats.Ldif;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Estates;

/// <summary>
/// The files that directories are read from where no connection is allowed: the latest of each estate. Only the attributes we
/// judge by are kept.
/// </summary>
internal sealed class DirectoryFiles(IDbContextFactory<AppDb> databases, LogStore log, TimeProvider time)
{
    private readonly ConcurrentDictionary<string, (int Id, DirectoryFile File)> _ready = new(StringComparer.Ordinal);

    /// <summary>Checks a file of LDIF and keeps it in place of the one before.</summary>
    /// <param name="readAt">When it was read from the directory, where the file does not say so itself.</param>
    /// <returns>What was kept; or null with every fault.</returns>
    public async Task<(DirectoryFileRow? Row, DirectoryFile? File, IReadOnlyList<Fault> Faults)> SaveAsync(
        Estate estate, string name, Stream content, DateTimeOffset? readAt, string who, CancellationToken cancel)
    {
        var reader = new LdifReader(name, DirectoryFile.Attributes.Contains);
        using var text = new StreamReader(content, new UTF8Encoding(false, throwOnInvalidBytes: true));
        try
        {
            while (!reader.IsHopeless && await text.ReadLineAsync(cancel) is { } line) reader.Take(line);
        }
        catch (DecoderFallbackException)
        {
            return (
                null, null,
                [new Fault(
                    "not-utf8", new Origin(name, 1, 1), "",
                    "This is not text in UTF-8.")
                {
                    Expected = "LDIF, in which everything but plain characters is written in base 64",
                }]);
        }

        var entries = reader.Finish();
        if (reader.Faults.Count > 0) return (null, null, reader.Faults);
        var file = new DirectoryFile(name, estate.Domain.Root, entries);
        if (!file.HasDomain)
            return (
                null, null,
                [new Fault(
                    "not-this-domain", entries[0].At, "",
                    $"The domain {estate.Domain.Root} itself is not in this file.")
                {
                    Expected = "the output of a search with that base, including the base itself",
                }]);
        if ((file.ReadAt ?? readAt) is not { } read)
            return (
                null, null,
                [new Fault(
                    "no-time", entries[0].At, "",
                    "The file does not say when it was read.")
                {
                    Expected = "the root entry with currentTime in the file, or read-at with the request",
                }]);
        if (read > time.GetUtcNow().AddMinutes(10))
            return (
                null, null,
                [new Fault(
                    "future", entries[0].At, "",
                    $"The file was read in the future: {read:yyyy-MM-dd HH:mm:ss zzz}.")
                {
                    Expected = "a time in the past, and clocks that agree",
                }]);

        var row = new DirectoryFileRow
        {
            Estate = estate.Name,
            File = name,
            ReadAt = read.ToUniversalTime(),
            AddedAt = time.GetUtcNow(),
            AddedBy = who,
            Content = Compress(entries),
        };
        await log.AddWithAsync(
            db =>
            {
                db.DirectoryFiles.RemoveRange(db.DirectoryFiles.Where(f => f.Estate == estate.Name));
                db.DirectoryFiles.Add(row);
            },
            who, "directory file", estate.Name,
            $"{name}: {entries.Count} objects, read {read.ToUniversalTime():yyyy-MM-dd HH:mm:ss}Z", cancel);
        return (row, file, []);
    }

    /// <summary>
    /// The latest file of an estate, ready for reading; throws <see cref="ConnectorException"/> when there is none.
    /// </summary>
    public async Task<(DirectoryFile File, DateTimeOffset ReadAt)> OpenAsync(Estate estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var latest = await db.DirectoryFiles.Where(f => f.Estate == estate.Name).Select(f => new { f.Id, f.File, f.ReadAt })
            .FirstOrDefaultAsync(cancel)
            ?? throw new ConnectorException(
                ConnectorFailure.NotFound, $"no directory file was given yet: justright survey {estate.Name} --from FILE");
        if (_ready.TryGetValue(estate.Name, out var ready) && ready.Id == latest.Id && ready.File.Root == estate.Domain.Root)
            return (ready.File, latest.ReadAt);
        var content = await db.DirectoryFiles.Where(f => f.Id == latest.Id).Select(f => f.Content).FirstAsync(cancel);
        using var text = new StreamReader(
            new GZipStream(new MemoryStream(content), CompressionMode.Decompress), new UTF8Encoding(false));
        var file = new DirectoryFile(latest.File, estate.Domain.Root, LdifReader.Read(text, latest.File, _ => true).Entries);
        _ready[estate.Name] = (latest.Id, file);
        return (file, latest.ReadAt);
    }

    private static byte[] Compress(IReadOnlyList<LdifEntry> entries)
    {
        using var bytes = new MemoryStream();
        using (var text = new StreamWriter(new GZipStream(bytes, CompressionLevel.Fastest), new UTF8Encoding(false)))
            LdifEntry.Write(entries, text);
        return bytes.ToArray();
    }

    /// <summary>Why changes cannot be made when the directory is read from a file, or null when they can.</summary>
    public static async Task<ProblemHttpResult?> RefusalAsync(
        Library library, string estate, IEnumerable<Change> changes, CancellationToken cancel) =>
        changes.Any(c => c is DirectoryChange) && await library.FindAsync(Library.EstateKind, estate, cancel) is { } row
            && Library.ReadEstate(row).Directory.Reach == Reach.File
            ? Problems.Of(
                409, "read-only", $"The directory of {estate} is read from a file: it cannot be changed from here.",
                "Print the changes and have them applied: justright ldif INSTALL, or justright fix TRACE REMEDY --ldif.")
            : null;
}
