using System.Collections.Concurrent;
using System.Text.Json;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Platform.Faults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Summaries;

/// <summary>
/// Keeps what the fit of each install comes to. An estate of which something changed, or whose time has come, is judged anew in
/// the background: its installs in one go, and of them only those that the change concerns.
/// </summary>
internal sealed class SummaryKeeper(
    SummaryMaker maker, Library library, FitService fitService, SurveyStore surveys, StorageFault faults,
    IDbContextFactory<AppDb> databases, TimeProvider time, ILogger<SummaryKeeper> logger) : BackgroundService
{
    private static readonly TimeSpan Look = TimeSpan.FromMilliseconds(100), Rest = TimeSpan.FromSeconds(5);
    private readonly ConcurrentDictionary<string, SemaphoreSlim> _turns = new(StringComparer.Ordinal);

    /// <summary>Keeps a survey, and judges all installs of its estate by it.</summary>
    /// <param name="keep">Keeps the survey. Nobody else judges between that and the judging.</param>
    /// <returns>The fits of those that can be planned.</returns>
    public async Task<IReadOnlyList<InstallFit>> SurveyedAsync(string estate, Func<Task> keep, CancellationToken cancel)
    {
        var turn = _turns.GetOrAdd(estate, _ => new SemaphoreSlim(1));
        await turn.WaitAsync(cancel);
        try
        {
            await keep();
            return await JudgeAsync(estate, cancel);
        }
        finally
        {
            turn.Release();
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            while (true)
            {
                await Task.Delay(await TryAsync(stoppingToken) ? Look : Rest, stoppingToken);
            }
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
        {
            // what is not judged yet is still marked, and judged after the next start
        }
    }

    /// <summary>Judges what is due; false when that could not be done now.</summary>
    private async Task<bool> TryAsync(CancellationToken cancel)
    {
        try
        {
            foreach (var estate in await DueAsync(cancel))
            {
                var turn = _turns.GetOrAdd(estate, _ => new SemaphoreSlim(1));
                if (!await turn.WaitAsync(0, cancel)) continue; // a survey is about to judge it
                try
                {
                    await JudgeAsync(estate, cancel);
                }
                finally
                {
                    turn.Release();
                }
            }

            return true;
        }
        catch (DbUpdateConcurrencyException)
        {
            return true; // an install was removed meanwhile: the next look judges without it
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            // the lists go on saying that these are being judged
            if (faults.Of(e) is null) logger.LogError(e, "The installs of an estate could not be judged");
            return false;
        }
    }

    private async Task<IReadOnlyList<string>> DueAsync(CancellationToken cancel)
    {
        var now = time.GetUtcNow();
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.EstateMarks.Where(m => m.Changed != m.Judged).Select(m => m.Estate)
            .Union(db.Summaries.Where(s => s.HoldsUntil <= now).Select(s => s.Estate)).ToListAsync(cancel);
    }

    private async Task<IReadOnlyList<InstallFit>> JudgeAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        // read first: what changes from here on is judged next time
        var changed = await db.EstateMarks.Where(m => m.Estate == estate).Select(m => m.Changed).FirstOrDefaultAsync(cancel);
        var rows = await db.Summaries.Where(s => s.Estate == estate).OrderBy(s => s.Install).ToListAsync(cancel);
        var fits = new List<InstallFit>();
        if (rows.Count > 0)
        {
            var documents = (await library.ListAsync(Library.InstallKind, cancel)).ToDictionary(d => d.Name);
            var survey = await surveys.LatestIdAsync(estate, cancel);
            var facts = await maker.KnownAsync(estate, cancel);
            var bases = await BasesAsync(db, estate, survey, facts, cancel);
            foreach (var row in rows)
            {
                if (!documents.TryGetValue(row.Install, out var document)) continue; // removed meanwhile
                if (Library.OpenInstall(document).Document is { } install
                    && install.Estate != estate) continue; // moved meanwhile
                var now = time.GetUtcNow();
                var basis = await bases(document);
                if (row.Basis == basis && !(row.HoldsUntil <= now)) continue;
                var made = await maker.MakeAsync(facts, document, now, cancel);
                row.Take(made, basis);
                if (made.Judged is { } judged) fits.Add(judged.Fit);
            }

        }

        // In one: between the two, the lines would be new and their state that of the old ones, and known pages would be told.
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await db.SaveChangesAsync(cancel);
        await db.EstateMarks.Where(m => m.Estate == estate).ExecuteUpdateAsync(
            m => m.SetProperty(x => x.Judged, x => x.Judged < changed ? changed : x.Judged)
                .SetProperty(x => x.Written, x => x.Written + 1),
            cancel);
        await transaction.CommitAsync(cancel);
        return fits;
    }

    /// <summary>
    /// What tells whether an install of an estate would be judged otherwise than it was. It is read before what is judged: so it
    /// may be older than that, and never newer.
    /// </summary>
    /// <param name="survey">The latest.</param>
    private async Task<Func<DocumentRow, Task<string>>> BasesAsync(
        AppDb db, string estate, int? survey, EstateFacts facts, CancellationToken cancel)
    {
        var all = Basis.Of(Basis.Program, facts.Plans?.Basis, facts.Why?.Message, $"{survey}");
        var installs = db.Summaries.Where(s => s.Estate == estate).Select(s => s.Install);
        var words = (await db.Confirmations.AsNoTracking().Where(c => installs.Contains(c.Install)).ToListAsync(cancel))
            .ToLookup(c => c.Install);
        var exceptions = (await db.Exceptions.AsNoTracking().Where(e => installs.Contains(e.Install)).ToListAsync(cancel))
            .ToLookup(e => e.Install);
        return async document => Basis.Of(
            all, document.File, document.Text, $"{document.AddedAt:O}", JsonSerializer.Serialize(words[document.Name]),
            JsonSerializer.Serialize(exceptions[document.Name]), await DisabledAsync(facts, document, cancel));
    }

    private async Task<string> DisabledAsync(EstateFacts facts, DocumentRow document, CancellationToken cancel) =>
        facts.Plans?.Installs.GetValueOrDefault(document.Name)?.Plan is { Stage: Stage.Retiring } plan
            ? JsonSerializer.Serialize(await fitService.DisabledAsync(plan, facts.Plans.Estate, cancel))
            : "";
}
