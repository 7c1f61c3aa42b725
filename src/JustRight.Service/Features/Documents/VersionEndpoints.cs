using System.ComponentModel.DataAnnotations;
using JustRight.Contracts;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Documents;

/// <summary>The texts that a document had: listed, shown, compared. Those of one that was removed are still there.</summary>
internal static class VersionEndpoints
{
    public static void MapVersions(this IEndpointRouteBuilder api)
    {
        api.MapGet("/documents/{kind}/{name}/versions", ListAsync)
            .WithName("ListVersions").WithSummary("The versions of a sheet, an estate or an install, the latest first")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
        api.MapGet("/documents/{kind}/{name}/versions/{number}", ShowAsync)
            .WithName("ShowVersion").WithSummary("One version of a document with its text")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
        api.MapGet("/documents/{kind}/{name}/changes", CompareAsync)
            .WithName("CompareVersions")
            .WithSummary("What two versions of a document say differently, in words; the last two unless said otherwise")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
    }

    private static async Task<Results<Ok<IReadOnlyList<DocumentVersionView>>, ProblemHttpResult>> ListAsync(
        [AllowedValues(Library.SheetKind, Library.EstateKind, Library.InstallKind)] string kind, string name, Library library,
        CancellationToken cancel)
    {
        var versions = await library.VersionsAsync(kind, name, cancel);
        if (versions.Count == 0) return await NoneAsync(kind, name, library, cancel);
        return TypedResults.Ok<IReadOnlyList<DocumentVersionView>>([.. versions.Select(View)]);
    }

    private static async Task<Results<Ok<DocumentTextView>, ProblemHttpResult>> ShowAsync(
        [AllowedValues(Library.SheetKind, Library.EstateKind, Library.InstallKind)] string kind, string name, int number,
        Library library, CancellationToken cancel)
    {
        var versions = await library.VersionsAsync(kind, name, cancel);
        if (versions.Count == 0) return await NoneAsync(kind, name, library, cancel);
        return Of(versions, number) is { } found ? TypedResults.Ok(new DocumentTextView(View(found), found.Text))
            : NoSuch(versions, number);
    }

    private static async Task<Results<Ok<DocumentChangesView>, ProblemHttpResult>> CompareAsync(
        [AllowedValues(Library.SheetKind, Library.EstateKind, Library.InstallKind)] string kind, string name, int? from, int? to,
        Library library, CancellationToken cancel)
    {
        var versions = await library.VersionsAsync(kind, name, cancel);
        if (versions.Count == 0) return await NoneAsync(kind, name, library, cancel);
        var later = to ?? versions[0].Number;
        var earlier = from ?? Math.Max(1, later - 1);
        if (Of(versions, later) is not { } after) return NoSuch(versions, later);
        if (Of(versions, earlier) is not { } before) return NoSuch(versions, earlier);
        return TypedResults.Ok(new DocumentChangesView(
            View(before), View(after), [.. Library.Differences(kind, before.Text, after.Text).Select(d => d.Words)]));
    }

    private static DocumentVersionRow? Of(IEnumerable<DocumentVersionRow> versions, int number) =>
        versions.FirstOrDefault(v => v.Number == number);

    private static async Task<ProblemHttpResult> NoneAsync(
        string kind, string name, Library library, CancellationToken cancel) =>
        await library.MissingAsync(kind, name, cancel) ?? Problems.NotFound("version", "1", []);

    private static ProblemHttpResult NoSuch(IEnumerable<DocumentVersionRow> versions, int number) =>
        Problems.NotFound("version", $"{number}", versions.Select(v => $"{v.Number}"));

    private static DocumentVersionView View(DocumentVersionRow row) =>
        new(row.Number, row.File, row.At, row.By, row.RemovedAt, row.RemovedBy);
}
