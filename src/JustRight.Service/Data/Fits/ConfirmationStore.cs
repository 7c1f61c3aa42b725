using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Fit.Confirmations;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Fits;

/// <summary>What people said they saw inside products. Every word is kept; the latest one counts.</summary>
public sealed class ConfirmationStore(IDbContextFactory<AppDb> databases, LogStore log)
{
    private const string Between = "\n";

    /// <summary>What counts for an install.</summary>
    public async Task<ConfirmationIndex> IndexAsync(string install, CancellationToken cancel) =>
        new((await RowsAsync(install, cancel)).Select(Of));

    /// <summary>Every word on the installs of an estate, by install.</summary>
    public async Task<ILookup<string, Confirmation>> OfEstateAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = await db.Confirmations.AsNoTracking()
            .Where(c => db.Summaries.Any(s => s.Estate == estate && s.Install == c.Install)).ToListAsync(cancel);
        return rows.ToLookup(r => r.Install, Of);
    }

    /// <summary>Every word on an install, the latest first.</summary>
    public async Task<IReadOnlyList<ConfirmationView>> ListAsync(string install, CancellationToken cancel) =>
        [.. (await RowsAsync(install, cancel)).OrderByDescending(r => r.At).Select(r =>
            new ConfirmationView(
                r.Install, r.Account, r.Principal, r.Role, Lets(r), r.Held, r.SeenBy, r.WrittenBy, r.At, r.Until))];

    /// <summary>Writes a word down, and in the log.</summary>
    public async Task AddAsync(Confirmation word, string account, string role, string writtenBy, CancellationToken cancel)
    {
        var row = new ConfirmationRow
        {
            Install = word.Install,
            GrantId = word.GrantId,
            Account = account,
            Role = role,
            Principal = word.Principal,
            Sid = word.Sid?.ToString(),
            Lets = string.Join(Between, word.Lets),
            Held = word.Held,
            SeenBy = word.By,
            WrittenBy = writtenBy,
            At = word.At,
            Until = word.Until,
        };
        await log.AddWithAsync(
            db => db.Confirmations.Add(row), writtenBy, "confirm", word.Install,
            $"{word.Principal} {(word.Held ? "is" : "is not")} mapped to '{role}'"
            + (word.Lets.Count == 0 ? "" : $", which lets it {string.Join(", ", word.Lets)}")
            + $"; seen by {word.By}, valid until {word.Until:yyyy-MM-dd HH:mm:ss}Z",
            cancel);
    }

    private async Task<IReadOnlyList<ConfirmationRow>> RowsAsync(string install, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Confirmations.AsNoTracking().Where(c => c.Install == install).ToListAsync(cancel);
    }

    private static Confirmation Of(ConfirmationRow row) => new(
        row.Install, row.GrantId, row.Principal, row.Sid is { } sid ? Sid.Parse(sid) : null, Lets(row), row.Held, row.SeenBy,
            row.At,
        row.Until);

    private static string[] Lets(ConfirmationRow row) => row.Lets.Length == 0 ? [] : row.Lets.Split(Between);
}
