using System.Security.Claims;
using JustRight.Service.Data.Storage;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Access;

/// <summary>
/// The sessions of the console, kept here: the cookie holds nothing but a key. So signing out ends a session, an owner can end
/// one, and none lasts longer than twelve hours, however often it is used.
/// </summary>
internal sealed class Sessions(
    IDbContextFactory<AppDb> databases, IDataProtectionProvider protection, TimeProvider time) : ITicketStore
{
    /// <summary>How long a session lasts, from the sign-in.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromHours(12);

    private readonly IDataProtector _protector = protection.CreateProtector("justright.sessions.v1");

    /// <inheritdoc/>
    public async Task<string> StoreAsync(AuthenticationTicket ticket)
    {
        var key = AccessKeys.Random();
        var now = time.GetUtcNow();
        await using var db = await databases.CreateDbContextAsync();
        await db.Sessions.Where(s => s.ExpiresAt <= now).ExecuteDeleteAsync();
        db.Sessions.Add(new SessionRow
        {
            Hash = AccessKeys.Hash(key),
            Name = ticket.Principal.Identity!.Name!,
            Role = RoleOf(ticket),
            StartedAt = now,
            ExpiresAt = now + Longest,
            Ticket = Packed(ticket),
        });
        await db.SaveChangesAsync();
        return key;
    }

    /// <inheritdoc/>
    public async Task RenewAsync(string key, AuthenticationTicket ticket)
    {
        await using var db = await databases.CreateDbContextAsync();
        if (await FindAsync(db, key) is not { } row) return;
        (row.Ticket, row.Role) = (Packed(ticket), RoleOf(ticket)); // it still ends when it ends
        await db.SaveChangesAsync();
    }

    /// <inheritdoc/>
    public async Task<AuthenticationTicket?> RetrieveAsync(string key)
    {
        await using var db = await databases.CreateDbContextAsync();
        return await FindAsync(db, key) is { } row && row.ExpiresAt > time.GetUtcNow()
            ? TicketSerializer.Default.Deserialize(_protector.Unprotect(row.Ticket))
            : null;
    }

    /// <inheritdoc/>
    public async Task RemoveAsync(string key)
    {
        await using var db = await databases.CreateDbContextAsync();
        var hash = AccessKeys.Hash(key);
        await db.Sessions.Where(s => s.Hash == hash).ExecuteDeleteAsync();
    }

    /// <summary>The sessions that have not ended, the newest first.</summary>
    public async Task<IReadOnlyList<SessionRow>> ListAsync(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = await db.Sessions.AsNoTracking().OrderByDescending(s => s.Id).ToListAsync(cancel);
        return [.. rows.Where(s => s.ExpiresAt > time.GetUtcNow())];
    }

    private static Task<SessionRow?> FindAsync(AppDb db, string key)
    {
        var hash = AccessKeys.Hash(key);
        return db.Sessions.FirstOrDefaultAsync(s => s.Hash == hash);
    }

    private static string RoleOf(AuthenticationTicket ticket) => ticket.Principal.FindFirstValue(ClaimTypes.Role)!;

    private byte[] Packed(AuthenticationTicket ticket) => _protector.Protect(TicketSerializer.Default.Serialize(ticket));
}
