using System.Globalization;
using JustRight.Core.Directory;

namespace JustRight.Core.SignIn.SignInTests;

/// <summary>Judges what was seen on the way to a directory.</summary>
public static class ConnectionChecks
{
    /// <summary>How many days before its end a certificate is worth a word.</summary>
    public const int SoonDays = 30;

    /// <summary>The checks: resolve, connect, protection, certificate.</summary>
    /// <param name="plainBecause">Why plain text is allowed; null when it is not.</param>
    public static IEnumerable<SignInCheck> Of(ConnectionLook look, string? plainBecause, DateTimeOffset now)
    {
        yield return look.Addresses.Count > 0
            ? new SignInCheck(
                "resolve", "Is the server's name known?", CheckVerdict.Pass,
                $"{look.Host} is {string.Join(", ", look.Addresses.Select(a => a.Address))}")
            : new SignInCheck(
                "resolve", "Is the server's name known?", CheckVerdict.Fail, $"{look.Host} has no address.",
                "Check the name in the estate, and this machine's DNS.");
        if (look.Addresses.Count == 0) yield break;

        var silent = look.Addresses.Where(a => a.Failure is not null).ToList();
        var answers = string.Join(
            ", ",
            look.Addresses.Select(a =>
                a.Took is { } took ? $"{a.Address} in {Milliseconds(took)}" : $"{a.Address} does not: {a.Failure}"));
        yield return silent.Count == 0
            ? new SignInCheck("connect", "Does every address answer?", CheckVerdict.Pass, $"Port {look.Port}: {answers}")
            : new SignInCheck(
                "connect", "Does every address answer?", CheckVerdict.Fail, $"Port {look.Port}: {answers}",
                "Products use the first address from DNS and wait for one that does not answer: repair it or remove it from DNS.");
        if (silent.Count == look.Addresses.Count) yield break;

        if (look.Security == WireSecurity.Plain)
        {
            yield return plainBecause is null
                ? new SignInCheck(
                    "protection", "Is the connection encrypted?", CheckVerdict.Fail,
                    "No: every password typed in the product goes there unencrypted.",
                    "Enable TLS in the product or the directory; or give the reason in the estate: plain-text-because.")
                : new SignInCheck(
                    "protection", "Is the connection encrypted?", CheckVerdict.Pass,
                    $"No, and the estate allows it: {plainBecause}");
            yield break;
        }

        if (look.Tls is not { } tls)
        {
            yield return new SignInCheck(
                "protection", "Is the connection encrypted?", CheckVerdict.Fail, look.Failure ?? "TLS did not come about.",
                look.Security == WireSecurity.StartTls
                    ? "The server must answer StartTLS on this port: it needs a certificate."
                    : "Check that this is the LDAPS port.");
            yield break;
        }

        var old = tls.Version is "TLS 1.0" or "TLS 1.1" or "SSL 3.0";
        yield return new SignInCheck(
            "protection", "Is the connection encrypted?", old
                ? CheckVerdict.Fail
                : CheckVerdict.Pass,
                $"{tls.Version}, {tls.Cipher}, agreed in {Milliseconds(tls.Took)}{(look.Security == WireSecurity.StartTls ? ", by StartTLS before anything was said" : "")}",
            old ? "This version is no longer safe [RFC 8996]: have the server offer TLS 1.2 or later." : null);
        yield return Certificate(look, tls.Certificate, now);
    }

    private static SignInCheck Certificate(ConnectionLook look, CertificateLook certificate, DateTimeOffset now)
    {
        const string asks = "Is the server's certificate good?";
        var days = (int)Math.Floor((certificate.NotAfter - now).TotalDays);
        var facts = string.Create(
            CultureInfo.InvariantCulture,
            $"for {string.Join(", ", certificate.Names)}; issued by {certificate.Issuer}; {(days < 0 ? $"ended {certificate.NotAfter:u}" : $"{days} {(days == 1 ? "day" : "days")} left, until {certificate.NotAfter:u}")}");
        if (certificate.Problem is { } problem)
            return new SignInCheck(
                "certificate", asks, CheckVerdict.Fail, $"No: {problem}. It is {facts}.",
                $"A product that checks the certificate does not connect; nothing was sent. Give {look.Host} a certificate with this name from an authority in the estate's ca-folder.");
        return new SignInCheck(
            "certificate", asks, CheckVerdict.Pass, $"Yes: {facts}",
            days < SoonDays ? "It expires soon: renew it before people cannot sign in." : null);
    }

    private static string Milliseconds(TimeSpan took) =>
        string.Create(CultureInfo.InvariantCulture, $"{took.TotalMilliseconds:0.0} ms");
}
