using JustRight.Contracts;
using JustRight.Service.Data.Log;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Lists;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Log;

/// <summary>The log, for reading.</summary>
internal static class LogEndpoints
{
    public static void MapLog(this IEndpointRouteBuilder api) =>
        api.MapGet("/log", ListAsync).WithName("ListLog").WithSummary("The log, newest first: a page, searched")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400);

    private static async Task<Results<Ok<LogPage>, ProblemHttpResult>> ListAsync(
        string? search, long? before, int? take, LogPages log, CancellationToken cancel) =>
        take is < 1 or > ListOrder.MostTaken
            ? Problems.Bad("take", "This is not a number of entries to take.", $"1 to {ListOrder.MostTaken}", $"{take}")
            : TypedResults.Ok(await log.ReadAsync(search, before, take ?? ListOrder.DefaultTake, cancel));
}
