using JustRight.Core.Directory;

namespace JustRight.Core.SignIn.SignInTests;

/// <summary>What was seen on the way to a directory, before anybody signed in.</summary>
/// <param name="Host">The name that was resolved.</param>
/// <param name="Port">The TCP port.</param>
/// <param name="Security">The way that was asked for.</param>
/// <param name="Addresses">Each address of the name, and what it shows; empty when the name has none.</param>
/// <param name="Trouble">Why no address was looked at; null when one was.</param>
public sealed record ConnectionLook(
    string Host, int Port, WireSecurity Security, IReadOnlyList<AddressLook> Addresses, WayTrouble? Trouble)
{
    /// <summary>The addresses that answer.</summary>
    public IEnumerable<AddressLook> Answering => Addresses.Where(a => a.Took is not null);

    /// <summary>
    /// Why a password may not be sent this way; null when it may. A client takes whichever address it likes: each one that
    /// answers has to be good.
    /// </summary>
    /// <param name="plainBecause">Why passwords may go unencrypted; null when they may not.</param>
    public WayTrouble? WhyNotTrusted(string? plainBecause)
    {
        if (Trouble is not null) return Trouble;
        if (!Answering.Any()) return new WayTrouble(SignInCause.Silent, $"{Host}:{Port} does not answer");
        if (Answering.Select(a => a.Trouble).FirstOrDefault(t => t is not null) is { } trouble) return trouble;
        if (Security == WireSecurity.Plain)
            return plainBecause is not null ? null : new WayTrouble(
                SignInCause.Unprotected, $"{Host}:{Port} would get the password unencrypted, and no reason is given for that");
        return Answering.Select(a => a.Tls!.Certificate.Problem).FirstOrDefault(p => p is not null) is { } problem
            ? problem with { Words = $"the certificate of {Host}:{Port} is not trusted: {problem.Words}" }
            : null;
    }
}

/// <summary>What is wrong on the way to a directory.</summary>
/// <param name="Words">In words, as a part of a sentence.</param>
public sealed record WayTrouble(SignInCause Cause, string Words);

/// <summary>One address of a name.</summary>
/// <param name="Took">How long connecting took; null when it failed.</param>
/// <param name="Tls">What was agreed; null without TLS, or when it did not come about.</param>
/// <param name="Trouble">Why it does not answer as a directory; null when it does.</param>
public sealed record AddressLook(string Address, TimeSpan? Took, TlsLook? Tls, WayTrouble? Trouble);

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
    IReadOnlyList<string> Chain, WayTrouble? Problem);
