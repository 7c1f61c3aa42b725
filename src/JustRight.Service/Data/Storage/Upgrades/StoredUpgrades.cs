using System.Globalization;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Storage.Upgrades;

/// <summary>Brings what earlier releases stored up to date, once, before anything reads it.</summary>
internal static class StoredUpgrades
{
    /// <summary>
    /// What is done to what is stored, in order; how many of them were done is the database's own <c>user_version</c>.
    /// </summary>
    private static readonly Func<AppDb, CancellationToken, Task>[] All =
        [
            TradeWords.ApplyAsync, SettledEstates.ApplyAsync, TaskIds.ApplyAsync, PackedSurveys.ApplyAsync,
                RunsOfOneKind.ApplyAsync, FirstSummaries.ApplyAsync,
        ];

    /// <summary>Brings a database up to date, wholly or not at all; does nothing to one that is.</summary>
    public static async Task ApplyAsync(AppDb db, CancellationToken cancel)
    {
        if (!await DoneAsync(db, cancel)) return;
        await db.Database.ExecuteSqlRawAsync("VACUUM", cancel); // gives back the room that was freed
    }

    private static async Task<bool> DoneAsync(AppDb db, CancellationToken cancel)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var versions = db.Database.SqlQueryRaw<int>("SELECT user_version AS Value FROM pragma_user_version");
        var done = (await versions.ToListAsync(cancel))[0];
        if (done >= All.Length) return false;
        foreach (var upgrade in All.Skip(done)) await upgrade(db, cancel);
        var statement = "PRAGMA user_version = " + All.Length.ToString(CultureInfo.InvariantCulture);
        await db.Database.ExecuteSqlRawAsync(statement, cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }
}
