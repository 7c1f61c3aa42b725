namespace JustRight.Service.Storage;

/// <summary>An entry of the log. Never changed, never deleted.</summary>
public sealed class LogRow
{
    public long Number { get; set; }

    public DateTimeOffset At { get; set; }

    public required string Who { get; set; }

    public required string Action { get; set; }

    public required string Subject { get; set; }

    public required string Detail { get; set; }

    public required string Hash { get; set; }
}
