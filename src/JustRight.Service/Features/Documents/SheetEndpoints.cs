using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Core.Installs;
using JustRight.Formats.Sheets;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Views;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Documents;

/// <summary>Sheets: check, add, list, show.</summary>
internal static class SheetEndpoints
{
    private const string Unnamed = "sheet.yaml";

    public static void MapSheets(this IEndpointRouteBuilder api)
    {
        api.MapPost("/sheets/check", CheckAsync)
            .WithName("CheckSheet")
            .WithSummary("Checks a sheet without storing it; the body is the file, or a DocumentOrder as JSON")
            .AcceptsDocument().RequireAuthorization(Roles.Reader).ProducesProblem(400);
        api.MapPost("/sheets", AddAsync)
            .WithName("AddSheet").WithSummary("Checks and stores a sheet; the body is the file, or a DocumentOrder as JSON")
            .AcceptsDocument().RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(409);
        api.MapGet("/sheets", ListAsync)
            .WithName("ListSheets").WithSummary("The sheets").RequireAuthorization(Roles.Reader);
        api.MapGet("/sheets/{name}", ShowAsync)
            .WithName("ShowSheet").WithSummary("One sheet with its text")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
        api.MapGet("/sheets/{name}/asked", AskAsync)
            .WithName("AskForInstall")
            .WithSummary("What an install of a sheet in an estate has to say, with what the estate has that would do")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
    }

    private static async Task<Results<Ok<SheetView>, ProblemHttpResult>> CheckAsync(
        string? file, HttpRequest request, CancellationToken cancel)
    {
        var sent = await Upload.ReadAsync(request, file, Unnamed, cancel);
        var (sheet, faults) = SheetReader.Read(sent.Bytes, sent.File);
        return sheet is null ? Problems.Of(faults) : TypedResults.Ok(DocumentViews.Of(sheet, sent.Text, null));
    }

    private static async Task<Results<Ok<SheetView>, ProblemHttpResult>> AddAsync(
        string? file, HttpRequest request, ClaimsPrincipal user, Library library, DocumentApprovals approvals,
        CancellationToken cancel)
    {
        var sent = await Upload.ReadAsync(request, file, Unnamed, cancel);
        var (sheet, faults) = SheetReader.Read(sent.Bytes, sent.File);
        if (sheet is null) return Problems.Of(faults);
        if (await approvals.WaitsAsync(sheet, sent.Text, user.Identity!.Name!, cancel) is { } waits) return waits;
        await library.SaveAsync(Library.SheetKind, sheet.Name, sent.File, sent.Text, user.Identity!.Name!, cancel);
        var row = await library.FindAsync(Library.SheetKind, sheet.Name, cancel);
        return TypedResults.Ok(DocumentViews.Of(sheet, sent.Text, row));
    }

    private static async Task<Ok<IReadOnlyList<SheetSummary>>> ListAsync(Library library, CancellationToken cancel)
    {
        var rows = await library.ListAsync(Library.SheetKind, cancel);
        return TypedResults.Ok<IReadOnlyList<SheetSummary>>([.. rows.Select(r => DocumentViews.Of(r, Library.OpenSheet(r)))]);
    }

    private static async Task<Results<Ok<SheetView>, ProblemHttpResult>> ShowAsync(
        string name, Library library, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.SheetKind, name, cancel) is { } row)
            return TypedResults.Ok(DocumentViews.Of(Library.ReadSheet(row), row.Text, row));
        return (await library.MissingAsync(Library.SheetKind, name, cancel))!;
    }

    private static async Task<Results<Ok<InstallAskedView>, ProblemHttpResult>> AskAsync(
        string name, string estate, Library library, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.SheetKind, name, cancel) is not { } row)
            return (await library.MissingAsync(Library.SheetKind, name, cancel))!;
        if (await library.EstateAsync(estate, cancel) is not { } read) return await library.NoEstateAsync(estate, cancel);
        var sheet = Library.ReadSheet(row);
        return TypedResults.Ok(new InstallAskedView(
            sheet.Name, sheet.Product, sheet.Release, estate, $"{sheet.Product}-{estate}",
            [.. OpenQuestions.Of(sheet, read).Select(AskedViews.Of)]));
    }
}
