using JustRight.Core.Fit;
using JustRight.Core.Rights.Directory.Schema;
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
    private readonly Dictionary<string, DirectorySchema> _schemas = new(StringComparer.Ordinal);
    private readonly Lock _lock = new();

    /// <summary>Keeps a survey; all but the latest fifty of an estate are let go.</summary>
    public async Task SaveAsync(Survey survey, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (survey.Directory.Access?.Schema is { } schema && schema.Version != BuiltInSchema.Schema.Version && !await db.Schemas.AnyAsync(s => s.Version == schema.Version, cancel))
            db.Schemas.Add(new SchemaRow { Version = schema.Version, Json = SchemaJson.Write(schema) });
        db.Surveys.Add(new SurveyRow { Estate = survey.Estate, TakenAt = survey.TakenAt, Json = SurveyJson.Write(survey) });
        await db.SaveChangesAsync(cancel);
        var old = await db.Surveys.Where(s => s.Estate == survey.Estate).OrderByDescending(s => s.Id).Skip(Kept).Select(s => s.Id).ToListAsync(cancel);
        if (old.Count > 0) await db.Surveys.Where(s => old.Contains(s.Id)).ExecuteDeleteAsync(cancel);
    }

    /// <summary>The schema of an estate's directory as last read, or null while none was.</summary>
    public async Task<DirectorySchema?> SchemaAsync(string estate, CancellationToken cancel) => (await LatestAsync(estate, cancel))?.Survey.Directory.Access?.Schema;

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
        var view = new SurveyView(SurveyJson.ReadSurvey(json, version => Schema(db, version)));
        lock (_lock) _ready[estate] = (id.Value, view);
        return view;
    }

    private DirectorySchema Schema(AppDb db, string version)
    {
        lock (_lock)
        {
            if (_schemas.TryGetValue(version, out var known)) return known;
            var json = db.Schemas.AsNoTracking().Where(s => s.Version == version).Select(s => s.Json).FirstOrDefault() ?? throw new InvalidDataException($"The schema {version} was not kept.");
            return _schemas[version] = SchemaJson.Read(json);
        }
    }
}
