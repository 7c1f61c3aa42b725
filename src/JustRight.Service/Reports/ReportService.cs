using JustRight.Service.Documents;
using JustRight.Service.Fits;
using JustRight.Service.Notifications;
using JustRight.Service.Reviews;
using JustRight.Service.Views;

namespace JustRight.Service.Reports;

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
