using System.Collections.Concurrent;
using JustRight.Contracts;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Installs;

/// <summary>
/// Pages of the list of installs that were told since anything of it changed: many who look at the same again and again cost
/// little more than one.
/// </summary>
internal sealed class KnownPages(IDbContextFactory<AppDb> databases, TimeProvider time)
{
    private const int Most = 1_000;

    private volatile Known _known = new("", []);

    /// <summary>The page of a question, as it is known or else as it is read.</summary>
    public async Task<InstallPage> GetAsync(string question, Func<Task<InstallPage>> read, CancellationToken cancel)
    {
        // what changes from here on makes another state, so that what is read below is never kept for too long
        var state = await StateAsync(cancel);
        var known = _known;
        if (known.State != state) _known = known = new Known(state, []);
        if (known.Pages.TryGetValue(question, out var page)) return page;
        page = await read();
        if (known.Pages.Count < Most) known.Pages[question] = page;
        return page;
    }

    /// <summary>Another whenever a page may be another: something changed, was judged, or its time has come.</summary>
    private async Task<string> StateAsync(CancellationToken cancel)
    {
        var now = time.GetUtcNow();
        await using var db = await databases.CreateDbContextAsync(cancel);
        var marks = await db.EstateMarks.OrderBy(m => m.Id).Select(m => new
        {
            m.Changed,
            m.Judged,
            m.Written,
            Due = db.Summaries.Count(s => s.Estate == m.Estate && s.HoldsUntil <= now),
        }).ToListAsync(cancel);
        return string.Join(' ', marks);
    }

    private sealed record Known(string State, ConcurrentDictionary<string, InstallPage> Pages);
}
