using JustRight.Connectors;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Installs;
using JustRight.Core.Passwords;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.SecretUses;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;
using Microsoft.EntityFrameworkCore;
using SecretStore = JustRight.Service.Data.Secrets.SecretStore;

namespace JustRight.Service.Data.Passwords;

/// <summary>All that is known of the passwords of an estate, brought together once.</summary>
/// <param name="Accounts">How each stands, those first for which something is to be done first.</param>
/// <param name="Places">Where each is typed.</param>
internal sealed record PasswordIndex(
    Estate Estate, IReadOnlyList<Plan> Plans, SurveyView? View, IReadOnlyList<AccountPassword> Accounts,
    IReadOnlyList<PasswordPlace> Places)
{
    /// <summary>The places of one account.</summary>
    public IReadOnlyList<PasswordPlace> PlacesOf(string account) =>
        [.. Places.Where(p => string.Equals(p.Account, account, StringComparison.OrdinalIgnoreCase))];

    /// <summary>An account by logon name, or null.</summary>
    public AccountPassword? Find(string account) =>
        Accounts.FirstOrDefault(a => string.Equals(a.Account, account, StringComparison.OrdinalIgnoreCase));

    /// <summary>The run-book that would renew a password now.</summary>
    public RunBook RunBookOf(AccountPassword account, bool knowsOld)
    {
        var book = RunBookMaker.Make(Estate.Domain.ShortName, account.Account, account.SetAt, PlacesOf(account.Account), HostOf);
        return knowsOld ? book : book with
        {
            Remarks = [
                .. book.Remarks,
                $"The current password is not stored here, so a renewal cannot be undone. Store it first if you know it: justright secret set {SecretStore.NameFor(account.Account)}"],
        };
    }

    private HostForRenewal HostOf(string host)
    {
        var known = Estate.Host(host);
        return new HostForRenewal(View?.Host(host), known?.Reach is Reach.Simulation or Reach.Ssh, known?.Restarts is not null);
    }
}

/// <summary>
/// Brings together what is known of passwords: plans, the latest survey, what people told, the secrets kept here.
/// </summary>
internal sealed class PasswordService(
    FitService fitService, SurveyStore surveys, SecretGate secrets, IDbContextFactory<AppDb> databases, TimeProvider time)
{
    /// <summary>The passwords of an estate.</summary>
    public async Task<PasswordIndex> ReadAsync(Estate estate, CancellationToken cancel)
    {
        var plans = (await fitService.PlansOfAsync(estate.Name, cancel)).Where(p => p.Stage != Stage.Retiring).ToList();
        var view = await surveys.LatestAsync(estate.Name, cancel);
        var accounts = PasswordCalendar.Of(plans, view, estate.Rules, time.GetUtcNow());
        await using var db = await databases.CreateDbContextAsync(cancel);
        var told = await db.ToldPlaces.AsNoTracking().Where(p => p.Estate == estate.Name).OrderBy(p => p.Id).ToListAsync(cancel);
        // a secret that somebody set is of a real account, whatever a rehearsal calls its own
        var kept = estate.IsRehearsal ? [] : await db.Secrets.AsNoTracking().Select(s => s.Name).ToListAsync(cancel);
        return new PasswordIndex(
            estate, plans, view, accounts,
            PasswordPlaces.Of(plans, view, [.. told.Select(Of), .. OwnSecrets(estate, plans, accounts, kept)]));
    }

    /// <summary>
    /// The password of an account as it is kept here now, for the directory that the estate names; null when none is kept, or
    /// when
    /// it is not allowed to go there, and then why.
    /// </summary>
    public async Task<(NewPassword? Password, string? Withheld)> KeptAsync(
        Estate estate, string account, CancellationToken cancel)
    {
        var name = $"{estate.Domain.ShortName}\\{account}";
        var use = estate.Directory.Reach == Reach.Ldaps
            ? EstateSecretUses.OfPasswordTest(estate, name, TrustAnchors.OfFolder(estate.Directory.CaFolder))
            : null;
        try
        {
            return (await secrets.PasswordOfAsync(PasswordSubject.Of(estate, account), use, cancel), null);
        }
        catch (ConnectorException e) when (e.Failure == ConnectorFailure.Withheld)
        {
            return (null, e.Message);
        }
    }

    /// <summary>What a person told of.</summary>
    public static PasswordPlace Of(ToldPlaceRow row) =>
        new(row.Account, PasswordPlaceKind.Told, row.Host, row.Where, row.Setting, row.Breaks)
        {
            Reference = row.Reference,
        };

    /// <summary>
    /// The secrets kept here that hold the password of an account: those under its name, and those that the estate or an
    /// install names beside it.
    /// </summary>
    private static IEnumerable<PasswordPlace> OwnSecrets(
        Estate estate, IReadOnlyList<Plan> plans, IReadOnlyList<AccountPassword> accounts, List<string> kept)
    {
        var named = new[] { (Account: estate.Directory.SignInAs, estate.Directory.Secret, What: "read the directory") }
            .Concat(estate.Hosts.Where(h => h.Ssh is not null).Select(h =>
                ((string?)h.Ssh!.SignInAs, (string?)h.Ssh.Secret, $"reach {h.Name}")))
            .Concat(estate.PeopleDirectories.Where(d => d.IsOfDomain).Select(d =>
                (d.SignInAs, d.Secret, $"read the people of {d.Key}")))
            .Where(n => n.Item1 is not null && n.Item2 is not null)
            .Select(n => (Account: Bare(n.Item1!), Secret: n.Item2!, n.Item3))
            .Concat(plans.Where(p => p.SignIn?.BindLogonName is not null && p.SignIn.Install.BindSecret is not null).Select(p =>
                (Account: p.SignIn!.BindLogonName!, Secret: p.SignIn.Install.BindSecret!, $"try the sign-in of {p.Title}")))
            .Concat(accounts.Select(a =>
                (a.Account, Secret: SecretStore.NameFor(a.Account), "set services to run as the account")))
            .Where(n =>
                kept.Contains(n.Secret)
                    && accounts.Any(a => string.Equals(a.Account, n.Account, StringComparison.OrdinalIgnoreCase)));
        return named.GroupBy(n => (n.Account.ToUpperInvariant(), n.Secret)).Select(same =>
            new PasswordPlace(
                same.First().Account, PasswordPlaceKind.OwnSecret, "", "Just Right", same.Key.Secret,
                $"used here to {string.Join(", to ", same.Select(s => s.Item3).Distinct())}"));
    }

    private static string Bare(string account) => LogonName.WithoutDomain(account).Split('@')[0];
}
