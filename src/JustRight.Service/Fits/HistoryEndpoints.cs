using System.Text.Json;
using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Fit.Drift;
using JustRight.Service.Access;
using JustRight.Service.Answers;
using JustRight.Service.Documents;
using JustRight.Service.Storage;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Fits;

/// <summary>How the fit of an install went over time, and what is different between two of its fits.</summary>
internal static class HistoryEndpoints
{
    public static void MapHistory(this IEndpointRouteBuilder api)
    {
        api.MapGet("/installs/{name}/history", async Task<Results<Ok<IReadOnlyList<KeptFitView>>, ProblemHttpResult>> (string name, Library library, FitHistory history, CancellationToken cancel) =>
            await FitEndpoints.MissingAsync(name, library, cancel) is { } missing ? missing : TypedResults.Ok(await history.ListAsync(name, cancel)))
            .WithName("ShowHistory").WithSummary("How the results of an install changed, newest first").RequireAuthorization(Roles.Reader).ProducesProblem(404);

        api.MapGet("/installs/{name}/drift", DriftAsync)
            .WithName("ShowDrift").WithSummary("What changed between two fits of an install, and which changes Just Right made").RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<DriftView>, ProblemHttpResult>> DriftAsync(string name, int? from, int? to, Library library, FitHistory history, IDbContextFactory<AppDb> databases, CancellationToken cancel)
    {
        if (await FitEndpoints.MissingAsync(name, library, cancel) is { } missing) return missing;
        var list = await history.ListAsync(name, cancel);
        if (list.Count == 0) return Problems.Of(409, "not-surveyed", "No survey of this estate was taken yet.", $"Verify the install first: justright verify {name}");
        var after = list.FirstOrDefault(f => f.Number == (to ?? list[0].Number));
        var before = list.FirstOrDefault(f => f.Number == (from ?? Math.Max(1, (after?.Number ?? 1) - 1)));
        if (after is null || before is null) return Problems.Of(404, "not-found", $"There is no fit {(after is null ? to : from)} of {name}.", $"There are 1 to {list[0].Number}: justright history {name}");
        var lines = FitDrift.Between((await history.FindAsync(name, before.Number, cancel))!, (await history.FindAsync(name, after.Number, cancel))!);
        await using var db = await databases.CreateDbContextAsync(cancel);
        var (early, late) = before.From <= after.From ? (before.Until, after.Until) : (after.Until, before.Until);
        var made = (await db.Steps.AsNoTracking().Where(s => s.State == "made").Join(db.Jobs, s => s.JobId, j => j.Id, (s, j) => new { s.Words, s.Place, s.At, j.StartedBy }).ToListAsync(cancel))
            .Where(s => s.At > early && s.At <= late).ToList();
        return TypedResults.Ok(new DriftView(name, before, after, [.. lines.Select(l => new DriftLineView(
            JsonNamingPolicy.KebabCaseLower.ConvertName(l.Way.ToString()), l.Account, l.Right, l.Words,
            made.Where(m => l.Account.Length > 0 && l.Right.Contains(m.Place, StringComparison.OrdinalIgnoreCase) && Names(m.Words, l.Account)).Select(m => $"{m.Words} ({m.StartedBy}, {m.At:u})").FirstOrDefault()))]));
    }

    /// <summary>Whether a step names an account: as a whole word, since one name may begin another.</summary>
    private static bool Names(string words, string account) => words.Split(' ').Any(w => string.Equals(LogonName.WithoutDomain(w.TrimEnd(',', '.', ':')), account, StringComparison.OrdinalIgnoreCase));
}
