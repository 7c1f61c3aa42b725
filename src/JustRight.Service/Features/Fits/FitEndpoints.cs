using JustRight.Contracts;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Data.Views;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Fits;

/// <summary>Plans, fits and worklists.</summary>
internal static class FitEndpoints
{
    public static void MapFits(this IEndpointRouteBuilder api)
    {
        api.MapGet("/installs/{name}/plan", PlanAsync)
            .WithName("ShowPlan").WithSummary("The plan of an install")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(400);
        api.MapGet("/installs/{name}/fit", FitAsync)
            .WithName("ShowFit").WithSummary("The fit of an install from the latest survey")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);
        api.MapGet("/installs/{name}/matrix", MatrixAsync)
            .WithName("ShowMatrix").WithSummary("The fit as a matrix, rights that are alike as one line")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);
        api.MapGet("/installs/{name}/matrix/line", LineAsync)
            .WithName("ShowMatrixLine").WithSummary("The rights of one line of the matrix, all of them")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);
        api.MapGet("/installs/{name}/matrix/right", RightAsync)
            .WithName("ShowRight").WithSummary("The verdict on one right, by its identifier")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);
        api.MapGet("/installs/{name}/worklist", WorklistAsync)
            .WithName("ShowWorklist").WithSummary("The steps that are left")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);
        api.MapGet("/installs/{name}/ldif", LdifAsync)
            .WithName("ShowLdif").WithSummary("The directory part of the worklist as LDIF, for an ordinary LDAP client")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).OfRealInstalls("No LDIF is written");
        api.MapGet("/installs/{name}/why/{account}", WhyAsync)
            .WithName("Why").WithSummary("The rights of one account, those that match a text, with paths and reasons")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<PlanView>, ProblemHttpResult>> PlanAsync(
        string name, Library library, FitService fitService, CancellationToken cancel)
    {
        if (await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing) return missing;
        var (plan, estate) = await fitService.PlanAsync(name, cancel);
        return TypedResults.Ok(PlanViews.Of(plan, estate));
    }

    private static async Task<Results<Ok<FitView>, ProblemHttpResult>> FitAsync(
        string name, JudgedOrNot fits, CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return problem;
        return TypedResults.Ok(FitViews.Of(judged!.Fit));
    }

    private static async Task<Results<Ok<MatrixView>, ProblemHttpResult>> MatrixAsync(
        string name, [AsParameters] MatrixQuery asked, JudgedOrNot fits, CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return problem;
        return TypedResults.Ok(new MatrixMaker(judged!.Fit, asked).Make());
    }

    private static async Task<Results<Ok<IReadOnlyList<JudgementView>>, ProblemHttpResult>> LineAsync(
        string name, string account, string column, string right, [AsParameters] MatrixQuery asked, JudgedOrNot fits,
        CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return problem;
        return new MatrixMaker(judged!.Fit, asked).Line(account, column, right) is { } rights
            ? TypedResults.Ok(rights)
            : Problems.NotFound("line of the matrix", $"{account}, {column}, {right}", []);
    }

    private static async Task<Results<Ok<JudgementView>, ProblemHttpResult>> RightAsync(
        string name, string id, JudgedOrNot fits, CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return problem;
        return new MatrixMaker(judged!.Fit, new MatrixQuery()).Right(id) is { } right
            ? TypedResults.Ok(right)
            : Problems.NotFound("right", id, []);
    }

    private static async Task<Results<Ok<WorklistView>, ProblemHttpResult>> WorklistAsync(
        string name, JudgedOrNot fits, Library library, SecretStore secrets, CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return problem;
        var estate = (await library.EstateAsync(judged!.Fit.Plan.Estate, cancel))!;
        var unknown = await AskedPasswords.UnknownAsync(estate, judged.Worklist.Give, secrets, cancel);
        return TypedResults.Ok(FitViews.Worklist(judged, unknown));
    }

    private static async Task<Results<Ok<LdifView>, ProblemHttpResult>> LdifAsync(
        string name, bool? remove, JudgedOrNot fits, SurveyStore surveys, CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return problem;
        var survey = (await surveys.LatestAsync(judged!.Fit.Plan.Estate, cancel))!;
        return TypedResults.Ok(new LdifView(name, remove == true, LdifFiles.Write(judged, survey, remove == true)));
    }

    private static async Task<Results<Ok<IReadOnlyList<JudgementView>>, ProblemHttpResult>> WhyAsync(
        string name, string account, string? right, JudgedOrNot fits, CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return problem;
        var accounts = judged!.Fit.Accounts;
        bool IsAsked(string called) => string.Equals(called, account, StringComparison.OrdinalIgnoreCase);
        if (accounts.FirstOrDefault(a => IsAsked(a.Account.Key) || IsAsked(a.Account.Name)) is not { } found)
            return Problems.NotFound("account", account, accounts.SelectMany(a => new[] { a.Account.Key, a.Account.Name }));
        var words = (right ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var matching = found.Judgements
            .Where(j => words.All(w => $"{j.Right} {j.Right.Key} {j.Verdict}".Contains(w, StringComparison.OrdinalIgnoreCase)))
            .ToList();
        if (matching.Count == 0) return Problems.NotFound("right", right ?? "", found.Judgements.Select(j => j.Right.Words));
        return TypedResults.Ok<IReadOnlyList<JudgementView>>([.. matching.Select(j => FitViews.Of(j, found.Account.Name))]);
    }
}
