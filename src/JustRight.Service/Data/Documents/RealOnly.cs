using JustRight.Core.Estates;
using JustRight.Core.Installs;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Data.Documents;

/// <summary>
/// What a rehearsal does not give: whatever leaves Just Right and could be used for the real systems, whose names a rehearsal
/// bears.
/// </summary>
internal static class RealOnly
{
    /// <summary>Refuses a call for an install of a rehearsal. The route names the install <c>name</c>.</summary>
    /// <param name="what">What is not given, at the head of a sentence.</param>
    public static RouteHandlerBuilder OfRealInstalls(this RouteHandlerBuilder call, string what) => call.AddEndpointFilter(
        async (context, next) =>
        {
            var http = context.HttpContext;
            var library = http.RequestServices.GetRequiredService<Library>();
            return await library.RehearsalOfInstallAsync($"{http.GetRouteValue("name")}", http.RequestAborted) is { } rehearsal
                ? Refused(what, rehearsal)
                : await next(context);
        }).ProducesProblem(409);

    /// <summary>The answer where something is not given of a rehearsal.</summary>
    public static ProblemHttpResult Refused(string what, Estate rehearsal) => Problems.Of(
        409, "rehearsal", $"{what}: {rehearsal.Name} is a rehearsal.",
        $"It bears the names of {rehearsal.Rehearses}, and could be taken for the real one. Ask for it there.");

    /// <summary>The rehearsal that an install is in; null where it is in none.</summary>
    public static async Task<Estate?> RehearsalOfInstallAsync(this Library library, string install, CancellationToken cancel) =>
        await library.FindAsync(Library.InstallKind, install, cancel) is { } row
        && Library.OpenInstall(row).Document is { } read
            ? await library.RehearsalAsync(read.Estate, cancel)
            : null;

    /// <summary>An estate that is a rehearsal; null for any other.</summary>
    public static async Task<Estate?> RehearsalAsync(this Library library, string estate, CancellationToken cancel) =>
        await library.FindAsync(Library.EstateKind, estate, cancel) is { } row
        && Library.OpenEstate(row).Document is { IsRehearsal: true } rehearsal
            ? rehearsal
            : null;

    /// <summary>
    /// Why an install is not stored: what was said of it in a rehearsal would count in the real estate, or the other way round.
    /// Null where that is not so.
    /// </summary>
    public static async Task<ProblemHttpResult?> WhyNotMovedAsync(
        this Library library, Install install, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.InstallKind, install.Name, cancel) is not { } before) return null;
        var from = Library.OpenInstall(before).Document?.Estate;
        if (from == install.Estate) return null;
        var known = from is null ? null : await library.RehearsalAsync(from, cancel);
        return known is null && await library.RehearsalAsync(install.Estate, cancel) is null ? null
            : Problems.Of(
                409, "rehearsal",
                $"{install.Name} is of {from ?? "another estate"}: it does not move into a rehearsal or out of one.",
                "Add it under another name.");
    }
}
