using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Storage.Upgrades;

/// <summary>
/// An identity inside a product is a task, and is known as one: what was confirmed, accepted and kept of it keeps standing.
/// </summary>
internal static class TaskIds
{
    private const string Former = "/product-role:";
    private const string Today = "/task:";

    /// <summary>Brings the ids up to date.</summary>
    public static async Task ApplyAsync(AppDb db, CancellationToken cancel)
    {
        await db.Database.ExecuteSqlRawAsync(
            $"UPDATE Confirmations SET GrantId = replace(GrantId, '{Former}', '{Today}')", cancel);
        await db.Database.ExecuteSqlRawAsync($"UPDATE Exceptions SET Target = replace(Target, '{Former}', '{Today}')", cancel);
        await foreach (var row in db.Fits.AsAsyncEnumerable().WithCancellation(cancel))
        {
            var fit = PackedJson.Read<JsonNode>(row.Packed);
            foreach (var right in fit["rights"]!.AsArray())
                right!["id"] = ((string)right["id"]!).Replace(Former, Today, StringComparison.Ordinal);
            row.Packed = PackedJson.Write(fit);
        }

        await db.SaveChangesAsync(cancel);
    }
}
