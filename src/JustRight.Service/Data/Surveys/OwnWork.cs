using JustRight.Core.Fit.Drift;
using JustRight.Core.Runs;
using JustRight.Formats.Changes;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Surveys;

/// <summary>The steps of ours that were made in a time: by them it is told what was made from here.</summary>
public sealed class OwnWork(SurveyStore surveys, IDbContextFactory<AppDb> databases)
{
    /// <summary>Those that were made after one moment and up to another; null when no survey of the estate is kept.</summary>
    public async Task<OwnSteps?> BetweenAsync(
        string estate, DateTimeOffset after, DateTimeOffset upTo, CancellationToken cancel)
    {
        if (await surveys.LatestAsync(estate, cancel) is not { } view) return null;
        await using var db = await databases.CreateDbContextAsync(cancel);
        var between = await db.Steps.AsNoTracking()
            .Where(s => s.State == RunStepState.Made || s.State == RunStepState.Undone)
            .Where(s => s.ChangeJson != null && s.At > after && s.At <= upTo)
            .Join(db.Jobs, s => s.JobId, j => j.Id, (s, j) => new { s.ChangeJson, s.At, j.StartedBy })
            .OrderBy(s => s.At).ToListAsync(cancel);
        return new OwnSteps(
            [.. between.Select(s => new MadeStep(ChangeJson.Read(s.ChangeJson!), s.StartedBy, s.At!.Value))], view);
    }

    /// <summary>A step of ours in words, with who had it made and when; null for none.</summary>
    public static string? Words(MadeStep? made) =>
        made is null ? null : $"{made.Change.Words} ({made.By}, {made.At:u})";
}
