using JustRight.Connectors;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Keys;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Secrets;

/// <summary>Secrets and new passwords, encrypted at rest with keys that lie beside the database, not in it.</summary>
internal sealed class SecretStore(
    IDbContextFactory<AppDb> databases, IDataProtectionProvider protection, PasswordKeys keys, TimeProvider time)
{
    private readonly IDataProtector _secrets = protection.CreateProtector("justright.secrets.v1");
    private readonly IDataProtector _passwords = protection.CreateProtector("justright.passwords.v1");

    /// <summary>Keeps a secret under a name, where a journal of its own says so.</summary>
    public async Task SetAsync(string name, string value, string who, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        Set(db, name, value, who);
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Keeps a secret under a name, replacing the one before; to be saved with the log's entry of it.</summary>
    public void Set(AppDb db, string name, string value, string who)
    {
        var row = db.Secrets.FirstOrDefault(s => s.Name == name);
        if (row is null) db.Secrets.Add(row = new SecretRow { Name = name, Protected = "", SetBy = who });
        (row.Protected, row.SetAt, row.SetBy) = (_secrets.Protect(value), time.GetUtcNow(), who);
    }

    /// <summary>
    /// A secret, or null when none is kept under the name. Whoever sends it anywhere asks <see cref="SecretGate"/> instead.
    /// </summary>
    internal async Task<NewPassword?> ReadAsync(string name, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var row = await db.Secrets.AsNoTracking().FirstOrDefaultAsync(s => s.Name == name, cancel);
        return row is null ? null : new NewPassword(OpenSecret(row));
    }

    /// <summary>Whether a text that people will read holds a secret or a password that is kept here.</summary>
    public async Task<bool> IsAnyInAsync(string text, CancellationToken cancel)
    {
        const int shortest = 6; // a shorter one stands in many a text
        await using var db = await databases.CreateDbContextAsync(cancel);
        var secrets = (await db.Secrets.AsNoTracking().ToListAsync(cancel)).Select(OpenSecret);
        var passwords = (await db.Passwords.AsNoTracking().Where(p => p.Protected != null).ToListAsync(cancel)).Select(Open);
        return secrets.Concat(passwords).Any(s => s.Length >= shortest && text.Contains(s, StringComparison.Ordinal));
    }

    /// <summary>
    /// Makes a password for a new account and keeps it, before the account is made. A retry after a crash gets a new one.
    /// </summary>
    public async Task<NewPassword> NewPasswordAsync(string install, PasswordSubject account, CancellationToken cancel)
    {
        var password = NewPassword.Generate();
        await KeepPasswordAsync(install, account, password, cancel);
        return password;
    }

    /// <summary>
    /// The password that was made here for an account, while it is kept; else null. <see cref="SecretGate"/> as well.
    /// </summary>
    internal async Task<NewPassword?> KeptPasswordAsync(PasswordSubject account, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var row = await db.Passwords.AsNoTracking().FirstOrDefaultAsync(p => p.Account == account.Text, cancel);
        return row?.Protected is null ? null : new NewPassword(Open(row));
    }

    /// <summary>
    /// Those accounts, as <c>DOMAIN\name</c>, of which no password is known here that services could be set to: neither one made
    /// by us nor a secret under the account's name.
    /// </summary>
    public async Task<IReadOnlySet<string>> WithoutPasswordAsync(
        Estate estate, IReadOnlyCollection<string> accounts, CancellationToken cancel)
    {
        if (accounts.Count == 0) return new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        await using var db = await databases.CreateDbContextAsync(cancel);
        var kept = (await db.Passwords.Where(p => p.Protected != null).Select(p => p.Account).ToListAsync(cancel))
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        var secrets = (await db.Secrets.Select(s => s.Name).ToListAsync(cancel)).ToHashSet();
        return accounts.Where(a => PasswordSubject.Of(estate, a) is { IsRehearsed: false } subject
                && !kept.Contains(subject.Text) && !secrets.Contains(NameFor(a)))
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
    }

    /// <summary>
    /// Keeps the password that an account has now, to be handed over and to be used; in place of the one before.
    /// </summary>
    /// <param name="subject">The install, or the estate, that it was made for.</param>
    public async Task KeepPasswordAsync(string subject, PasswordSubject account, NewPassword password, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var row = await db.Passwords.FirstOrDefaultAsync(p => p.Account == account.Text, cancel);
        if (row is null) db.Passwords.Add(row = new PasswordRow { Install = subject, Account = account.Text });
        var before = row.KeyName;
        (row.KeyName, row.Protected) = keys.Encrypt(password.Reveal());
        (row.Install, row.CreatedAt, row.HandedOverAt, row.HandedOverBy) = (subject, time.GetUtcNow(), null, null);
        await db.SaveChangesAsync(cancel);
        keys.Destroy(before);
    }

    /// <summary>Encrypts a password to be kept in a row of its own.</summary>
    public string Protect(NewPassword password) => _passwords.Protect(password.Reveal());

    /// <summary>A password that <see cref="Protect"/> encrypted.</summary>
    public NewPassword Unprotect(string kept) => new(_passwords.Unprotect(kept));

    /// <summary>The name of the secret that holds an account's password.</summary>
    public static string NameFor(string account) =>
        string.Concat(LogonName.WithoutDomain(account).ToLowerInvariant().Select(c =>
            char.IsAsciiLetterLower(c) || char.IsAsciiDigit(c) ? c : '-'));

    /// <summary>The password in a row, for sealing.</summary>
    public string Open(PasswordRow row) =>
        row.KeyName is { } key ? keys.Decrypt(key, row.Protected!) : _passwords.Unprotect(row.Protected!);

    /// <summary>The secret in a row.</summary>
    public string OpenSecret(SecretRow row) => _secrets.Unprotect(row.Protected);
}
