namespace JustRight.Service.Storage;

/// <summary>A secret, encrypted.</summary>
public sealed class SecretRow
{
    public int Id { get; set; }

    public required string Name { get; set; }

    public required string Protected { get; set; }

    public DateTimeOffset SetAt { get; set; }

    public required string SetBy { get; set; }
}

/// <summary>A password a grant made, encrypted until it is handed over.</summary>
public sealed class PasswordRow
{
    public int Id { get; set; }

    public required string Install { get; set; }

    /// <summary><c>DOMAIN\name</c>.</summary>
    public required string Account { get; set; }

    /// <summary>Encrypted; null once handed over.</summary>
    public string? Protected { get; set; }

    public DateTimeOffset CreatedAt { get; set; }

    public DateTimeOffset? HandedOverAt { get; set; }

    public string? HandedOverBy { get; set; }
}

/// <summary>The renewal of a password. Its run-book is its journal.</summary>
public sealed class RenewalRow
{
    public required string Id { get; set; }

    public required string Estate { get; set; }

    /// <summary>The logon name.</summary>
    public required string Account { get; set; }

    public required string StartedBy { get; set; }

    public DateTimeOffset StartedAt { get; set; }

    public DateTimeOffset? EndedAt { get; set; }

    public required string BookJson { get; set; }

    /// <summary>The new password, encrypted, until the renewal is over.</summary>
    public string? NewProtected { get; set; }

    /// <summary>The old one, encrypted, until the renewal is over; null when it was not known.</summary>
    public string? OldProtected { get; set; }
}

/// <summary>A place where a password is typed, that a person told of.</summary>
public sealed class ToldPlaceRow
{
    public int Id { get; set; }

    public required string Estate { get; set; }

    public required string Account { get; set; }

    public required string Host { get; set; }

    public required string Where { get; set; }

    public required string Setting { get; set; }

    public required string Breaks { get; set; }

    public string? Reference { get; set; }

    public DateTimeOffset ToldAt { get; set; }

    public required string ToldBy { get; set; }
}
