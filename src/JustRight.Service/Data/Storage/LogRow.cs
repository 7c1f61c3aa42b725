namespace JustRight.Service.Data.Storage;

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

/// <summary>That the log had a hash at a number, signed.</summary>
public sealed class LogHeadRow
{
    public int Id { get; set; }

    public long Number { get; set; }

    /// <summary>A JSON Web Signature [RFC 7515].</summary>
    public required string Jws { get; set; }
}
