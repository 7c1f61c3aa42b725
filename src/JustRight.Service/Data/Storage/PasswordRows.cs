using System.ComponentModel.DataAnnotations.Schema;
using JustRight.Core.SecretUses;

namespace JustRight.Service.Data.Storage;

/// <summary>A secret, encrypted.</summary>
public sealed class SecretRow
{
    public int Id { get; set; }

    public required string Name { get; set; }

    public required string Protected { get; set; }

    public DateTimeOffset SetAt { get; set; }

    public required string SetBy { get; set; }
}

/// <summary>That an owner allowed a secret for a use.</summary>
public sealed class SecretAllowanceRow
{
    public int Id { get; set; }

    /// <summary>The name of a secret, or an account as <c>DOMAIN\name</c> for the password that is kept of it.</summary>
    public required string Subject { get; set; }

    public required string UseId { get; set; }

    public required string Purpose { get; set; }

    public required string Estate { get; set; }

    public required string For { get; set; }

    public required string Address { get; set; }

    public required string SignInAs { get; set; }

    public required string Transport { get; set; }

    public required string Anchor { get; set; }

    public DateTimeOffset AllowedAt { get; set; }

    public required string AllowedBy { get; set; }

    /// <summary>The use, whole.</summary>
    [NotMapped]
    public SecretUse Use => new(SecretPurposeNames.Read(Purpose), Estate, For, Address, SignInAs, Transport, Anchor);

    /// <summary>A row for a use.</summary>
    public static SecretAllowanceRow Of(string subject, SecretUse use, string who, DateTimeOffset at) => new()
    {
        Subject = subject,
        UseId = use.Id,
        Purpose = use.Purpose.Name(),
        Estate = use.Estate,
        For = use.For,
        Address = use.Address,
        SignInAs = use.SignInAs,
        Transport = use.Transport,
        Anchor = use.Anchor,
        AllowedAt = at,
        AllowedBy = who,
    };
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

    /// <summary>The key of its own that it is encrypted with; null for one from before they had one.</summary>
    public string? KeyName { get; set; }

    public DateTimeOffset CreatedAt { get; set; }

    public DateTimeOffset? HandedOverAt { get; set; }

    public string? HandedOverBy { get; set; }
}

/// <summary>What the renewal of a password keeps besides its steps, which are those of the job of the same id.</summary>
public sealed class RenewalRow
{
    /// <summary>The id of the job.</summary>
    public required string Id { get; set; }

    public required string Estate { get; set; }

    /// <summary>The logon name.</summary>
    public required string Account { get; set; }

    public required string StartedBy { get; set; }

    public DateTimeOffset StartedAt { get; set; }

    public DateTimeOffset? EndedAt { get; set; }

    /// <summary>The steps as releases before 0.2 kept them; null from then on, and once they are steps of a job.</summary>
    public string? BookJson { get; set; }

    /// <summary>The new password, encrypted, until the renewal is over.</summary>
    public string? NewProtected { get; set; }

    /// <summary>
    /// What was allowed of secrets when it began: it ends with that. Lines as <c>SecretGate.Key</c> writes them.
    /// </summary>
    public string? AllowedAtStart { get; set; }

    /// <summary>The same, one by one.</summary>
    [NotMapped]
    public IReadOnlyCollection<string> AllowedWhenBegun => AllowedAtStart?.Split('\n', StringSplitOptions.RemoveEmptyEntries)
        ?? [];

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
