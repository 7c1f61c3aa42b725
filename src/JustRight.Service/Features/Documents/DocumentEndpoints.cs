using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Formats.Estates;
using JustRight.Formats.Installs;
using JustRight.Formats.Sheets;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Summaries;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Data.Views;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Jobs.Schedules;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Documents;

/// <summary>Sheets, estates and installs: check, add, list, show.</summary>
internal static class DocumentEndpoints
{
    private static readonly string[] InstallStages = ["planned", "installed", "retiring"];

    public static void MapDocuments(this IEndpointRouteBuilder api)
    {
        MapSheets(api);
        MapEstates(api);
        MapInstalls(api);
    }

    private static void MapSheets(IEndpointRouteBuilder api)
    {
        api.MapPost(
            "/sheets/check", async Task<Results<Ok<SheetView>, ProblemHttpResult>> (
            string? file, HttpRequest request, CancellationToken cancel) =>
        {
            var sent = await Upload.ReadAsync(request, file, "sheet.yaml", cancel);
            var (sheet, faults) = SheetReader.Read(sent.Bytes, sent.File);
            return sheet is null ? Problems.Of(faults) : TypedResults.Ok(DocumentViews.Of(sheet, sent.Text, null));
        }).WithName("CheckSheet")
            .WithSummary("Checks a sheet without storing it; the body is the file, or a DocumentOrder as JSON")
            .AcceptsDocument().RequireAuthorization(Roles.Reader).ProducesProblem(400);

        api.MapPost(
            "/sheets", async Task<Results<Ok<SheetView>, ProblemHttpResult>> (
            string? file, HttpRequest request, ClaimsPrincipal user, Library library, DocumentApprovals approvals,
            CancellationToken cancel) =>
        {
            var sent = await Upload.ReadAsync(request, file, "sheet.yaml", cancel);
            var (sheet, faults) = SheetReader.Read(sent.Bytes, sent.File);
            if (sheet is null) return Problems.Of(faults);
            if (await approvals.WaitsAsync(sheet, sent.Text, user.Identity!.Name!, cancel) is { } waits) return waits;
            await library.SaveAsync(Library.SheetKind, sheet.Name, sent.File, sent.Text, user.Identity!.Name!, cancel);
            return TypedResults.Ok(
                DocumentViews.Of(sheet, sent.Text, await library.FindAsync(Library.SheetKind, sheet.Name, cancel)));
        }).WithName("AddSheet").WithSummary("Checks and stores a sheet; the body is the file, or a DocumentOrder as JSON")
            .AcceptsDocument().RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(409);

        api.MapGet("/sheets", async (Library library, CancellationToken cancel) =>
        {
            var rows = await library.ListAsync(Library.SheetKind, cancel);
            return TypedResults.Ok<IReadOnlyList<SheetSummary>>([.. rows.Select(r => DocumentViews.Of(r, Library.OpenSheet(r)))]);
        }).WithName("ListSheets").WithSummary("The sheets").RequireAuthorization(Roles.Reader);

        api.MapGet(
            "/sheets/{name}", async Task<Results<Ok<SheetView>, ProblemHttpResult>> (
            string name, Library library, CancellationToken cancel) =>
        {
            if (await library.FindAsync(Library.SheetKind, name, cancel) is { } row) return TypedResults.Ok(
                DocumentViews.Of(Library.ReadSheet(row), row.Text, row));
            return Problems.NotFound("sheet", name, (await library.ListAsync(Library.SheetKind, cancel)).Select(d => d.Name));
        }).WithName("ShowSheet").WithSummary("One sheet with its text").RequireAuthorization(Roles.Reader).ProducesProblem(404);
    }

    private static void MapEstates(IEndpointRouteBuilder api)
    {
        api.MapPost(
            "/estates/check", async Task<Results<Ok<EstateView>, ProblemHttpResult>> (
            string? file, HttpRequest request, CancellationToken cancel) =>
        {
            var sent = await Upload.ReadAsync(request, file, "estate.yaml", cancel);
            var (estate, faults) = EstateReader.Read(sent.Bytes, sent.File);
            return estate is null ? Problems.Of(faults) : TypedResults.Ok(
                new EstateView(DocumentViews.Summary(estate, null), sent.Text, null));
        }).WithName("CheckEstate")
            .WithSummary("Checks an estate without storing it; the body is the file, or a DocumentOrder as JSON")
            .AcceptsDocument().RequireAuthorization(Roles.Reader).ProducesProblem(400);

        api.MapPost(
            "/estates", async Task<Results<Ok<EstateView>, ProblemHttpResult>> (
            string? file, HttpRequest request, ClaimsPrincipal user, Library library, SchedulePlan watch,
            DocumentApprovals approvals, CancellationToken cancel) =>
        {
            var sent = await Upload.ReadAsync(request, file, "estate.yaml", cancel);
            var (estate, faults) = EstateReader.Read(sent.Bytes, sent.File);
            if (estate is null) return Problems.Of(faults);
            if (await approvals.WaitsAsync(estate, sent.Text, user.Identity!.Name!, cancel) is { } waits) return waits;
            await library.SaveAsync(Library.EstateKind, estate.Name, sent.File, sent.Text, user.Identity!.Name!, cancel);
            await watch.FollowAsync(estate, cancel);
            var row = await library.FindAsync(Library.EstateKind, estate.Name, cancel);
            return TypedResults.Ok(new EstateView(DocumentViews.Summary(estate, row), sent.Text, null));
        }).WithName("AddEstate").WithSummary("Checks and stores an estate; the body is the file, or a DocumentOrder as JSON")
            .AcceptsDocument().RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(409);

        api.MapGet("/estates", async (Library library, CancellationToken cancel) =>
        {
            var rows = await library.ListAsync(Library.EstateKind, cancel);
            return TypedResults.Ok<IReadOnlyList<EstateSummary>>(
                [.. rows.Select(r => DocumentViews.Of(r, Library.OpenEstate(r)))]);
        }).WithName("ListEstates").WithSummary("The estates").RequireAuthorization(Roles.Reader);

        api.MapGet(
            "/estates/{name}", async Task<Results<Ok<EstateView>, ProblemHttpResult>> (
            string name, Library library, SurveyStore surveys, CancellationToken cancel) =>
        {
            if (await library.FindAsync(Library.EstateKind, name, cancel) is { } row)
                return TypedResults.Ok(
                    new EstateView(
                    DocumentViews.Summary(Library.ReadEstate(row), row), row.Text, await surveys.LatestAsync(
                    name, cancel) is { } survey ? FitViews.Of(survey.Survey) : null));
            return Problems.NotFound("estate", name, (await library.ListAsync(Library.EstateKind, cancel)).Select(d => d.Name));
        }).WithName("ShowEstate").WithSummary("One estate with its text and its last survey")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
    }

    private static void MapInstalls(IEndpointRouteBuilder api)
    {
        api.MapPost(
            "/installs", async Task<Results<Ok<InstallView>, ProblemHttpResult>> (
            string? file, HttpRequest request, ClaimsPrincipal user, Library library, FitService fitService,
                SummaryMaker summaries,
            DocumentApprovals approvals, CancellationToken cancel) =>
        {
            var sent = await Upload.ReadAsync(request, file, "install.yaml", cancel);
            var (install, faults) = InstallReader.Read(sent.Bytes, sent.File);
            if (install is null) return Problems.Of(faults);
            faults = await fitService.WhyNotPlannedAsync(install, cancel);
            if (faults.Count > 0) return Problems.Of(faults);
            if (await approvals.WaitsAsync(install, sent.Text, user.Identity!.Name!, cancel) is { } waits) return waits;
            await library.SaveAsync(Library.InstallKind, install.Name, sent.File, sent.Text, user.Identity!.Name!, cancel);
            return TypedResults.Ok(new InstallView(await summaries.NowAsync(install.Name, cancel), sent.Text));
        }).WithName("AddInstall").WithSummary(
            "Checks that an install can be planned, and stores it; the body is the file, or a DocumentOrder as JSON")
            .AcceptsDocument().RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(409);

        api.MapPost(
            "/installs/{name}/stage", async Task<Results<Ok<InstallView>, ProblemHttpResult>> (
            string name, StageOrder order, ClaimsPrincipal user, Library library, SummaryMaker summaries,
            DocumentApprovals approvals, CancellationToken cancel) =>
        {
            if (await library.FindAsync(Library.InstallKind, name, cancel) is not { } row) return Problems.NotFound(
                "install", name, (await library.ListAsync(Library.InstallKind, cancel)).Select(d => d.Name));
            if (!InstallStages.Contains(order.Stage)) return Problems.Bad(
                "stage", $"'{order.Stage}' is not a stage of an install.", string.Join(", ", InstallStages));
            var (text, faults) = StageLine.Set(row.Text, order.Stage, row.File);
            if (text is null) return Problems.Of(faults);
            if (text != row.Text && await approvals.StageWaitsAsync(
                row, order.Stage, user.Identity!.Name!, cancel) is { } waits) return waits;
            if (text != row.Text) await library.SaveAsync(
                Library.InstallKind, name, row.File, text, user.Identity!.Name!, cancel);
            return TypedResults.Ok(
                new InstallView(
                await summaries.NowAsync(name, cancel), text));
        }).WithName("SetStage").WithSummary("Sets the stage of an install: planned, installed or retiring")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(400).ProducesProblem(409);

        api.MapGet(
            "/installs/{name}", async Task<Results<Ok<InstallView>, ProblemHttpResult>> (
            string name, Library library, SummaryMaker summaries, CancellationToken cancel) =>
        {
            if (await library.FindAsync(Library.InstallKind, name, cancel) is { } row) return TypedResults.Ok(
                new InstallView(await summaries.NowAsync(name, cancel), row.Text));
            return Problems.NotFound("install", name, (await library.ListAsync(Library.InstallKind, cancel)).Select(d => d.Name));
        }).WithName("ShowInstall").WithSummary("One install with its text")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
    }

    private static RouteHandlerBuilder AcceptsDocument(this RouteHandlerBuilder endpoint) =>
        endpoint.Accepts<string>("application/yaml", "text/plain", "application/json");
}
