using JustRight.Contracts;
using JustRight.Service.Answers;
using JustRight.Service.Documents;
using JustRight.Service.Fits;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Estates;

/// <summary>A database instance as it was read: who can do what there, and by which path.</summary>
internal static class InstanceEndpoints
{
    public static void MapInstances(this IEndpointRouteBuilder api) =>
        api.MapGet("/estates/{name}/instances/{instance}", ShowAsync)
            .WithName("ShowInstance")
            .WithSummary("A database instance from the latest survey: who can do what there and in its databases, by which path, and what needs it")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);

    private static async Task<Results<Ok<InstanceView>, ProblemHttpResult>> ShowAsync(
        string name, string instance, Library library, FitService fitService, SurveyStore surveys, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.EstateKind, name, cancel) is not { } row)
            return Problems.NotFound("estate", name, (await library.ListAsync(Library.EstateKind, cancel)).Select(d => d.Name));
        var estate = Library.ReadEstate(row);
        if (estate.Instance(instance) is not { } known)
            return Problems.NotFound("instance", instance, estate.Instances.Select(i => i.Name));
        if (await surveys.LatestAsync(name, cancel) is not { } view || view.Instance(known.Name) is not { } read)
            return Problems.Of(
                409, "not-surveyed", $"{known.Name} was not surveyed yet.", $"Survey the estate first: justright survey {name}");
        return TypedResults.Ok(InstanceViews.Of(estate, known, read, view, await fitService.PlansOfAsync(name, cancel)));
    }
}
