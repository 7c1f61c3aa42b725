using JustRight.Contracts;
using JustRight.Core.SecretUses;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Secrets;

/// <summary>The secrets with what each is asked for and what is allowed, never with a value.</summary>
internal sealed class SecretList(AskedUses asked, SecretAllowances allowances, IDbContextFactory<AppDb> databases)
{
    /// <summary>All secrets that are kept, asked for or allowed, and the passwords that are kept of accounts; by name.</summary>
    public async Task<IReadOnlyList<SecretView>> ReadAsync(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var secrets = await db.Secrets.AsNoTracking().ToDictionaryAsync(s => s.Name, s => (s.SetAt, s.SetBy), cancel);
        var passwords = await db.Passwords.AsNoTracking().Where(p => p.Protected != null).ToListAsync(cancel);
        foreach (var password in passwords) secrets[password.Account] = (password.CreatedAt, password.Install);
        var uses = (await asked.ListAsync(cancel)).ToLookup(a => a.Subject, a => a.Use);
        var allowed = (await allowances.ListAsync(cancel)).ToLookup(a => a.Subject);
        var names = secrets.Keys.Concat(uses.Select(u => u.Key)).Concat(allowed.Select(a => a.Key)).Distinct()
            .Order(StringComparer.Ordinal);
        return
        [
            .. names.Select(name => new SecretView(
                name,
                secrets.TryGetValue(name, out var set) ? set.SetAt : null,
                secrets.TryGetValue(name, out var by) ? by.SetBy : null,
                [.. uses[name].Union(allowed[name].Select(a => a.Use)).Select(use => Of(use, uses[name], allowed[name]))])),
        ];
    }

    private static SecretUseView Of(SecretUse use, IEnumerable<SecretUse> asked, IEnumerable<SecretAllowanceRow> allowed)
    {
        var allowance = allowed.FirstOrDefault(a => a.Use == use);
        return new SecretUseView(
            use.Id, use.Purpose.Name(), use.Estate, use.For, use.Address, use.SignInAs, use.Transport, use.Anchor, use.Words,
            asked.Contains(use), allowance?.AllowedAt, allowance?.AllowedBy);
    }
}
