using System.Security.Cryptography;
using System.Text.Json;
using JustRight.Contracts;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Log;

/// <summary>
/// The append-only log of who did what. Each entry is chained to the one before by its hash, so that a changed, inserted or
/// missing entry shows. One writer at a time.
/// </summary>
public sealed class LogStore(IDbContextFactory<AppDb> databases, TimeProvider time) : IDisposable
{
    private static readonly string Beginning = new('0', 64);
    private readonly SemaphoreSlim _one = new(1);

    /// <summary>Adds an entry.</summary>
    public Task AddAsync(string who, string action, string subject, string detail, CancellationToken cancel = default) =>
        AddWithAsync(_ => { }, who, action, subject, detail, cancel);

    /// <summary>Adds an entry in one transaction with another change of the database: both are kept, or neither.</summary>
    public Task AddWithAsync(
        Action<AppDb> change, string who, string action, string subject, string detail, CancellationToken cancel = default) =>
        AddIfAsync(
            db =>
            {
                change(db);
                return true;
            },
            who, action, subject, detail, cancel);

    /// <summary>
    /// Adds an entry in one transaction with another change, where it can be made: nobody else changes anything with an entry
    /// between looking and changing.
    /// </summary>
    /// <param name="change">Looks and changes; false where nothing is to be kept, neither the change nor the entry.</param>
    /// <returns>Whether it was kept.</returns>
    public async Task<bool> AddIfAsync(
        Func<AppDb, bool> change, string who, string action, string subject, string detail, CancellationToken cancel = default)
    {
        await _one.WaitAsync(cancel);
        try
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            var last = await db.Log.OrderByDescending(l => l.Number).FirstOrDefaultAsync(cancel);
            var entry = new LogRow
            {
                Number = (last?.Number ?? 0) + 1,
                At = time.GetUtcNow(),
                Who = who,
                Action = action,
                Subject = subject,
                Detail = detail,
                Hash = "",
            };
            entry.Hash = HashOf(entry, last?.Hash ?? Beginning);
            if (!change(db)) return false;
            db.Log.Add(entry);
            await db.SaveChangesAsync(cancel);
            return true;
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>Follows the chain from the first entry to the last.</summary>
    public async Task<LogCheckView> CheckAsync(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var before = Beginning;
        long count = 0;
        await foreach (var entry in db.Log.AsNoTracking().OrderBy(l => l.Number).AsAsyncEnumerable().WithCancellation(cancel))
        {
            count++;
            if (entry.Number != count || entry.Hash != HashOf(entry, before)) return new LogCheckView(count, false, count, null);
            before = entry.Hash;
        }

        return new LogCheckView(count, true, null, count == 0 ? null : before);
    }

    /// <inheritdoc/>
    public void Dispose() => _one.Dispose();

    /// <summary>A JSON array keeps the fields apart, so that no two entries share their bytes.</summary>
    private static string HashOf(LogRow entry, string before) =>
        Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes<object[]>(
        [
            before, entry.Number, entry.At.UtcDateTime.ToString("O", System.Globalization.CultureInfo.InvariantCulture),
            entry.Who, entry.Action, entry.Subject, entry.Detail])));
}
