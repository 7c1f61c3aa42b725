using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Plans;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Entries;
using JustRight.Core.SignIn.Settings;
using JustRight.Formats.Ldif;
using JustRight.Formats.SignIn;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Passwords;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Jobs.Renewals;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.SignIns;

/// <summary>
/// Brings together what sign-in settings are made of: the plan, where the latest survey found things, the people last read, the
/// latest test.
/// </summary>
internal sealed class SignInService(
    FitService fitService, SurveyStore surveys, PeopleStore people, PasswordService passwords, IDbContextFactory<AppDb> databases)
{
    /// <summary>
    /// The planned sign-in of an install, with the names that the latest survey found; null when its people do not sign in.
    /// </summary>
    public async Task<(PlannedSignIn? SignIn, Plan Plan, Estate Estate)> LocateAsync(string install, CancellationToken cancel)
    {
        var (plan, estate) = await fitService.PlanAsync(install, cancel);
        var graph = (await surveys.LatestAsync(estate.Name, cancel))?.Graph;
        return (
            plan.SignIn?.Located(name => graph?.IndexOf(name) is >= 0 and var node ? graph.PrincipalOf(node)?.Dn : null), plan,
            estate);
    }

    /// <summary>All that is to be shown of an install's sign-in; null when its people do not sign in.</summary>
    public async Task<SignInView?> ShowAsync(string install, CancellationToken cancel)
    {
        var (signIn, plan, estate) = await LocateAsync(install, cancel);
        if (signIn is null) return null;
        var settings = SettingsMaker.Make(signIn);
        var kept = await people.FindAsync(estate.Name, signIn.Directory.Key, cancel);
        IReadOnlyList<SettingsFinding> findings =
        [
            .. settings.Files.SelectMany(f =>
                SettingsFile.Refused(f.Is, f.Fields).Select(r => CannotBeWritten(f, r.Field, r.Why))),
            .. SettingsChecks.Check(
                signIn, settings, kept?.Snapshot.Unread is null ? kept?.Table : null, kept?.Snapshot.Unread),
        ];
        var bind = signIn.BindLogonName ?? signIn.BindDn;
        var places = (await passwords.ReadAsync(estate, cancel)).Places.Where(p =>
            string.Equals(p.Account, bind, StringComparison.OrdinalIgnoreCase))
            .Select(p => PasswordViews.Of(p, [], null));
        var test = await LatestSignInTestAsync(install, cancel);
        var bound = test?.Checks.Any(c => c is { Id: "bind", Verdict: "pass" }) == true;
        return SignInViews.Of(
            plan, signIn, settings, findings, [.. places],
            estate.IsRehearsal ? null : SignInLdif.Write(
                install, signIn.Directory.Key,
                SignInEntries.Of(signIn, kept?.Snapshot.Unread is null ? kept?.Table : null, bound)),
            kept?.Snapshot, test);
    }

    private static SettingsFinding CannotBeWritten(FilledFile file, FilledField field, string why) => new(
        "cannot-be-written", FindingWeight.Wrong, field.Key, $"The value of {field.Name} is left out of {file.Is.Where}: {why}.",
        "Say in the sheet how the product reads such a file, or type the value in by hand.");

    private async Task<SignInTestView?> LatestSignInTestAsync(string install, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var json = await db.Jobs.AsNoTracking()
            .Where(j => j.Kind == JobKind.SignIn && j.Subject == install && j.ResultJson != null).OrderByDescending(j => j.Id)
            .Select(j => j.ResultJson).FirstOrDefaultAsync(cancel);
        return json is null ? null : StoredJson.Read<SignInTestView>(json);
    }
}
