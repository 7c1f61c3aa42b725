using JustRight.Core.Fit;
using JustRight.Core.Surveys;
using JustRight.Formats.Surveys;
using JustRight.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Fits;

/// <summary>Keeps surveys, and the latest of each estate ready for judging.</summary>
public sealed class SurveyShelf(IDbContextFactory<AppDb> databases)
{
    private const int Kept = 50;
    private readonly Dictionary<string, (int Id, SurveyView View)> _ready = new(StringComparer.Ordinal);
    private readonly Lock _lock = new();

    /// <summary>Keeps a survey; all but the latest fifty of an estate are let go.</summary>
    public async Task SaveAsync(Survey survey, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        db.Surveys.Add(new SurveyRow { Estate = survey.Estate, TakenAt = survey.TakenAt, Json = SurveyJson.Write(survey) });
        await db.SaveChangesAsync(cancel);
        var old = await db.Surveys.Where(s => s.Estate == survey.Estate).OrderByDescending(s => s.Id).Skip(Kept).Select(s => s.Id).ToListAsync(cancel);
        if (old.Count > 0) await db.Surveys.Where(s => old.Contains(s.Id)).ExecuteDeleteAsync(cancel);
    }

    /// <summary>The latest survey of an estate, ready for judging, or null when none was taken.</summary>
    public async Task<SurveyView?> LatestAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var id = await db.Surveys.Where(s => s.Estate == estate).MaxAsync(s => (int?)s.Id, cancel);
        if (id is null) return null;
        lock (_lock)
        {
            if (_ready.TryGetValue(estate, out var ready) && ready.Id == id) return ready.View;
        }

        var json = await db.Surveys.Where(s => s.Id == id).Select(s => s.Json).FirstAsync(cancel);
        var view = new SurveyView(SurveyJson.ReadSurvey(json));
        lock (_lock) _ready[estate] = (id.Value, view);
        return view;
    }
}
