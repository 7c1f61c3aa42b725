namespace JustRight.Core.Estates;

/// <summary>How much a thing that got worse weighs, the heaviest first.</summary>
public enum DriftSeverity
{
    /// <summary>Something is held that is forbidden.</summary>
    Forbidden,

    /// <summary>Something that is needed is missing: the product fails, or will.</summary>
    Missing,

    /// <summary>Something is held that nothing asks for.</summary>
    Excess,
}

/// <summary>Words of <see cref="DriftSeverity"/>.</summary>
public static class DriftSeverityWords
{
    /// <summary>The words of files.</summary>
    public static readonly IReadOnlyList<string> All = ["forbidden", "missing", "excess"];

    /// <summary>The severity of a word.</summary>
    public static DriftSeverity Of(string word) => (DriftSeverity)All.ToList().IndexOf(word);
}

/// <summary>Whom the organization wants told of what is due and of what got worse.</summary>
/// <param name="Mail">Addresses.</param>
/// <param name="Webhook">An address that is called with each notice, or null.</param>
/// <param name="WebhookSecret">The name of the secret, kept by the service, that signs what is sent there.</param>
public sealed record NotificationRules(IReadOnlyList<string> Mail, Uri? Webhook, string? WebhookSecret)
{
    /// <summary>Nobody.</summary>
    public static NotificationRules Nobody { get; } = new([], null, null);

    /// <summary>What is told of what got worse: what weighs as much as this, or more.</summary>
    public DriftSeverity Least { get; init; } = DriftSeverity.Excess;

    /// <summary>When nobody is told anything: it waits for the end of it. Null when somebody always is.</summary>
    public DailyWindow? Rest { get; init; }

    /// <summary>
    /// When mail goes out, once a day, by the organization's clock; null when it goes at once. What is due together goes as one
    /// mail.
    /// </summary>
    public TimeOnly? Digest { get; init; }

    /// <summary>When what is known now goes out by mail.</summary>
    public DateTimeOffset MailAt(DateTimeOffset now, TimeZoneInfo zone) =>
        Digest is { } time ? new DailyWindow(time, time.AddMinutes(1)).NextOpen(now, zone) : CallAt(now, zone);

    /// <summary>When what is known now is called out to the webhook, which gathers for itself.</summary>
    public DateTimeOffset CallAt(DateTimeOffset now, TimeZoneInfo zone) => Rest?.NextOver(now, zone) ?? now;
}
