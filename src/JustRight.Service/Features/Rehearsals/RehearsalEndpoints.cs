using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Service.Data.Documents;
using JustRight.Service.Platform.Answers;
using JustRight.Simulation.Laying;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Rehearsals;

/// <summary>Rehearsals of estates: laid, shown, ended.</summary>
internal static class RehearsalEndpoints
{
    public static void MapRehearsals(this IEndpointRouteBuilder api)
    {
        api.MapPost("/estates/{name}/rehearsal", LayAsync)
            .WithName("LayRehearsal")
            .WithSummary("Lays a simulation of an estate, with its installs, as an estate of its own")
            .RequireAuthorization(Roles.Planner).ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
        api.MapGet("/estates/{name}/rehearsal", ShowAsync)
            .WithName("ShowRehearsal").WithSummary("The rehearsal of an estate, as it was laid")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
        api.MapPost("/installs/{name}/rehearsed-setup", PlaySetupAsync)
            .WithName("PlaySetup")
            .WithSummary("Plays the product's setup in a rehearsal: what setup gives is given, and the install is installed")
            .RequireAuthorization(Roles.Granter).ProducesProblem(404).ProducesProblem(409);
        api.MapDelete("/estates/{name}/rehearsal", EndAsync)
            .WithName("EndRehearsal")
            .WithSummary("Ends the rehearsal of an estate: its installs, surveys and passwords go with it")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<RehearsalView>, ProblemHttpResult>> LayAsync(
        string name, RehearsalOrder order, ClaimsPrincipal user, Library library, RehearsalStage stage, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.EstateKind, name, cancel) is not { } row) return await library.NoEstateAsync(name,
            cancel);
        var mistakes = new List<RehearsedMistake>();
        foreach (var word in order.Mistakes ?? [])
        {
            if (RehearsedMistakes.Find(word) is not { } mistake)
                return Problems.Bad(
                    "mistakes", $"'{word}' is no mistake that a rehearsal can hold.", string.Join(", ", RehearsedMistakes.All),
                        word,
                    RehearsedMistakes.All);
            mistakes.Add(mistake);
        }

        try
        {
            var (problem, laid) = await stage.LayAsync(row, order, mistakes, user.Identity!.Name!, cancel);
            return problem is not null ? problem : TypedResults.Ok(laid!);
        }
        catch (MistakeException e)
        {
            return Problems.Bad(
                "mistakes", $"This mistake has no place here: {e.Message}", "a mistake that an install of the estate meets");
        }
    }

    private static async Task<Results<Ok<RehearsalView>, ProblemHttpResult>> ShowAsync(
        string name, Library library, RehearsalStage stage, CancellationToken cancel) =>
        await RehearsalAsync(name, library, cancel) is (null, var rehearsal)
            ? TypedResults.Ok(await stage.ShowAsync(rehearsal!, cancel))
            : await NoneAsync(name, library, cancel);

    private static async Task<Results<Ok<SetupPlayedView>, ProblemHttpResult>> PlaySetupAsync(
        string name, ClaimsPrincipal user, Library library, SetupPlay play, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.InstallKind, name, cancel) is not { } row)
            return (await library.MissingAsync(Library.InstallKind, name, cancel))!;
        if (await library.RehearsalOfInstallAsync(name, cancel) is null)
            return Problems.Of(
                409, "not-rehearsed", $"{name} is in no rehearsal: its setup is run by whoever installs the product.",
                "Then say so: justright install stage INSTALL installed");
        return TypedResults.Ok(await play.PlayAsync(row, user.Identity!.Name!, cancel));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> EndAsync(
        string name, ClaimsPrincipal user, Library library, RehearsalStage stage, CancellationToken cancel)
    {
        var (problem, rehearsal) = await RehearsalAsync(name, library, cancel);
        problem ??= await stage.EndAsync(rehearsal!, user.Identity!.Name!, cancel);
        return problem is null ? TypedResults.NoContent() : problem;
    }

    /// <summary>The rehearsal of an estate; its own name will do as well. The estate itself may be gone.</summary>
    private static async Task<(ProblemHttpResult? Problem, Estate? Rehearsal)> RehearsalAsync(
        string name, Library library, CancellationToken cancel) =>
        await library.RehearsalAsync(RehearsalRules.NameOf(name), cancel) is { } own ? (null, own)
        : await library.RehearsalAsync(name, cancel) is { } itself ? (null, itself)
        : (await NoneAsync(name, library, cancel), null);

    private static async Task<ProblemHttpResult> NoneAsync(string name, Library library, CancellationToken cancel) =>
        await library.MissingAsync(Library.EstateKind, name, cancel)
        ?? Problems.Of(404, "not-found", $"There is no rehearsal of {name}.", $"Lay one: justright estate rehearse {name}");
}
