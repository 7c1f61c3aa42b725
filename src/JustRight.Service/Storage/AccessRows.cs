namespace JustRight.Service.Storage;

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
}

/// <summary>A one-time code of a sign-in link; only its hash is kept.</summary>
public sealed class CodeRow
{
    public int Id { get; set; }

    public required string Hash { get; set; }

    public DateTimeOffset ExpiresAt { get; set; }
}
