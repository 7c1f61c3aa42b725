using JustRight.Core.Fit;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Fits;

/// <summary>
/// The installs that were judged last, for as long as nothing changes that they are judged by: a page asks for the fit, the
/// worklist and more of the same install, and judging a hundred accounts on two hundred hosts takes its time.
/// </summary>
public sealed class KnownJudgements(IDbContextFactory<AppDb> databases, TimeProvider time)
{
    private const int Most = 8;

    private readonly Lock _lock = new();
    private readonly List<Known> _known = []; // the one that was asked for last at the end

    /// <summary>An install as it is judged: as it is known, or else as it is judged now.</summary>
    /// <param name="judge">Judges it. Whoever asks for the same meanwhile waits for it.</param>
    public async Task<JudgedInstall?> GetAsync(
        string install, Func<Present, Task<JudgedInstall?>> judge, CancellationToken cancel)
    {
        var known = Find(install);
        await known.One.WaitAsync(cancel);
        try
        {
            // what changes from here on makes another mark, so that what is judged below is never kept for too long
            var mark = await MarkAsync(install, cancel);
            var now = time.GetUtcNow();
            if (mark is not null && known.Mark == mark && !(known.HoldsUntil <= now)) return known.Judged;
            var present = new Present(now);
            var judged = await judge(present);
            (known.Mark, known.Judged, known.HoldsUntil) = (mark, judged, present.HoldsUntil);
            return judged;
        }
        finally
        {
            known.One.Release();
        }
    }

    private Known Find(string install)
    {
        lock (_lock)
        {
            var known = _known.Find(k => k.Install == install);
            if (known is null && _known.Count == Most) _known.RemoveAt(0);
            else if (known is not null) _known.Remove(known);
            known ??= new Known(install);
            _known.Add(known);
            return known;
        }
    }

    /// <summary>Another whenever the install may be judged otherwise; null where nothing tells.</summary>
    private async Task<string?> MarkAsync(string install, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var mark = await (
            from s in db.Summaries
            join m in db.EstateMarks on s.Estate equals m.Estate
            where s.Install == install
            select new { s.Estate, m.Changed }).FirstOrDefaultAsync(cancel);
        return mark is null ? null : $"{mark.Estate} {mark.Changed}";
    }

    private sealed class Known(string install)
    {
        public string Install { get; } = install;

        public SemaphoreSlim One { get; } = new(1);

        public string? Mark { get; set; }

        public JudgedInstall? Judged { get; set; }

        public DateTimeOffset? HoldsUntil { get; set; }
    }
}
