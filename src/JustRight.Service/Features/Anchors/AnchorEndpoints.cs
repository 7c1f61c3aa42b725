using JustRight.Contracts;
using JustRight.Service.Data.Evidence;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Anchors;

/// <summary>Whether the log can be believed.</summary>
internal static class AnchorEndpoints
{
    public static void MapAnchors(this IEndpointRouteBuilder api)
    {
        api.MapGet("/log/check", CheckLogAsync)
            .WithName("CheckLog").WithSummary("Checks the log's chain of hashes against its signed heads")
            .RequireAuthorization(Roles.Reader);

        api.MapPost("/log/check", CheckLogAgainstAnchorAsync)
            .WithName("CheckLogAgainstAnchor")
            .WithSummary("Checks the log, and whether it still holds the head that an anchor names")
            .RequireAuthorization(Roles.Reader);

        api.MapGet("/log/anchor", AnchorLogAsync)
            .WithName("AnchorLog").WithSummary("The signed head of the log, to be kept elsewhere")
            .RequireAuthorization(Roles.Reader);
    }

    private static async Task<Ok<LogCheckView>> CheckLogAsync(LogHeads heads, CancellationToken cancel) =>
        TypedResults.Ok(await heads.CheckAsync(null, cancel));

    private static async Task<Ok<LogCheckView>> CheckLogAgainstAnchorAsync(
        LogAnchor anchor, LogHeads heads, CancellationToken cancel) =>
        TypedResults.Ok(await heads.CheckAsync(anchor.Head, cancel));

    private static async Task<ContentHttpResult> AnchorLogAsync(LogHeads heads, CancellationToken cancel) =>
        TypedResults.Text(await heads.SignAsync(cancel), EvidenceKey.MediaType);
}
