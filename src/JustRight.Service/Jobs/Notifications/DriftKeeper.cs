using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Drift;
using JustRight.Core.Installs;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Surveys;

namespace JustRight.Service.Jobs.Notifications;

/// <summary>
/// Keeps fits, and says what got worse since those before: in the log, and to those whom the organization wants told. The one
/// way into
/// the history, so that no difference is kept and passed over in silence.
/// </summary>
internal sealed class DriftKeeper(
    FitHistory history, OwnWork work, NotificationService notices, LogStore log, TimeProvider time)
{
    /// <summary>By whom it is said where no survey was taken: an exception ends by itself.</summary>
    public const string Clock = "the clock";

    /// <summary>Keeps the fits of installs of one estate.</summary>
    /// <param name="who">Who took the survey, or did what made the difference.</param>
    public async Task KeepAsync(Estate estate, IReadOnlyList<InstallFit> fits, string who, CancellationToken cancel)
    {
        var worse = new List<WorseLine>();
        OwnSteps? own = null;
        foreach (var (fit, (lines, since)) in fits.Zip(await history.AddAsync(estate.Name, fits, cancel)))
        {
            // where it is being retired, all that is still held is excess, as somebody decided
            if (fit.Plan.Stage == Stage.Retiring || lines?.Any(l => l.Way == DriftWay.Worse) != true) continue;
            own ??= await work.BetweenAsync(estate.Name, since, time.GetUtcNow(), cancel);
            worse.AddRange(lines.Where(l => l.Way == DriftWay.Worse)
                .Select(l => new WorseLine(fit.Plan.Install, l, OwnWork.Words(own?.MadeBy(l)))));
        }

        foreach (var (install, line, _) in worse) await log.AddAsync(who, "drift", install, line.Words, cancel);
        if (worse.Count > 0) await notices.TellDriftAsync(estate, worse, who, cancel);
    }
}
