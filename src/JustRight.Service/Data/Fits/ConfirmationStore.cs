using System.Security.Cryptography;
using System.Text;
using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Rights;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Fits;

/// <summary>
/// What people said they saw where no survey reads. Every word is kept; the latest one counts. What they wrote as proof is kept
/// apart from the log, which holds its hash, and can be erased.
/// </summary>
public sealed class ConfirmationStore(IDbContextFactory<AppDb> databases, LogStore log, TimeProvider time)
{
    private const string Between = "\n";
    private const int SaltLength = 16; // bytes

    /// <summary>What counts for an install.</summary>
    public async Task<ConfirmationIndex> IndexAsync(string install, CancellationToken cancel) =>
        new((await RowsAsync(install, cancel)).Select(Of));

    /// <summary>Every word on the installs of an estate, by install.</summary>
    public async Task<ILookup<string, Confirmation>> OfEstateAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = await db.Confirmations.AsNoTracking()
            .Where(c => db.Summaries.Any(s => s.Estate == estate && s.Install == c.Install)).ToListAsync(cancel);
        return rows.ToLookup(r => r.Install, Of);
    }

    /// <summary>Every word on an install, the latest first.</summary>
    public async Task<IReadOnlyList<ConfirmationView>> ListAsync(string install, CancellationToken cancel) =>
        [.. (await RowsAsync(install, cancel)).OrderByDescending(r => r.At).Select(r =>
            new ConfirmationView(
                r.Install, r.Account, r.Principal, r.Role, Details(r), r.Held, r.SeenBy, r.WrittenBy, r.At, r.Until)
            {
                Number = r.Id,
                Proof = r.Proof,
                ProofHash = r.ProofHash,
                ErasedBy = r.ErasedBy,
                ErasedAt = r.ErasedAt,
            })];

    /// <summary>Writes a word down, and in the log.</summary>
    /// <param name="asked">What the word is on.</param>
    /// <param name="proof">How it was seen, or null.</param>
    public async Task AddAsync(
        Confirmation word, string account, Confirmable asked, string? proof, string writtenBy, CancellationToken cancel)
    {
        var salt = proof is null ? null : Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(SaltLength));
        var row = new ConfirmationRow
        {
            Install = word.Install,
            GrantId = word.GrantId,
            Account = account,
            Role = asked.Name,
            Principal = word.Principal,
            Sid = word.Sid?.ToString(),
            Lets = string.Join(Between, word.Details),
            Held = word.Held,
            Proof = proof,
            ProofSalt = salt,
            ProofHash = proof is null ? null : Hash(salt!, proof),
            SeenBy = word.By,
            WrittenBy = writtenBy,
            At = word.At,
            Until = word.Until,
        };
        await log.AddWithAsync(
            db => db.Confirmations.Add(row), writtenBy, "confirm", word.Install,
            $"{Said(word, asked)}; seen by {word.By}, valid until {word.Until:yyyy-MM-dd HH:mm:ss}Z"
            + (row.ProofHash is { } hash ? $"; proof {hash}" : ""),
            cancel);
    }

    /// <summary>
    /// Erases what was written as proof; its hash and the word stay. With it goes what its hash was made with: from that alone
    /// nobody can guess it.
    /// </summary>
    /// <returns>False when the install has no such word, or nothing to erase of it.</returns>
    public async Task<bool> EraseProofAsync(string install, int number, string who, CancellationToken cancel)
    {
        var erased = await log.AddIfAsync(
            db =>
            {
                db.Database.OpenConnection(); // the setting is one of the connection
                db.Database.ExecuteSqlRaw("PRAGMA secure_delete = ON"); // what is overwritten is not left in the file
                var row = db.Confirmations.FirstOrDefault(c => c.Id == number && c.Install == install && c.Proof != null);
                if (row is null) return false;
                (row.Proof, row.ProofSalt, row.ErasedBy, row.ErasedAt) = (null, null, who, time.GetUtcNow());
                return true;
            },
            who, "proof-erase", install, $"the proof of confirmation {number} was erased", cancel);
        if (!erased) return false;

        // nor in the journal of writes beside it
        await using var db = await databases.CreateDbContextAsync(cancel);
        await db.Database.ExecuteSqlRawAsync("PRAGMA wal_checkpoint(TRUNCATE)", cancel);
        return true;
    }

    private static string Said(Confirmation word, Confirmable asked) => asked switch
    {
        InsideProduct inside => $"{word.Principal} {(word.Held ? "is" : "is not")} mapped to '{inside.Identity}'"
            + (word.Details.Count == 0 ? "" : $", which lets it {string.Join(", ", word.Details)}"),
        TaskAsked task => $"the task '{task.Task}' of {word.Principal} is {(word.Held ? "done" : "not done")}",
        _ => throw new InvalidOperationException($"Unknown confirmable {asked.GetType().Name}."),
    };

    private static string Hash(string salt, string proof) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes($"{salt}\n{proof}")));

    private async Task<IReadOnlyList<ConfirmationRow>> RowsAsync(string install, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.Confirmations.AsNoTracking().Where(c => c.Install == install).ToListAsync(cancel);
    }

    private static Confirmation Of(ConfirmationRow row) => new(
        row.Install, row.GrantId, row.Principal, row.Sid is { } sid ? Sid.Parse(sid) : null, Details(row), row.Held, row.SeenBy,
            row.At,
        row.Until);

    private static string[] Details(ConfirmationRow row) => row.Lets.Length == 0 ? [] : row.Lets.Split(Between);
}
