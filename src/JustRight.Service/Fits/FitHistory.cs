using System.Text.Json;
using JustRight.Contracts;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Drift;
using JustRight.Service.Storage;
using JustRight.Service.Views;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Fits;

/// <summary>
/// Keeps the fits of installs that were other than the one before: a survey that shows nothing new only moves the last one's end.
/// So nothing that changed is lost, however often it is looked at.
/// </summary>
public sealed class FitHistory(IDbContextFactory<AppDb> databases)
{
    private const int Kept = 1000;

    /// <summary>
    /// Keeps fits of one estate, all or none; returns how each differs from the one before of its install, or null for the first.
    /// </summary>
    /// <remarks>Those that were reviewed are kept for good; of the others, the latest thousand of an install.</remarks>
    public async Task<IReadOnlyList<IReadOnlyList<DriftLine>?>> AddAsync(
        string estate, IReadOnlyList<InstallFit> fits, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var survey = await db.Surveys.Where(s => s.Estate == estate).MaxAsync(s => (int?)s.Id, cancel);
        var drift = new List<IReadOnlyList<DriftLine>?>();
        var grown = new List<FitRow>();
        foreach (var fit in fits)
        {
            var kept = KeptFit.Of(fit);
            var last = await db.Fits.Where(f => f.Install == kept.Install).OrderByDescending(f => f.Number)
                .FirstOrDefaultAsync(cancel);
            var before = last is null ? null : PackedJson.Read<KeptFit>(last.Packed);
            if (before is not null) kept = kept.After(before);
            var lines = before is null ? null : FitDrift.Between(before, kept);
            drift.Add(lines);
            if (lines is { Count: 0 }) SeenAgain(last!, before!, kept);
            else grown.Add(Row(kept, (last?.Number ?? 0) + 1, survey));
        }

        db.Fits.AddRange(grown);
        await db.SaveChangesAsync(cancel);
        foreach (var row in grown.Where(r => r.Number > Kept))
            await db.Fits.Where(f => f.Install == row.Install && f.Number <= row.Number - Kept
                && !db.Reviews.Any(r => r.Install == f.Install && r.Fit == f.Number)).ExecuteDeleteAsync(cancel);
        return drift;
    }

    private static void SeenAgain(FitRow last, KeptFit before, KeptFit kept)
    {
        // an earlier release kept no places: from now on it is known where each right is
        if (before.Parts is null) last.Packed = PackedJson.Write(kept with { SurveyedAt = before.SurveyedAt });
        if (kept.SurveyedAt > last.Until) (last.Until, last.Seen) = (kept.SurveyedAt, last.Seen + 1);
    }

    private static FitRow Row(KeptFit kept, int number, int? survey) => new()
    {
        Install = kept.Install,
        Number = number,
        From = kept.SurveyedAt,
        Until = kept.SurveyedAt,
        Seen = 1,
        CountsJson = JsonSerializer.Serialize(
            FitViews.Of(kept.Counts, kept.Unread.Count, kept.Words), ContractsJson.Default.FitCountsView),
        Packed = PackedJson.Write(kept),
        SurveyId = survey,
    };

    /// <summary>The fits kept of an install, newest first.</summary>
    public async Task<IReadOnlyList<KeptFitView>> ListAsync(string install, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = await db.Fits.AsNoTracking().Where(f => f.Install == install).OrderByDescending(f => f.Number)
            .Select(f => new { f.Number, f.From, f.Until, f.Seen, f.CountsJson }).ToListAsync(cancel);
        return [.. rows.Select(f =>
            new KeptFitView(
                f.Number, f.From, f.Until, f.Seen,
                JsonSerializer.Deserialize(f.CountsJson, ContractsJson.Default.FitCountsView)!))];
    }

    /// <summary>One kept fit, or null.</summary>
    public async Task<KeptFit?> FindAsync(string install, int number, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Fits.AsNoTracking()
            .FirstOrDefaultAsync(f => f.Install == install && f.Number == number, cancel) is { } row
            ? PackedJson.Read<KeptFit>(row.Packed)
            : null;
    }
}
