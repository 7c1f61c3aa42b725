namespace JustRight.Core.Calendar;

/// <summary>What comes to an end, or is to be done.</summary>
public enum EntryKind
{
    /// <summary>A password expires, or is to be renewed or looked at.</summary>
    Password,

    /// <summary>An install is to be reviewed.</summary>
    Review,

    /// <summary>An exception ends: from then on what it covered counts again.</summary>
    Exception,

    /// <summary>What a person confirmed no longer counts.</summary>
    Confirmation,

    /// <summary>What was retired has waited long enough, and may be removed for good.</summary>
    Removal,
}

/// <summary>How an entry stands.</summary>
public enum EntryStanding
{
    /// <summary>Its time is over.</summary>
    Overdue,

    /// <summary>It is due within the time the organization wants to be told before.</summary>
    Soon,

    /// <summary>It is due later.</summary>
    Later,
}

/// <summary>One entry of the organization's calendar.</summary>
/// <param name="Id">Stable for as long as it is about the same thing, whatever its date.</param>
/// <param name="At">When it is due.</param>
/// <param name="Subject">The account or install it is about.</param>
/// <param name="Words">What is due, and why then.</param>
/// <param name="Warn">How long before it is spoken of.</param>
/// <param name="Next">What to do, as a command of the client.</param>
public sealed record CalendarEntry(
    string Id, EntryKind Kind, DateTimeOffset At, string Subject, string Words, TimeSpan Warn, string Next)
{
    /// <summary>How it stands at a moment.</summary>
    public EntryStanding StandingAt(DateTimeOffset now) =>
        At <= now ? EntryStanding.Overdue : At - Warn <= now ? EntryStanding.Soon : EntryStanding.Later;

    /// <summary>
    /// What a reminder is known by: one goes out when it is spoken of first and one when its time is over, however often somebody
    /// looks, and though a clock be set back between. Another date is another reminder. Null while it is due later.
    /// </summary>
    public string? ReminderAt(DateTimeOffset now) => StandingAt(now) switch
    {
        EntryStanding.Later => null,
        var standing => $"{Id} {At.UtcDateTime:yyyy-MM-dd'T'HH:mm:ss'Z'} {standing.ToString().ToLowerInvariant()}",
    };
}
