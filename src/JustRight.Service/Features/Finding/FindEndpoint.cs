using JustRight.Contracts;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Lists;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Finding;

/// <summary>One search over everything.</summary>
internal static class FindEndpoint
{
    public static void MapFind(this IEndpointRouteBuilder api) =>
        api.MapGet("/search", FindAsync).WithName("Search")
            .WithSummary(
                "Looks for words in everything: installs, sheets, estates, hosts, instances, accounts, groups, runs and the log")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400);

    private static async Task<Results<Ok<FoundPage>, ProblemHttpResult>> FindAsync(
        string? search, Everything everything, CancellationToken cancel) =>
        SoughtWords.Of(search) is { Length: > 0 } words
            ? TypedResults.Ok(await everything.FindAsync(words, cancel))
            : Problems.Bad("search", "There is nothing to look for.", "one word or several");
}
