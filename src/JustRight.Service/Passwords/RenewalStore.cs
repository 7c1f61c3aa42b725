using JustRight.Connectors;
using JustRight.Core.Passwords;
using JustRight.Formats.Passwords;
using JustRight.Service.Log;
using JustRight.Service.Secrets;
using JustRight.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Passwords;

/// <summary>Keeps renewals. Each state of a run-book is kept in one transaction with its entry in the log.</summary>
internal sealed class RenewalStore(IDbContextFactory<AppDb> databases, SecretStore secrets, LogStore log, TimeProvider time)
{
    /// <summary>
    /// Keeps a new renewal with both passwords encrypted, before anything is changed; of two at once for one account, one.
    /// </summary>
    /// <param name="allowed">What is allowed of secrets now, as <see cref="SecretGate.Key"/> names it.</param>
    /// <returns>The renewal that is open now, and whether it is this one.</returns>
    public async Task<(RenewalRow Row, bool Begun)> BeginAsync(
        string estate, RunBook book, NewPassword fresh, NewPassword? old, IEnumerable<string> allowed, string who,
        CancellationToken cancel)
    {
        var row = new RenewalRow
        {
            Id = Guid.CreateVersion7().ToString("N"),
            Estate = estate,
            Account = book.Account,
            StartedBy = who,
            StartedAt = time.GetUtcNow(),
            BookJson = RunBookJson.Write(book),
            NewProtected = secrets.Protect(fresh),
            OldProtected = old is null ? null : secrets.Protect(old),
            AllowedAtStart = string.Join('\n', allowed),
        };
        RenewalRow? open = null;
        var begun = await log.AddIfAsync(
            db =>
            {
                open = db.Renewals.AsNoTracking()
                    .FirstOrDefault(r => r.Estate == estate && r.Account == book.Account && r.EndedAt == null);
                if (open is null) db.Renewals.Add(row);
                return open is null;
            },
            who, "renew", book.Account, $"a renewal of {book.Steps.Count} steps starts", cancel);
        return (open ?? row, begun);
    }

    /// <summary>A renewal, or null.</summary>
    public async Task<RenewalRow?> FindAsync(string id, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Renewals.AsNoTracking().FirstOrDefaultAsync(r => r.Id == id, cancel);
    }

    /// <summary>The renewals of an estate, newest first; of one account when it is named, as the plans write it.</summary>
    public async Task<IReadOnlyList<RenewalRow>> ListAsync(string estate, string? account, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = db.Renewals.AsNoTracking().Where(r => r.Estate == estate);
        if (account is not null) rows = rows.Where(r => r.Account == account);
        return await rows.OrderByDescending(r => r.Id).Take(100).ToListAsync(cancel);
    }

    /// <summary>All renewals that are not over.</summary>
    public async Task<IReadOnlyList<RenewalRow>> OpenAsync(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Renewals.AsNoTracking().Where(r => r.EndedAt == null).ToListAsync(cancel);
    }

    /// <summary>Keeps the next state of a run-book, and says so in the log.</summary>
    public Task SaveAsync(string id, RunBook book, string who, string action, string detail, CancellationToken cancel)
    {
        var json = RunBookJson.Write(book);
        return log.AddWithAsync(
            db => db.Renewals.First(r => r.Id == id).BookJson = json, who, action, book.Account, detail, cancel);
    }

    /// <summary>Ends a renewal: neither password is kept in it any longer.</summary>
    public Task EndAsync(string id, RunBook book, string who, string detail, CancellationToken cancel)
    {
        var now = time.GetUtcNow();
        return log.AddWithAsync(
            db =>
            {
                var row = db.Renewals.First(r => r.Id == id);
                (row.EndedAt, row.NewProtected, row.OldProtected) = (now, null, null);
            },
            who, "renewed", book.Account, detail, cancel);
    }
}
