using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Core.SecretUses;
using JustRight.Formats.Passwords;
using JustRight.Service.Grants;
using JustRight.Service.Secrets;
using JustRight.Service.Storage;

namespace JustRight.Service.Passwords;

/// <summary>Makes steps of one run-book, each kept before and after.</summary>
internal sealed class RunBookRun(
    RenewalStore renewals, SecretStore secrets, SecretGate gate, CrashRehearsal rehearsal, TimeProvider time, RenewalRow row,
    Estate estate, string who, EstateConnectors connectors)
{
    private string Domain => estate.Domain.ShortName;

    /// <summary>The run-book as it is kept now.</summary>
    public RunBook Book { get; private set; } = RunBookJson.Read(row.BookJson);

    /// <summary>Makes one step.</summary>
    public async Task MakeAsync(RunBookStep step, CancellationToken cancel)
    {
        var touched = step.State == RunBookState.Begun;
        try
        {
            var secret = SecretOf(step);
            if (step.Act == RunBookAct.Check)
            {
                var (fine, seen) = await CheckAsync(secret, cancel);
                await KeepAsync(step, fine ? RunBookState.Done : RunBookState.Refused, seen, cancel);
                return;
            }

            await rehearsal.ReachedAsync(step.Number, "renewal-looked", estate, cancel);
            if (touched && await IsMadeAsync(step, secret, cancel) is { } found)
            {
                await DoneAsync(step, secret, found, cancel);
                return;
            }

            if (!touched)
            {
                var (change, seen) = await LookAsync(step, secret, cancel);
                Book = Book.Begin(step.Number, change, seen, who, time.GetUtcNow());
                await renewals.SaveAsync(row.Id, Book, who, "intend", $"{step.Words}; before: {seen}", cancel);
                (step, touched) = (Book.Steps.First(s => s.Number == step.Number), true);
            }

            await rehearsal.ReachedAsync(step.Number, "renewal-intended", estate, cancel);
            await PutAsync(step, secret, cancel);
            await rehearsal.ReachedAsync(step.Number, "renewal-made", estate, cancel);
            await DoneAsync(step, secret, await SeenAsync(step, cancel), cancel);
            await rehearsal.ReachedAsync(step.Number, "renewal-recorded", estate, cancel);
        }
        catch (ConnectorException e)
        {
            await KeepAsync(step, touched ? RunBookState.Failed : RunBookState.Refused, e.Message, cancel);
        }
    }

    private NewPassword SecretOf(RunBookStep step) =>
        (step.Secret == WhichPassword.Old ? row.OldProtected : row.NewProtected) is { } kept
        ? secrets.Unprotect(kept)
        : throw new ConnectorException(
            ConnectorFailure.SignIn, "the old password is not known here: the renewal cannot be undone.");

    /// <summary>What is there before a step, and its change with that in it.</summary>
    private async Task<(Change? Change, string Seen)> LookAsync(RunBookStep step, NewPassword secret, CancellationToken cancel)
    {
        switch (step.Change)
        {
            case SetPassword set:
                var facts = await connectors.Directory.ReadPasswordAsync(set.Name, cancel);
                if (facts.Disabled)
                    throw new ConnectorException(
                        ConnectorFailure.Conflict, $"{set.Name} is disabled: enable it first, or leave its password alone.");
                return (set with { SetBefore = facts.SetAt }, facts.SetAt is { } at ? $"last set {at:u}" : "never set");
            case RestartService restart:
                await MustHoldAsync(step, secret, cancel);
                var service = (await connectors.Hosts.ReadAsync(restart.Host, cancel)).Services.FirstOrDefault(s =>
                    string.Equals(s.Name, restart.Service, StringComparison.OrdinalIgnoreCase))
                    ?? throw new ConnectorException(
                        ConnectorFailure.NotFound, $"there is no service {restart.Service} on {restart.Host}.");
                return (
                    restart with { RanSince = service.RunsSince },
                    service.Running
                        ? $"it runs since {(service.RunsSince is { } since ? $"{since:u}" : "a time that was not told")}"
                        : "it does not run");
            case { } change:
                var before = await connectors.ObserveAsync(change, cancel);
                return before.State == ObservedState.Impossible
                    ? throw new ConnectorException(ConnectorFailure.Conflict, $"{before.Seen}.")
                    : (change, before.Seen);
            default:
                return (null, "another one");
        }
    }

    /// <summary>
    /// A service that runs is not restarted onto a password that the directory does not take: somebody may have set another one
    /// since. Where it cannot be tested, a person who has read that may have it tried again.
    /// </summary>
    private async Task MustHoldAsync(RunBookStep step, NewPassword secret, CancellationToken cancel)
    {
        var facts = await connectors.Directory.ReadPasswordAsync(row.Account, cancel);
        if (facts.WhyNotTried(time.GetUtcNow()) is { } why)
        {
            if (step.Note == RunBook.TriedAgain) return;
            throw new ConnectorException(
                ConnectorFailure.Conflict,
                $"whether the directory still takes the password cannot be tested ({why}): nothing was restarted. A retry restarts.");
        }

        var tried = await connectors.Directory.TryPasswordAsync(row.Account, secret, cancel);
        if (tried.Works == true) return;
        throw new ConnectorException(
            ConnectorFailure.Conflict,
            $"the directory no longer takes this password ({tried.Words}): nothing was restarted. Somebody set another one since, or "
            + "it was never taken: undo the renewal, or begin another.");
    }

    /// <summary>Whether a step that was begun is made, as far as looking tells; null when it is to be made again.</summary>
    private async Task<string?> IsMadeAsync(RunBookStep step, NewPassword secret, CancellationToken cancel)
    {
        switch (step.Change)
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
                return step.Note == RunBook.TriedAgain
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

    private async Task PutAsync(RunBookStep step, NewPassword secret, CancellationToken cancel)
    {
        if (step.Act == RunBookAct.Keep) await secrets.SetAsync(step.Place.Split('|')[^1], secret.Reveal(), who, cancel);
        else if (step.Change is RestartService) await connectors.MakeAsync(step.Change, null, cancel);
        else
        {
            // The estate may name another address by now: what was allowed when the renewal began is allowed for that one.
            if (step.Change is HostChange host
                && EstateSecretUses.OfServiceAccount(estate, host.Host, $"{Domain}\\{row.Account}") is { } use)
                await gate.MustBeAllowedAsync($"{Domain}\\{row.Account}", use, row.AllowedWhenBegun, cancel);
            await connectors.MakeAsync(step.Change!, secret, cancel);
        }
    }

    private async Task<string> SeenAsync(RunBookStep step, CancellationToken cancel)
    {
        if (step.Change is null) return "kept";
        var after = await connectors.ObserveAsync(step.Change, cancel);
        if (step.Change is GiveServicePassword or RestartService { RanSince: null } ? after.State == ObservedState.Impossible : after.State != ObservedState.Done)
            throw new ConnectorException(ConnectorFailure.Conflict, $"made, but not seen afterwards: {after.Seen}.");
        return after.Seen;
    }

    private async Task DoneAsync(RunBookStep step, NewPassword secret, string seen, CancellationToken cancel)
    {
        // From the moment the directory has it, it is the one to be handed over and to be used.
        if (step.Act == RunBookAct.SetInDirectory)
            await secrets.KeepPasswordAsync(row.Estate, $"{Domain}\\{row.Account}", secret, cancel);
        await KeepAsync(step, RunBookState.Done, seen, cancel);
    }

    private Task KeepAsync(RunBookStep step, RunBookState state, string note, CancellationToken cancel)
    {
        Book = Book.With(step.Number, state, note, who, time.GetUtcNow());
        return renewals.SaveAsync(
            row.Id, Book, who, state == RunBookState.Done ? "make" : "fail",
            $"{step.Words}; {(state == RunBookState.Done ? "after" : "because")}: {note}", cancel);
    }

    /// <summary>
    /// Whether the directory takes it, every service that was restarted runs, and nobody kept trying another one.
    /// </summary>
    private async Task<(bool Fine, string Seen)> CheckAsync(NewPassword secret, CancellationToken cancel)
    {
        var facts = await connectors.Directory.ReadPasswordAsync(row.Account, cancel);
        if (facts.WhyNotTried(time.GetUtcNow()) is { } why) return (false, why);
        var tried = await connectors.Directory.TryPasswordAsync(row.Account, secret, cancel);
        if (tried.Works != true) return (false, tried.Words);
        var stopped = new List<string>();
        var services = Book.Steps.Where(s => s is { Act: RunBookAct.Restart, State: RunBookState.Done, Change: RestartService })
            .Select(s => (RestartService)s.Change!).DistinctBy(r => (r.Host, r.Service)).ToList();
        foreach (var host in services.GroupBy(s => s.Host))
        {
            var read = await connectors.Hosts.ReadAsync(host.Key, cancel);
            foreach (var name in host.SelectMany(s => s.Dependents.Prepend(s.Service)))
                if (read.Services.FirstOrDefault(s =>
                    string.Equals(s.Name, name, StringComparison.OrdinalIgnoreCase)) is not { Running: true })
                    stopped.Add($"{name} on {host.Key}");
        }

        if (stopped.Count > 0)
            return (false, $"{tried.Words}, but {string.Join(" and ", stopped)} {(stopped.Count == 1 ? "does" : "do")} not run");
        var wrong = facts.CountNow(time.GetUtcNow()) ?? 0;
        return (
            true,
            $"{tried.Words}; {services.Count} {(services.Count == 1 ? "service runs" : "services run")} on it{(wrong > 0 ? $"; {wrong} wrong {(wrong == 1 ? "password was" : "passwords were")} counted lately: some place may still have another one" : "")}");
    }
}
