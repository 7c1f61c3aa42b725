namespace JustRight.Core.Estates;

/// <summary>How often the estate is looked at without anybody asking.</summary>
/// <param name="Every">The time from one look to the next.</param>
public sealed record ScheduleRules(TimeSpan Every)
{
    /// <summary>
    /// The next look after a moment. The looks of an estate are <see cref="Every"/> apart, from a point that hangs on its name
    /// alone: estates that are watched equally often are not all read at once, and a restart of the service shifts nothing.
    /// </summary>
    public DateTimeOffset Next(string estate, DateTimeOffset now)
    {
        var since = (now.UtcTicks - Offset(estate)) % Every.Ticks;
        return new DateTimeOffset(now.UtcTicks - since + (since < 0 ? 0 : Every.Ticks), TimeSpan.Zero);
    }

    /// <summary>FNV-1a [draft-eastlake-fnv], since a string's own hash is another at each start.</summary>
    private long Offset(string estate)
    {
        var hash = 14695981039346656037;
        foreach (var letter in estate) hash = (hash ^ letter) * 1099511628211;
        return (long)(hash % (ulong)Every.Ticks);
    }
}
