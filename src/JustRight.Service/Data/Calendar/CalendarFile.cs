using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using JustRight.Core.Calendar;
using JustRight.Service.Data.Storage;
using IcalCalendar = Ical.Net.Calendar;

namespace JustRight.Service.Data.Calendar;

/// <summary>The organization's calendar as iCalendar [RFC 5545], for people's own calendars.</summary>
internal static class CalendarFile
{
    /// <summary>The media type.</summary>
    public const string MediaType = "text/calendar";

    /// <summary>
    /// Each entry as an event at its moment, with an alarm when the organization wants it spoken of. An entry keeps its UID, so
    /// that a calendar that reads the file again moves it instead of doubling it.
    /// </summary>
    public static string Write(string estate, IReadOnlyList<CalendarEntry> entries, DateTimeOffset now)
    {
        var calendar = new IcalCalendar { ProductId = "-//Just Right//Calendar//EN", Method = "PUBLISH" };
        calendar.AddProperty("X-WR-CALNAME", $"Just Right: {estate}");
        foreach (var entry in entries)
        {
            var shown = new CalendarEvent
            {
                Uid = $"{entry.Id.Replace(' ', '-')}@{estate}.justright",
                DtStamp = At(now),
                Start = At(entry.At),
                Summary = $"{entry.Subject}: {Title(entry.Kind)}",
                Description = $"{entry.Words}\n{entry.Next}",
                Transparency = TransparencyType.Transparent, // nobody is busy by it
            };
            shown.Categories.Add(entry.Kind.Word());
            if (entry.Warn > TimeSpan.Zero)
                shown.Alarms.Add(new Alarm
                {
                    Action = AlarmAction.Display,
                    Description = shown.Summary,
                    Trigger = new Trigger(
                    Duration.FromTimeSpanExact(-entry.Warn))
                });
            calendar.Events.Add(shown);
        }

        return new CalendarSerializer().SerializeToString(calendar) ?? "";
    }

    /// <summary>What an entry is about, in few words.</summary>
    public static string Title(EntryKind kind) => kind switch
    {
        EntryKind.Password => "password due",
        EntryKind.Review => "review due",
        EntryKind.Exception => "an exception ends",
        EntryKind.Removal => "removal due",
        _ => "a confirmation ends",
    };

    /// <summary>In UTC, so that no calendar needs the rules of our time zone.</summary>
    private static CalDateTime At(DateTimeOffset moment) => new(moment.UtcDateTime, CalDateTime.UtcTzId);
}
