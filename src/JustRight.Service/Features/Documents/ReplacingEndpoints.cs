using System.ComponentModel.DataAnnotations;
using JustRight.Contracts;
using JustRight.Core.Faults;
using JustRight.Formats.Estates;
using JustRight.Formats.Installs;
using JustRight.Formats.Sheets;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Views;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Documents;

/// <summary>What replacing a document would change, and for which installs, before it is replaced.</summary>
internal static class ReplacingEndpoints
{
    public static void MapReplacing(this IEndpointRouteBuilder api) =>
        api.MapPost("/documents/{kind}/replacing", TellAsync)
            .WithName("TellReplacing")
            .WithSummary(
                "Tells what adding a document would change of the one of that name, and for which installs; stores nothing. "
                + "The body is the file, or a DocumentOrder as JSON")
            .AcceptsDocument().RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);

    private static readonly string[] Kinds = [Library.SheetKind, Library.EstateKind, Library.InstallKind];

    private static async Task<Results<Ok<ReplacingView>, ProblemHttpResult>> TellAsync(
        [AllowedValues(Library.SheetKind, Library.EstateKind, Library.InstallKind)] string kind, string? file,
        HttpRequest request, Library library, FitService fitService, IDbContextFactory<AppDb> databases,
        CancellationToken cancel)
    {
        if (!Kinds.Contains(kind)) return Problems.NotFound("kind of document", kind, Kinds);
        var sent = await Upload.ReadAsync(request, file, $"{kind}.yaml", cancel);
        var (name, faults) = NameOf(kind, sent);
        if (name is null) return Problems.Of(faults);
        PlanView? comesTo = null;
        if (kind == Library.InstallKind && InstallReader.Read(sent.Bytes, sent.File).Install is { } install)
        {
            (var plan, var estate, faults) = await fitService.TryPlanAsync(install, cancel);
            comesTo = plan is null ? null : PlanViews.Of(plan, estate!);
        }

        if (faults.Count > 0) return Problems.Of(faults);
        if (await library.FindAsync(kind, name, cancel) is not { } before)
            return TypedResults.Ok(new ReplacingView(name, false, [], []) { Plan = comesTo });
        var text = kind == Library.InstallKind ? FirstStage.Kept(before, sent.Text) : sent.Text;
        await using var db = await databases.CreateDbContextAsync(cancel);
        var concerned = db.Summaries.AsNoTracking().Where(s => kind == Library.SheetKind ? s.Sheet == name
            : kind == Library.EstateKind ? s.Estate == name
            : s.Install == name);
        return TypedResults.Ok(new ReplacingView(
            name, true, [.. Library.Differences(kind, before.Text, text).Select(d => d.Words)],
            await concerned.OrderBy(s => s.Install).Select(s => s.Install).ToListAsync(cancel))
        {
            Plan = comesTo,
        });
    }

    private static (string? Name, IReadOnlyList<Fault> Faults) NameOf(string kind, Upload sent)
    {
        switch (kind)
        {
            case Library.SheetKind:
                var (sheet, ofSheet) = SheetReader.Read(sent.Bytes, sent.File);
                return (sheet?.Name, ofSheet);
            case Library.EstateKind:
                var (estate, ofEstate) = EstateReader.Read(sent.Bytes, sent.File);
                return (estate?.Name, ofEstate);
            case Library.InstallKind:
                var (install, ofInstall) = InstallReader.Read(sent.Bytes, sent.File);
                return (install?.Name, ofInstall);
            default:
                throw new InvalidOperationException($"Unknown kind of document {kind}.");
        }
    }
}
