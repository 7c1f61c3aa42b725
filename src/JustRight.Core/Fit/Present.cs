namespace JustRight.Core.Fit;

/// <summary>
/// The present, as judging asks for it: it notes the next moment at which an answer that it gave would be another. What was
/// judged by it holds until then, if nothing else changes.
/// </summary>
/// <param name="now">The present.</param>
public sealed class Present(DateTimeOffset now)
{
    /// <summary>From when on an answer that was given would be another; null while none ever would.</summary>
    public DateTimeOffset? HoldsUntil { get; private set; }

    /// <summary>Whether a moment has come.</summary>
    public bool HasReached(DateTimeOffset at)
    {
        if (now < at) Note(at);
        return now >= at;
    }

    /// <summary>Whether a moment is over.</summary>
    public bool IsPast(DateTimeOffset at) => HasReached(at.AddTicks(1));

    /// <summary>How many whole units have gone by since a moment that has come.</summary>
    public int WholeSince(DateTimeOffset since, TimeSpan unit)
    {
        var whole = (now - since).Ticks / unit.Ticks;
        Note(since + ((whole + 1) * unit));
        return (int)whole;
    }

    /// <summary>How many units there are to a moment that is to come, one that has begun counting as whole.</summary>
    public int UnitsUntil(DateTimeOffset until, TimeSpan unit)
    {
        var begun = ((until - now).Ticks + unit.Ticks - 1) / unit.Ticks;
        if (begun > 0) Note(until - ((begun - 1) * unit));
        return (int)begun;
    }

    private void Note(DateTimeOffset at)
    {
        if (HoldsUntil is not { } known || at < known) HoldsUntil = at;
    }
}
