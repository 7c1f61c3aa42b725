using System.DirectoryServices.Protocols;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.Settings;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>
/// Tries a product's sign-in as the product will do it: the way there, the bind, the searches, a person who may enter and those
/// who may not; and what the account it binds as could do besides. Nothing is changed, and whatever the directory answers is a
/// finding: the test never ends before its end.
/// </summary>
public static class SignInTestRunner
{
    /// <summary>How long a test may take: what has not begun by then is not made.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromMinutes(5);

    /// <summary>Runs a sign-in test.</summary>
    /// <param name="install">The install it is for.</param>
    /// <param name="simulated">Whether the directory is the simulation.</param>
    /// <param name="plan">The planned sign-in, with the names that a survey found.</param>
    /// <param name="longest">How long it may take; null for <see cref="Longest"/>.</param>
    /// <param name="at">The same directory at another of its servers; null where that cannot be looked at.</param>
    public static async Task<SignInTest> RunAsync(
        string install, bool simulated, PlannedSignIn plan, IPeopleDirectory directory, SignInTestPasswords passwords,
        TimeProvider time, ISignInTestObserver watcher, CancellationToken cancel, TimeSpan? longest = null,
        Func<string, IPeopleDirectory>? at = null)
    {
        var run = new SignInTestRun(
            plan, SettingsMaker.Make(plan), directory, passwords, time, longest ?? Longest, watcher, cancel);
        FoundAndExpected? people = null, groups = null;
        IReadOnlyList<string> names = [];
        watcher.Asking("Is the way to the directory good?");
        var look = await directory.LookAsync(plan.Security, cancel);
        foreach (var check in ConnectionChecks.Of(look, plan.Directory.PlainTextBecause, run.Now)) run.Say(check);
        var because = plan.Directory.PlainTextBecause;
        foreach (var host in at is null ? [] : plan.Directory.OtherHosts)
            await run.CheckAsync(
                $"server/{host}", $"Is the way to {host} good too?", (id, asks) => OtherServerAsync(run, at!(host), host, id, asks));
        IPeopleSession? session = null;
        await run.NeedAsync(
            "bind", "Can the product bind?",
            async (id, asks) => session = await BindAsync(run, look.WhyNotTrusted(because), id, asks));
        using (session)
        {
            if (session is not null)
            {
                await run.CheckAsync(
                    "who-am-i", "Which identity does the directory report?", (id, asks) => WhoAmI(run, session, id, asks));
                var there = false;
                await run.NeedAsync("bases", "Are the branches there?", (id, asks) => there = Bases(run, session, id, asks));
                if (there)
                {
                    if (plan.Directory.IsCatalog)
                        await run.CheckAsync(
                            "catalog", "Does the catalog hold what the product asks for?",
                            (id, asks) => AttributeChecks.OfCatalog(run, session, id, asks));
                    people = await PeopleChecks.CountPeopleAsync(run, session);
                    (groups, names) = await PeopleChecks.CountGroupsAsync(run, session);
                    await PersonChecks.RunAsync(run, session);
                    await run.CheckAsync(
                        "elsewhere", "Is all of the branches in this directory?",
                        (id, asks) => Elsewhere(run, session, id, asks));
                }

                if (plan.Wants.BindsAs == BindsAs.Account) await BindAccountChecks.RunAsync(run, session);
            }
        }

        if (look.WhyNotTrusted(because) is null)
            await run.CheckAsync(
                "anonymous", "Is reading without a sign-in refused?", (id, asks) => AnonymousAsync(run, id, asks));
        return new SignInTest(
            install, plan.Directory.Key, run.Now, time.GetUtcNow(), simulated, run.Checks, people, groups, names);
    }

    private static async Task<IPeopleSession?> BindAsync(SignInTestRun run, WayTrouble? trouble, string id, string asks)
    {
        if (trouble is not null)
        {
            run.Unseen(
                id, asks, trouble.Cause,
                $"Not tested, and no password was sent: {trouble.Words}. The later checks were not made either.",
                "Fix the failures above and run the sign-in test again.");
            return null;
        }

        var who = run.Plan.Wants.BindsAs switch
        {
            BindsAs.Account => OwnAccount(run, id, asks),
            BindsAs.Person => Person(run, id, asks),
            BindsAs.Certificate => Certificate(run, id, asks),
        };
        if (who is not var (name, password)) return null;

        // Asked once: where it is refused, nothing asks again, so that nobody is locked out.
        var host = run.Plan.Directory.Host;
        var answer = await run.Directory.TryPasswordAsync(run.Plan.Security, name, password, run.Cancel);
        if (answer.Cause is { } cause)
        {
            run.Fail(
                id, asks, cause, $"{host} does not let {name} in: {answer.Words}.", SignInRemedies.Of(cause, run.Plan));
            return null;
        }

        var session = await run.Directory.BindAsync(run.Plan.Security, name, password, run.Cancel);
        run.Pass(id, asks, $"{host} accepts {name} and its password{(answer.Words.Length > 0 ? "; " + answer.Words : "")}");
        return session;
    }

    /// <summary>The account that the product binds as, with its password; null when that is not known, which is told.</summary>
    private static (string Name, NewPassword Password)? OwnAccount(SignInTestRun run, string id, string asks)
    {
        if (run.Settings[SettingKeys.BindName] is not { } name)
            run.Unseen(
                id, asks, SignInCause.NotKnownYet, run.Settings.Find(SettingKeys.BindName, null)!.Because + ".",
                "Verify the install first, or carry out its worklist.");
        else if (run.Passwords.BindWithheld is { } withheld)
            run.Unseen(
                id, asks, SignInCause.PasswordWithheld, withheld, "Let an owner allow it, or type the password at the prompt.");
        else if (run.Passwords.Bind is not { } password)
            run.Unseen(
                id, asks, SignInCause.PasswordNotKnown, $"The password of {name} is not known here.",
                $"Set it with justright secret set {run.Plan.Install.BindSecret ?? run.Plan.BindLogonName}, or type it at the prompt. "
                + "If the account does not exist yet, carry out the install's worklist.");
        else return (name, password);
        return null;
    }

    /// <summary>The person who must be able to sign in, by the product's template.</summary>
    private static (string Name, NewPassword Password)? Person(SignInTestRun run, string id, string asks)
    {
        if (run.Plan.Install.MayEnter is not { } typed)
            run.Unseen(
                id, asks, SignInCause.NothingExpected, "The product binds as the person who signs in, and the install names nobody.",
                "Name somebody in the install: sign-in.may-enter.");
        else if (run.Passwords.Person is not { } password)
            run.Unseen(
                id, asks, SignInCause.PasswordNotKnown,
                $"The product binds as the person who signs in, and nobody typed the password of {typed}. Nothing else was tested.",
                "Let the person type it at the sign-in test's prompt; it is stored nowhere.");
        else
            return (
                run.Plan.PersonTemplate(run.Plan.PeopleType[0] == TypedForm.Upn ? $"{typed}@{run.Plan.Domain.DnsName}" : typed),
                password);
        return null;
    }

    private static (string Name, NewPassword Password)? Certificate(SignInTestRun run, string id, string asks)
    {
        run.Unseen(
            id, asks, SignInCause.OnlyTheProduct,
            "The product binds with a certificate whose private key it alone holds. The later checks were not made.",
            "Try it in the product: it says which identity the directory takes it for.");
        return null;
    }

    /// <summary>Another server of the directory, which the product asks where the first does not answer.</summary>
    private static async Task OtherServerAsync(
        SignInTestRun run, IPeopleDirectory directory, string host, string id, string asks)
    {
        var look = await directory.LookAsync(run.Plan.Security, run.Cancel);
        if (look.WhyNotTrusted(run.Plan.Directory.PlainTextBecause) is not { } trouble)
        {
            var (down, of) = (look.Addresses.Count - look.Answering.Count(), look.Addresses.Count);
            if (down == 0) run.Pass(id, asks, $"Yes: {host} answers{(of > 1 ? $" at {of} addresses" : "")}");
            else
                run.Caution(
                    id, asks, SignInCause.AddressSilent, $"{down} of {of} addresses of {host} do not answer.",
                    "Repair the address, or take it out of DNS.");
            return;
        }

        run.Fail(
            id, asks, trouble.Cause, $"No: {trouble.Words}. Where {run.Plan.Directory.Host} does not answer, nobody can sign in.",
            "Mend that server, or leave it out of the estate's other-hosts.");
    }

    private static void WhoAmI(SignInTestRun run, IPeopleSession session, string id, string asks)
    {
        switch (session.WhoAmI())
        {
            case null:
                run.Unseen(id, asks, SignInCause.NotSaid, "The directory does not say.", "Nothing to do: few products ask.");
                break;
            case "":
                run.Fail(
                    id, asks, SignInCause.TakenForNobody, "None: the directory treated the bind as anonymous.",
                    "Check that the password is not empty.");
                break;
            case var me:
                run.Pass(id, asks, me);
                break;
        }
    }

    private static bool Bases(SignInTestRun run, IPeopleSession session, string id, string asks)
    {
        string[] bases = [.. run.PeopleBases.Concat(run.GroupsBases).DistinctBy(ComparedName.KeyOf)];
        foreach (var one in bases) _ = session.Search(one, SearchScope.Base, "(objectClass=*)", null, "objectClass").Count();
        run.Pass(id, asks, string.Join("; ", bases));
        return true;
    }

    private static void Elsewhere(SignInTestRun run, IPeopleSession session, string id, string asks)
    {
        string[] parts = [.. run.PeopleBases.Concat(run.GroupsBases).SelectMany(session.PartsElsewhere).Distinct()];
        if (parts.Length == 0) run.Pass(id, asks, "Yes: no search was referred to another one");
        else
            run.Caution(
                id, asks, SignInCause.PartsElsewhere, $"No: searches are referred to {SignInTestRun.Few(parts)}.",
                "A product that does not follow referrals does not find the people there; one that does sends its password there. "
                + "Use a narrower base, or the catalog of the forest.");
    }

    private static async Task AnonymousAsync(SignInTestRun run, string id, string asks)
    {
        switch (await run.Directory.ShownToAnybodyAsync(run.Plan.Security, run.PeopleBases[0], run.Cancel))
        {
            case null or 0:
                run.Pass(id, asks, $"Yes: it shows nothing below {run.PeopleBases[0]} to somebody who does not sign in");
                break;
            default:
                run.Caution(
                    id, asks, SignInCause.AnonymousReading,
                    $"No: whoever reaches {run.Plan.Directory.Host} reads below {run.PeopleBases[0]} without a password.",
                    "Ask the directory's people whether that is meant. The product does not need it.");
                break;
        }
    }
}
