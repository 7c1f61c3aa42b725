using System.IO.Compression;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Surveys;
using JustRight.Formats.Hosts;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Estates;

/// <summary>Host facts that hosts' owners handed over: the latest of each host.</summary>
internal sealed class HostFactsStore(IDbContextFactory<AppDb> databases, LogStore log, TimeProvider time)
{
    private static readonly TimeSpan MostAhead = TimeSpan.FromMinutes(10);

    /// <summary>Checks facts and keeps them in place of those before.</summary>
    /// <returns>What was kept; or null with every fault.</returns>
    public async Task<(HostFacts? Facts, IReadOnlyList<Fault> Faults)> SaveAsync(
        Estate estate, string file, byte[] bytes, string who, CancellationToken cancel)
    {
        var (facts, faults) = HostFactsReader.Read(bytes, file);
        if (facts is null) return (null, faults);
        var start = new Origin(file, 1, 1);
        var told = facts.Snapshot.Name;
        if (estate.Hosts.FirstOrDefault(h => IsSame(h.Name, told)) is not { } host)
            return (
                null,
                [new Fault(
                    "unknown-host", start, "host.name",
                    $"'{told}' is not a host of estate {estate.Name}.")
                {
                    Expected = "a host of the estate",
                    Nearest = Spelling.Nearest(told.ToLowerInvariant(), estate.Hosts.Select(h => h.Name)),
                }]);
        if (host.Reach != Reach.HandedOver)
            return (
                null,
                [new Fault(
                    "not-handed-over", start, "host.name",
                    $"{host.Name} does not have reach: handed-over ({host.At}).")
                {
                    Found = $"reach: {ReachWords.Of(host.Reach)}",
                    Expected = "reach: handed-over in the estate",
                }]);
        if (facts.Domain.Length > 0 && !string.Equals(facts.Domain, estate.Domain.DnsName, StringComparison.OrdinalIgnoreCase))
            return (
                null,
                [new Fault(
                    "other-domain", start, "host.domain",
                    "These facts are of a host of another domain.") { Found = facts.Domain, Expected = estate.Domain.DnsName }]);
        if (facts.Snapshot.ReadAt > time.GetUtcNow() + MostAhead)
            return (
                null,
                [new Fault(
                    "future", start, "read-at",
                    $"These facts were read in the future: {facts.Snapshot.ReadAt:yyyy-MM-dd HH:mm:ss}Z.")
                {
                    Expected = "a time in the past, and clocks that agree",
                }]);

        var row = new HostFactsRow
        {
            Estate = estate.Name,
            Host = host.Name,
            File = file,
            ReadAt = facts.Snapshot.ReadAt,
            AddedAt = time.GetUtcNow(),
            AddedBy = who,
            Content = Compress(bytes),
        };
        await log.AddWithAsync(
            db =>
            {
                db.HostFacts.RemoveRange(db.HostFacts.Where(f => f.Estate == estate.Name && f.Host == host.Name));
                db.HostFacts.Add(row);
            },
            who, "host facts", estate.Name,
            $"{host.Name}: {file}, read {facts.Snapshot.ReadAt:yyyy-MM-dd HH:mm:ss}Z by {(facts.Snapshot.ReadBy.Length == 0 ? "somebody it does not name" : facts.Snapshot.ReadBy)}",
            cancel);
        return (facts with { Snapshot = facts.Snapshot with { Name = host.Name } }, []);
    }

    /// <summary>The latest facts of a host, or null when none were given.</summary>
    public async Task<HostSnapshot?> LatestAsync(string estate, string host, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var row = await db.HostFacts.AsNoTracking().FirstOrDefaultAsync(f => f.Estate == estate && f.Host == host, cancel);
        if (row is null) return null;
        using var bytes = new MemoryStream();
        await using (var packed = new GZipStream(
            new MemoryStream(row.Content), CompressionMode.Decompress)) await packed.CopyToAsync(bytes, cancel);
        var (facts, faults) = HostFactsReader.Read(bytes.ToArray(), row.File);
        return facts is null ? throw new FaultException(faults) : facts.Snapshot with { Name = host };
    }

    /// <summary>Facts name a host by its short name; the estate may write it in full.</summary>
    private static bool IsSame(string host, string told) =>
        string.Equals(host.Split('.')[0], told.Split('.')[0], StringComparison.OrdinalIgnoreCase);

    private static byte[] Compress(byte[] bytes)
    {
        using var packed = new MemoryStream();
        using (var stream = new GZipStream(packed, CompressionLevel.Fastest)) stream.Write(bytes);
        return packed.ToArray();
    }
}
