using System.Globalization;
using System.Text.Json.Nodes;
using JustRight.Contracts;
using JustRight.Service.Data.Evidence;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Anchors;

/// <summary>
/// Signed heads of the log: at a number, the hash was this. The chain alone shows a changed entry only when the hashes after it
/// were left alone; who rewrites them too meets a head. A head that somebody keeps elsewhere (an anchor) shows a tail that was
/// cut off, heads and all.
/// </summary>
internal sealed class LogHeads(LogStore log, EvidenceKey key, IDbContextFactory<AppDb> databases, TimeProvider time) : IDisposable
{
    private const string Type = "justright-log-head+json";

    private readonly SemaphoreSlim _one = new(1);

    /// <summary>Signs the head of the log as it is now; once is enough for a head.</summary>
    /// <returns>The newest signed head as a JSON Web Signature [RFC 7515 7.2.2].</returns>
    public async Task<string> SignAsync(CancellationToken cancel)
    {
        await _one.WaitAsync(cancel);
        try
        {
            await key.GetAsync(cancel); // its first use is an entry of the log: there is one
            await using var db = await databases.CreateDbContextAsync(cancel);
            var last = await db.Log.AsNoTracking().OrderByDescending(l => l.Number).FirstAsync(cancel);
            var head = await db.LogHeads.AsNoTracking().OrderByDescending(h => h.Number).FirstOrDefaultAsync(cancel);
            if (head?.Number == last.Number) return head.Jws;
            var statement = new JsonObject
            {
                ["number"] = last.Number,
                ["hash"] = last.Hash,
                ["at"] = time.GetUtcNow().UtcDateTime.ToString("O", CultureInfo.InvariantCulture),
            };
            var signed = (await key.SignAsync(Type, statement.ToJsonString(), cancel)).ToJsonString();
            db.LogHeads.Add(new LogHeadRow { Number = last.Number, Jws = signed });
            await db.SaveChangesAsync(cancel);
            return signed;
        }
        finally
        {
            _one.Release();
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _one.Dispose();

    /// <summary>How many entries came since the newest signed head.</summary>
    public async Task<long> UnsignedAsync(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var last = await db.Log.MaxAsync(l => (long?)l.Number, cancel) ?? 0;
        return last - (await db.LogHeads.MaxAsync(h => (long?)h.Number, cancel) ?? 0);
    }

    /// <summary>Follows the chain, and holds it against every signed head, and against one that was kept elsewhere.</summary>
    /// <param name="anchor">A head that was written to a file, or null.</param>
    public async Task<LogCheckView> CheckAsync(string? anchor, CancellationToken cancel)
    {
        var chain = await log.CheckAsync(cancel);
        await using var db = await databases.CreateDbContextAsync(cancel);
        var heads = await db.LogHeads.AsNoTracking().OrderBy(h => h.Number).ToListAsync(cancel);
        var fault = chain.Sound ? null : $"Entry {chain.BrokenAt} was changed, or one before it is missing.";
        foreach (var head in heads) fault ??= await FaultAsync(db, head.Jws, "A signed head", cancel);
        if (anchor is not null) fault ??= await FaultAsync(db, anchor, "The anchor", cancel);
        return chain with
        {
            Sound = fault is null,
            Fault = fault,
            Heads = heads.Count,
            SignedUpTo = heads.LastOrDefault()?.Number,
            AnchorHolds = anchor is null ? null : fault is null,
        };
    }

    private async Task<string?> FaultAsync(AppDb db, string signed, string what, CancellationToken cancel)
    {
        if (await key.OpenAsync(Type, signed, cancel) is not { } text)
            return $"{what} is not signed with the key of this service.";
        var statement = JsonNode.Parse(text)!;
        var number = (long)statement["number"]!;
        var entry = await db.Log.AsNoTracking().FirstOrDefaultAsync(l => l.Number == number, cancel);
        if (entry is null) return $"{what} says that there was an entry {number}: the end of the log was cut off.";
        return entry.Hash == (string?)statement["hash"]
            ? null
            : $"{what} says that entry {number} had another hash: entries up to there were rewritten, with their hashes.";
    }
}
