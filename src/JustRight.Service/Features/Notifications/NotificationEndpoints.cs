using JustRight.Contracts;
using JustRight.Service.Data.Documents;
using JustRight.Service.Jobs.Notifications;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Lists;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Notifications;

/// <summary>What was told to whom.</summary>
internal static class NotificationEndpoints
{
    public static void MapNotifications(this IEndpointRouteBuilder api)
    {
        api.MapGet("/estates/{name}/notifications", ListAsync)
            .WithName("ListNotifications")
            .WithSummary("The notifications sent and whether they were delivered, newest first: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);
        api.MapPost("/estates/{name}/reminders", RemindAsync)
            .WithName("Remind").WithSummary("Sends due reminders now instead of at the next hour; returns the new ones")
            .RequireAuthorization(Roles.Planner).ProducesProblem(404);
    }

    private static async Task<Results<Ok<IReadOnlyList<NotificationView>>, ProblemHttpResult>> RemindAsync(
        string name, Library library, NotificationService notificationService, CancellationToken cancel) =>
        await library.EstateAsync(name, cancel) is { } estate
            ? TypedResults.Ok(await notificationService.RemindAsync(estate, cancel))
            : await library.NoEstateAsync(name, cancel);

    private static async Task<Results<Ok<NotificationPage>, ProblemHttpResult>> ListAsync(
        string name, [AsParameters] ListOrder order, Library library, NotificationService notificationService,
        CancellationToken cancel)
    {
        if (NotificationService.Columns.WhyNot(order) is { } wrong) return wrong;
        return await library.MissingAsync(Library.EstateKind, name, cancel) is { } missing ? missing
            : TypedResults.Ok(await notificationService.ListAsync(name, order, cancel));
    }
}
