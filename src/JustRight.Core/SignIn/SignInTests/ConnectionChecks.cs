using System.Globalization;

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
            ? new SignInCheck("resolve", "Is the server's name known?", CheckVerdict.Pass, $"{look.Host} is {string.Join(", ", look.Addresses.Select(a => a.Address))}")
            : new SignInCheck("resolve", "Is the server's name known?", CheckVerdict.Fail, $"{look.Host} has no address.", "See the name in the estate, and the name service of this machine.");
        if (look.Addresses.Count == 0) yield break;

        var silent = look.Addresses.Where(a => a.Failure is not null).ToList();
        var answers = string.Join(", ", look.Addresses.Select(a => a.Took is { } took ? $"{a.Address} in {Milliseconds(took)}" : $"{a.Address} does not: {a.Failure}"));
        yield return silent.Count == 0
            ? new SignInCheck("connect", "Does every address answer?", CheckVerdict.Pass, $"Port {look.Port}: {answers}")
            : new SignInCheck("connect", "Does every address answer?", CheckVerdict.Fail, $"Port {look.Port}: {answers}", "Products take the first address that the name service gives, and wait on one that is silent: fix it or take it out of the name service.");
        if (silent.Count == look.Addresses.Count) yield break;

        if (look.Security == WireSecurity.Plain)
        {
            yield return plainBecause is null
                ? new SignInCheck("protection", "Is what goes over the wire protected?", CheckVerdict.Fail, "No: every password typed in the product goes there in plain text.", "Have the product or the directory learn TLS; or say in the estate why it must be so for now: plain-text-because.")
                : new SignInCheck("protection", "Is what goes over the wire protected?", CheckVerdict.Pass, $"No, and the estate allows it: {plainBecause}");
            yield break;
        }

        if (look.Tls is not { } tls)
        {
            yield return new SignInCheck("protection", "Is what goes over the wire protected?", CheckVerdict.Fail, look.Failure ?? "TLS did not come about.", look.Security == WireSecurity.StartTls ? "The server must answer StartTLS on this port: it needs a certificate." : "See that this is the port for TLS from the start.");
            yield break;
        }

        var old = tls.Version is "TLS 1.0" or "TLS 1.1" or "SSL 3.0";
        yield return new SignInCheck(
            "protection", "Is what goes over the wire protected?", old ? CheckVerdict.Fail : CheckVerdict.Pass, $"{tls.Version}, {tls.Cipher}, agreed in {Milliseconds(tls.Took)}{(look.Security == WireSecurity.StartTls ? ", by StartTLS before anything was said" : "")}",
            old ? "This version is no longer safe [RFC 8996]: have the server offer TLS 1.2 or later." : null);
        yield return Certificate(look, tls.Certificate, now);
    }

    private static SignInCheck Certificate(ConnectionLook look, CertificateLook certificate, DateTimeOffset now)
    {
        const string asks = "Is the server's certificate good?";
        var days = (int)Math.Floor((certificate.NotAfter - now).TotalDays);
        var facts = string.Create(CultureInfo.InvariantCulture, $"for {string.Join(", ", certificate.Names)}; issued by {certificate.Issuer}; {(days < 0 ? $"ended {certificate.NotAfter:u}" : $"{days} {(days == 1 ? "day" : "days")} left, until {certificate.NotAfter:u}")}");
        if (certificate.Problem is { } problem) return new SignInCheck("certificate", asks, CheckVerdict.Fail, $"No: {problem}. It is {facts}.", $"A product that checks it, as it should, does not connect; nothing was sent. Give {look.Host} a certificate for this very name from an authority in the estate's ca-folder.");
        return new SignInCheck("certificate", asks, CheckVerdict.Pass, $"Yes: {facts}", days < SoonDays ? "It ends soon: have it renewed before people cannot sign in." : null);
    }

    private static string Milliseconds(TimeSpan took) => string.Create(CultureInfo.InvariantCulture, $"{took.TotalMilliseconds:0.0} ms");
}
