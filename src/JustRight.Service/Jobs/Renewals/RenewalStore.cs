using JustRight.Connectors;
using JustRight.Core.Passwords;
using JustRight.Core.Runs;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs.Renewals;

/// <summary>A renewal: its steps are those of its job.</summary>
internal sealed record Renewal(RenewalRow Row, JobRow Job)
{
    /// <summary>Its steps, and which password is where.</summary>
    public RunBook Book { get; } = RenewalRows.BookOf(Job);
}

/// <summary>Keeps renewals.</summary>
internal sealed class RenewalStore(
    IDbContextFactory<AppDb> databases, JobQueue queue, SecretStore secrets, LogStore log, TimeProvider time)
{
    /// <summary>
    /// Keeps a new renewal with both passwords encrypted, before anything is changed, and lines it up; of two at once for one
    /// account, one.
    /// </summary>
    /// <param name="allowed">What is allowed of secrets now, as <see cref="SecretGate.Key"/> names it.</param>
    /// <returns>The renewal that is open now, and whether it is this one.</returns>
    public async Task<(Renewal Renewal, bool Begun)> BeginAsync(
        string estate, RunBook book, NewPassword fresh, NewPassword? old, IEnumerable<string> allowed, string who,
        CancellationToken cancel)
    {
        var row = new RenewalRow
        {
            Id = "",
            Estate = estate,
            Account = book.Account,
            StartedBy = who,
            StartedAt = time.GetUtcNow(),
            NewProtected = secrets.Protect(fresh),
            OldProtected = old is null ? null : secrets.Protect(old),
            AllowedAtStart = string.Join('\n', allowed),
        };
        string? open = null;
        var order = new JobOrder(JobKind.Renew, estate, who)
        {
            OrderJson = StoredJson.Write(new RenewalOrder(book.Account, book.Remarks, book.GoesBack)),
            CanGoBack = old is not null,
            Rows = id => RenewalRows.Of(id, book.Steps),
            Log = _ => new LogWords("renew", $"a renewal of {book.Steps.Count} steps starts", book.Account),
            Guard = (db, id) =>
            {
                open = db.Renewals.AsNoTracking().Where(r => r.Estate == estate && r.Account == book.Account && r.EndedAt == null)
                    .Select(r => r.Id).FirstOrDefault();
                if (open is not null) return false;
                row.Id = id;
                db.Renewals.Add(row);
                return true;
            },
        };
        return await queue.AddIfAsync(order, cancel) is { } job
            ? (new Renewal(row, job), true)
            : ((await FindAsync(open!, cancel))!, false);
    }

    /// <summary>A renewal, or null.</summary>
    public async Task<Renewal?> FindAsync(string id, CancellationToken cancel) =>
        await ListAsync(r => r.Id == id, cancel) is [var renewal] ? renewal : null;

    /// <summary>The renewals of an estate, newest first; of one account when it is named, as the plans write it.</summary>
    public Task<IReadOnlyList<Renewal>> ListAsync(string estate, string? account, CancellationToken cancel) =>
        ListAsync(r => r.Estate == estate && (account == null || r.Account == account), cancel);

    /// <summary>Ends a renewal: neither password is kept in it any longer.</summary>
    public Task EndAsync(RenewalRow renewal, string who, string detail, CancellationToken cancel)
    {
        var now = time.GetUtcNow();
        return log.AddWithAsync(
            db =>
            {
                var row = db.Renewals.First(r => r.Id == renewal.Id);
                (row.EndedAt, row.NewProtected, row.OldProtected) = (now, null, null);
                db.Jobs.First(j => j.Id == renewal.Id).CanGoBack = false;
            },
            who, "renewed", renewal.Account, detail, cancel);
    }

    /// <summary>
    /// What is left of a renewal's steps is dropped, and those that go back are added: they stand as it is asked for, and are
    /// lined up by whoever asks.
    /// </summary>
    public static void GoBack(JobRow job)
    {
        var book = RenewalRows.BookOf(job).Undo();
        RunRows.Write(job, new Run([.. book.Steps.Take(job.Steps.Count).Select(s => s.Step)]));
        job.Steps.AddRange(RenewalRows.Of(job.Id, book.Steps.Skip(job.Steps.Count)).ToList());
        job.OrderJson = StoredJson.Write(RenewalRows.OrderOf(job) with { GoesBack = true });
        job.CanGoBack = false;
    }

    private async Task<IReadOnlyList<Renewal>> ListAsync(
        System.Linq.Expressions.Expression<Func<RenewalRow, bool>> which, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = await db.Renewals.AsNoTracking().Where(which).OrderByDescending(r => r.Id).Take(100).ToListAsync(cancel);
        var ids = rows.Select(r => r.Id).ToList();
        var jobs = await db.Jobs.AsNoTracking().Include(j => j.Steps).Where(j => ids.Contains(j.Id))
            .ToDictionaryAsync(j => j.Id, cancel);
        return [.. rows.Where(r => jobs.ContainsKey(r.Id)).Select(r => new Renewal(r, jobs[r.Id]))];
    }
}
