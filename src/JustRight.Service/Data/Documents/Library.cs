using System.Security.Cryptography;
using System.Text;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Formats.Differences;
using JustRight.Formats.Estates;
using JustRight.Formats.Installs;
using JustRight.Formats.Sheets;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Memory;

namespace JustRight.Service.Data.Documents;

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

    /// <summary>What an estate in Just Right says, or null when there is none of that name.</summary>
    public async Task<Estate?> EstateAsync(string name, CancellationToken cancel) =>
        await FindAsync(EstateKind, name, cancel) is { } row ? ReadEstate(row) : null;

    /// <summary>The answer where there is no estate of that name.</summary>
    public async Task<ProblemHttpResult> NoEstateAsync(string name, CancellationToken cancel) =>
        (await MissingAsync(EstateKind, name, cancel))!;

    /// <summary>That a document is not in Just Right, with the nearest of those that are; null when it is.</summary>
    public async Task<ProblemHttpResult?> MissingAsync(string kind, string name, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var all = db.Documents.Where(d => d.Kind == kind).Select(d => d.Name);
        return await all.AnyAsync(n => n == name, cancel) ? null
            : Problems.NotFound(kind, name, await all.OrderBy(n => n).ToListAsync(cancel));
    }

    /// <summary>Adds a document, or replaces the one of that name, and says so in the log.</summary>
    public async Task SaveAsync(string kind, string name, string file, string text, string who, CancellationToken cancel)
    {
        var before = await FindAsync(kind, name, cancel);
        await log.AddWithAsync(
            db =>
            {
                Keep(db, new NewDocument(kind, name, file, text), who);
            },
            who, kind, name, Logged(kind, before, file, text), cancel);
    }

    /// <summary>Adds or replaces several documents at once, with one entry in the log.</summary>
    /// <param name="first">What else changes with them, before.</param>
    public Task SaveTogetherAsync(
        IReadOnlyList<NewDocument> documents, Action<AppDb> first, LogSaid said, string who, CancellationToken cancel) =>
        SaveIfAsync(
            documents,
            db =>
            {
                first(db);
                return true;
            },
            said, who, cancel);

    /// <summary>Adds or replaces several documents at once, where that can still be done.</summary>
    /// <param name="first">
    /// Looks once more, and changes what else changes with them, before; false where nothing is to be kept. Nobody changes
    /// anything between the two.
    /// </param>
    /// <returns>Whether they were kept.</returns>
    public Task<bool> SaveIfAsync(
        IReadOnlyList<NewDocument> documents, Func<AppDb, bool> first, LogSaid said, string who, CancellationToken cancel) =>
        log.AddIfAsync(
            db =>
            {
                if (!first(db)) return false;
                foreach (var document in documents) Keep(db, document, who);
                return true;
            },
            who, said.Action, said.Subject, said.Detail, cancel);

    /// <summary>Removes documents at once, with one entry in the log. Their versions stay.</summary>
    /// <param name="first">What else is removed with them, before.</param>
    public Task RemoveTogetherAsync(
        IReadOnlyList<(string Kind, string Name)> documents, Action<AppDb> first, LogSaid said, string who,
        CancellationToken cancel) =>
        log.AddWithAsync(
            db =>
            {
                first(db);
                foreach (var (kind, name) in documents) Remove(db, kind, name, who);
            },
            who, said.Action, said.Subject, said.Detail, cancel);

    /// <summary>Removes a document, and says so in the log. Its versions stay.</summary>
    /// <param name="detail">What else is to be said of it.</param>
    /// <param name="remove">
    /// Looks once more whether it can be removed, and removes what is kept of it; false where it cannot. Nobody changes anything
    /// between the two.
    /// </param>
    /// <returns>Whether it was removed.</returns>
    public Task<bool> RemoveAsync(
        string kind, string name, string who, string detail, Func<AppDb, bool> remove, CancellationToken cancel) =>
        log.AddIfAsync(
            db =>
            {
                if (!db.Documents.Any(d => d.Kind == kind && d.Name == name) || !remove(db)) return false;
                Remove(db, kind, name, who);
                return true;
            },
            who, kind, name, detail.Length == 0 ? "removed" : $"removed: {detail}", cancel);

    private void Keep(AppDb db, NewDocument document, string who)
    {
        var (kind, name, file, text) = document;
        var row = db.Documents.FirstOrDefault(d => d.Kind == kind && d.Name == name);
        if (row is null)
            db.Documents.Add(row = new DocumentRow { Kind = kind, Name = name, File = file, Text = text, AddedBy = who });
        (row.File, row.Text, row.AddedAt, row.AddedBy) = (file, text, time.GetUtcNow(), who);
        KeepVersion(db, row);
    }

    private void Remove(AppDb db, string kind, string name, string who)
    {
        if (db.Documents.FirstOrDefault(d => d.Kind == kind && d.Name == name) is not { } row) return;
        db.Documents.Remove(row);
        if (Versions(db, kind, name).FirstOrDefault() is { } last) (last.RemovedAt, last.RemovedBy) = (time.GetUtcNow(), who);
    }

    /// <summary>The versions of a document, the latest first; also of one that was removed.</summary>
    public async Task<IReadOnlyList<DocumentVersionRow>> VersionsAsync(string kind, string name, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await Versions(db, kind, name).AsNoTracking().ToListAsync(cancel);
    }

    private static IQueryable<DocumentVersionRow> Versions(AppDb db, string kind, string name) =>
        db.DocumentVersions.Where(v => v.Kind == kind && v.Name == name).OrderByDescending(v => v.Number);

    /// <summary>Another text is another version, and so is the first after a removal.</summary>
    private static void KeepVersion(AppDb db, DocumentRow row)
    {
        var last = Versions(db, row.Kind, row.Name).FirstOrDefault();
        if (last is { RemovedAt: null } && last.Text == row.Text) return;
        db.DocumentVersions.Add(new DocumentVersionRow
        {
            Kind = row.Kind,
            Name = row.Name,
            Number = (last?.Number ?? 0) + 1,
            File = row.File,
            Text = row.Text,
            At = row.AddedAt,
            By = row.AddedBy,
        });
    }

    /// <summary>What two texts of a document of a kind say differently.</summary>
    public static IReadOnlyList<DocumentDifference> Differences(string kind, string before, string after) => kind switch
    {
        SheetKind => DocumentDifferences.OfSheets(before, after),
        EstateKind => DocumentDifferences.OfEstates(before, after),
        InstallKind => DocumentDifferences.OfInstalls(before, after),
        _ => throw new InvalidOperationException($"Unknown kind of document {kind}."),
    };

    private static string Logged(string kind, DocumentRow? before, string file, string text)
    {
        if (before is null) return $"added from {file}";
        if (before.Text == text) return $"added again from {file}, unchanged";
        var differences = Differences(kind, before.Text, text);
        if (differences.Count == 0) return $"replaced from {file}: says the same";
        var more = differences.Count > MostLogged ? $"; and {differences.Count - MostLogged} more" : "";
        return $"replaced from {file}: {string.Join("; ", differences.Take(MostLogged).Select(d => d.Words))}{more}";
    }

    private const int MostLogged = 30;

    /// <summary>
    /// What a sheet in Just Right says; throws <see cref="FaultException"/> where this release cannot read it any more. Reading
    /// what is stored is lenient: what is left aside is noted by <see cref="OpenSheet"/>.
    /// </summary>
    public static Sheet ReadSheet(DocumentRow row) => Sound(OpenSheet(row));

    /// <inheritdoc cref="ReadSheet"/>
    public static Estate ReadEstate(DocumentRow row) => Sound(OpenEstate(row));

    /// <inheritdoc cref="ReadSheet"/>
    public static Install ReadInstall(DocumentRow row) => Sound(OpenInstall(row));

    /// <summary>What a sheet says, with what was left aside; or null with why it cannot be read.</summary>
    public static (Sheet? Document, IReadOnlyList<Fault> Faults) OpenSheet(DocumentRow row) =>
        Parsed(row, bytes => SheetReader.Read(bytes, row.File, stored: true));

    /// <inheritdoc cref="OpenSheet"/>
    public static (Estate? Document, IReadOnlyList<Fault> Faults) OpenEstate(DocumentRow row) =>
        Parsed(row, bytes => EstateReader.Read(bytes, row.File, stored: true));

    /// <inheritdoc cref="OpenSheet"/>
    public static (Install? Document, IReadOnlyList<Fault> Faults) OpenInstall(DocumentRow row) =>
        Parsed(row, bytes => InstallReader.Read(bytes, row.File, stored: true));

    private static T Sound<T>((T? Document, IReadOnlyList<Fault> Faults) read)
        where T : class => read.Document ?? throw new FaultException(read.Faults);

    /// <summary>
    /// Lists of installs read the same few documents over and over; what a text says is remembered by its hash.
    /// </summary>
    private static (T? Document, IReadOnlyList<Fault> Faults) Parsed<T>(
        DocumentRow row, Func<byte[], (T? Document, IReadOnlyList<Fault> Faults)> read)
        where T : class
    {
        var bytes = Encoding.UTF8.GetBytes(row.Text);
        var key = (row.Kind, row.File, Hash: Convert.ToHexString(SHA256.HashData(bytes)));
        return ((T?, IReadOnlyList<Fault>))Remembered.GetOrCreate(key, entry =>
        {
            entry.Size = bytes.Length;
            return (object)read(bytes);
        })!;
    }
}
