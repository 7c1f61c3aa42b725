using JustRight.Core.Directory.Schema;
using JustRight.Core.Engines;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;
using JustRight.Formats.Surveys;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Surveys;

/// <summary>Keeps surveys, and the latest of each estate ready for judging.</summary>
public sealed class SurveyStore(IDbContextFactory<AppDb> databases, TimeProvider time)
{
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
        db.Surveys.Add(
            new SurveyRow
            {
                Estate = survey.Estate,
                TakenAt = survey.TakenAt,
                Packed = PackedJson.Pack(SurveyJson.Write(survey)),
            });
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Lets the surveys of an estate go that <see cref="KeptSurvey.ToLetGo"/> names.</summary>
    public async Task LetGoAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var kept = await db.Surveys.Where(s => s.Estate == estate).Select(s => new KeptSurvey(
            s.Id, s.TakenAt, db.Fits.Any(f => f.SurveyId == s.Id),
            db.Fits.Any(f => f.SurveyId == s.Id && db.Reviews.Any(r => r.Install == f.Install && r.Fit == f.Number))))
            .ToListAsync(cancel);
        var gone = KeptSurvey.ToLetGo(kept, time.GetUtcNow());
        await db.Surveys.Where(s => gone.Contains(s.Id)).ExecuteDeleteAsync(cancel);
    }

    /// <summary>The schema of an estate's directory as last read, or null while none was.</summary>
    public async Task<DirectorySchema?> SchemaAsync(string estate, CancellationToken cancel) =>
        (await LatestAsync(estate, cancel))?.Survey.Directory.Access?.Schema;

    /// <summary>When the latest survey of an estate was taken, or null when none was.</summary>
    public async Task<DateTimeOffset?> LastTakenAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Surveys.Where(s => s.Estate == estate).OrderByDescending(s => s.Id)
            .Select(s => (DateTimeOffset?)s.TakenAt).FirstOrDefaultAsync(cancel);
    }

    /// <summary>Which survey of an estate is the latest; null when none was taken.</summary>
    public async Task<int?> LatestIdAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Surveys.Where(s => s.Estate == estate).MaxAsync(s => (int?)s.Id, cancel);
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

        var packed = await db.Surveys.Where(s => s.Id == id).Select(s => s.Packed).FirstAsync(cancel);
        var view = AllEngines.View(SurveyJson.ReadSurvey(PackedJson.Unpack(packed), version => Schema(db, version)));
        lock (_lock) _ready[estate] = (id.Value, view);
        return view;
    }

    /// <summary>The latest survey of an estate as it is kept; there is one.</summary>
    public async Task<string> LatestJsonAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return PackedJson.Unpack(
            await db.Surveys.Where(s => s.Estate == estate).OrderByDescending(s => s.Id).Select(s => s.Packed)
                .FirstAsync(cancel));
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
