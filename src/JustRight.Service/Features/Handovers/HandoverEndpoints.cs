using System.ComponentModel.DataAnnotations;
using System.IO.Compression;
using System.Security.Claims;
using System.Text;
using JustRight.Contracts;
using JustRight.Core.Handovers;
using JustRight.Formats.Handovers;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Handovers;

/// <summary>
/// Worklists for the people who own the directory, the servers, the databases: one bundle for each team and place.
/// </summary>
internal static class HandoverEndpoints
{
    public static void MapHandovers(this IEndpointRouteBuilder api)
    {
        api.MapGet("/installs/{name}/handovers", ListAsync)
            .WithName("ListHandovers")
            .WithSummary("What each team is asked to do at each place, with reasons and how to undo it")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).OfRealInstalls("Nothing is handed over");
        api.MapGet("/installs/{name}/handovers/{folder}", FileAsync)
            .WithName("ShowHandover").WithSummary("One handover: form=zip (the bundle; the default), page, markdown or csv")
            .Produces(200, contentType: "application/zip").RequireAuthorization(Roles.Reader).ProducesProblem(400)
            .ProducesProblem(404).OfRealInstalls("Nothing is handed over");
    }

    private static async Task<Results<Ok<IReadOnlyList<HandoverView>>, ProblemHttpResult>> ListAsync(
        string name, bool? remove, Library library, JudgedOrNot fits, CancellationToken cancel)
    {
        var (handovers, _, problem) = await HandoversAsync(name, remove == true, library, fits, null, cancel);
        return problem is not null ? problem : TypedResults.Ok<IReadOnlyList<HandoverView>>([.. handovers!.Select(View)]);
    }

    private static async Task<IResult> FileAsync(
        string name, string folder, [AllowedValues("zip", "page", "markdown", "csv")] string? form, Library library,
        JudgedOrNot fits, SurveyStore surveys, LogStore log, ClaimsPrincipal user, CancellationToken cancel)
    {
        var (handovers, files, problem) = await HandoversAsync(
            name, folder.EndsWith("-remove", StringComparison.Ordinal), library, fits, surveys, cancel);
        if (problem is not null) return problem;
        if (handovers is null) return Problems.NotFound("handover", folder, []);
        if (handovers.FirstOrDefault(h => HandoverFiles.FolderName(h) == folder) is not { } handover)
            return Problems.NotFound("handover", folder, handovers.Select(HandoverFiles.FolderName));
        switch (form ?? "zip")
        {
            case "zip":
                await log.AddAsync(
                    user.Identity!.Name!, "hand over", name,
                    $"{handover.Steps.Count} {(handover.Steps.Count == 1 ? "step" : "steps")} to the {handover.TeamName} team, {handover.Place}",
                    cancel);
                return TypedResults.File(Zip(folder, files!(handover), handover.SurveyedAt), "application/zip", folder + ".zip");
            case "page": return TypedResults.Text(HandoverPage.Write(handover), "text/html", Encoding.UTF8);
            case "markdown": return TypedResults.Text(HandoverMarkdown.Write(handover), "text/markdown", Encoding.UTF8);
            case "csv": return TypedResults.Text(HandoverCsv.Write([handover]), "text/csv", Encoding.UTF8);
            default:
                return Problems.Bad(
                "form", "This is not a form of a handover.", "zip, page, markdown or csv", form,
                ["zip", "page", "markdown", "csv"]);
        }
    }

    private static async Task<(
        IReadOnlyList<Handover>? Handovers, Func<Handover, IReadOnlyList<HandoverFile>>? Files,
        ProblemHttpResult? Problem)> HandoversAsync(
        string name, bool remove, Library library, JudgedOrNot fits, SurveyStore? surveys, CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return (null, null, problem);
        var source = await library.FindAsync(Library.SheetKind, judged!.Fit.Plan.Sheet, cancel) is { } sheet
            ? Library.ReadSheet(sheet).Source
            : "";
        var view = surveys is null ? null : await surveys.LatestAsync(judged.Fit.Plan.Estate, cancel);
        return (
            HandoverMaker.Make(judged.Fit, judged.Worklist, source, remove),
            h => HandoverFiles.Write(h, p => LdifFiles.SidOf(view!, p), (what, changes) => LdifFiles.Write(what, changes, view!)),
            null);
    }

    private static HandoverView View(Handover handover) => new(
        handover.Install, handover.TeamName, handover.Place, handover.Remove, handover.Simulated, handover.SurveyedAt,
        HandoverFiles.FolderName(handover), HandoverWords.Lead(handover),
        [.. handover.Steps.Select(s =>
            new HandoverStepView(
                s.Number, s.Change.Words, s.Why, s.For, s.Least, HandoverWords.Details(s.Change), s.Note, s.At.ToString()))],
        HandoverWords.HowTo(handover), [.. handover.Undo.Select(u => u.Words)], HandoverFiles.Names(handover));

    private static byte[] Zip(string folder, IReadOnlyList<HandoverFile> files, DateTimeOffset at)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create))
        {
            foreach (var file in files)
            {
                var entry = zip.CreateEntry($"{folder}/{file.Name}");
                entry.LastWriteTime = at; // the same survey gives the same bundle
                using var stream = entry.Open();
                stream.Write(file.Content);
            }
        }

        return bytes.ToArray();
    }
}
