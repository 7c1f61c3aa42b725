using JustRight.Core.SecretUses;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Secrets;

/// <summary>What owners allowed: which secret, for which use.</summary>
internal sealed class SecretAllowances(LogStore log, TimeProvider time, IDbContextFactory<AppDb> databases)
{
    /// <summary>All of them, the oldest first.</summary>
    public async Task<IReadOnlyList<SecretAllowanceRow>> ListAsync(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.SecretAllowances.AsNoTracking().OrderBy(a => a.Id).ToListAsync(cancel);
    }

    /// <summary>Allows a secret for a use; once is enough.</summary>
    public async Task AllowAsync(string subject, SecretUse use, string who, CancellationToken cancel)
    {
        if ((await ListAsync(cancel)).Any(a => a.Subject == subject && a.Use == use)) return;
        var now = time.GetUtcNow();
        await log.AddWithAsync(
            db => db.SecretAllowances.Add(SecretAllowanceRow.Of(subject, use, who, now)),
            who, "secret", subject, $"allowed: it {use.Words}", cancel);
    }

    /// <summary>Ends what was allowed; returns whether it was.</summary>
    public async Task<bool> EndAsync(string subject, string useId, string who, CancellationToken cancel)
    {
        if ((await ListAsync(cancel)).FirstOrDefault(a => a.Subject == subject && a.UseId == useId) is not { } row) return false;
        await log.AddWithAsync(
            db => db.SecretAllowances.Remove(row), who, "secret", subject, $"no longer allowed: it {row.Use.Words}", cancel);
        return true;
    }
}
