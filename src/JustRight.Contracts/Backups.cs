namespace JustRight.Contracts;

/// <summary>A backup to be made.</summary>
public sealed record BackupOrder
{
    /// <summary>A PEM certificate to which what is secret is encrypted; null for nothing secret in it.</summary>
    public string? Recipient { get; init; }
}

/// <summary>A backup that the client wrote.</summary>
/// <param name="File">Where it is.</param>
/// <param name="Bytes">How large it is.</param>
/// <param name="HasSecrets">Whether what is secret is in it, encrypted to the recipient.</param>
public sealed record BackupMade(string File, long Bytes, bool HasSecrets);
