using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A one-time code from a sign-in link.</summary>
/// <param name="Code">The code that stands behind the # of the link.</param>
public sealed record SignInCode(string Code);

/// <summary>A one-time code to be exchanged for a token.</summary>
/// <param name="Code">The code that stands behind the # of the link.</param>
/// <param name="Name">How the token is to be called in the list of tokens.</param>
public sealed record TokenClaim(string Code, string Name);

/// <summary>Who is signed in.</summary>
/// <param name="Name">The name, as the log has it.</param>
/// <param name="Role"><c>reader</c>, <c>planner</c>, <c>granter</c> or <c>owner</c>.</param>
public sealed record WhoView(string Name, [property: RoleWord] string Role)
{
    /// <summary>The release of the service, where it is asked who one is; null elsewhere.</summary>
    public string? Release { get; init; }
}

/// <summary>What the client did, where the service answers with nothing.</summary>
/// <param name="Name">What it was done to.</param>
/// <param name="Done">What was done, in a few words.</param>
public sealed record DoneView(string Name, string Done);

/// <summary>An order for a token.</summary>
/// <param name="Name">How it is to be called in the list of tokens.</param>
/// <param name="Role"><c>reader</c>, <c>planner</c>, <c>granter</c> or <c>owner</c>.</param>
/// <param name="Days">For how many days it is good; 1 to 366.</param>
public sealed record TokenOrder(
    string Name, [property: RoleWord] string Role, int Days)
{
    /// <summary>
    /// Whom it is issued to, as they sign in to the console: with a token and a sign-in they are one person. Null for nobody.
    /// </summary>
    public string? Person { get; init; }
}

/// <summary>A new token: shown this once, kept only as a hash.</summary>
/// <param name="Name">How it is called in the list of tokens.</param>
/// <param name="Role"><c>reader</c>, <c>planner</c>, <c>granter</c> or <c>owner</c>.</param>
/// <param name="Token">The token itself: what <c>Authorization: Bearer</c> is followed by.</param>
/// <param name="ExpiresAt">When it ends.</param>
public sealed record NewTokenView(string Name, [property: RoleWord] string Role, string Token, DateTimeOffset ExpiresAt);

/// <summary>A token in a list.</summary>
/// <param name="Name">How it is called.</param>
/// <param name="Role"><c>reader</c>, <c>planner</c>, <c>granter</c> or <c>owner</c>.</param>
/// <param name="CreatedAt">When it was made.</param>
/// <param name="ExpiresAt">When it ends.</param>
/// <param name="LastUsedAt">When it was last used; null when it never was.</param>
/// <param name="Person">Whom it was issued to; null for a token that is nobody's.</param>
public sealed record TokenView(
    string Name, [property: RoleWord] string Role, DateTimeOffset CreatedAt, DateTimeOffset ExpiresAt, DateTimeOffset? LastUsedAt,
    string? Person);

/// <summary>Somebody who is signed in to the console.</summary>
/// <param name="Id">Names the session.</param>
/// <param name="Name">Who it is.</param>
/// <param name="Role"><c>reader</c>, <c>planner</c>, <c>granter</c> or <c>owner</c>.</param>
/// <param name="StartedAt">When they signed in.</param>
/// <param name="ExpiresAt">When it ends, however often it is used.</param>
public sealed record SessionView(
    int Id, string Name, [property: RoleWord] string Role, DateTimeOffset StartedAt, DateTimeOffset ExpiresAt);

/// <summary>A secret in a list; its value is never shown.</summary>
/// <param name="Name">The name of a secret, or an account as <c>DOMAIN\name</c> for the password that is kept of it.</param>
/// <param name="SetAt">When it was set; null when nothing is kept under the name.</param>
/// <param name="SetBy">Who set it; null when nothing is kept under the name.</param>
/// <param name="Uses">What it is asked for today, and what is allowed.</param>
public sealed record SecretView(string Name, DateTimeOffset? SetAt, string? SetBy, IReadOnlyList<SecretUseView> Uses);

/// <summary>One use of a secret, whole: it is allowed for exactly this, or not at all.</summary>
/// <param name="Id">Names the use; made of all of its parts.</param>
/// <param name="Purpose">What it is used for.</param>
/// <param name="Estate">The estate it is used in; empty where it is none's.</param>
/// <param name="For">What asks for it: a directory, a host, an instance, an install.</param>
/// <param name="Address">Where it is sent to: host and port.</param>
/// <param name="SignInAs">Who signs in with it there.</param>
/// <param name="Transport">How it is protected on the way.</param>
/// <param name="Anchor">
/// By what the other side is known: its certificate authority or key; empty for those of this machine.
/// </param>
/// <param name="Words">The use in one line.</param>
/// <param name="IsAsked">Whether an estate, an install or the settings ask for it today.</param>
/// <param name="AllowedAt">When an owner allowed it; null when nobody did.</param>
/// <param name="AllowedBy">The owner who allowed it; null when nobody did.</param>
public sealed record SecretUseView(
    string Id,
    [property: AllowedValues(
        "directory", "host", "instance", "people-directory", "mail", "webhook", "sign-in-test", "service-account")]
    string Purpose,
    string Estate, string For, string Address, string SignInAs,
    [property: AllowedValues("ldaps", "ssh", "tls", "start-tls", "plain", "https")] string Transport, string Anchor, string Words,
    bool IsAsked, DateTimeOffset? AllowedAt, string? AllowedBy);

/// <summary>A secret to keep.</summary>
/// <param name="Value">The secret itself. It is kept encrypted and never shown.</param>
public sealed record SecretValue(string Value);

/// <summary>A password that a grant made and that waits to be handed over.</summary>
/// <param name="Account">The account, as <c>DOMAIN\name</c>.</param>
/// <param name="CreatedAt">When it was made.</param>
/// <param name="HandedOverAt">When it was handed over; null while it waits.</param>
/// <param name="HandedOverBy">Who handed it over; null while it waits.</param>
public sealed record PasswordView(string Account, DateTimeOffset CreatedAt, DateTimeOffset? HandedOverAt, string? HandedOverBy);

/// <summary>The certificate to seal to, PEM.</summary>
/// <param name="Certificate">An X.509 certificate with an RSA key, PEM.</param>
public sealed record SealOrder(string Certificate);

/// <summary>A password sealed to a certificate as CMS enveloped data [RFC 5652], PEM.</summary>
/// <param name="Account">The account, as <c>DOMAIN\name</c>.</param>
/// <param name="SealedTo">The subject of the certificate.</param>
/// <param name="Cms">The enveloped data, PEM.</param>
public sealed record SealedPassword(string Account, string SealedTo, string Cms);

/// <summary>An entry of the log.</summary>
/// <param name="Number">Counted from 1, without a gap.</param>
/// <param name="At">When it was written.</param>
/// <param name="Who">Who did it; <c>service</c> for what the service does by itself.</param>
/// <param name="Action">What was done, as one word or two.</param>
/// <param name="Subject">What it was done to.</param>
/// <param name="Detail">What else there is to say.</param>
/// <param name="Hash">SHA-256 over this entry and the hash of the one before, in hex.</param>
public sealed record LogEntryView(
    long Number, DateTimeOffset At, string Who, string Action, string Subject, string Detail, string Hash);

/// <summary>A page of the log, newest first.</summary>
/// <param name="Items">The entries.</param>
/// <param name="Before">With this as <c>before</c> the next page is asked for; null when this is the last.</param>
/// <param name="Total">How many entries match in all; null when they are too many to count.</param>
public sealed record LogPage(IReadOnlyList<LogEntryView> Items, long? Before, int? Total);

/// <summary>The result of following the log's chain.</summary>
/// <param name="Entries">How many entries there are.</param>
/// <param name="Sound">Whether every entry follows from the one before, and every signed head holds.</param>
/// <param name="BrokenAt">The first entry that does not follow from the one before, or null.</param>
/// <param name="LastHash">The hash of the last entry; null when there is none.</param>
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
/// <param name="Password">Their password. It is used once and kept nowhere.</param>
public sealed record PersonSignInOrder(string Name, string Password)
{
    /// <summary>Without what was typed: no log or error can hold it by accident.</summary>
    public override string ToString() => nameof(PersonSignInOrder);
}
