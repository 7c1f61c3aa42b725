using System.Security.Cryptography;
using System.Text;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Formats.Estates;
using JustRight.Formats.Installs;
using JustRight.Formats.Sheets;
using JustRight.Service.Answers;
using JustRight.Service.Log;
using JustRight.Service.Storage;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Memory;

namespace JustRight.Service.Documents;

/// <summary>The sheets, estates and installs in Just Right, as text and as what they say.</summary>
public sealed class Library(IDbContextFactory<AppDb> databases, LogStore log, TimeProvider time)
{
    private const long RememberedBytes = 16_000_000;
    private static readonly MemoryCache Remembered = new(new MemoryCacheOptions { SizeLimit = RememberedBytes });

    /// <summary>The kinds of document.</summary>
    public const string SheetKind = "sheet";

    /// <inheritdoc cref="SheetKind"/>
    public const string EstateKind = "estate";

    /// <inheritdoc cref="SheetKind"/>
    public const string InstallKind = "install";

    /// <summary>All documents of a kind, by name.</summary>
    public async Task<IReadOnlyList<DocumentRow>> ListAsync(string kind, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Documents.AsNoTracking().Where(d => d.Kind == kind).OrderBy(d => d.Name).ToListAsync(cancel);
    }

    /// <summary>A document, or null.</summary>
    public async Task<DocumentRow?> FindAsync(string kind, string name, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Documents.AsNoTracking().FirstOrDefaultAsync(d => d.Kind == kind && d.Name == name, cancel);
    }

    /// <summary>Adds a document, or replaces the one of that name, and says so in the log.</summary>
    public async Task SaveAsync(string kind, string name, string file, string text, string who, CancellationToken cancel)
    {
        var before = await FindAsync(kind, name, cancel);
        await log.AddWithAsync(
            db =>
            {
                var row = db.Documents.FirstOrDefault(d => d.Kind == kind && d.Name == name);
                if (row is null) db.Documents.Add(row = new DocumentRow { Kind = kind, Name = name, File = file, Text = text, AddedBy = who });
                (row.File, row.Text, row.AddedAt, row.AddedBy) = (file, text, time.GetUtcNow(), who);
            },
            who, kind, name, before is null ? $"added from {file}" : before.Text == text ? $"added again from {file}, unchanged" : $"replaced from {file}", cancel);
    }

    /// <summary>What a sheet in Just Right says. It was sound when it was added; a newer release of ours may see it differently.</summary>
    public static Sheet ReadSheet(DocumentRow row) => Parsed(row, bytes => SheetReader.Read(bytes, row.File, stored: true));

    /// <summary>What an estate says.</summary>
    public static Estate ReadEstate(DocumentRow row) => Parsed(row, bytes => EstateReader.Read(bytes, row.File, stored: true));

    /// <summary>What an install says.</summary>
    public static Install ReadInstall(DocumentRow row) => Parsed(row, bytes => InstallReader.Read(bytes, row.File, stored: true));

    /// <summary>Lists of installs read the same few documents over and over; what a text says is remembered by its hash.</summary>
    private static T Parsed<T>(DocumentRow row, Func<byte[], (T? Result, IReadOnlyList<Fault> Faults)> read)
        where T : class
    {
        var bytes = Encoding.UTF8.GetBytes(row.Text);
        var key = (row.Kind, row.File, Hash: Convert.ToHexString(SHA256.HashData(bytes)));
        return (T)Remembered.GetOrCreate(key, entry =>
        {
            entry.Size = bytes.Length;
            var (result, faults) = read(bytes);
            return (object)(result ?? throw new FaultException(faults));
        })!;
    }
}
