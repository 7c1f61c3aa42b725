using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Core.Fit.Confirmations;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Confirmations;

/// <summary>People's words on what no survey reads.</summary>
internal static class ConfirmationEndpoints
{
    private const int LongestName = 128;

    public static void MapConfirmations(this IEndpointRouteBuilder api)
    {
        api.MapGet("/installs/{name}/confirmations", ListConfirmationsAsync)
            .WithName("ListConfirmations").WithSummary("What people confirmed inside the product, newest first")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
        api.MapPost("/installs/{name}/confirmations", AddAsync)
            .WithName("Confirm").WithSummary("Records whether a person saw that an account has an identity inside the product")
            .RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<IReadOnlyList<ConfirmationView>>, ProblemHttpResult>> ListConfirmationsAsync(
        string name, Library library, ConfirmationStore confirmationStore, CancellationToken cancel) =>
        await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing
            ? missing
            : TypedResults.Ok(await confirmationStore.ListAsync(name, cancel));

    private static async Task<Results<Ok<IReadOnlyList<JudgementView>>, ProblemHttpResult>> AddAsync(
        string name, ConfirmationOrder order, ClaimsPrincipal user, JudgedOrNot fits, FitService fitService, SurveyStore surveys,
        ConfirmationStore confirmationStore, TimeProvider time, CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return problem;
        var plan = judged!.Fit.Plan;
        if (plan.Accounts.FirstOrDefault(a => Same(a.Key, order.Account) || Same(a.Name, order.Account)) is not { } account)
            return Problems.NotFound("account", order.Account, plan.Accounts.SelectMany(a => new[] { a.Key, a.Name }));
        var mappings = plan.GrantsOf(account.Key).Where(g => g.Right.Inside is not null).ToList();
        if (mappings.FirstOrDefault(g => Same(g.Right.Inside!.Identity, order.Role)) is not { } grant)
            return Problems.NotFound("identity inside the product", order.Role, mappings.Select(g => g.Right.Inside!.Identity));
        var seenBy = order.SeenBy?.Trim() is { Length: > 0 } named ? named : user.Identity!.Name!;
        if (seenBy.Length > LongestName || seenBy.Any(char.IsControl))
            return Problems.Of(
                400, "bad-name", "seenBy is not a person's name.", $"Give at most {LongestName} characters on one line.");

        var (right, now, principal) = (grant.Right.Inside!, time.GetUtcNow(), ProductRoleJudge.PrincipalOf(plan, account, grant));
        var graph = (await surveys.LatestAsync(plan.Estate, cancel))!.Graph;
        var node = graph.IndexOf(principal);
        await confirmationStore.AddAsync(
            new Confirmation(
                name, grant.Id, principal, node < 0 ? null : graph.SidOf(node), right.Lets, order.Held, seenBy, now,
                now + right.ConfirmedFor),
            account.Key, right.Identity, user.Identity!.Name!, cancel);
        var again = (await fitService.JudgeAsync(name, cancel))!.Fit.Accounts.First(a => a.Account.Key == account.Key);
        return TypedResults.Ok<IReadOnlyList<JudgementView>>(
            [.. again.Judgements.Where(j => j.Id == grant.Id).Select(j => FitViews.Of(j, account.Name))]);
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
