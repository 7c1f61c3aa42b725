using JustRight.Contracts;
using JustRight.Core.Fit.Drift;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Fits;

/// <summary>How the fit of an install went over time, and what is different between two of its fits.</summary>
internal static class HistoryEndpoints
{
    private const int Usual = 30;

    public static void MapHistory(this IEndpointRouteBuilder api)
    {
        api.MapGet("/installs/{name}/history", ShowHistoryAsync)
            .WithName("ShowHistory").WithSummary("How the results of an install changed, newest first")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);

        api.MapGet("/installs/{name}/drift", DriftAsync)
            .WithName("ShowDrift").WithSummary("What changed between two fits of an install, and which changes Just Right made")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<IReadOnlyList<KeptFitView>>, ProblemHttpResult>> ShowHistoryAsync(
        string name, int? take, Library library, FitHistory history, CancellationToken cancel) =>
        await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing
            ? missing
            : TypedResults.Ok(await history.ListAsync(name, Math.Clamp(take ?? Usual, 1, FitHistory.Kept), cancel));

    private static async Task<Results<Ok<DriftView>, ProblemHttpResult>> DriftAsync(
        string name, int? from, int? to, Library library, FitHistory history, OwnWork work, CancellationToken cancel)
    {
        if (await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing) return missing;
        if (await history.ViewAsync(name, null, cancel) is not { } latest)
            return Problems.Of(
                409, "not-surveyed", "No survey of this estate was taken yet.",
                $"Verify the install first: justright verify {name}");
        var after = to is { } later ? await history.ViewAsync(name, later, cancel) : latest;
        var before = await history.ViewAsync(name, from ?? Math.Max(1, (after?.Number ?? 1) - 1), cancel);
        if (after is null || before is null)
            return Problems.Of(
                404, "not-found", $"There is no fit {(after is null ? to : from)} of {name}.",
                $"There are 1 to {latest.Number}: justright history {name}");
        var estate = Library.ReadInstall((await library.FindAsync(Library.InstallKind, name, cancel))!).Estate;
        var lines = (await history.BetweenAsync(estate, name, before.Number, after.Number, cancel))!;
        var (early, late) = before.From <= after.From ? (before.Until, after.Until) : (after.Until, before.Until);
        var own = await work.BetweenAsync(estate, early, late, cancel);
        return TypedResults.Ok(new DriftView(name, before, after, [.. lines.Select(l => Line(l, own?.MadeBy(l)))]));
    }

    private static DriftLineView Line(DriftLine line, MadeStep? made) =>
        new(line.Way.Word(), line.Account, line.Right, line.Words, OwnWork.Words(made));
}
