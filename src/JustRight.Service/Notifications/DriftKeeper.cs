using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Drift;
using JustRight.Core.Installs;
using JustRight.Service.Fits;
using JustRight.Service.Log;

namespace JustRight.Service.Notifications;

/// <summary>
/// Keeps fits, and says what got worse since those before: in the log, and to those whom the organization wants told. The one
/// way into
/// the history, so that no difference is kept and passed over in silence.
/// </summary>
internal sealed class DriftKeeper(FitHistory history, NotificationService notices, LogStore log)
{
    /// <summary>By whom it is said where no survey was taken: an exception ends by itself.</summary>
    public const string Clock = "the clock";

    /// <summary>Keeps the fits of installs of one estate.</summary>
    /// <param name="who">Who took the survey, or did what made the difference.</param>
    public async Task KeepAsync(Estate estate, IReadOnlyList<InstallFit> fits, string who, CancellationToken cancel)
    {
        var worse = new List<(string Install, DriftLine Line)>();
        foreach (var (fit, drift) in fits.Zip(await history.AddAsync(estate.Name, fits, cancel)))
            // there, all that is still held is excess, as somebody decided
            if (fit.Plan.Stage != Stage.Retiring)
                worse.AddRange((drift ?? []).Where(l => l.Way == DriftWay.Worse).Select(l => (fit.Plan.Install, l)));

        foreach (var (install, line) in worse) await log.AddAsync(who, "drift", install, line.Words, cancel);
        if (worse.Count > 0) await notices.TellDriftAsync(estate, worse, who, cancel);
    }
}
