using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using SecretStore = JustRight.Service.Data.Secrets.SecretStore;

namespace JustRight.Service.Features.Confirmations;

/// <summary>People's words on what no survey reads.</summary>
internal static class ConfirmationEndpoints
{
    private const int LongestName = 128;
    private const int LongestProof = 2_000;

    public static void MapConfirmations(this IEndpointRouteBuilder api)
    {
        api.MapGet("/installs/{name}/confirmations", ListConfirmationsAsync)
            .WithName("ListConfirmations")
            .WithSummary("What people confirmed where no survey reads, with their proofs, newest first")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
        api.MapPost("/installs/{name}/confirmations", AddAsync)
            .WithName("Confirm").WithSummary("Records what a person saw: an identity inside the product, or a task that is done")
            .RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
        api.MapDelete("/installs/{name}/confirmations/{number}/proof", EraseProofAsync)
            .WithName("EraseProof").WithSummary("Erases what a person wrote as proof; the word and the hash of the proof stay")
            .RequireAuthorization(Roles.Owner).ProducesProblem(404);
    }

    private static async Task<Results<Ok<IReadOnlyList<ConfirmationView>>, ProblemHttpResult>> ListConfirmationsAsync(
        string name, Library library, ConfirmationStore confirmationStore, CancellationToken cancel) =>
        await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing
            ? missing
            : TypedResults.Ok(await confirmationStore.ListAsync(name, cancel));

    private static async Task<Results<Ok<IReadOnlyList<JudgementView>>, ProblemHttpResult>> AddAsync(
        string name, ConfirmationOrder order, ClaimsPrincipal user, JudgedOrNot fits, FitService fitService, SurveyStore surveys,
        ConfirmationStore confirmationStore, SecretStore secrets, TimeProvider time, CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return problem;
        var plan = judged!.Fit.Plan;
        var (found, notFound) = AskedOf(plan, order);
        if (notFound is not null) return notFound;
        var (account, grant) = found!.Value;
        var seenBy = order.SeenBy?.Trim() is { Length: > 0 } named ? named : user.Identity!.Name!;
        if (seenBy.Length > LongestName || seenBy.Any(char.IsControl))
            return Problems.Of(
                400, "bad-name", "seenBy is not a person's name.", $"Give at most {LongestName} characters on one line.");

        var (asked, now, principal) = (grant.Right.Confirmable!, time.GetUtcNow(), PersonJudge.PrincipalOf(plan, account, grant));
        var proof = order.Proof?.Trim() is { Length: > 0 } written ? written : null;
        if (await WhyNoProofAsync(asked, order.Held, proof, secrets, cancel) is { } refused) return refused;
        var graph = (await surveys.LatestAsync(plan.Estate, cancel))!.Graph;
        var node = graph.IndexOf(principal);
        await confirmationStore.AddAsync(
            new Confirmation(
                name, grant.Id, principal, node < 0 ? null : graph.SidOf(node), asked.Details, order.Held, seenBy, now,
                now + asked.ConfirmedFor),
            account.Key, asked, proof, user.Identity!.Name!, cancel);
        var again = (await fitService.JudgeAsync(name, cancel))!.Fit.Accounts.First(a => a.Account.Key == account.Key);
        return TypedResults.Ok<IReadOnlyList<JudgementView>>(
            [.. again.Judgements.Where(j => j.Id == grant.Id).Select(j => FitViews.Of(j, account.Name))]);
    }

    /// <summary>What an order is about, or why nothing is.</summary>
    private static ((PlannedAccount Account, PlannedGrant Grant)? Found, ProblemHttpResult? Problem) AskedOf(
        Plan plan, ConfirmationOrder order)
    {
        if (plan.Accounts.FirstOrDefault(a => Same(a.Key, order.Account) || Same(a.Name, order.Account)) is not { } account)
            return (null, Problems.NotFound("account", order.Account, plan.Accounts.SelectMany(a => new[] { a.Key, a.Name })));
        var all = plan.GrantsOf(account.Key).Where(g => g.Right.Confirmable is not null).ToList();
        var named = all.Where(g => Same(g.Right.Confirmable!.Name, order.Role)).ToList();
        if (named.Count == 0)
            return (null, Problems.NotFound(
                "identity inside the product, and no task,", order.Role, all.Select(g => g.Right.Confirmable!.Name)));
        var places = named.Select(g => g.Right.Place).ToList();
        if (order.Place is { } place) named = [.. named.Where(g => Same(g.Right.Place, place))];
        else if (named.Count == 1) return ((account, named[0]), null);
        return named.Count == 1
            ? ((account, named[0]), null)
            : (null, Problems.Bad(
                "place", $"'{order.Role}' is not done there, or at several places.",
                "one of " + string.Join(", ", places),
                order.Place));
    }

    /// <summary>Why a word is not taken with this as its proof; null when it is.</summary>
    private static async Task<ProblemHttpResult?> WhyNoProofAsync(
        Confirmable asked, bool held, string? proof, SecretStore secrets, CancellationToken cancel)
    {
        if (proof is null)
            return held && asked is TaskAsked task
                ? Problems.Bad("proof", "A task needs a proof.", $"how it was seen that it is done: {task.DoneWhen}")
                : null;
        if (proof.Length > LongestProof || proof.Any(c => char.IsControl(c) && c is not ('\n' or '\r' or '\t')))
            return Problems.Bad("proof", "This proof cannot be kept.", $"plain text of at most {LongestProof} characters");
        var looks = SecretLook.Of(proof) ?? (await secrets.IsAnyInAsync(proof, cancel) ? "a secret that is kept here" : null);
        return looks is null
            ? null
            : Problems.Of(
                400, "looks-like-a-secret", $"This proof was not kept: it looks like it holds {looks}.",
                "Say how you saw that it is done, without the secret. If it is one that others could have read, change it.");
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> EraseProofAsync(
        string name, int number, ClaimsPrincipal user, Library library, ConfirmationStore confirmationStore,
        CancellationToken cancel)
    {
        if (await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing) return missing;
        if (await confirmationStore.EraseProofAsync(name, number, user.Identity!.Name!, cancel)) return TypedResults.NoContent();
        var kept = (await confirmationStore.ListAsync(name, cancel)).Where(c => c.Proof is not null);
        return Problems.NotFound("confirmation with a proof", $"{number}", kept.Select(c => $"{c.Number}"));
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
