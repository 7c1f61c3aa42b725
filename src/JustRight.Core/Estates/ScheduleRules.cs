namespace JustRight.Core.Estates;

/// <summary>How often the estate is looked at without anybody asking.</summary>
/// <param name="Every">The time from one look to the next.</param>
public sealed record ScheduleRules(TimeSpan Every)
{
    /// <summary>
    /// The next look after a moment. The looks of an estate are <see cref="Every"/> apart, from a point that hangs on its name
    /// alone: estates that are watched equally often are not all read at once, and a restart of the service shifts nothing.
    /// </summary>
    /// <param name="zone">
    /// The organization's: a look each day, or each so many days, comes at the same time by the clock on the wall, in summer as
    /// in winter. Where the clock jumps over that time, it comes as much later; of a time that comes twice, at the second.
    /// </param>
    public DateTimeOffset Next(string estate, DateTimeOffset now, TimeZoneInfo zone)
    {
        if (Every.Ticks % TimeSpan.TicksPerDay != 0)
            return new DateTimeOffset(now.UtcTicks - Since(estate, now.UtcTicks) + Every.Ticks, TimeSpan.Zero);
        var wall = TimeZoneInfo.ConvertTime(now, zone).DateTime;
        var look = wall.AddTicks(-Since(estate, wall.Ticks)); // the last one, by the wall
        while (MomentOf(look, zone) <= now) look += Every;
        return MomentOf(look, zone);
    }

    private static DateTimeOffset MomentOf(DateTime wall, TimeZoneInfo zone) =>
        new DateTimeOffset(wall, zone.GetUtcOffset(wall)).ToUniversalTime();

    /// <summary>How long ago the last look was, less than <see cref="Every"/>.</summary>
    private long Since(string estate, long ticks)
    {
        var since = (ticks - Offset(estate)) % Every.Ticks;
        return since < 0 ? since + Every.Ticks : since;
    }

    /// <summary>FNV-1a [draft-eastlake-fnv], since a string's own hash is another at each start.</summary>
    private long Offset(string estate)
    {
        var hash = 14695981039346656037;
        foreach (var letter in estate) hash = (hash ^ letter) * 1099511628211;
        return (long)(hash % (ulong)Every.Ticks);
    }
}
