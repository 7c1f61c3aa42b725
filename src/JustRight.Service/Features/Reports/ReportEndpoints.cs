using System.ComponentModel.DataAnnotations;
using JustRight.Contracts;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Evidence;
using JustRight.Service.Data.Fits;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Reports;

/// <summary>The fit of an install as files for people who were not there.</summary>
internal static class ReportEndpoints
{
    private static readonly string[] Forms = ["xlsx", "csv", "markdown", "html"];

    public static void MapReports(this IEndpointRouteBuilder api)
    {
        api.MapGet("/installs/{name}/report", ReportAsync)
            .WithName("ShowReport")
            .WithSummary("The account matrix as a file: xlsx, csv, markdown; html is the review sheet, for paper")
            .RequireAuthorization(Roles.Reader)
            .Produces<string>(200, WorkbookReport.MediaType, "text/csv", "text/markdown", "text/html")
            .ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
        api.MapGet("/installs/{name}/evidence", EvidenceAsync)
            .WithName("ShowEvidence")
            .WithSummary("All evidence of the latest fit as one signed file: a JSON Web Signature [RFC 7515]")
            .RequireAuthorization(Roles.Reader)
            .Produces<string>(200, EvidenceKey.MediaType).ProducesProblem(404).OfRealInstalls("No evidence is signed");
        api.MapGet("/evidence-key", KeyAsync)
            .WithName("ShowEvidenceKey").WithSummary("The public key for checking evidence").RequireAuthorization(Roles.Reader);
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> ReportAsync(
        string name, [AllowedValues("xlsx", "csv", "markdown", "html")] string? form, JudgedOrNot fits, ReportService reports,
        IServiceProvider parts, ILoggerFactory loggers, CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return problem;
        if (form is not null && !Forms.Contains(form))
            return Problems.Bad("form", $"'{form}' is not a form of a report.", string.Join(", ", Forms), form, Forms);
        var report = await reports.OfAsync(judged!, cancel);
        return form switch
        {
            "xlsx" => TypedResults.File(WorkbookReport.Write(report), WorkbookReport.MediaType, $"{name}.xlsx"),
            "csv" => TypedResults.File(CsvReport.Write(report), "text/csv; charset=utf-8", $"{name}.csv"),
            "html" => TypedResults.File(
                await PrintedReport.WriteAsync(report, parts, loggers), "text/html; charset=utf-8", $"{name}-review.html"),
            _ => TypedResults.File(MarkdownReport.Write(report), "text/markdown; charset=utf-8", $"{name}.md"),
        };
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> EvidenceAsync(
        string name, JudgedOrNot fits, ReportService reports, EvidenceFile evidence, CancellationToken cancel)
    {
        var (judged, problem) = await fits.FindAsync(name, cancel);
        if (problem is not null) return problem;
        var signed = await evidence.WriteAsync(await reports.OfAsync(judged!, cancel), cancel);
        return TypedResults.File(signed, EvidenceKey.MediaType, $"{name}-evidence.json");
    }

    private static async Task<Ok<EvidenceKeyView>> KeyAsync(EvidenceKey key, CancellationToken cancel)
    {
        var rsa = await key.GetAsync(cancel);
        return TypedResults.Ok(new EvidenceKeyView(EvidenceKey.ThumbprintOf(rsa), "RS256", rsa.ExportSubjectPublicKeyInfoPem()));
    }
}
