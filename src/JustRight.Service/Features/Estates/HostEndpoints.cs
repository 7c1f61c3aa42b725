using JustRight.Contracts;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Data.Views;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Estates;

/// <summary>A host as it was read: rights with their source, groups, services in their order.</summary>
internal static class HostEndpoints
{
    public static void MapHosts(this IEndpointRouteBuilder api) =>
        api.MapGet("/estates/{name}/hosts/{host}", ShowAsync)
            .WithName("ShowHost")
            .WithSummary("A host from the latest survey: rights with the policies that decide them, local groups, services with their start order")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404).ProducesProblem(409);

    private static async Task<Results<Ok<HostView>, ProblemHttpResult>> ShowAsync(
        string name, string host, Library library, FitService fitService, SurveyStore surveys, CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        if (estate.Host(host) is not { } known) return Problems.NotFound("host", host, estate.Hosts.Select(h => h.Name));
        if (await surveys.LatestAsync(name, cancel) is not { } view || view.Host(known.Name) is not { } read)
            return Problems.Of(
                409, "not-surveyed", $"{known.Name} was not surveyed yet.", $"Survey the estate first: justright survey {name}");
        return TypedResults.Ok(HostViews.Of(estate, known, read, view, await fitService.PlansOfAsync(name, cancel)));
    }
}
