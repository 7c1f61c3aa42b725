namespace JustRight.Contracts;

/// <summary>A one-time code from a sign-in link.</summary>
public sealed record SignInCode(string Code);

/// <summary>A one-time code to be exchanged for a token.</summary>
public sealed record TokenClaim(string Code, string Name);

/// <summary>Who is signed in.</summary>
public sealed record WhoView(string Name, string Role);

/// <summary>An order for a token.</summary>
/// <param name="Role"><c>reader</c>, <c>planner</c>, <c>granter</c> or <c>owner</c>.</param>
/// <param name="Days">For how many days it is good; 1 to 366.</param>
public sealed record TokenOrder(string Name, string Role, int Days);

/// <summary>A new token: shown this once, kept only as a hash.</summary>
public sealed record NewTokenView(string Name, string Role, string Token, DateTimeOffset ExpiresAt);

/// <summary>A token in a list.</summary>
public sealed record TokenView(string Name, string Role, DateTimeOffset CreatedAt, DateTimeOffset ExpiresAt, DateTimeOffset? LastUsedAt);

/// <summary>A secret in a list; its value is never shown.</summary>
public sealed record SecretView(string Name, DateTimeOffset SetAt, string SetBy);

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
public sealed record LogEntryView(long Number, DateTimeOffset At, string Who, string Action, string Subject, string Detail, string Hash);

/// <summary>The result of following the log's chain.</summary>
/// <param name="BrokenAt">The first entry that does not follow from the one before, or null.</param>
public sealed record LogCheckView(long Entries, bool Sound, long? BrokenAt, string? LastHash);

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
