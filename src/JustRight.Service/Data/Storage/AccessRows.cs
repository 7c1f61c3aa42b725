namespace JustRight.Service.Data.Storage;

/// <summary>A token; only its hash is kept.</summary>
public sealed class TokenRow
{
    public int Id { get; set; }

    public required string Name { get; set; }

    public required string Role { get; set; }

    public required string Hash { get; set; }

    public DateTimeOffset CreatedAt { get; set; }

    public DateTimeOffset ExpiresAt { get; set; }

    public DateTimeOffset? LastUsedAt { get; set; }

    /// <summary>Whom it was issued to, as they sign in to the console; null for a token that is nobody's.</summary>
    public string? Person { get; set; }

    public DateTimeOffset? RevokedAt { get; set; }

    public string? RevokedBy { get; set; }
}

/// <summary>A session of the console; only the hash of its key is kept.</summary>
public sealed class SessionRow
{
    public int Id { get; set; }

    public required string Hash { get; set; }

    public required string Name { get; set; }

    public required string Role { get; set; }

    public DateTimeOffset StartedAt { get; set; }

    /// <summary>When it ends, however often it is used.</summary>
    public DateTimeOffset ExpiresAt { get; set; }

    /// <summary>Who is signed in, encrypted.</summary>
    public required byte[] Ticket { get; set; }
}

/// <summary>A one-time code of a sign-in link; only its hash is kept.</summary>
public sealed class CodeRow
{
    public int Id { get; set; }

    public required string Hash { get; set; }

    public DateTimeOffset ExpiresAt { get; set; }
}
