using System.Globalization;

namespace JustRight.Core.Estates;

/// <summary>
/// A time of day, by the clock of the organization: from one time up to, not including, another; past midnight when the second
/// is the earlier. Such as that at which services of a host may be restarted, or at which nobody is told anything.
/// </summary>
public sealed record DailyWindow(TimeOnly From, TimeOnly To)
{
    /// <summary>What one looks like.</summary>
    public const string Pattern = "([01][0-9]|2[0-3]):[0-5][0-9]-([01][0-9]|2[0-3]):[0-5][0-9]";

    /// <summary>Reads one that fits <see cref="Pattern"/>. The same time twice means the whole day.</summary>
    public static DailyWindow Parse(string text) =>
        new(
            TimeOnly.ParseExact(text[..5], "HH:mm", CultureInfo.InvariantCulture),
            TimeOnly.ParseExact(text[6..], "HH:mm", CultureInfo.InvariantCulture));

    /// <summary>
    /// Whether it is open at a moment. What counts is what the clock on the wall shows then, so that an hour that comes twice
    /// is open twice, and one that is left out is not missed.
    /// </summary>
    public bool IsOpen(DateTimeOffset now, TimeZoneInfo zone)
    {
        var clock = TimeOnly.FromDateTime(TimeZoneInfo.ConvertTime(now, zone).DateTime);
        return From == To || clock.IsBetween(From, To);
    }

    /// <summary>The next moment, to the minute, at which it is open: this one when it is now.</summary>
    public DateTimeOffset NextOpen(DateTimeOffset now, TimeZoneInfo zone)
    {
        if (IsOpen(now, zone)) return now;
        // Walking the minutes of a day and an hour meets every wall clock, however the zone jumps in between.
        var minute = new DateTimeOffset(now.UtcTicks - (now.UtcTicks % TimeSpan.TicksPerMinute), TimeSpan.Zero);
        do minute = minute.AddMinutes(1); while (!IsOpen(minute, zone) && minute - now < TimeSpan.FromHours(50));
        return minute;
    }

    /// <summary>The next moment at which it is over: this one when it is not open.</summary>
    public DateTimeOffset NextOver(DateTimeOffset now, TimeZoneInfo zone) =>
        IsOpen(now, zone) ? new DailyWindow(To, From).NextOpen(now, zone) : now;

    /// <inheritdoc/>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"{From:HH\\:mm}-{To:HH\\:mm}");
}
