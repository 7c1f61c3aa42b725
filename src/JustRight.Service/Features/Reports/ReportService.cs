using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Reviews;
using JustRight.Service.Jobs.Notifications;

namespace JustRight.Service.Features.Reports;

/// <summary>Brings together what the reports of an install are made of.</summary>
internal sealed class ReportService(
    Library library, FitHistory history, DriftKeeper drift, ExceptionStore exceptions, ReviewStore reviews, TimeProvider time)
{
    /// <summary>The report of a fit.</summary>
    public async Task<InstallReport> OfAsync(JudgedInstall judged, CancellationToken cancel)
    {
        var fit = judged.Fit;
        var estate = Library.ReadEstate((await library.FindAsync(Library.EstateKind, fit.Plan.Estate, cancel))!);
        // so that its number is that of what is reported, though an exception ended since the survey
        await drift.KeepAsync(estate, [fit], DriftKeeper.Clock, cancel);
        return new InstallReport(
            FitViews.Of(fit), (await history.ViewAsync(fit.Plan.Install, null, cancel))!.Number, await exceptions.ListAsync(
                fit.Plan.Install,
                cancel), await reviews.ListAsync(fit.Plan.Install, cancel), time.GetUtcNow(), estate.Rules.TimeZone);
    }
}
