using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A one-time code from a sign-in link.</summary>
public sealed record SignInCode(string Code);

/// <summary>A one-time code to be exchanged for a token.</summary>
public sealed record TokenClaim(string Code, string Name);

/// <summary>Who is signed in.</summary>
public sealed record WhoView(string Name, string Role)
{
    /// <summary>The release of the service, where it is asked who one is; null elsewhere.</summary>
    public string? Release { get; init; }
}

/// <summary>An order for a token.</summary>
/// <param name="Role"><c>reader</c>, <c>planner</c>, <c>granter</c> or <c>owner</c>.</param>
/// <param name="Days">For how many days it is good; 1 to 366.</param>
public sealed record TokenOrder(
    string Name, [property: AllowedValues("reader", "planner", "granter", "owner")] string Role, int Days)
{
    /// <summary>
    /// Whom it is issued to, as they sign in to the console: with a token and a sign-in they are one person. Null for nobody.
    /// </summary>
    public string? Person { get; init; }
}

/// <summary>A new token: shown this once, kept only as a hash.</summary>
public sealed record NewTokenView(string Name, string Role, string Token, DateTimeOffset ExpiresAt);

/// <summary>A token in a list.</summary>
/// <param name="Person">Whom it was issued to; null for a token that is nobody's.</param>
public sealed record TokenView(
    string Name, string Role, DateTimeOffset CreatedAt, DateTimeOffset ExpiresAt, DateTimeOffset? LastUsedAt, string? Person);

/// <summary>Somebody who is signed in to the console.</summary>
/// <param name="Id">Names the session.</param>
/// <param name="ExpiresAt">When it ends, however often it is used.</param>
public sealed record SessionView(int Id, string Name, string Role, DateTimeOffset StartedAt, DateTimeOffset ExpiresAt);

/// <summary>A secret in a list; its value is never shown.</summary>
/// <param name="Name">The name of a secret, or an account as <c>DOMAIN\name</c> for the password that is kept of it.</param>
/// <param name="SetAt">When it was set; null when nothing is kept under the name.</param>
/// <param name="Uses">What it is asked for today, and what is allowed.</param>
public sealed record SecretView(string Name, DateTimeOffset? SetAt, string? SetBy, IReadOnlyList<SecretUseView> Uses);

/// <summary>One use of a secret, whole: it is allowed for exactly this, or not at all.</summary>
/// <param name="Id">Names the use; made of all of its parts.</param>
/// <param name="Words">The use in one line.</param>
/// <param name="IsAsked">Whether an estate, an install or the settings ask for it today.</param>
/// <param name="AllowedAt">When an owner allowed it; null when nobody did.</param>
public sealed record SecretUseView(
    string Id, string Purpose, string Estate, string For, string Address, string SignInAs, string Transport, string Anchor,
    string Words, bool IsAsked, DateTimeOffset? AllowedAt, string? AllowedBy);

/// <summary>A secret to keep.</summary>
public sealed record SecretValue(string Value);

/// <summary>A password that a grant made and that waits to be handed over.</summary>
public sealed record PasswordView(string Account, DateTimeOffset CreatedAt, DateTimeOffset? HandedOverAt, string? HandedOverBy);

/// <summary>The certificate to seal to, PEM.</summary>
public sealed record SealOrder(string Certificate);

/// <summary>A password sealed to a certificate as CMS enveloped data [RFC 5652], PEM.</summary>
public sealed record SealedPassword(string Account, string SealedTo, string Cms);

/// <summary>An entry of the log.</summary>
/// <param name="Hash">SHA-256 over this entry and the hash of the one before, in hex.</param>
public sealed record LogEntryView(
    long Number, DateTimeOffset At, string Who, string Action, string Subject, string Detail, string Hash);

/// <summary>The result of following the log's chain.</summary>
/// <param name="BrokenAt">The first entry that does not follow from the one before, or null.</param>
public sealed record LogCheckView(long Entries, bool Sound, long? BrokenAt, string? LastHash)
{
    /// <summary>What is wrong, in one sentence; null when the log is sound.</summary>
    public string? Fault { get; init; }

    /// <summary>How many signed heads the log was held against.</summary>
    public int Heads { get; init; }

    /// <summary>The entry up to which the log is signed.</summary>
    public long? SignedUpTo { get; init; }

    /// <summary>Whether the anchor that was given holds; null when none was.</summary>
    public bool? AnchorHolds { get; init; }
}

/// <summary>A signed head of the log to hold the log against.</summary>
/// <param name="Head">As <c>log anchor</c> wrote it.</param>
public sealed record LogAnchor(string Head);

/// <summary>How people can sign in to the console, beside one-time links.</summary>
/// <param name="Directory">The directory whose accounts are taken, or null when there is none.</param>
public sealed record SignInWaysView(string? Directory);

/// <summary>An order to sign the console in with somebody's account of the directory.</summary>
/// <param name="Name">The logon name alone.</param>
public sealed record PersonSignInOrder(string Name, string Password)
{
    /// <summary>Without what was typed: no log or error can hold it by accident.</summary>
    public override string ToString() => nameof(PersonSignInOrder);
}
