using JustRight.Contracts;
using JustRight.Service.Data.Evidence;
using JustRight.Service.Platform.Answers;

namespace JustRight.Service.Features.Anchors;

/// <summary>Whether the log can be believed.</summary>
internal static class AnchorEndpoints
{
    public static void MapAnchors(this IEndpointRouteBuilder api)
    {
        api.MapGet("/log/check", async (LogHeads heads, CancellationToken cancel) =>
                TypedResults.Ok(await heads.CheckAsync(null, cancel)))
            .WithName("CheckLog").WithSummary("Checks the log's chain of hashes against its signed heads")
            .RequireAuthorization(Roles.Reader);

        api.MapPost("/log/check", async (LogAnchor anchor, LogHeads heads, CancellationToken cancel) =>
                TypedResults.Ok(await heads.CheckAsync(anchor.Head, cancel)))
            .WithName("CheckLogAgainstAnchor")
            .WithSummary("Checks the log, and whether it still holds the head that an anchor names")
            .RequireAuthorization(Roles.Reader);

        api.MapGet("/log/anchor", async (LogHeads heads, CancellationToken cancel) =>
                TypedResults.Text(await heads.SignAsync(cancel), EvidenceKey.MediaType))
            .WithName("AnchorLog").WithSummary("The signed head of the log, to be kept elsewhere")
            .RequireAuthorization(Roles.Reader);
    }
}
