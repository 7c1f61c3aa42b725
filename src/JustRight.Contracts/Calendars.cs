using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>What comes to an end, or is to be done, in an estate.</summary>
/// <param name="Estate">The estate.</param>
/// <param name="Simulated">Whether it is the simulation.</param>
/// <param name="TimeZone">The organization's time zone, by its name in the time zone database.</param>
/// <param name="Entries">What comes to an end or is to be done, the earliest first.</param>
/// <param name="Skipped">How many of those that match come before them.</param>
/// <param name="Total">How many match.</param>
public sealed record CalendarView(
    string Estate, bool Simulated, string TimeZone, IReadOnlyList<CalendarEntryView> Entries, int Skipped, int Total);

/// <summary>One entry.</summary>
/// <param name="Id">Stable for as long as it is about the same thing.</param>
/// <param name="Kind"><c>password</c>, <c>review</c>, <c>exception</c>, <c>confirmation</c> or <c>removal</c>.</param>
/// <param name="Standing"><c>overdue</c>, <c>soon</c> or <c>later</c>.</param>
/// <param name="At">When it comes to an end, or is due.</param>
/// <param name="Subject">The account or install it is about.</param>
/// <param name="Words">What it is about, in one sentence.</param>
/// <param name="Next">What to do, as a command of the client.</param>
public sealed record CalendarEntryView(
    string Id, [property: AllowedValues("password", "review", "exception", "confirmation", "removal")] string Kind,
    [property: AllowedValues("overdue", "soon", "later")] string Standing, DateTimeOffset At, string Subject, string Words,
    string Next);

/// <summary>Something that was told to those whom the organization wants told.</summary>
/// <param name="Id">Counted from 1.</param>
/// <param name="Estate">The estate it is about.</param>
/// <param name="Kind"><c>reminder</c> or <c>drift</c>.</param>
/// <param name="Subject">Its first line.</param>
/// <param name="Text">What was told.</param>
/// <param name="At">When it was written.</param>
/// <param name="Deliveries">How it reached each of those who are told.</param>
public sealed record NotificationView(
    int Id, string Estate, [property: AllowedValues("reminder", "drift")] string Kind, string Subject, string Text,
    DateTimeOffset At, IReadOnlyList<DeliveryView> Deliveries);

/// <summary>A page of the list of notifications.</summary>
/// <param name="Items">The notifications, in the order that was asked for.</param>
/// <param name="Skipped">How many of those that match come before them.</param>
/// <param name="Total">How many match.</param>
public sealed record NotificationPage(IReadOnlyList<NotificationView> Items, int Skipped, int Total);

/// <summary>How a notice reached one of them.</summary>
/// <param name="Channel"><c>mail</c> or <c>webhook</c>.</param>
/// <param name="To">The mail address, or the webhook's address.</param>
/// <param name="State"><c>waiting</c>, <c>sent</c> or <c>given-up</c>.</param>
/// <param name="Tries">How often it was tried.</param>
/// <param name="At">When it was last tried, or written while it was not.</param>
/// <param name="Error">Why the last try failed, or null.</param>
public sealed record DeliveryView(
    [property: AllowedValues("mail", "webhook")] string Channel, string To,
    [property: AllowedValues("waiting", "sent", "given-up")] string State, int Tries, DateTimeOffset At, string? Error);

/// <summary>How an estate is watched.</summary>
/// <param name="Estate">The estate.</param>
/// <param name="EveryHours">The hours from one look to the next; null when nobody watches.</param>
/// <param name="Next">When it is looked at next, or null.</param>
/// <param name="LastAt">When it was last looked at by the watch, or null.</param>
/// <param name="LastWords">What that said.</param>
/// <param name="Recipients">Who is told when something gets worse.</param>
public sealed record ScheduleView(
    string Estate, int? EveryHours, DateTimeOffset? Next, DateTimeOffset? LastAt, string? LastWords,
    IReadOnlyList<string> Recipients);

/// <summary>A notice as a webhook gets it.</summary>
/// <param name="Id">Counted from 1; the same one for every try.</param>
/// <param name="Estate">The estate it is about.</param>
/// <param name="Kind"><c>reminder</c> or <c>drift</c>.</param>
/// <param name="Subject">Its first line.</param>
/// <param name="Text">What is told.</param>
/// <param name="At">When it was written.</param>
public sealed record WebhookNotification(
    int Id, string Estate, [property: AllowedValues("reminder", "drift")] string Kind, string Subject, string Text,
    DateTimeOffset At);
