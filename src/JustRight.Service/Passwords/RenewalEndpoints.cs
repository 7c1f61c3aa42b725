using System.Security.Claims;
using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Passwords;
using JustRight.Formats.Passwords;
using JustRight.Service.Access;
using JustRight.Service.Answers;
using JustRight.Service.Documents;
using JustRight.Service.Estates;
using JustRight.Service.Jobs;
using JustRight.Service.Secrets;
using JustRight.Service.Storage;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Passwords;

/// <summary>Renewals of passwords: begun, gone on with, taken back.</summary>
internal static class RenewalEndpoints
{
    public static void MapRenewals(this IEndpointRouteBuilder api)
    {
        api.MapPost("/estates/{name}/passwords/{account}/renewals", BeginAsync)
            .WithName("BeginRenewal").WithSummary("Starts a renewal: runs the automatic steps until a manual step is due")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409).ProducesProblem(502);

        api.MapGet("/renewals/{id}", async Task<Results<Ok<RenewalView>, ProblemHttpResult>> (
            string id, Library library, PasswordService passwordService, RenewalStore renewals, JobQueue queue, TimeProvider time,
            CancellationToken cancel) =>
        {
            var (row, estate) = await FindAsync(id, renewals, library, cancel);
            return row is null
                ? Problems.NotFound("renewal", id, [])
                : TypedResults.Ok(await ViewAsync(row, estate!, passwordService, queue, time, cancel));
        })
            .WithName("ShowRenewal").WithSummary("A renewal, its steps, and which password is where")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);

        api.MapPost("/renewals/{id}/steps/{number}", SayAsync)
            .WithName("SayOfRenewalStep")
            .WithSummary("Says that a step is done, or retries, restarts now or skips it; and continues")
            .RequireAuthorization(Roles.Granter).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);

        api.MapPost("/renewals/{id}/undo", BackAsync)
            .WithName("TakeRenewalBack").WithSummary("Restores the old password in every place that has or may have the new one")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Accepted<RenewalView>, ProblemHttpResult>> BeginAsync(
        string name, string account, ClaimsPrincipal user, Library library, PasswordService passwordService,
        RenewalStore renewals, SecretGate gate,
        ConnectorStore connectorStore, JobQueue queue, TimeProvider time, CancellationToken cancel)
    {
        if (await PasswordEndpoints.EstateAsync(name, library, cancel) is not { } estate)
            return await PasswordEndpoints.MissingAsync(name, library, cancel);
        var books = await passwordService.ReadAsync(estate, cancel);
        if (books.Find(account) is not { } found)
            return Problems.NotFound("account of a plan", account, books.Accounts.Select(a => a.Account));
        var open = (await renewals.ListAsync(name, found.Account, cancel)).FirstOrDefault(r => r.EndedAt is null);
        if (PasswordEndpoints.WhyNot(found, open) is { } why) return NotRenewed(found, open, why);
        if (estate.Directory.Reach == Reach.File)
            return Problems.Of(409, "read-only", "The directory is read from a file: passwords cannot be set from here.");
        var facts = await (await connectorStore.OpenAsync(estate, cancel)).Directory.ReadPasswordAsync(found.Account, cancel);
        if (facts.Disabled)
            return Problems.Of(409, "not-renewed", $"{found.Account} is disabled: enable it first, or leave its password alone.");
        var (old, _) = await passwordService.KeptAsync(estate, found.Account, cancel);
        var fresh = NewPassword.Generate(Math.Max(estate.Rules.Passwords.LeastLength, facts.LeastLength ?? 0));
        var book = books.RunBookOf(found, old is not null);
        var asked = RenewalUses.Of(estate, book, TrustAnchors.OfFolder, TrustAnchors.OfFile);
        var missing = new List<AskedUse>();
        foreach (var ask in asked)
            if (!await gate.IsAllowedAsync(ask.Subject, ask.Use, cancel)) missing.Add(ask);
        if (missing.Count > 0)
        {
            return Problems.Of(
                409, "not-allowed",
                $"{missing.Count} uses of secrets that this renewal makes are not allowed, so it did not begin.",
                $"An owner looks at them and allows them: {string.Join("; ", missing.Select(m => SecretWords.Command(m.Subject, m.Use)))}");
        }

        var allowed = asked.Select(a => SecretGate.Key(a.Subject, a.Use));
        var (row, begun) = await renewals.BeginAsync(name, book, fresh, old, allowed, user.Identity!.Name!, cancel);
        if (!begun) return NotRenewed(found, row, PasswordEndpoints.WhyNot(found, row)!);
        return await GoOnAsync(row, estate, user, passwordService, queue, time, cancel);
    }

    private static ProblemHttpResult NotRenewed(AccountPassword account, RenewalRow? open, string why) => Problems.Of(
        409, "not-renewed", $"The password of {account.Account} is not renewed from here: {why}.",
        open is null ? null : $"Look at it: justright password progress {open.Id}");

    private static async Task<Results<Accepted<RenewalView>, ProblemHttpResult>> SayAsync(
        string id, int number, StepWord word, ClaimsPrincipal user, Library library, PasswordService passwordService,
        RenewalStore renewals, JobQueue queue, TimeProvider time, CancellationToken cancel)
    {
        var (row, estate) = await FindAsync(id, renewals, library, cancel);
        if (row is null) return Problems.NotFound("renewal", id, []);
        if (await BusyAsync(row, queue, cancel) is { } busy) return busy;
        var book = RunBookJson.Read(row.BookJson);
        var (who, now, note) = (user.Identity!.Name!, time.GetUtcNow(), word.Note?.Trim() ?? "");
        bool IsOpen(string host) => RenewalJob.IsOpen(estate!, host, now);
        if (book.Current(IsOpen) is not { } step || step.Number != number)
            return Problems.Of(
                409, "not-this-step", $"Step {number} is not the one that is next.",
                book.Current(IsOpen) is { } next ? $"Next is step {next.Number}: {next.Words}." : "The renewal is over.");
        var failed = step.State is RunBookState.Failed or RunBookState.Refused;
        switch (word.Word)
        {
            case "done" when step.Act == RunBookAct.Type:
                book = book.With(number, RunBookState.Done, note.Length > 0 ? note : "a person typed it", who, now);
                await renewals.SaveAsync(
                    row.Id, book, who, "make", $"{step.Words}; confirmed by a person{(note.Length > 0 ? $": {note}" : "")}",
                    cancel);
                break;
            case "retry" when failed:
                book = book.Retry(number, who, now);
                await renewals.SaveAsync(row.Id, book, who, "retry", step.Words, cancel);
                break;
            case "restart-now" when book.Next(IsOpen) == RunBookNext.Window:
                book = book.Begin(number, step.Change, "outside the host's restart window, by a person's decision", who, now);
                await renewals.SaveAsync(
                    row.Id, book, who, "confirm", $"{step.Words}, outside the host's restart window", cancel);
                break;
            case "skip" when step.Act != RunBookAct.SetInDirectory
                && (failed || step.Act == RunBookAct.Type || book.Next(IsOpen) == RunBookNext.Window):
                if (note.Length == 0)
                    return Problems.Bad("note", "Skipping a step needs a reason, shown in every report.", "a reason");
                book = book.Skip(number, note, who, now);
                await renewals.SaveAsync(row.Id, book, who, "leave out", $"{step.Words}; because: {note}", cancel);
                break;
            case "done" or "retry" or "restart-now" or "skip":
                return Problems.Of(
                    409, "wrong-word", $"'{word.Word}' is not possible for step {number} now.",
                    failed ? "It failed: retry it, skip it, or undo the renewal."
                        : step.Act == RunBookAct.Type ? "It is a manual step: done or skip."
                        : "It is an automatic step.");
            default:
                return Problems.Bad(
                    "word", "This is not a valid word.", "done, retry, restart-now or skip", word.Word,
                    ["done", "retry", "restart-now", "skip"]);
        }

        return await GoOnAsync((await renewals.FindAsync(id, cancel))!, estate!, user, passwordService, queue, time, cancel);
    }

    private static async Task<Results<Accepted<RenewalView>, ProblemHttpResult>> BackAsync(
        string id, ClaimsPrincipal user, Library library, PasswordService passwordService, RenewalStore renewals, JobQueue queue,
        TimeProvider time, CancellationToken cancel)
    {
        var (row, estate) = await FindAsync(id, renewals, library, cancel);
        if (row is null) return Problems.NotFound("renewal", id, []);
        if (row.EndedAt is not null)
            return Problems.Of(409, "over", "This renewal is over and keeps neither password. Renew again.");
        if (await BusyAsync(row, queue, cancel) is { } busy) return busy;
        var book = RunBookJson.Read(row.BookJson);
        if (book.GoesBack) return Problems.Of(409, "goes-back", "This renewal is being undone already.");
        if (row.OldProtected is null && book.InDirectory != WhichPassword.Old)
            return Problems.Of(
                409, "no-way-back", "The old password is not known here: the renewal cannot be undone.",
                "Retry the failed step, or skip it with a reason.");
        await renewals.SaveAsync(
            row.Id, book.Undo(), user.Identity!.Name!, "undo renewal",
            $"after {book.Steps.Count(s => s.State == RunBookState.Done)} steps", cancel);
        return await GoOnAsync((await renewals.FindAsync(id, cancel))!, estate!, user, passwordService, queue, time, cancel);
    }

    /// <summary>Lines up the job that makes the steps that are ours.</summary>
    private static async Task<Accepted<RenewalView>> GoOnAsync(
        RenewalRow row, Estate estate, ClaimsPrincipal user, PasswordService passwordService, JobQueue queue, TimeProvider time,
        CancellationToken cancel)
    {
        var job = await queue.AddAsync(
            new JobOrder(JobKind.Renew, row.Estate, user.Identity!.Name!) { OrderJson = row.Id }, cancel);
        var places = (await passwordService.ReadAsync(estate, cancel)).PlacesOf(row.Account);
        return TypedResults.Accepted($"/api/renewals/{row.Id}", PasswordViews.Of(row, estate, places, job.Id, time.GetUtcNow()));
    }

    private static async Task<RenewalView> ViewAsync(
        RenewalRow row, Estate estate, PasswordService passwordService, JobQueue queue, TimeProvider time,
        CancellationToken cancel) =>
        PasswordViews.Of(
            row, estate, (await passwordService.ReadAsync(estate, cancel)).PlacesOf(row.Account),
            await queue.RunningAsync(JobKind.Renew, row.Id, cancel), time.GetUtcNow());

    /// <summary>While a job makes steps nobody decides about them.</summary>
    private static async Task<ProblemHttpResult?> BusyAsync(RenewalRow row, JobQueue queue, CancellationToken cancel) =>
        await queue.RunningAsync(JobKind.Renew, row.Id, cancel) is null
            ? null
            : Problems.Of(409, "busy", "Steps of this renewal are being made now.", "Wait for them to end.");

    private static async Task<(RenewalRow? Row, Estate? Estate)> FindAsync(
        string id, RenewalStore renewals, Library library, CancellationToken cancel) =>
        await renewals.FindAsync(id, cancel) is { } row
            ? (row, await PasswordEndpoints.EstateAsync(row.Estate, library, cancel))
            : (null, null);
}
