using System.ComponentModel.DataAnnotations;
using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Formats.Hosts;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace JustRight.Service.Features.Estates;

/// <summary>Facts of hosts that no connection reaches come as files; the script that reads them goes out.</summary>
internal static class HostFactsEndpoints
{
    public static void MapHostFacts(this IEndpointRouteBuilder api)
    {
        api.MapPost("/estates/{name}/host-facts", AddAsync)
            .WithName("AddHostFacts")
            .WithSummary("Checks the facts of one host from the collecting script, and stores them for surveys; the body is the file, or a DocumentOrder as JSON")
            .Accepts<string>("text/plain", "application/json")
            .WithMetadata(new RequestSizeLimitAttribute(HostFactsReader.MostBytes)).RequireAuthorization(Roles.Planner)
            .ProducesProblem(400).ProducesProblem(404);
        api.MapGet("/host-scripts/{script}", ShowHostScript)
            .WithName("ShowHostScript")
            .WithSummary("The script that reads host facts (collect), or the one that makes changes on a host (change), as they are handed over")
            .Produces<string>(contentType: "text/plain")
            .RequireAuthorization(Roles.Reader).ProducesProblem(404);
    }

    private static IResult ShowHostScript([AllowedValues("collect", "change")] string script) =>
        script switch
        {
            "collect" => Results.Text(HostScripts.Collect),
            "change" => Results.Text(HostScripts.Change),
            _ => (IResult)Problems.NotFound("script", script, ["collect", "change"]),
        };

    private static async Task<Results<Ok<HostFactsView>, ProblemHttpResult>> AddAsync(
        string name, string? file, HttpRequest request, ClaimsPrincipal user, Library library, HostFactsStore hostFactsStore,
        CancellationToken cancel)
    {
        if (await library.EstateAsync(name, cancel) is not { } estate) return await library.NoEstateAsync(name, cancel);
        var sent = await Upload.ReadAsync(request, file, "facts.json", cancel);
        var (facts, faults) = await hostFactsStore.SaveAsync(
            estate, sent.File, sent.Bytes, user.Identity!.Name!, cancel);
        return facts is null
            ? Problems.Of(faults)
            : TypedResults.Ok(new HostFactsView(
                name, facts.Snapshot.Name, facts.Snapshot.ReadAt, facts.Snapshot.ReadBy, facts.Snapshot.LocalGroups.Count,
                facts.Snapshot.Services.Count, [.. facts.Snapshot.UnreadParts.Select(u => $"{u.Part}: {u.Reason}")]));
    }
}
