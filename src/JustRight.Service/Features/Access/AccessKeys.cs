using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;
using JustRight.Service.Data.Storage;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Access;

/// <summary>Tokens and one-time codes. They are shown once and kept as hashes.</summary>
public sealed class AccessKeys(IDbContextFactory<AppDb> databases, TimeProvider time)
{
    private static readonly TimeSpan CodeLife = TimeSpan.FromHours(1);
    private static readonly TimeSpan UseIsNotedEvery = TimeSpan.FromMinutes(5);

    /// <summary>Makes a one-time code, good for an hour, that signs in as owner.</summary>
    public async Task<string> NewCodeAsync(CancellationToken cancel)
    {
        var code = Random();
        await using var db = await databases.CreateDbContextAsync(cancel);
        db.Codes.Add(new CodeRow { Hash = Hash(code), ExpiresAt = time.GetUtcNow() + CodeLife });
        await db.SaveChangesAsync(cancel);
        return code;
    }

    /// <summary>Uses a code up; false when it is unknown, used or too old.</summary>
    public async Task<bool> UseCodeAsync(string code, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var hash = Hash(code);
        var row = await db.Codes.FirstOrDefaultAsync(c => c.Hash == hash, cancel);
        if (row is null) return false;
        // Deleting by hash is what makes it one-time: of two at once, one deletes nothing.
        var used = await db.Codes.Where(c => c.Hash == hash).ExecuteDeleteAsync(cancel);
        return used == 1 && row.ExpiresAt > time.GetUtcNow();
    }

    /// <summary>Makes a token.</summary>
    /// <param name="person">Whom it is issued to, as they sign in to the console; null for a token that is nobody's.</param>
    public async Task<(string Token, TokenRow Row)> NewTokenAsync(
        string name, string role, TimeSpan life, string? person, CancellationToken cancel)
    {
        var token = "jr_" + Random();
        var row = new TokenRow
        {
            Name = name,
            Role = role,
            Hash = Hash(token),
            CreatedAt = time.GetUtcNow(),
            ExpiresAt = time.GetUtcNow() + life,
            Person = person,
        };
        await using var db = await databases.CreateDbContextAsync(cancel);
        db.Tokens.Add(row);
        await db.SaveChangesAsync(cancel);
        return (token, row);
    }

    /// <summary>The token's row, or why it does not sign in.</summary>
    public async Task<(TokenRow? Row, string? Refusal)> FindTokenAsync(string token, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var hash = Hash(token);
        var row = await db.Tokens.FirstOrDefaultAsync(t => t.Hash == hash, cancel);
        if (row is null) return (null, "This token is not known here.");
        if (row.RevokedAt is { } revoked) return (null, $"This token was revoked at {revoked:u} by {row.RevokedBy}.");
        if (row.ExpiresAt <= time.GetUtcNow()) return (null, $"This token expired at {row.ExpiresAt:u}.");
        if (row.LastUsedAt is null || time.GetUtcNow() - row.LastUsedAt > UseIsNotedEvery)
        {
            row.LastUsedAt = time.GetUtcNow();
            try
            {
                await db.SaveChangesAsync(cancel);
            }
            catch (DbUpdateException e) when (e.InnerException is SqliteException)
            {
                // A full disk keeps nobody from reading: when a token was used is noted when there is room again.
            }
        }

        return (row, null);
    }

    /// <summary>A key that nobody guesses: 192 bits.</summary>
    internal static string Random() => Base64Url.EncodeToString(RandomNumberGenerator.GetBytes(24));

    /// <summary>What is kept of a key.</summary>
    internal static string Hash(string key) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(key)));
}
