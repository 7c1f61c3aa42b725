using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Core.Runs;
using JustRight.Core.SecretUses;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Renewals;
using JustRight.Service.Jobs.Runs;
using JustRight.Service.Jobs.Surveys;

namespace JustRight.Service.Features.Passwords;

/// <summary>Opens the estate of renewals, each with what was allowed when it began.</summary>
internal sealed class RenewalWorks(
    Library library, RenewalStore renewals, ConnectorStore connectorStore, SecretStore secrets, SecretGate gate,
    SurveyJob surveys, TimeProvider time) : IRunWorks
{
    /// <inheritdoc/>
    public IReadOnlyList<JobKind> Kinds => [JobKind.Renew];

    /// <inheritdoc/>
    public async Task<IRunWork> OpenAsync(JobRow job, CancellationToken cancel)
    {
        var renewal = await renewals.FindAsync(job.Id, cancel)
            ?? throw new ConnectorException(ConnectorFailure.NotFound, "this renewal no longer exists.");
        var estate = Library.ReadEstate((await library.FindAsync(Library.EstateKind, renewal.Row.Estate, cancel))!);
        var connectors = await connectorStore.OpenAsync(estate, renewal.Row.AllowedWhenBegun, cancel);
        return new RenewalWork(renewals, secrets, gate, surveys, time, job, renewal.Row, estate, connectors);
    }
}

/// <summary>
/// Makes the steps of a renewal that are ours. Where looking cannot tell whether one that was begun was made, it is made again,
/// which for a password is harmless.
/// </summary>
internal sealed class RenewalWork(
    RenewalStore renewals, SecretStore secrets, SecretGate gate, SurveyJob surveys, TimeProvider time, JobRow job, RenewalRow row,
    Estate estate, EstateConnectors connectors) : IRunWork
{
    private string Domain => estate.Domain.ShortName;

    /// <inheritdoc/>
    public Estate Estate => estate;

    /// <inheritdoc/>
    public Task BeginAsync(CancellationToken cancel) => Task.CompletedTask; // all was asked before it was kept

    /// <inheritdoc/>
    public async Task<Looked> LookAsync(StepRow step, bool begun, CancellationToken cancel)
    {
        var part = RenewalRows.PartOf(step);
        var secret = SecretOf(part);
        if (part.Act == RunBookAct.Check) return await CheckAsync(secret, cancel);
        return begun
            ? await IsMadeAsync(step, secret, cancel) is { } found
                ? await DoneAsync(part, secret, found, cancel)
                : new Looked(ObservedState.NotDone, "")
            : await LookAsync(step, secret, cancel);
    }

    /// <inheritdoc/>
    public async Task MakeAsync(StepRow step, CancellationToken cancel)
    {
        var part = RenewalRows.PartOf(step);
        var secret = SecretOf(part);
        var change = RenewalRows.ChangeOf(step);
        if (part.Act == RunBookAct.Keep)
            await secrets.SetAsync(part.Place.Split('|')[^1], secret.Reveal(), job.StartedBy, cancel);
        else if (change is RestartService) await connectors.MakeAsync(change, null, cancel);
        else
        {
            // The estate may name another address by now: what was allowed when the renewal began is allowed for that one.
            if (change is HostChange host
                && EstateSecretUses.OfServiceAccount(estate, host.Host, $"{Domain}\\{row.Account}") is { } use)
                await gate.MustBeAllowedAsync($"{Domain}\\{row.Account}", use, row.AllowedWhenBegun, cancel);
            await connectors.MakeAsync(change!, secret, cancel);
        }
    }

    /// <inheritdoc/>
    public async Task<Looked> LookAgainAsync(StepRow step, CancellationToken cancel)
    {
        var part = RenewalRows.PartOf(step);
        if (RenewalRows.ChangeOf(step) is not { } change) return new Looked(ObservedState.Done, "kept");
        var after = await connectors.ObserveAsync(change, cancel);
        // what cannot be seen of these was told by whoever made them
        var cannotBeSeen = change is GiveServicePassword or RestartService { RanSince: null };
        return after.State == ObservedState.Done || (cannotBeSeen && after.State != ObservedState.Impossible)
            ? await DoneAsync(part, SecretOf(part), after.Seen, cancel)
            : new Looked(after.State, after.Seen);
    }

    /// <inheritdoc/>
    public async Task<Looked> LookAtSaidAsync(StepRow step, CancellationToken cancel)
    {
        var change = RenewalRows.ChangeOf(step);
        if (change is GiveServicePassword or RestartService { RanSince: null }) return await LookAgainAsync(step, cancel);
        var found = await IsMadeAsync(step, SecretOf(RenewalRows.PartOf(step)), cancel);
        return found is null ? new Looked(ObservedState.NotDone, "it is as before") : new Looked(ObservedState.Done, found);
    }

    /// <inheritdoc/>
    public async Task<string> RestAsync(Run run, RunNext next, CancellationToken cancel)
    {
        var words = RenewalWords.Of(RenewalRows.BookOf(job), next.Wait);
        if (next.Wait != RunWait.Over) return words;
        await renewals.EndAsync(row, job.StartedBy, words, cancel);
        await surveys.TakeAsync(estate, job.Id, job.StartedBy, cancel);
        return words;
    }

    private NewPassword SecretOf(RenewalPart part) =>
        (part.Secret == WhichPassword.Old ? row.OldProtected : row.NewProtected) is { } kept
        ? secrets.Unprotect(kept)
        : throw new ConnectorException(
            ConnectorFailure.SignIn, "the old password is not known here: the renewal cannot be undone.");

    /// <summary>What is there before a step, and its change with that in it.</summary>
    private async Task<Looked> LookAsync(StepRow step, NewPassword secret, CancellationToken cancel)
    {
        switch (RenewalRows.ChangeOf(step))
        {
            case SetPassword set:
                var facts = await connectors.Directory.ReadPasswordAsync(set.Name, cancel);
                if (facts.Disabled)
                    throw new ConnectorException(
                        ConnectorFailure.Conflict, $"{set.Name} is disabled: enable it first, or leave its password alone.");
                return NotDone(
                    facts.SetAt is { } at ? $"last set {at:u}" : "never set", set with { SetBefore = facts.SetAt });
            case RestartService restart:
                await MustHoldAsync(step, secret, cancel);
                var service = (await connectors.Hosts.ReadAsync(restart.Host, cancel)).Services.FirstOrDefault(s =>
                    string.Equals(s.Name, restart.Service, StringComparison.OrdinalIgnoreCase))
                    ?? throw new ConnectorException(
                        ConnectorFailure.NotFound, $"there is no service {restart.Service} on {restart.Host}.");
                return NotDone(
                    service.Running
                        ? $"it runs since {(service.RunsSince is { } since ? $"{since:u}" : "a time that was not told")}"
                        : "it does not run",
                    restart with { RanSince = service.RunsSince });
            case { } change:
                var before = await connectors.ObserveAsync(change, cancel);
                return before.State == ObservedState.Impossible
                    ? throw new ConnectorException(ConnectorFailure.Conflict, $"{before.Seen}.")
                    : NotDone(before.Seen, change);
            default:
                return NotDone("another one", null);
        }

        static Looked NotDone(string seen, Change? change) => new(ObservedState.NotDone, seen) { Change = change };
    }

    /// <summary>
    /// A service that runs is not restarted onto a password that the directory does not take: somebody may have set another one
    /// since. Where it cannot be tested, a person who has read that may have it tried again.
    /// </summary>
    private async Task MustHoldAsync(StepRow step, NewPassword secret, CancellationToken cancel)
    {
        var facts = await connectors.Directory.ReadPasswordAsync(row.Account, cancel);
        if (facts.WhyNotTried(time.GetUtcNow()) is { } why)
        {
            if (step.IsTriedAgain) return;
            throw new ConnectorException(
                ConnectorFailure.Conflict,
                $"whether the directory still takes the password cannot be tested ({why}): nothing was restarted. "
                + "A retry restarts.");
        }

        var tried = await connectors.Directory.TryPasswordAsync(row.Account, secret, cancel);
        if (tried.Works == true) return;
        throw new ConnectorException(
            ConnectorFailure.Conflict,
            $"the directory no longer takes this password ({tried.Words}): nothing was restarted. Somebody set another one "
            + "since, or it was never taken: undo the renewal, or begin another.");
    }

    /// <summary>Whether a step that was begun is made, as far as looking tells; null when it is to be made again.</summary>
    private async Task<string?> IsMadeAsync(
        StepRow step, NewPassword secret, CancellationToken cancel)
    {
        switch (RenewalRows.ChangeOf(step))
        {
            case SetPassword set:
                var seen = await connectors.Directory.ObserveAsync(set, cancel);
                if (seen.State != ObservedState.Done) return null;
                var facts = await connectors.Directory.ReadPasswordAsync(set.Name, cancel);
                if (facts.WhyNotTried(time.GetUtcNow()) is { } why)
                    throw new ConnectorException(
                        ConnectorFailure.Conflict, $"it was set since, and whether by us cannot be tested: {why}");
                var tried = await connectors.Directory.TryPasswordAsync(set.Name, secret, cancel);
                if (tried.Works == true) return $"{seen.Seen}; {tried.Words}";
                // A person who has read this and lets it be tried again means ours to count.
                return step.IsTriedAgain
                    ? null
                    : throw new ConnectorException(
                        ConnectorFailure.Conflict, $"somebody else set it in the meantime: {seen.Seen}. A retry sets ours.");
            case RestartService { RanSince: not null } restart:
                return await connectors.ObserveAsync(restart, cancel) is { State: ObservedState.Done, Seen: var running }
                    ? running
                    : null;
            default:
                return null;
        }
    }

    private async Task<Looked> DoneAsync(RenewalPart part, NewPassword secret, string seen, CancellationToken cancel)
    {
        // From the moment the directory has it, it is the one to be handed over and to be used.
        if (part.Act == RunBookAct.SetInDirectory)
            await secrets.KeepPasswordAsync(row.Estate, PasswordSubject.Of(estate, row.Account), secret, cancel);
        return new Looked(ObservedState.Done, seen);
    }

    /// <summary>
    /// Whether the directory takes it, every service that was restarted runs, and nobody kept trying another one.
    /// </summary>
    private async Task<Looked> CheckAsync(NewPassword secret, CancellationToken cancel)
    {
        var facts = await connectors.Directory.ReadPasswordAsync(row.Account, cancel);
        if (facts.WhyNotTried(time.GetUtcNow()) is { } why) return No(why);
        var tried = await connectors.Directory.TryPasswordAsync(row.Account, secret, cancel);
        if (tried.Works != true) return No(tried.Words);
        var stopped = new List<string>();
        var services = job.Steps.Where(s => s.State == RunStepState.Made).Select(RenewalRows.ChangeOf).OfType<RestartService>()
            .DistinctBy(r => (r.Host, r.Service)).ToList();
        foreach (var host in services.GroupBy(s => s.Host))
        {
            var read = await connectors.Hosts.ReadAsync(host.Key, cancel);
            foreach (var name in host.SelectMany(s => s.Dependents.Prepend(s.Service)))
                if (read.Services.FirstOrDefault(s =>
                    string.Equals(s.Name, name, StringComparison.OrdinalIgnoreCase)) is not { Running: true })
                    stopped.Add($"{name} on {host.Key}");
        }

        if (stopped.Count > 0)
            return No($"{tried.Words}, but {string.Join(" and ", stopped)} {(stopped.Count == 1 ? "does" : "do")} not run");
        var wrong = facts.CountNow(time.GetUtcNow()) ?? 0;
        return new Looked(
            ObservedState.Done,
            $"{tried.Words}; {services.Count} {(services.Count == 1 ? "service runs" : "services run")} on it"
            + (wrong == 0 ? "" : $"; {wrong} wrong {(wrong == 1 ? "password was" : "passwords were")} counted lately: ")
            + (wrong == 0 ? "" : "some place may still have another one"));

        static Looked No(string why) => new(ObservedState.Impossible, why);
    }
}
