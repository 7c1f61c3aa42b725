using System.Text;
using JustRight.Contracts;
using JustRight.Service.Answers;
using JustRight.Service.Documents;
using JustRight.Service.Passwords;
using JustRight.Service.Storage;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Calendar;

/// <summary>What is due, as a list and as a file for people's own calendars.</summary>
internal static class CalendarEndpoints
{
    public static void MapCalendar(this IEndpointRouteBuilder api)
    {
        api.MapGet("/estates/{name}/calendar", async Task<Results<Ok<CalendarView>, ProblemHttpResult>> (
            string name, Library library, CalendarService calendarService, TimeProvider time, CancellationToken cancel) =>
        {
            if (await PasswordEndpoints.EstateAsync(name, library, cancel) is not { } estate)
                return await PasswordEndpoints.MissingAsync(name, library, cancel);
            var now = time.GetUtcNow();
            return TypedResults.Ok(new CalendarView(name, estate.IsSimulated, estate.Rules.TimeZone.Id, [.. (
                await calendarService.EntriesAsync(estate, cancel)).Select(e => new CalendarEntryView(
                e.Id, e.Kind.Word(), e.StandingAt(now).Word(), e.At, e.Subject, e.Words, e.Next))]));
        }).WithName("ShowCalendar").WithSummary("What expires or is due: passwords, reviews, exceptions, confirmations; the earliest first").RequireAuthorization(Roles.Reader).ProducesProblem(404);

        api.MapGet("/estates/{name}/calendar/file", async Task<Results<FileContentHttpResult, ProblemHttpResult>> (
            string name, Library library, CalendarService calendarService, TimeProvider time, CancellationToken cancel) =>
            await PasswordEndpoints.EstateAsync(name, library, cancel) is { } estate
                ? TypedResults.File(
                    Encoding.UTF8.GetBytes(
                        CalendarFile.Write(name, await calendarService.EntriesAsync(estate, cancel), time.GetUtcNow())),
                    CalendarFile.MediaType, $"{name}.ics")
                : await PasswordEndpoints.MissingAsync(name, library, cancel))
            .WithName("ShowCalendarFile").WithSummary("The same as iCalendar [RFC 5545], for people's own calendars")
            .RequireAuthorization(Roles.Reader).Produces<string>(200, CalendarFile.MediaType).ProducesProblem(404);
    }
}
