using JustRight.Contracts;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Exceptions;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Fits;

/// <summary>What people accepted that is off. Every word is kept; the latest on each target counts.</summary>
public sealed class ExceptionStore(IDbContextFactory<AppDb> databases, LogStore log, TimeProvider time)
{
    /// <summary>What counts for an install.</summary>
    public async Task<ExceptionIndex> IndexAsync(string install, CancellationToken cancel) =>
        new((await RowsAsync(install, cancel)).Select(Of));

    /// <summary>Every exception of an install, the latest first.</summary>
    public async Task<IReadOnlyList<ExceptionView>> ListAsync(string install, CancellationToken cancel) =>
        [.. (await RowsAsync(install, cancel)).OrderByDescending(r => r.Id).Select(View)];

    /// <summary>
    /// Those of an estate by which something is due, by install, with what each covers, in words: the latest on each target,
    /// unless it was ended.
    /// </summary>
    public async Task<ILookup<string, (AcceptedException Exception, string Words)>> EndingAsync(
        string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = await db.Exceptions.AsNoTracking()
            .Where(e => db.Summaries.Any(s => s.Estate == estate && s.Install == e.Install)).ToListAsync(cancel);
        return rows.GroupBy(r => (r.Install, r.Target)).Select(g => g.MaxBy(r => r.Id)!).Where(r => r.EndedAt is null)
            .ToLookup(r => r.Install, r => (Of(r), r.Words));
    }

    /// <summary>Accepts what is off, and says so in the log.</summary>
    /// <param name="words">What is accepted, in words.</param>
    public async Task<ExceptionView> AddAsync(
        AcceptedException exception, string words, string writtenBy, CancellationToken cancel)
    {
        var row = new ExceptionRow
        {
            Install = exception.Install,
            Target = exception.Target,
            Words = words,
            Verdict = exception.Verdict,
            Why = exception.Why,
            By = exception.By,
            WrittenBy = writtenBy,
            At = exception.At,
            Until = exception.Until,
        };
        await log.AddWithAsync(
            db => db.Exceptions.Add(row), writtenBy, "accept", exception.Install,
            $"{words}; accepted by {exception.By} until {exception.UntilWords}: {exception.Why}", cancel);
        return View(row);
    }

    /// <summary>Ends an exception early; false when the install has none of that number that counts.</summary>
    public async Task<bool> EndAsync(string install, int number, string who, CancellationToken cancel)
    {
        var row = (await RowsAsync(install, cancel)).FirstOrDefault(r => r.Id == number);
        if (row is null || !Of(row).StandsAt(time.GetUtcNow())) return false;
        await log.AddWithAsync(
            db =>
            {
                var kept = db.Exceptions.First(e => e.Id == number);
                (kept.EndedAt, kept.EndedBy) = (time.GetUtcNow(), who);
            },
            who, "accept", install, $"{row.Words}; exception ended by {who}", cancel);
        return true;
    }

    private async Task<List<ExceptionRow>> RowsAsync(string install, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Exceptions.AsNoTracking().Where(e => e.Install == install).ToListAsync(cancel);
    }

    private static AcceptedException Of(ExceptionRow row) =>
        new(row.Id, row.Install, row.Target, row.Verdict, row.Why, row.By, row.At, row.EndedAt ?? row.Until);

    private ExceptionView View(ExceptionRow row) => new(
        row.Id, row.Install, row.Target, row.Words, Word(row.Verdict), row.Why, row.By, row.WrittenBy, row.At, row.EndedAt
            ?? row.Until, Of(row).StandsAt(time.GetUtcNow()), row.EndedBy)
    {
        LastDay = Of(row).LastDay,
    };

    /// <summary>A verdict for the wire; empty for a finding.</summary>
    public static string Word(Verdict? verdict) => verdict?.Word() ?? "";
}
