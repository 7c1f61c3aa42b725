using System.Security.Claims;
using JustRight.Service.Data.Documents;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Documents;

/// <summary>Removes sheets, estates, installs and adoptions, where nothing hangs on them any more.</summary>
internal static class RemovalEndpoints
{
    public static void MapRemovals(this IEndpointRouteBuilder api)
    {
        api.MapDelete("/sheets/{name}", RemoveSheetAsync)
            .WithName("RemoveSheet").WithSummary("Removes a sheet that no install uses; its versions stay")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(409);
        api.MapDelete("/estates/{name}", RemoveEstateAsync)
            .WithName("RemoveEstate")
            .WithSummary("Removes an estate without installs and adoptions, and what was read of it; its versions stay")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(409);
        api.MapDelete("/installs/{name}", RemoveInstallAsync)
            .WithName("RemoveInstall")
            .WithSummary("Removes an install that was given nothing, or is retired; its versions, runs and history stay")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(409);
        api.MapDelete("/adoptions/{name}", RemoveAdoptionAsync)
            .WithName("RemoveAdoption").WithSummary("Removes an adoption that no install came from, with what was said in it")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveSheetAsync(
        string name, ClaimsPrincipal user, Library library, Removals removals, CancellationToken cancel)
    {
        if (await library.MissingAsync(Library.SheetKind, name, cancel) is { } missing) return missing;
        return Answer(await removals.SheetAsync(name, user.Identity!.Name!, cancel));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveEstateAsync(
        string name, ClaimsPrincipal user, Library library, Removals removals, CancellationToken cancel)
    {
        if (await library.MissingAsync(Library.EstateKind, name, cancel) is { } missing) return missing;
        return Answer(await removals.EstateAsync(name, user.Identity!.Name!, cancel));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveInstallAsync(
        string name, bool? forget, ClaimsPrincipal user, Library library, Removals removals, CancellationToken cancel)
    {
        if (await library.MissingAsync(Library.InstallKind, name, cancel) is { } missing) return missing;
        return Answer(await removals.InstallAsync(name, forget == true, user.Identity!.Name!, cancel));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAdoptionAsync(
        string name, ClaimsPrincipal user, Removals removals, CancellationToken cancel) =>
        Answer(await removals.AdoptionAsync(name, user.Identity!.Name!, cancel));

    private static Results<NoContent, ProblemHttpResult> Answer(ProblemHttpResult? problem) =>
        problem is null ? TypedResults.NoContent() : problem;
}
