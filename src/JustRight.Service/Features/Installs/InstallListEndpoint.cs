using JustRight.Contracts;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Lists;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Installs;

/// <summary>The list of installs.</summary>
internal static class InstallListEndpoint
{
    private const int LongestWait = 60;

    public static void MapInstallList(this IEndpointRouteBuilder api) =>
        api.MapGet("/installs", ListAsync).WithName("ListInstalls")
            .WithSummary("The installs with their fit at a glance: a page, searched, filtered and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400);

    private static async Task<Results<Ok<InstallPage>, ProblemHttpResult>> ListAsync(
        [AsParameters] InstallFilter filter, [AsParameters] ListOrder order, int? wait, InstallList installs,
        CancellationToken cancel)
    {
        if (filter.WhyNot() is { } wrong) return wrong;
        if (InstallList.Columns.WhyNot(order) is { } unsorted) return unsorted;
        if (wait is < 0 or > LongestWait)
            return Problems.Bad("wait", "This is not a time to wait.", $"0 to {LongestWait} seconds", $"{wait}");
        return TypedResults.Ok(await installs.PageAsync(filter, order, TimeSpan.FromSeconds(wait ?? 0), cancel));
    }
}
