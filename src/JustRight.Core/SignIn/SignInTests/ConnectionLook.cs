using JustRight.Core.Directory;

namespace JustRight.Core.SignIn.SignInTests;

/// <summary>What was seen on the way to a directory, before anybody signed in.</summary>
/// <param name="Host">The name that was resolved.</param>
/// <param name="Port">The TCP port.</param>
/// <param name="Security">The way that was asked for.</param>
/// <param name="Addresses">Each address of the name, and whether it answers; empty when the name has none.</param>
/// <param name="Tls">What was agreed; null without TLS, or when it did not come about.</param>
/// <param name="Failure">Why it did not come about; null when it did or none was asked for.</param>
public sealed record ConnectionLook(
    string Host, int Port, WireSecurity Security, IReadOnlyList<AddressLook> Addresses, TlsLook? Tls, string? Failure)
{
    /// <summary>Whether an account's password may be sent this way.</summary>
    public bool IsTrusted =>
        Failure is null && Addresses.Any(a => a.Failure is null)
            && (Security == WireSecurity.Plain || Tls is { Certificate.Problem: null });
}

/// <summary>One address of a name.</summary>
/// <param name="Took">How long connecting took; null when it failed.</param>
/// <param name="Failure">Why it failed, or null.</param>
public sealed record AddressLook(string Address, TimeSpan? Took, string? Failure);

/// <summary>What was agreed on with TLS.</summary>
/// <param name="Version">Such as <c>TLS 1.3</c>.</param>
/// <param name="Cipher">The cipher suite by its registered name.</param>
/// <param name="Took">How long it took.</param>
public sealed record TlsLook(string Version, string Cipher, TimeSpan Took, CertificateLook Certificate);

/// <summary>The certificate that a server showed.</summary>
/// <param name="Names">The names and addresses that it is for [RFC 6125].</param>
/// <param name="Chain">The subjects from the certificate up to the authority, as far as they are known.</param>
/// <param name="Problem">Why it is not to be trusted; null when it is.</param>
public sealed record CertificateLook(
    string Subject, string Issuer, IReadOnlyList<string> Names, DateTimeOffset NotBefore, DateTimeOffset NotAfter,
    IReadOnlyList<string> Chain, string? Problem);
