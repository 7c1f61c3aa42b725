using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Formats.Installs;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Summaries;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Documents;

/// <summary>Installs: add, show, set the stage.</summary>
internal static class InstallEndpoints
{
    private const string Unnamed = "install.yaml";

    public static void MapInstalls(this IEndpointRouteBuilder api)
    {
        api.MapPost("/installs", AddAsync)
            .WithName("AddInstall")
            .WithSummary(
                "Checks that an install can be planned, and stores it; the body is the file, or a DocumentOrder as JSON")
            .AcceptsDocument().RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(409);
        api.MapPost("/installs/{name}/stage", SetStageAsync)
            .WithName("SetStage").WithSummary("Sets the stage of an install: planned, installed or retiring")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(400).ProducesProblem(409);
        api.MapGet("/installs/{name}", ShowAsync)
            .WithName("ShowInstall").WithSummary("One install with its text")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
    }

    private static async Task<Results<Ok<InstallView>, ProblemHttpResult>> AddAsync(
        string? file, HttpRequest request, ClaimsPrincipal user, Library library, FitService fitService, SummaryMaker summaries,
        DocumentApprovals approvals, Upgrades upgrades, CancellationToken cancel)
    {
        var sent = await Upload.ReadAsync(request, file, Unnamed, cancel);
        var (install, faults) = InstallReader.Read(sent.Bytes, sent.File);
        if (install is null) return Problems.Of(faults);
        if (await library.WhyNotMovedAsync(install, cancel) is { } moved) return moved;
        faults = await fitService.WhyNotPlannedAsync(install, cancel);
        if (faults.Count > 0) return Problems.Of(faults);
        var before = await library.FindAsync(Library.InstallKind, install.Name, cancel);
        if (await upgrades.WhyNotAddedAsync(install, before, cancel) is { } not) return not;
        var text = before is null ? sent.Text : FirstStage.Kept(before, sent.Text);
        if (await approvals.WaitsAsync(install, text, user.Identity!.Name!, cancel) is { } waits) return waits;
        await library.SaveAsync(Library.InstallKind, install.Name, sent.File, text, user.Identity!.Name!, cancel);
        return TypedResults.Ok(new InstallView(await summaries.NowAsync(install.Name, cancel), text));
    }

    private static async Task<Results<Ok<InstallView>, ProblemHttpResult>> SetStageAsync(
        string name, StageOrder order, ClaimsPrincipal user, Library library, SummaryMaker summaries,
        DocumentApprovals approvals, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.InstallKind, name, cancel) is not { } row)
            return (await library.MissingAsync(Library.InstallKind, name, cancel))!;
        if (!StageWords.All.Contains(order.Stage))
            return Problems.Bad(
                "stage", $"'{order.Stage}' is not a stage of an install.", string.Join(", ", StageWords.All), order.Stage,
                StageWords.All);
        var (text, faults) = StageLine.Set(row.Text, order.Stage, row.File);
        if (text is null) return Problems.Of(faults);
        if (text != row.Text)
        {
            var who = user.Identity!.Name!;
            if (await approvals.StageWaitsAsync(row, order.Stage, who, cancel) is { } waits) return waits;
            await library.SaveAsync(Library.InstallKind, name, row.File, text, who, cancel);
        }

        return TypedResults.Ok(new InstallView(await summaries.NowAsync(name, cancel), text));
    }

    private static async Task<Results<Ok<InstallView>, ProblemHttpResult>> ShowAsync(
        string name, Library library, SummaryMaker summaries, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.InstallKind, name, cancel) is { } row)
            return TypedResults.Ok(new InstallView(await summaries.NowAsync(name, cancel), row.Text));
        return (await library.MissingAsync(Library.InstallKind, name, cancel))!;
    }
}
