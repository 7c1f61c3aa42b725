using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Storage.Upgrades;

/// <summary>
/// Gives the installs that were added before lists were kept their place in them; they are judged after the start.
/// </summary>
internal static class FirstSummaries
{
    private const string Install = "install"; // as documents are stored

    /// <summary>Adds what is missing.</summary>
    public static async Task ApplyAsync(AppDb db, CancellationToken cancel)
    {
        var without = db.Documents.AsNoTracking().Where(d =>
            d.Kind == Install && !db.Summaries.Any(s => s.Install == d.Name));
        foreach (var install in await without.ToListAsync(cancel))
        {
            var summary = new SummaryRow { Install = install.Name };
            summary.Follow(install);
            db.Summaries.Add(summary);
        }

        await db.SaveChangesAsync(cancel);
    }
}
