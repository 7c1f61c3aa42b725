using System.Text;
using JustRight.Contracts;
using JustRight.Core.Calendar;
using JustRight.Service.Data.Calendar;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Lists;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Features.Calendar;

/// <summary>What is due, as a list and as a file for people's own calendars.</summary>
internal static class CalendarEndpoints
{
    private static readonly Columns<(int Place, CalendarEntry Entry)> Columns = new(
        Column<(int Place, CalendarEntry Entry)>.Of("at", e => e.Place),
        Column<(int Place, CalendarEntry Entry)>.Of("subject", e => e.Entry.Subject),
        Column<(int Place, CalendarEntry Entry)>.Of("kind", e => e.Entry.Kind.Word()));

    public static void MapCalendar(this IEndpointRouteBuilder api)
    {
        api.MapGet("/estates/{name}/calendar", ListAsync).WithName("ShowCalendar")
            .WithSummary(
                "What expires or is due: passwords, reviews, exceptions, confirmations; the earliest first: a page, searched and sorted")
            .RequireAuthorization(Roles.Reader).ProducesProblem(400).ProducesProblem(404);

        api.MapGet("/estates/{name}/calendar/file", ShowCalendarFileAsync)
            .WithName("ShowCalendarFile").WithSummary("The same as iCalendar [RFC 5545], for people's own calendars")
            .RequireAuthorization(Roles.Reader).Produces<string>(200, CalendarFile.MediaType).ProducesProblem(404);
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> ShowCalendarFileAsync(
        string name, Library library, CalendarService calendarService, TimeProvider time, CancellationToken cancel) =>
        await library.EstateAsync(name, cancel) is { } estate
            ? TypedResults.File(
                Encoding.UTF8.GetBytes(
                    CalendarFile.Write(name, await calendarService.EntriesAsync(estate, cancel), time.GetUtcNow())),
                CalendarFile.MediaType, $"{name}.ics")
            : await library.NoEstateAsync(name, cancel);

    private static async Task<Results<Ok<CalendarView>, ProblemHttpResult>> ListAsync(
        string name, [AsParameters] ListOrder order, Library library, CalendarService calendarService, TimeProvider time,
        CancellationToken cancel)
    {
        if (Columns.WhyNot(order) is { } wrong) return wrong;
        if (await library.EstateAsync(name, cancel) is not { } estate)
            return await library.NoEstateAsync(name, cancel);
        var now = time.GetUtcNow();
        var words = SoughtWords.Of(order.Search);
        var matching = (await calendarService.EntriesAsync(estate, cancel)).Select((e, i) => (Place: i, Entry: e)).Where(e =>
            SoughtWords.AreIn(words, e.Entry.Subject, e.Entry.Words, e.Entry.Next, e.Entry.Kind.Word()));
        var (rows, total) = Columns.Page(matching, order);
        return TypedResults.Ok(
            new CalendarView(
                name, estate.IsSimulated, estate.Rules.TimeZone.Id,
                [.. rows.Select(r => new CalendarEntryView(
                    r.Entry.Id, r.Entry.Kind.Word(), r.Entry.StandingAt(now).Word(), r.Entry.At, r.Entry.Subject, r.Entry.Words,
                    r.Entry.Next))],
                order.Skipped, total));
    }
}
