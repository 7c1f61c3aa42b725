namespace JustRight.Core.Estates;

/// <summary>Whom the organization wants told of what is due and of what got worse.</summary>
/// <param name="Mail">Addresses.</param>
/// <param name="Webhook">An address that is called with each notice, or null.</param>
/// <param name="WebhookSecret">The name of the secret, kept by the service, that signs what is sent there.</param>
public sealed record NotificationRules(IReadOnlyList<string> Mail, Uri? Webhook, string? WebhookSecret)
{
    /// <summary>Nobody.</summary>
    public static NotificationRules Nobody { get; } = new([], null, null);
}
