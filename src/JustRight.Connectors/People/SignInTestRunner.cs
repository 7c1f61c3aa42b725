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
    public static async Task<SignInTest> RunAsync(
        string install, bool simulated, PlannedSignIn plan, IPeopleDirectory directory, SignInTestPasswords passwords,
        TimeProvider time, ISignInTestObserver watcher, CancellationToken cancel, TimeSpan? longest = null)
    {
        var run = new SignInTestRun(
            plan, SettingsMaker.Make(plan), directory, passwords, time, longest ?? Longest, watcher, cancel);
        FoundAndExpected? people = null, groups = null;
        IReadOnlyList<string> names = [];
        watcher.Asking("Is the way to the directory good?");
        var look = await directory.LookAsync(plan.Security, cancel);
        foreach (var check in ConnectionChecks.Of(look, plan.Directory.PlainTextBecause, run.Now)) run.Say(check);
        var because = plan.Directory.PlainTextBecause;
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
                    people = await PeopleChecks.CountPeopleAsync(run, session);
                    (groups, names) = await PeopleChecks.CountGroupsAsync(run, session);
                    await PersonChecks.RunAsync(run, session);
                    await run.CheckAsync(
                        "elsewhere", "Is all of the branches in this directory?",
                        (id, asks) => Elsewhere(run, session, id, asks));
                }

                await BindAccountChecks.RunAsync(run, session);
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

        if (run.Settings[SettingKeys.BindName] is not { } name)
        {
            run.Unseen(
                id, asks, SignInCause.NotKnownYet,
                run.Settings.Settings.First(s => s.Key == SettingKeys.BindName).Because + ".",
                "Verify the install first, or carry out its worklist.");
            return null;
        }

        if (run.Passwords.BindWithheld is { } withheld)
        {
            run.Unseen(
                id, asks, SignInCause.PasswordWithheld, withheld, "Let an owner allow it, or type the password at the prompt.");
            return null;
        }

        if (run.Passwords.Bind is not { } password)
        {
            run.Unseen(
                id, asks, SignInCause.PasswordNotKnown, $"The password of {name} is not known here.",
                $"Set it with justright secret set {run.Plan.Install.BindSecret ?? run.Plan.BindLogonName}, or type it at the prompt. "
                + "If the account does not exist yet, carry out the install's worklist.");
            return null;
        }

        // Asked once: where it is refused, nothing asks again, so that nobody is locked out.
        var host = run.Plan.Directory.Host;
        var answer = await run.Directory.TryPasswordAsync(run.Plan.Security, name, password, run.Cancel);
        if (answer.Cause is { } cause)
        {
            run.Fail(
                id, asks, cause, $"{host} does not let {name} in: {answer.Words}.", Remedies.Of(cause, run.Plan));
            return null;
        }

        var session = await run.Directory.BindAsync(run.Plan.Security, name, password, run.Cancel);
        run.Pass(id, asks, $"{host} accepts {name} and its password{(answer.Words.Length > 0 ? "; " + answer.Words : "")}");
        return session;
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
        string[] bases = [.. new[] { run.PeopleBase, run.GroupsBase }.DistinctBy(ComparedName.KeyOf)];
        foreach (var one in bases) _ = session.Search(one, false, "(objectClass=*)", null, "objectClass").Count();
        run.Pass(id, asks, string.Join("; ", bases));
        return true;
    }

    private static void Elsewhere(SignInTestRun run, IPeopleSession session, string id, string asks)
    {
        string[] parts = [.. session.PartsElsewhere(run.PeopleBase).Union(session.PartsElsewhere(run.GroupsBase))];
        if (parts.Length == 0) run.Pass(id, asks, "Yes: no search was referred to another one");
        else
            run.Caution(
                id, asks, SignInCause.PartsElsewhere, $"No: searches are referred to {SignInTestRun.Few(parts)}.",
                "A product that does not follow referrals does not find the people there; one that does sends its password there. "
                + "Use a narrower base, or the catalog of the forest.");
    }

    private static async Task AnonymousAsync(SignInTestRun run, string id, string asks)
    {
        switch (await run.Directory.ShownToAnybodyAsync(run.Plan.Security, run.PeopleBase, run.Cancel))
        {
            case null or 0:
                run.Pass(id, asks, $"Yes: it shows nothing below {run.PeopleBase} to somebody who does not sign in");
                break;
            default:
                run.Caution(
                    id, asks, SignInCause.AnonymousReading,
                    $"No: whoever reaches {run.Plan.Directory.Host} reads below {run.PeopleBase} without a password.",
                    "Ask the directory's people whether that is meant. The product does not need it.");
                break;
        }
    }
}
