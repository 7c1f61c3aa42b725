using System.Text;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Storage.Upgrades;

/// <summary>Surveys were kept as text, which took ten times the room.</summary>
internal static class PackedSurveys
{
    /// <summary>Packs those that are kept, one at a time: together they may be larger than the memory.</summary>
    public static async Task ApplyAsync(AppDb db, CancellationToken cancel)
    {
        foreach (var id in await db.Surveys.Select(s => s.Id).ToListAsync(cancel))
        {
            var row = await db.Surveys.FirstAsync(s => s.Id == id, cancel);
            row.Packed = PackedJson.Pack(Encoding.UTF8.GetString(row.Packed));
            await db.SaveChangesAsync(cancel);
            db.ChangeTracker.Clear();
        }
    }
}
