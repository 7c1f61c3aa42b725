using JustRight.Connectors;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Core.Plans;
using JustRight.Core.SecretUses;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Passwords;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Settings;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using SecretStore = JustRight.Service.Data.Secrets.SecretStore;

namespace JustRight.Service.Features.Secrets;

/// <summary>What the estates, the installs and the settings ask secrets for today, so that an owner can allow it.</summary>
internal sealed class AskedUses(
    Library library, PasswordService passwords, RefusedUses refused, IOptions<ServiceSettings> settings,
    IDbContextFactory<AppDb> databases)
{
    /// <summary>All of them; each once.</summary>
    public async Task<IReadOnlyList<AskedUse>> ListAsync(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var secrets = (await db.Secrets.AsNoTracking().Select(s => s.Name).ToListAsync(cancel)).ToHashSet(StringComparer.Ordinal);
        var asked = new List<AskedUse>();
        foreach (var row in await library.ListAsync(Library.EstateKind, cancel))
        {
            if (Library.OpenEstate(row) is ({ } estate, _)) asked.AddRange(await OfEstateAsync(estate, secrets, cancel));
        }

        if (settings.Value.Mail is { Host: not null, Secret: { } mailSecret } mail) asked.Add(new AskedUse(mailSecret, mail.Use));
        if (settings.Value.DirectorySignIn is { Host: not null, Secret: { } signInSecret } signIn)
            asked.Add(new AskedUse(signInSecret, OfDirectorySignIn(signIn.ToDirectory())));
        return [.. asked.Concat(refused.All).Distinct()];
    }

    private static SecretUse OfDirectorySignIn(PeopleDirectory directory) => EstateSecretUses.OfPeople(
        "", directory, EstateSecretUses.BestOf(directory), TrustAnchors.OfFolder(directory.CaFolder));

    /// <summary>The uses of the passwords of an estate's accounts and of the secrets that its file names.</summary>
    private async Task<IEnumerable<AskedUse>> OfEstateAsync(Estate estate, HashSet<string> secrets, CancellationToken cancel)
    {
        var index = await passwords.ReadAsync(estate, cancel);
        return EstateSecretUses.Of(estate, TrustAnchors.OfFolder, TrustAnchors.OfFile).Select(u => new AskedUse(u.Secret, u.Use))
            .Concat(index.Plans.SelectMany(p => OfSignIn(estate, p.SignIn, secrets)))
            .Concat(index.Accounts.Where(a => a.Keeper != PasswordKeeper.Directory)
                .SelectMany(a => OfAccount(estate, index, a, secrets)));
    }

    private static IEnumerable<AskedUse> OfSignIn(Estate estate, PlannedSignIn? signIn, HashSet<string> secrets)
    {
        if (signIn is not { Directory.Reach: Reach.Ldaps }) return [];
        var use = SignInTestUse.Of(estate, signIn);
        return signIn.Install.BindSecret is { } named ? [new AskedUse(named, use)]
            : signIn.BindLogonName is { } account ? Subjects(estate, account, secrets).Select(s => new AskedUse(s, use))
            : [];
    }

    private static IEnumerable<AskedUse> OfAccount(
        Estate estate, PasswordIndex index, AccountPassword account, HashSet<string> secrets)
    {
        var name = $"{estate.Domain.ShortName}\\{account.Account}";
        var planned = index.Plans
            .SelectMany(p => p.Services.Where(s => Same(p.Accounts.First(a => a.Key == s.Account).Name, account.Account)))
            .Select(s => s.Host);
        var seen = index.PlacesOf(account.Account).Where(p => p.Kind == PasswordPlaceKind.Service).Select(p => p.Host);
        var uses = planned.Concat(seen)
            .Distinct(StringComparer.OrdinalIgnoreCase)
            .Select(estate.Host).Where(h => h?.Ssh is not null)
            .Select(h => EstateSecretUses.OfServiceAccount(estate, h!.Name, h.Ssh!, name));
        if (estate.Directory.Reach == Reach.Ldaps)
            uses = uses.Append(EstateSecretUses.OfPasswordTest(estate, name, TrustAnchors.OfFolder(estate.Directory.CaFolder)));
        return uses.SelectMany(use => Subjects(estate, account.Account, secrets).Select(s => new AskedUse(s, use)));
    }

    /// <summary>
    /// What may hold the password of an account: what is kept of it, and the secret under its name where there is one.
    /// </summary>
    private static IEnumerable<string> Subjects(Estate estate, string account, HashSet<string> secrets)
    {
        yield return $"{estate.Domain.ShortName}\\{account}";
        if (SecretStore.NameFor(account) is var name && secrets.Contains(name)) yield return name;
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
