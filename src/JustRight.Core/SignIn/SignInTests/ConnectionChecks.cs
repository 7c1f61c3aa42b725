using System.Globalization;
using JustRight.Core.Directory;

namespace JustRight.Core.SignIn.SignInTests;

/// <summary>Judges what was seen on the way to a directory.</summary>
public static class ConnectionChecks
{
    /// <summary>How many days before its end a certificate is worth a word.</summary>
    public const int SoonDays = 30;

    private const string Resolve = "Is the server's name known?", Connect = "Does every address answer?",
        Protection = "Is the connection encrypted?", Certificate = "Is the server's certificate good?";

    /// <summary>The checks: resolve, connect, protection, certificate.</summary>
    /// <param name="plainBecause">Why plain text is allowed; null when it is not.</param>
    public static IEnumerable<SignInCheck> Of(ConnectionLook look, string? plainBecause, DateTimeOffset now)
    {
        if (look.Trouble is { } trouble)
        {
            yield return SignInCheck.Fail(
                "resolve", Resolve, trouble.Cause, Sentence(trouble.Words), trouble.Cause == SignInCause.NotAllowedThere
                    ? "Let an owner allow this network, or correct the name in the estate."
                    : "Check the name in the estate, and this machine's DNS.");
            yield break;
        }

        yield return SignInCheck.Pass(
            "resolve", Resolve, $"{look.Host} is {string.Join(", ", look.Addresses.Select(a => a.Address))}");
        yield return Connected(look);
        if (!look.Answering.Any()) yield break;
        if (look.Answering.FirstOrDefault(a => a.Trouble is not null) is { Trouble: { } met } which)
        {
            yield return SignInCheck.Fail(
                "protection", Protection, met.Cause, Begun(Sentence(At(look, which) + met.Words)), SignInRemedies.Of(met.Cause));
            yield break;
        }

        yield return look.Security == WireSecurity.Plain ? Unprotected(plainBecause) : Agreed(look);
        if (look.Security != WireSecurity.Plain) yield return Shown(look, now);
    }

    private static SignInCheck Connected(ConnectionLook look)
    {
        var silent = look.Addresses.Where(a => a.Took is null).ToList();
        var answers = $"Port {look.Port}: " + string.Join(
            ", ",
            look.Addresses.Select(a => a.Took is { } took
                ? $"{a.Address} in {Milliseconds(took)}"
                : $"{a.Address} does not: {a.Trouble?.Words}"));
        if (silent.Count == 0) return SignInCheck.Pass("connect", Connect, answers);
        return silent.Count == look.Addresses.Count
            ? SignInCheck.Fail(
                "connect", Connect, SignInCause.Silent, answers + ".",
                $"Check that the directory runs, that {look.Port} is its port, and that no firewall is in between.")
            : SignInCheck.Fail(
                "connect", Connect, SignInCause.AddressSilent, answers + ".",
                "Products use the first address from DNS and wait for one that does not answer: repair it or remove it from DNS.");
    }

    private static SignInCheck Unprotected(string? because) => because is null
        ? SignInCheck.Fail(
            "protection", Protection, SignInCause.Unprotected,
            "No: every password typed in the product goes there unencrypted.", SignInRemedies.Of(SignInCause.Unprotected))
        : SignInCheck.Pass("protection", Protection, $"No, and the estate allows it: {because}");

    private static SignInCheck Agreed(ConnectionLook look)
    {
        var tls = look.Answering.Select(a => a.Tls!).ToList();
        var worst = tls.Find(t => IsOld(t.Version)) ?? tls[0];
        var fact = $"{worst.Version}, {worst.Cipher}, agreed in {Milliseconds(worst.Took)}"
            + (look.Security == WireSecurity.StartTls ? ", by StartTLS before anything was said" : "");
        return IsOld(worst.Version)
            ? SignInCheck.Fail("protection", Protection, SignInCause.OldTls, fact, SignInRemedies.Of(SignInCause.OldTls))
            : SignInCheck.Pass("protection", Protection, fact);
    }

    private static SignInCheck Shown(ConnectionLook look, DateTimeOffset now)
    {
        var all = look.Answering.ToList();
        var bad = all.FirstOrDefault(a => a.Tls!.Certificate.Problem is not null);
        var shown = (bad ?? all.MinBy(a => a.Tls!.Certificate.NotAfter)!).Tls!.Certificate;
        var days = (int)Math.Floor((shown.NotAfter - now).TotalDays);
        var left = days < 0
            ? $"ended {shown.NotAfter:u}"
            : string.Create(
                CultureInfo.InvariantCulture, $"{days} {(days == 1 ? "day" : "days")} left, until {shown.NotAfter:u}");
        var facts = $"for {string.Join(", ", shown.Names)}; issued by {shown.Issuer}; {left}";
        if (shown.Problem is not { } problem)
            return SignInCheck.Pass(
                "certificate", Certificate, $"Yes: {facts}",
                days < SoonDays ? "It expires soon: renew it before people cannot sign in." : null);
        var alone = all.Count > 1 && all.Any(a => a.Tls!.Certificate.Problem is null);
        return SignInCheck.Fail(
            "certificate", Certificate, alone ? SignInCause.AddressCertificate : problem.Cause,
            $"No: {(alone ? $"{bad!.Address} shows another one, and " : "")}{problem.Words}. It is {facts}.",
            $"A product that checks the certificate does not connect; nothing was sent. {Mend(look, bad!, problem.Cause, alone)}");
    }

    private static string Mend(ConnectionLook look, AddressLook which, SignInCause cause, bool alone)
    {
        var to = alone ? $"the server at {which.Address}" : look.Host;
        return cause switch
        {
            SignInCause.CertificateExpired => $"Renew the certificate of {to}.",
            SignInCause.CertificateNotYetValid => $"Check the clocks of this machine and of {to}.",
            SignInCause.CertificateName =>
                $"Give {to} a certificate for {look.Host}, or name the directory in the estate as its certificate does.",
            SignInCause.CertificateAuthority =>
                $"Put the certificate of the authority that issued it into the estate's ca-folder, if {to} is what it should be.",
            _ => $"Give {to} a certificate for {look.Host} from an authority in the estate's ca-folder.",
        };
    }

    private static bool IsOld(string version) => version is "TLS 1.0" or "TLS 1.1" or "SSL 3.0";

    private static string At(ConnectionLook look, AddressLook which) =>
        look.Addresses.Count > 1 ? $"{which.Address}: " : "";

    private static string Begun(string sentence) => char.ToUpperInvariant(sentence[0]) + sentence[1..];

    private static string Sentence(string words) => words.EndsWith('.') ? words : words + ".";

    private static string Milliseconds(TimeSpan took) =>
        string.Create(CultureInfo.InvariantCulture, $"{took.TotalMilliseconds:0.0} ms");
}
