using System.Text.Json;
using JustRight.Contracts;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Drift;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Fits;

/// <summary>
/// Keeps the fits of installs that were other than the one before: a survey that shows nothing new only moves the last one's end.
/// So nothing that changed is lost, however often it is looked at.
/// </summary>
public sealed class FitHistory(IDbContextFactory<AppDb> databases)
{
    /// <summary>How many are kept of an install, besides those that were reviewed.</summary>
    public const int Kept = 1000;
    private static readonly TimeSpan ClocksApart = TimeSpan.FromMinutes(10);

    /// <summary>
    /// Keeps fits of one estate, all or none; returns how each differs from the one before of its install, null for the first,
    /// and
    /// when that was seen last.
    /// </summary>
    /// <remarks>Those that were reviewed are kept for good; of the others, the latest thousand of an install.</remarks>
    public async Task<IReadOnlyList<(IReadOnlyList<DriftLine>? Lines, DateTimeOffset Since)>> AddAsync(
        string estate, IReadOnlyList<InstallFit> fits, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var survey = await db.Surveys.Where(s => s.Estate == estate).MaxAsync(s => (int?)s.Id, cancel);
        var drift = new List<(IReadOnlyList<DriftLine>?, DateTimeOffset)>();
        var grown = new List<FitRow>();
        foreach (var fit in fits)
        {
            var kept = KeptFit.Of(fit);
            var last = await db.Fits.Where(f => f.Install == kept.Install).OrderByDescending(f => f.Number)
                .FirstOrDefaultAsync(cancel);
            var before = last is null ? null : PackedJson.Read<KeptFit>(last.Packed);
            if (before is not null) kept = kept.After(before);
            var lines = before is null ? null : await OwnPasswordsAsync(db, estate, FitDrift.Between(before, kept), cancel);
            drift.Add((lines, last?.Until ?? kept.SurveyedAt));
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

    /// <summary>The differences between two kept fits of an install, or null when one of them is not kept.</summary>
    public async Task<IReadOnlyList<DriftLine>?> BetweenAsync(
        string estate, string install, int before, int after, CancellationToken cancel)
    {
        if (await FindAsync(install, before, cancel) is not { } was
            || await FindAsync(install, after, cancel) is not { } now) return null;
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await OwnPasswordsAsync(db, estate, FitDrift.Between(was, now), cancel);
    }

    /// <summary>Tells a password that a renewal of ours set from one that somebody set elsewhere.</summary>
    private static async Task<IReadOnlyList<DriftLine>> OwnPasswordsAsync(
        AppDb db, string estate, IReadOnlyList<DriftLine> lines, CancellationToken cancel)
    {
        if (lines.All(l => l.PasswordSetAt is null)) return lines;
        var renewals = await db.Renewals.AsNoTracking().Where(r => r.Estate == estate).ToListAsync(cancel);
        return [.. lines.Select(l => l.PasswordSetAt is { } at && renewals.Find(r => SetBy(r, l.Account, at)) is { } renewal
            ? l.SetHere(renewal.StartedBy)
            : l)];
    }

    /// <summary>The directory's clock and ours may be some minutes apart.</summary>
    private static bool SetBy(RenewalRow renewal, string account, DateTimeOffset at) =>
        string.Equals(renewal.Account, account, StringComparison.OrdinalIgnoreCase)
        && at >= renewal.StartedAt - ClocksApart && (renewal.EndedAt is not { } end || at <= end + ClocksApart);

    private static void SeenAgain(FitRow last, KeptFit before, KeptFit kept)
    {
        // an earlier release kept no places and no accounts: from now on they are known
        if (before.Parts is null || before.Accounts is null) last.Packed = PackedJson.Write(
            kept with { SurveyedAt = before.SurveyedAt });
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
    /// <param name="take">At most so many.</param>
    public Task<IReadOnlyList<KeptFitView>> ListAsync(string install, int take, CancellationToken cancel) =>
        ListAsync(install, null, take, cancel);

    /// <summary>One of the fits kept of an install, by its number, or the latest; null when there is none.</summary>
    public async Task<KeptFitView?> ViewAsync(string install, int? number, CancellationToken cancel) =>
        await ListAsync(install, number, 1, cancel) is [var fit] ? fit : null;

    private async Task<IReadOnlyList<KeptFitView>> ListAsync(string install, int? number, int take, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var fits = db.Fits.AsNoTracking().Where(f => f.Install == install && (number == null || f.Number == number));
        var rows = await fits.OrderByDescending(f => f.Number).Take(take)
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
