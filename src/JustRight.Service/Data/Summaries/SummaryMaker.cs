using JustRight.Contracts;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Data.Views;

namespace JustRight.Service.Data.Summaries;

/// <summary>What the installs of an estate are judged by; an estate that cannot be read breaks no list.</summary>
/// <param name="Plans">Null when there is no such estate, or it cannot be read.</param>
/// <param name="View">The latest survey; null when none was taken.</param>
/// <param name="Why">Why the estate cannot be read; null when it can, or is not there.</param>
internal sealed record EstateFacts(EstatePlans? Plans, Core.Rights.SurveyView? View, FaultException? Why);

/// <summary>What came of judging an install.</summary>
/// <param name="Summary">The line for it.</param>
/// <param name="Judged">Its fit and what is left to do; null where it cannot be judged.</param>
/// <param name="HoldsUntil">From when on time alone makes another of it; null for never.</param>
internal sealed record MadeSummary(InstallSummary Summary, JudgedInstall? Judged, DateTimeOffset? HoldsUntil);

/// <summary>Judges an install, and says in a line what comes of it.</summary>
internal sealed class SummaryMaker(
    Library library, EstatePlanner planner, SurveyStore surveys, FitService fitService, TimeProvider time)
{
    /// <summary>One install, judged now.</summary>
    public async Task<InstallSummary> NowAsync(string name, CancellationToken cancel)
    {
        var row = await library.FindAsync(Library.InstallKind, name, cancel) ?? throw new KeyNotFoundException(name);
        var facts = Library.OpenInstall(row) is ({ } install, _)
            ? await KnownAsync(install.Estate, cancel)
            : new EstateFacts(null, null, null);
        var (summary, _) = await MakeAsync(facts, row, _ => fitService.JudgeAsync(name, cancel));
        return summary with { JudgedAt = time.GetUtcNow() };
    }

    /// <summary>What the installs of an estate are judged by now.</summary>
    public async Task<EstateFacts> KnownAsync(string estate, CancellationToken cancel)
    {
        try
        {
            return new EstateFacts(
                await planner.PlanAllAsync(estate, cancel), await surveys.LatestAsync(estate, cancel), null);
        }
        catch (FaultException e)
        {
            return new EstateFacts(null, null, e);
        }
    }

    /// <summary>Judges an install of an estate.</summary>
    public async Task<MadeSummary> MakeAsync(EstateFacts facts, DocumentRow row, DateTimeOffset now, CancellationToken cancel)
    {
        var present = new Present(now);
        var (summary, judged) = await MakeAsync(
            facts, row, plans => fitService.JudgeAsync(plans, row, facts.View, present, cancel));
        return new MadeSummary(summary with { JudgedAt = now }, judged, present.HoldsUntil);
    }

    private static async Task<(InstallSummary Summary, JudgedInstall? Judged)> MakeAsync(
        EstateFacts facts, DocumentRow row, Func<EstatePlans, Task<JudgedInstall?>> judge)
    {
        var (read, faults) = Library.OpenInstall(row);
        if (read is not { } install) return (DocumentViews.Unread(row, faults), null);
        try
        {
            if (facts.Why is not null) throw facts.Why;
            var plans = facts.Plans ?? throw new FaultException([EstatePlanner.NoEstate(install)]);
            var judged = await judge(plans);
            var counts = judged is null ? null : FitViews.Of(judged.Fit.Counts, judged.Fit.UnreadParts.Count, judged.Fit.Words);
            var summary = new InstallSummary(
                install.Name, install.Sheet, plans.Installs[install.Name].Sheet!.Title, plans.Estate.Name,
                DocumentViews.Stage(install.Stage), plans.Estate.IsSimulated, counts, judged?.Fit.SurveyedAt,
                NextStep.Words(judged), row.AddedAt, row.AddedBy)
            {
                Remarks = DocumentViews.Remarks(faults),
            };
            return (summary, judged);
        }
        catch (FaultException e)
        {
            return (DocumentViews.Unplanned(row, install, e), null);
        }
    }
}
