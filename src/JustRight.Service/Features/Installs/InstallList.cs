using JustRight.Contracts;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Summaries;
using JustRight.Service.Platform.Lists;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Installs;

/// <summary>The list of installs, as it is kept: nothing is judged to tell it.</summary>
internal sealed class InstallList(IDbContextFactory<AppDb> databases, KnownPages pages, TimeProvider time)
{
    /// <summary>What it can be sorted by. <c>fit</c> tells where most is off.</summary>
    public static readonly Columns<SummaryRow> Columns = new(
        Column<SummaryRow>.Of("name", s => s.Install), Column<SummaryRow>.Of("title", s => s.Title),
        Column<SummaryRow>.Of("sheet", s => s.Sheet), Column<SummaryRow>.Of("estate", s => s.Estate),
        Column<SummaryRow>.Of("stage", s => s.Stage),
        Column<SummaryRow>.Of("fit", s => ((s.Missing + s.Excess) * 1000) + s.Unseen + s.Pending),
        Column<SummaryRow>.Of("next", s => s.Next), Column<SummaryRow>.Of("surveyed", s => s.SurveyedAt));

    private static readonly TimeSpan Look = TimeSpan.FromMilliseconds(50);

    /// <summary>A page.</summary>
    /// <param name="patience">How long to wait while some of its installs are being judged anew.</param>
    public async Task<InstallPage> PageAsync(InstallFilter filter, ListOrder order, TimeSpan patience, CancellationToken cancel)
    {
        var start = TimeProvider.System.GetTimestamp();
        while (true)
        {
            var page = await pages.GetAsync($"{filter}{order}", () => PageAsync(filter, order, cancel), cancel);
            if (!page.Items.Any(i => i.IsBeingJudged) || TimeProvider.System.GetElapsedTime(start) >= patience) return page;
            await Task.Delay(Look, cancel);
        }
    }

    private async Task<InstallPage> PageAsync(InstallFilter filter, ListOrder order, CancellationToken cancel)
    {
        var now = time.GetUtcNow();
        await using var db = await databases.CreateDbContextAsync(cancel);
        var matching = filter.Of(db.Summaries.AsNoTracking())
            .About(order.Search);
        var rows = await Columns.Page(matching, order).Select(s => new
        {
            Summary = s,
            Document = db.Documents.Where(d => d.Kind == Library.InstallKind && d.Name == s.Install)
                .Select(d => new { d.AddedAt, d.AddedBy }).First(),
            IsBeingJudged = s.HoldsUntil <= now
                || !db.EstateMarks.Any(m => m.Estate == s.Estate && m.Changed == m.Judged),
            Total = matching.Count(),
        }).ToListAsync(cancel);
        var total = rows.Count > 0 || order.Skipped == 0 ? rows.FirstOrDefault()?.Total ?? 0 : await matching.CountAsync(cancel);
        return new InstallPage(
            [.. rows.Select(r => r.Summary.View(r.Document.AddedAt, r.Document.AddedBy, r.IsBeingJudged))], order.Skipped, total);
    }
}
