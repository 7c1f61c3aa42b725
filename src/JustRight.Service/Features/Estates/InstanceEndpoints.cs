using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Databases;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Lists;
using Microsoft.AspNetCore.Http.HttpResults;
using SurveyView = JustRight.Core.Rights.SurveyView;

namespace JustRight.Service.Features.Estates;

/// <summary>A database instance as it was read: who can do what there, and by which path.</summary>
internal static class InstanceEndpoints
{
    /// <summary>A right, with what it is searched and sorted by.</summary>
    private sealed record Row(InstanceHolder Holder, string Who, string NeededBy);

    private static readonly Columns<Row> Columns = new(
        Column<Row>.Of("who", r => r.Who + " " + r.Holder.Right.Place + " " + r.Holder.Right.Words),
        Column<Row>.Of("right", r => r.Holder.Right.Words), Column<Row>.Of("place", r => r.Holder.Right.Place),
        Column<Row>.Of("reach", r => r.Holder.Right.Reach.Points), Column<Row>.Of("needed", r => r.NeededBy));

    public static void MapInstances(this IEndpointRouteBuilder api)
    {
        api.MapGet("/estates/{name}/instances/{instance}", ShowAsync)
            .WithName("ShowInstance")
            .WithSummary("A database instance from the latest survey, and by which ways somebody could come to more than was granted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);
        api.MapGet("/estates/{name}/instances/{instance}/holders", HoldersAsync)
            .WithName("ListInstanceHolders")
            .WithSummary(
                "Who can do what at a database instance and in its databases, by which path, and what needs it: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<InstanceView>, ProblemHttpResult>> ShowAsync(
        string name, string instance, Library library, FitService fitService, SurveyStore surveys, KnownHolders holders,
        CancellationToken cancel)
    {
        var (found, problem) = await FindAsync(name, instance, library, surveys, cancel);
        if (found is not var (estate, known, view)) return problem!;
        return TypedResults.Ok(InstanceViews.Of(
            estate, known, view.Instance(known.Name)!, holders.Of(view, known.Name).Count, view,
            await fitService.PlansOfAsync(name, cancel)));
    }

    private static async Task<Results<Ok<InstanceHolderPage>, ProblemHttpResult>> HoldersAsync(
        string name, string instance, [AsParameters] ListOrder order, Library library, EstatePlanner planner, SurveyStore surveys,
        KnownHolders holders, CancellationToken cancel)
    {
        if (Columns.WhyNot(order) is { } wrong) return wrong;
        var (found, problem) = await FindAsync(name, instance, library, surveys, cancel);
        if (found is not var (_, known, view)) return problem!;
        var needs = (await planner.PlanAllAsync(name, cancel))!.Needs;
        var words = SoughtWords.Of(order.Search);
        var matching = holders.Of(view, known.Name).Select(h => RowOf(h, view, needs)).Where(r =>
            SoughtWords.AreIn(words, r.Who, r.Holder.Right.Words, r.Holder.Right.Place, r.NeededBy));
        var (rows, total) = Columns.Page(matching, order);
        return TypedResults.Ok(new InstanceHolderPage(
            [.. rows.Select(r => InstanceViews.Holder(r.Holder, view, needs))], order.Skipped, total));
    }

    private static Row RowOf(InstanceHolder holder, SurveyView view, NeedsIndex needs)
    {
        var principal = view.Graph.PrincipalOf(holder.Holder);
        return new Row(
            holder, view.Graph.NameOf(holder.Holder),
            principal is null ? "" : string.Join(' ', needs.Installs(principal.Name, holder.Right)));
    }

    private static async Task<((Estate Estate, EstateInstance Known, SurveyView View)? Found, ProblemHttpResult? Problem)> FindAsync(
        string name, string instance, Library library, SurveyStore surveys, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate)
            return (null, await library.NoEstateAsync(name, cancel));
        if (estate.Instance(instance) is not { } known)
            return (null, Problems.NotFound("instance", instance, estate.Instances.Select(i => i.Name)));
        return await surveys.LatestAsync(name, cancel) is { } view && view.Instance(known.Name) is not null
            ? ((estate, known, view), null)
            : (null, Problems.Of(
                409, "not-surveyed", $"{known.Name} was not surveyed yet.", $"Survey the estate first: justright survey {name}"));
    }
}
