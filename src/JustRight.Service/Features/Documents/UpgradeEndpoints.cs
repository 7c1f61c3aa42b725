using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Summaries;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Documents;

/// <summary>Installs move on to another release of their product.</summary>
internal static class UpgradeEndpoints
{
    public static void MapUpgrades(this IEndpointRouteBuilder api)
    {
        api.MapPost("/installs/{name}/upgrading", TellAsync)
            .WithName("TellUpgrade")
            .WithSummary(
                "Tells what moving an install to another release of its product means: what is needed anew, no more and "
                + "differently, and the steps; stores nothing")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);
        api.MapPost("/installs/{name}/upgrade", MoveAsync)
            .WithName("UpgradeInstall")
            .WithSummary(
                "Moves an install to another release of its product, planned. What the former release needs is kept as an "
                + "install of its own")
            .RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<UpgradeView>, ProblemHttpResult>> TellAsync(
        string name, UpgradeOrder order, Library library, Upgrades upgrades, CancellationToken cancel)
    {
        var (upgrade, problem) = await MakeAsync(name, order, library, upgrades, cancel);
        if (upgrade is null) return problem!;
        var differences = upgrade.Plans is var (before, after) ? Core.Plans.PlanDifference.Of(before, after) : [];
        var give = upgrade.Plans is null ? null : await upgrades.GiveAsync(upgrade, cancel);
        return TypedResults.Ok(new UpgradeView(
            name, upgrade.From.Name, upgrade.To.Name, upgrade.FormerName, upgrade.Text, upgrade.LeftOut,
            [.. upgrade.Asked.Select(AskedViews.Of)],
            [.. differences.Select(d =>
                new NeedDifferenceView(d.Change.Word(), d.Subject, d.What, d.Place, d.How, d.At.ToString()))],
            give is null ? null : [.. give.Select(FitViews.Of)]));
    }

    private static async Task<Results<Ok<InstallView>, ProblemHttpResult>> MoveAsync(
        string name, UpgradeOrder order, ClaimsPrincipal user, Library library, Upgrades upgrades, DocumentApprovals approvals,
        SummaryMaker summaries, IDbContextFactory<AppDb> databases, CancellationToken cancel)
    {
        var (upgrade, problem) = await MakeAsync(name, order, library, upgrades, cancel);
        if (upgrade is null) return problem!;
        if (upgrade.Asked is [var first, ..])
            return Problems.Bad(first.Field, $"{upgrade.To.Name} asks {first.Asks}, and it is not said.",
                $"{first.Field} in 'said'");
        await using (var db = await databases.CreateDbContextAsync(cancel))
            if (await OpenJobs.BusyAsync(db, name, cancel) is { } busy) return busy;
        if (upgrade.FormerName is { } former && await library.FindAsync(Library.InstallKind, former, cancel) is not null)
            return Problems.Of(
                409, "in-use",
                $"There is an install {former} already: what {upgrade.From.Name} needs would be kept under this name.",
                $"Retire it first: justright install stage {former} retiring; then justright install remove {former}");
        var who = user.Identity!.Name!;
        var moved = Library.ReadInstall(new DocumentRow
        {
            Kind = Library.InstallKind,
            Name = name,
            File = upgrade.Row.File,
            Text = upgrade.Text,
            AddedBy = who,
        });
        if (await approvals.WaitsAsync(moved, upgrade.Text, who, cancel) is { } waits) return waits;
        if (!await upgrades.MoveAsync(
            upgrade, order.Text is null ? upgrade.Row.File : order.File ?? upgrade.Row.File, who, cancel))
            return Problems.Of(
                409, "install-changed", $"Somebody changed {name} meanwhile; nothing was moved.",
                $"See what is so now: justright install upgrade {name} --to {upgrade.To.Name} --list");
        return TypedResults.Ok(new InstallView(await summaries.NowAsync(name, cancel), upgrade.Text));
    }

    private static async Task<(Upgrade? Upgrade, ProblemHttpResult? Problem)> MakeAsync(
        string name, UpgradeOrder order, Library library, Upgrades upgrades, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.InstallKind, name, cancel) is not { } row)
            return (null, await library.MissingAsync(Library.InstallKind, name, cancel));
        if (await library.FindAsync(Library.SheetKind, order.To, cancel) is not { } sheet)
            return (null, await library.MissingAsync(Library.SheetKind, order.To, cancel));
        return (await upgrades.MakeAsync(row, sheet, order, cancel), null);
    }
}
