namespace JustRight.Service.Data.Storage;

/// <summary>Something that is told to those whom the organization wants told. Kept whether or not it reaches them.</summary>
public sealed class NotificationRow
{
    public int Id { get; set; }

    public required string Estate { get; set; }

    /// <summary>What it is known by: the same is never told twice.</summary>
    public required string Key { get; set; }

    /// <summary><c>reminder</c> or <c>drift</c>.</summary>
    public required string Kind { get; set; }

    public required string Subject { get; set; }

    public required string Text { get; set; }

    public DateTimeOffset At { get; set; }

    public List<DeliveryRow> Deliveries { get; set; } = [];
}

/// <summary>A notice on its way to one of them.</summary>
public sealed class DeliveryRow
{
    public int Id { get; set; }

    public int NotificationId { get; set; }

    public required DeliveryChannel Channel { get; set; }

    public required string To { get; set; }

    /// <summary>The name of the secret that signs it; null for mail.</summary>
    public string? Secret { get; set; }

    public required DeliveryState State { get; set; }

    public int Tries { get; set; }

    /// <summary>When it is tried next, while it waits.</summary>
    public DateTimeOffset NextTry { get; set; }

    /// <summary>When its state last changed.</summary>
    public DateTimeOffset At { get; set; }

    public string? Error { get; set; }
}
