using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Settings;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>
/// Tries a product's sign-in as the product will do it: the way there, the bind, the searches, a person who may enter and those
/// who may not; and what the account it binds as could do besides. Nothing is changed.
/// </summary>
public static class SignInTestRunner
{
    /// <summary>Runs a sign-in test.</summary>
    /// <param name="install">The install it is for.</param>
    /// <param name="simulated">Whether the directory is the simulation.</param>
    /// <param name="plan">The planned sign-in, with the names that a survey found.</param>
    public static async Task<SignInTest> RunAsync(
        string install, bool simulated, PlannedSignIn plan, IPeopleDirectory directory, SignInTestPasswords passwords,
        TimeProvider time, ISignInTestObserver watcher, CancellationToken cancel)
    {
        var started = time.GetUtcNow();
        var run = new SignInTestRun(plan, SettingsMaker.Make(plan), directory, passwords, started, watcher, cancel);
        FoundAndExpected? people = null, groups = null;
        IReadOnlyList<string> names = [];
        var look = await directory.LookAsync(plan.Security, cancel);
        foreach (var check in ConnectionChecks.Of(look, plan.Directory.PlainTextBecause, started)) run.Say(check);
        if (await BindAsync(run, look) is { } session)
        {
            using (session)
            {
                WhoAmI(run, session);
                if (Bases(run, session))
                {
                    people = PeopleChecks.CountPeople(run, session);
                    (groups, names) = PeopleChecks.CountGroups(run, session);
                    await PersonChecks.RunAsync(run, session);
                }

                BindAccountChecks.Run(run, session);
            }
        }

        return new SignInTest(
            install, plan.Directory.Key, started, time.GetUtcNow(), simulated, run.Checks, people, groups, names);
    }

    private static async Task<IPeopleSession?> BindAsync(SignInTestRun run, ConnectionLook look)
    {
        const string asks = "Can the product bind?";
        if (!look.IsTrusted)
        {
            run.Unseen(
                "bind", asks,
                "Not tested: no password is sent over a connection that is not good. The later checks were not made either.",
                "Fix the failures above and run the sign-in test again.");
            return null;
        }

        if (run.Settings[SettingKeys.BindName] is not { } name)
        {
            run.Unseen(
                "bind", asks, run.Settings.Settings.First(s => s.Key == SettingKeys.BindName).Because + ".",
                "Verify the install first, or carry out its worklist.");
            return null;
        }

        if (run.Passwords.BindWithheld is { } withheld)
        {
            run.Unseen("bind", asks, withheld, "Let an owner allow it, or type the password at the prompt.");
            return null;
        }

        if (run.Passwords.Bind is not { } password)
        {
            run.Unseen(
                "bind", asks, $"The password of {name} is not known here.",
                $"Set it with justright secret set {run.Plan.Install.BindSecret ?? run.Plan.BindLogonName}, or type it at the prompt. If the account does not exist yet, carry out the install's worklist.");
            return null;
        }

        try
        {
            var session = await run.Directory.BindAsync(run.Plan.Security, name, password, run.Cancel);
            run.Pass("bind", asks, $"{run.Plan.Directory.Host} accepts {name} and its password");
            return session;
        }
        catch (ConnectorException e)
        {
            run.Fail(
                "bind", asks, e.Message,
                e.Failure == ConnectorFailure.SignIn
                    ? "Check that the account exists, is enabled, and has this password. The sign-in test tries once, so that it does not lock the account."
                    : "Check that the directory answers, and run the sign-in test again.");
            return null;
        }
    }

    private static void WhoAmI(SignInTestRun run, IPeopleSession session)
    {
        const string asks = "Which identity does the directory report?";
        switch (session.WhoAmI())
        {
            case null:
                run.Unseen("who-am-i", asks, "The directory does not say.", "Nothing to do: few products ask.");
                break;
            case "":
                run.Fail(
                    "who-am-i", asks, "None: the directory treated the bind as anonymous.",
                    "Check that the password is not empty.");
                break;
            case var me:
                run.Pass("who-am-i", asks, me);
                break;
        }
    }

    private static bool Bases(SignInTestRun run, IPeopleSession session)
    {
        const string asks = "Are the branches there?";
        string[] bases = [.. new[] { run.PeopleBase, run.GroupsBase }.Distinct(StringComparer.OrdinalIgnoreCase)];
        var missing = bases.Where(b => session.Read(b, "objectClass") is null).ToList();
        if (missing.Count == 0) run.Pass("bases", asks, string.Join("; ", bases));
        else
            run.Fail(
                "bases", asks, $"{string.Join("; ", missing)} does not exist, or the bind account may not see it.",
                "Correct the bases in the estate, or let the bind account read them.");
        return missing.Count == 0;
    }
}
