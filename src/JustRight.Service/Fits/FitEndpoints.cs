using JustRight.Contracts;
using JustRight.Service.Answers;
using JustRight.Service.Documents;
using JustRight.Service.Secrets;
using JustRight.Service.Views;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Fits;

/// <summary>Plans, fits and worklists.</summary>
internal static class FitEndpoints
{
    public static void MapFits(this IEndpointRouteBuilder api)
    {
        api.MapGet("/installs/{name}/plan", async Task<Results<Ok<PlanView>, ProblemHttpResult>> (
            string name, Library library, FitService fitService, CancellationToken cancel) =>
        {
            if (await MissingAsync(name, library, cancel) is { } missing) return missing;
            var (plan, estate) = await fitService.PlanAsync(name, cancel);
            return TypedResults.Ok(PlanViews.Of(plan, estate));
        }).WithName("ShowPlan").WithSummary("The plan of an install").RequireAuthorization(Roles.Reader).ProducesProblem(404)
            .ProducesProblem(400);

        api.MapGet("/installs/{name}/fit", async Task<Results<Ok<FitView>, ProblemHttpResult>> (
            string name, Library library, FitService fitService, CancellationToken cancel) =>
            await JudgedAsync(name, library, fitService, cancel) switch
            {
                (null, { } problem) => problem,
                ({ } judged, _) => TypedResults.Ok(FitViews.Of(judged.Fit)),
                _ => throw new InvalidOperationException(),
            }).WithName("ShowFit").WithSummary("The fit of an install from the latest survey").RequireAuthorization(Roles.Reader)
                .ProducesProblem(404).ProducesProblem(409);

        api.MapGet("/installs/{name}/worklist", async Task<Results<Ok<WorklistView>, ProblemHttpResult>> (
            string name, Library library, FitService fitService, SecretStore secrets, CancellationToken cancel) =>
            await JudgedAsync(name, library, fitService, cancel) switch
            {
                (null, { } problem) => problem,
                ({ } judged, _) => TypedResults.Ok(FitViews.Worklist(
                    judged, await AskedPasswords.UnknownAsync(judged.Worklist.Give, secrets, cancel))),
                _ => throw new InvalidOperationException(),
            }).WithName("ShowWorklist").WithSummary("The steps that are left").RequireAuthorization(Roles.Reader)
                .ProducesProblem(404).ProducesProblem(409);

        api.MapGet("/installs/{name}/ldif", async Task<Results<Ok<LdifView>, ProblemHttpResult>> (
            string name, bool? remove, Library library, FitService fitService, SurveyStore surveys, CancellationToken cancel) =>
            await JudgedAsync(name, library, fitService, cancel) switch
            {
                (null, { } problem) => problem,
                ({ } judged, _) =>
                    TypedResults.Ok(new LdifView(
                        name, remove == true,
                        LdifFiles.Write(judged, (await surveys.LatestAsync(judged.Fit.Plan.Estate, cancel))!, remove == true))),
                _ => throw new InvalidOperationException(),
            }).WithName("ShowLdif").WithSummary("The directory part of the worklist as LDIF, for an ordinary LDAP client")
                .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);

        api.MapGet("/installs/{name}/why/{account}", WhyAsync)
            .WithName("Why").WithSummary("The rights of one account, those that match a text, with paths and reasons")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);
    }

    /// <summary>The problem of an install that is not in Just Right, or null.</summary>
    public static async Task<ProblemHttpResult?> MissingAsync(string name, Library library, CancellationToken cancel) =>
        await library.FindAsync(Library.InstallKind, name, cancel) is null
            ? Problems.NotFound("install", name, (await library.ListAsync(Library.InstallKind, cancel)).Select(d => d.Name))
            : null;

    private static async Task<Results<Ok<IReadOnlyList<JudgementView>>, ProblemHttpResult>> WhyAsync(
        string name, string account, string? right, Library library, FitService fitService, CancellationToken cancel)
    {
        var (judged, problem) = await JudgedAsync(name, library, fitService, cancel);
        if (problem is not null) return problem;
        var accounts = judged!.Fit.Accounts;
        var found = accounts.FirstOrDefault(a =>
            string.Equals(a.Account.Key, account, StringComparison.OrdinalIgnoreCase)
                || string.Equals(a.Account.Name, account, StringComparison.OrdinalIgnoreCase));
        if (found is null)
            return Problems.NotFound("account", account, accounts.SelectMany(a => new[] { a.Account.Key, a.Account.Name }));
        var words = (right ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var matching = found.Judgements.Where(j =>
            words.All(w => $"{j.Right} {j.Right.Key} {j.Verdict}".Contains(w, StringComparison.OrdinalIgnoreCase)))
            .ToList();
        return matching.Count == 0
            ? Problems.NotFound("right", right ?? "", found.Judgements.Select(j => j.Right.Words))
            : TypedResults.Ok<IReadOnlyList<JudgementView>>([.. matching.Select(j => FitViews.Of(j, found.Account.Name))]);
    }

    /// <summary>An install judged by the latest survey, or the problem that stands in its way.</summary>
    public static async Task<(JudgedInstall? Judged, ProblemHttpResult? Problem)> JudgedAsync(
        string name, Library library, FitService fitService, CancellationToken cancel)
    {
        if (await MissingAsync(name, library, cancel) is { } missing) return (null, missing);
        return await fitService.JudgeAsync(name, cancel) is { } judged
            ? (judged, null)
            : (
                null,
                Problems.Of(
                    409, "not-surveyed", $"No survey of this estate was taken yet.",
                    $"Verify the install first: justright verify {name}"));
    }
}
