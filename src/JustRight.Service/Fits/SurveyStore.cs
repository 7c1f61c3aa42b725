using JustRight.Core.Directory.Schema;
using JustRight.Core.Engines;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;
using JustRight.Formats.Surveys;
using JustRight.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Fits;

/// <summary>Keeps surveys, and the latest of each estate ready for judging.</summary>
public sealed class SurveyStore(IDbContextFactory<AppDb> databases)
{
    private const int Kept = 10;
    private readonly Dictionary<string, (int Id, SurveyView View)> _ready = new(StringComparer.Ordinal);
    private readonly Dictionary<string, DirectorySchema> _schemas = new(StringComparer.Ordinal);
    private readonly Lock _lock = new();

    /// <summary>Keeps a survey.</summary>
    public async Task SaveAsync(Survey survey, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (survey.Directory.Access?.Schema is { } schema && schema.Version != BuiltInSchema.Schema.Version
            && !await db.Schemas.AnyAsync(s => s.Version == schema.Version, cancel))
            db.Schemas.Add(new SchemaRow { Version = schema.Version, Json = SchemaJson.Write(schema) });
        db.Surveys.Add(new SurveyRow { Estate = survey.Estate, TakenAt = survey.TakenAt, Json = SurveyJson.Write(survey) });
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>
    /// Lets the surveys of an estate go but the latest ten, and those that first showed a fit that is kept: a changed one, or one
    /// that was reviewed.
    /// </summary>
    public async Task LetGoAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var latest = await db.Surveys.Where(s => s.Estate == estate).OrderByDescending(s => s.Id).Take(Kept).Select(s => s.Id)
            .ToListAsync(cancel);
        await db.Surveys.Where(s => s.Estate == estate && !latest.Contains(s.Id) && !db.Fits.Any(f => f.SurveyId == s.Id))
            .ExecuteDeleteAsync(cancel);
    }

    /// <summary>The schema of an estate's directory as last read, or null while none was.</summary>
    public async Task<DirectorySchema?> SchemaAsync(string estate, CancellationToken cancel) =>
        (await LatestAsync(estate, cancel))?.Survey.Directory.Access?.Schema;

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
        var view = AllEngines.View(SurveyJson.ReadSurvey(json, version => Schema(db, version)));
        lock (_lock) _ready[estate] = (id.Value, view);
        return view;
    }

    /// <summary>The latest survey of an estate as it is kept; there is one.</summary>
    public async Task<string> LatestJsonAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Surveys.Where(s => s.Estate == estate).OrderByDescending(s => s.Id).Select(s => s.Json)
            .FirstAsync(cancel);
    }

    private DirectorySchema Schema(AppDb db, string version)
    {
        lock (_lock)
        {
            if (_schemas.TryGetValue(version, out var known)) return known;
            var json = db.Schemas.AsNoTracking().Where(s => s.Version == version).Select(s => s.Json).FirstOrDefault()
                ?? throw new InvalidDataException($"The schema {version} was not kept.");
            return _schemas[version] = SchemaJson.Read(json);
        }
    }
}
