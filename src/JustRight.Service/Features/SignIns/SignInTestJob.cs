using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.SignInTests;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.SignIns;

/// <summary>Runs sign-in tests of products' sign-in.</summary>
internal sealed class SignInTestJob(
    SignInService signInService, ConnectorStore connectors, SecretGate secrets, SignInTestPasswordStore typed, JobFeed feed,
    LogStore log, TimeProvider time, IDbContextFactory<AppDb> databases) : IJobHandler
{
    /// <inheritdoc/>
    public IReadOnlyList<JobKind> Kinds => [JobKind.SignIn];

    private const int Kept = 50;

    /// <inheritdoc/>
    public async Task<JobOutcome> RunAsync(AppDb db, JobRow job, CancellationToken cancel)
    {
        var passwords = typed.Take(job.Id);
        var (signIn, _, estate) = await signInService.LocateAsync(job.Subject, cancel);
        if (signIn is null)
            throw new ConnectorException(
                ConnectorFailure.NotFound, $"nobody signs in to {job.Subject} with a directory account any more.");
        var directory = connectors.OpenPeople(estate, signIn.Directory);
        if (passwords.Bind is null) passwords = await WithKeptAsync(passwords, estate, signIn, cancel);
        var watcher = new ScheduledSurveys(job.Id, feed);
        // The searches block: they belong on a thread of their own.
        var test = await Task.Run(
            () => SignInTestRunner.RunAsync(
                job.Subject, signIn.Directory.Reach == Reach.Simulation, signIn, directory, passwords, time, watcher, cancel,
                at: host => connectors.OpenPeople(estate, signIn.Directory with { Host = host })),
            cancel);
        var view = SignInViews.Of(job.Id, test);
        job.ResultJson = StoredJson.Write(view);
        await log.AddAsync(job.StartedBy, "sign-in", job.Subject, test.Words, cancel);
        await TidyAsync(job.Subject, cancel);
        return JobOutcome.Done(test.Words);
    }

    private async Task<SignInTestPasswords> WithKeptAsync(
        SignInTestPasswords typedOnes, Estate estate, PlannedSignIn signIn, CancellationToken cancel)
    {
        try
        {
            return typedOnes with { Bind = await KeptAsync(estate, signIn, cancel) };
        }
        catch (ConnectorException e) when (e.Failure == ConnectorFailure.Withheld)
        {
            return typedOnes with { BindWithheld = e.Message };
        }
    }

    /// <summary>
    /// The bind account's password as far as it is kept here: under the name that the install gives, or since we made the
    /// account.
    /// A simulated directory is in this process: nothing leaves it. A rehearsal has no secret of the real systems.
    /// </summary>
    private async Task<NewPassword?> KeptAsync(Estate estate, PlannedSignIn signIn, CancellationToken cancel)
    {
        var use = signIn.Directory.Reach == Reach.Ldaps ? SignInTestUse.Of(estate, signIn) : null;
        if (signIn.Install.BindSecret is { } name && !estate.IsRehearsal) return await secrets.NamedAsync(name, use, cancel);
        return signIn.BindLogonName is { } account
            ? await secrets.PasswordOfAsync(PasswordSubject.Of(estate, account), use, cancel)
            : null;
    }

    private async Task TidyAsync(string install, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var old = await db.Jobs.Where(j => j.Subject == install && j.Kind == JobKind.SignIn && j.ResultJson != null)
            .OrderByDescending(j => j.Id).Skip(Kept - 1).Select(j => j.Id).ToListAsync(cancel);
        await db.Jobs.Where(j => old.Contains(j.Id))
            .ExecuteUpdateAsync(set => set.SetProperty(j => j.ResultJson, (string?)null), cancel);
    }

    private sealed class ScheduledSurveys(string job, JobFeed feed) : ISignInTestObserver
    {
        private int _done;

        public void Asking(string asks) =>
            feed.Tell(job, new JobEvent(JobState.Running.Word(), _done, 0, asks, null));

        public void Said(SignInCheck check) =>
            feed.Tell(
                job,
                new JobEvent(JobState.Running.Word(), ++_done, 0, $"{check.Verdict.Word()}: {check.Asks}", null)
                {
                    Check = SignInViews.Of(check),
                });

        public void Counting(string what, int sofar) =>
            feed.Tell(job, new JobEvent(JobState.Running.Word(), _done, 0, $"counting {what}: {sofar} so far", null));
    }
}
