using System.Security.Claims;
using JustRight.Contracts;
using JustRight.Service.Data.Log;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Access;

/// <summary>Who is signed in to the console.</summary>
internal static class SessionEndpoints
{
    public static void MapSessions(this IEndpointRouteBuilder api)
    {
        api.MapGet("/sessions", ListSessionsAsync)
            .WithName("ListSessions").WithSummary("Who is signed in to the console")
            .RequireAuthorization(Roles.Owner);

        api.MapDelete("/sessions/{id}", EndSessionAsync)
            .WithName("EndSession").WithSummary("Ends a session: its person must sign in again")
            .RequireAuthorization(Roles.Owner).ProducesProblem(404);
    }

    private static async Task<Ok<IReadOnlyList<SessionView>>> ListSessionsAsync(Sessions sessions, CancellationToken cancel)
    {
        var rows = await sessions.ListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<SessionView>>(
            [.. rows.Select(s => new SessionView(s.Id, s.Name, s.Role, s.StartedAt, s.ExpiresAt))]);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> EndSessionAsync(
        string id, ClaimsPrincipal user, Sessions sessions, LogStore log, CancellationToken cancel)
    {
        var known = await sessions.ListAsync(cancel);
        if (known.FirstOrDefault(s => $"{s.Id}" == id) is not { } found)
            return Problems.NotFound("session", id, known.Select(s => $"{s.Id}"));
        await log.AddWithAsync(
            db => db.Sessions.Remove(found), user.Identity!.Name!, "session", found.Name,
            $"ended: signed in at {found.StartedAt:u}", cancel);
        return TypedResults.NoContent();
    }
}
