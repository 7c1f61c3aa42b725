using System.Text;
using JustRight.Formats.Installs;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Storage.Upgrades;

/// <summary>
/// Names that were settled before they belonged to an estate belong to the one that their install is in. Those of an install
/// that is gone, or tells none, belong to no estate, and settle nothing.
/// </summary>
internal static class SettledEstates
{
    private const string Install = "install"; // as documents are stored

    /// <summary>Gives each name its estate.</summary>
    public static async Task ApplyAsync(AppDb db, CancellationToken cancel)
    {
        var installs = await db.Documents.Where(d => d.Kind == Install).ToListAsync(cancel);
        var estates = installs.ToDictionary(
            d => d.Name, d => InstallOutline.Read(Encoding.UTF8.GetBytes(d.Text), d.File)?.Estate);
        foreach (var name in await db.SettledNames.ToListAsync(cancel)) name.Estate = estates.GetValueOrDefault(name.Install);
        await db.SaveChangesAsync(cancel);
    }
}
