using JustRight.Core.SignIn.Objects;
using JustRight.Core.Surveys;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Surveys;

/// <summary>People and groups as last read, laid out for filters.</summary>
/// <param name="Table">The objects; empty when nothing could be read.</param>
internal sealed record KeptPeople(PeopleSnapshot Snapshot, ObjectTable Table);

/// <summary>Keeps the people and groups of each directory as last read, and those asked for lately ready for filters.</summary>
internal sealed class PeopleStore(IDbContextFactory<AppDb> databases)
{
    private readonly Dictionary<(string Estate, string Directory), (DateTimeOffset ReadAt, KeptPeople People)> _ready = [];
    private readonly Lock _lock = new();

    /// <summary>Keeps a reading in place of the one before.</summary>
    public async Task SaveAsync(string estate, PeopleSnapshot snapshot, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var row = await db.People.FirstOrDefaultAsync(p => p.Estate == estate && p.Directory == snapshot.Directory, cancel);
        if (row is null) db.People.Add(row = new PeopleRow { Estate = estate, Directory = snapshot.Directory, Packed = [] });
        (row.ReadAt, row.Packed) = (snapshot.ReadAt, PackedJson.Write(snapshot));
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>The people and groups of a directory, or null when no survey has tried to read them.</summary>
    public async Task<KeptPeople?> FindAsync(string estate, string directory, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = db.People.AsNoTracking().Where(p => p.Estate == estate && p.Directory == directory);
        if (await rows.Select(p => (DateTimeOffset?)p.ReadAt).FirstOrDefaultAsync(cancel) is not { } readAt) return null;
        lock (_lock)
        {
            if (_ready.TryGetValue((estate, directory), out var ready) && ready.ReadAt == readAt) return ready.People;
        }

        var read = PackedJson.Read<PeopleSnapshot>(await rows.Select(p => p.Packed).FirstAsync(cancel));
        var snapshot = read with
        {
            Objects = [.. read.Objects.Select(o =>
                o with { Values = new Dictionary<string, IReadOnlyList<string>>(o.Values, StringComparer.OrdinalIgnoreCase) })],
        };
        var people = new KeptPeople(snapshot, snapshot.ToTable());
        await Task.Run(people.Table.Prepare, cancel);
        lock (_lock) _ready[(estate, directory)] = (readAt, people);
        return people;
    }
}
