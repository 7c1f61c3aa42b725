using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Formats.Estates;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Data.Views;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Jobs.Schedules;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Documents;

/// <summary>Estates: check, add, list, show.</summary>
internal static class EstateEndpoints
{
    private const string Unnamed = "estate.yaml";

    public static void MapEstates(this IEndpointRouteBuilder api)
    {
        api.MapPost("/estates/check", CheckAsync)
            .WithName("CheckEstate")
            .WithSummary("Checks an estate without storing it; the body is the file, or a DocumentOrder as JSON")
            .AcceptsDocument().RequireAuthorization(Roles.Reader).ProducesProblem(400);
        api.MapPost("/estates", AddAsync)
            .WithName("AddEstate").WithSummary("Checks and stores an estate; the body is the file, or a DocumentOrder as JSON")
            .AcceptsDocument().RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(409);
        api.MapGet("/estates", ListAsync)
            .WithName("ListEstates").WithSummary("The estates").RequireAuthorization(Roles.Reader);
        api.MapGet("/estates/{name}", ShowAsync)
            .WithName("ShowEstate").WithSummary("One estate with its text and its last survey")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
    }

    private static async Task<Results<Ok<EstateView>, ProblemHttpResult>> CheckAsync(
        string? file, HttpRequest request, CancellationToken cancel)
    {
        var sent = await Upload.ReadAsync(request, file, Unnamed, cancel);
        var (estate, faults) = EstateReader.Read(sent.Bytes, sent.File);
        if (estate is null) return Problems.Of(faults);
        return TypedResults.Ok(new EstateView(DocumentViews.Summary(estate, null), sent.Text, null));
    }

    private static async Task<Results<Ok<EstateView>, ProblemHttpResult>> AddAsync(
        string? file, HttpRequest request, ClaimsPrincipal user, Library library, SchedulePlan schedule,
        DocumentApprovals approvals, CancellationToken cancel)
    {
        var sent = await Upload.ReadAsync(request, file, Unnamed, cancel);
        var (estate, faults) = EstateReader.Read(sent.Bytes, sent.File);
        if (estate is null) return Problems.Of(faults);
        if (estate.Rehearses is { } of)
            return Problems.Of(
                409, "rehearsal", "A rehearsal is made from its estate, and changed with it.",
                $"Change {of}, then lay the rehearsal anew: justright estate rehearse {of} --fresh");
        if (await approvals.WaitsAsync(estate, sent.Text, user.Identity!.Name!, cancel) is { } waits) return waits;
        await library.SaveAsync(Library.EstateKind, estate.Name, sent.File, sent.Text, user.Identity!.Name!, cancel);
        await schedule.FollowAsync(estate, cancel);
        var row = await library.FindAsync(Library.EstateKind, estate.Name, cancel);
        return TypedResults.Ok(new EstateView(DocumentViews.Summary(estate, row), sent.Text, null));
    }

    private static async Task<Ok<IReadOnlyList<EstateSummary>>> ListAsync(Library library, CancellationToken cancel)
    {
        var rows = await library.ListAsync(Library.EstateKind, cancel);
        return TypedResults.Ok<IReadOnlyList<EstateSummary>>([.. rows.Select(r => DocumentViews.Of(r, Library.OpenEstate(r)))]);
    }

    private static async Task<Results<Ok<EstateView>, ProblemHttpResult>> ShowAsync(
        string name, Library library, SurveyStore surveys, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.EstateKind, name, cancel) is not { } row)
            return await library.NoEstateAsync(name, cancel);
        var survey = await surveys.LatestAsync(name, cancel);
        return TypedResults.Ok(new EstateView(
            DocumentViews.Summary(Library.ReadEstate(row), row), row.Text, survey is null ? null : FitViews.Of(survey.Survey)));
    }
}
