using System.Diagnostics;
using System.Net;
using System.Net.Security;
using System.Net.Sockets;
using System.Security.Authentication;
using System.Security.Cryptography.X509Certificates;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Connectors.People.Wire;
using JustRight.Core.Directory;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>
/// Looks at the way to a directory: each of its addresses, TLS from the start or by StartTLS [RFC 4511 4.14], and the
/// certificate, which is judged and never trusted for the sake of looking.
/// </summary>
/// <param name="resolve">The addresses of a name.</param>
internal sealed class WayThere(
    string host, int port, WireSecurity security, string? caFolder, Func<string, CancellationToken, Task<IPAddress[]>> resolve)
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(10);

    /// <summary>Looks at each address. What fails is in the answer, never thrown.</summary>
    public async Task<ConnectionLook> LookAsync(CancellationToken cancel)
    {
        ConnectionLook Nowhere(SignInCause cause, string words) => new(host, port, security, [], new WayTrouble(cause, words));

        IPAddress[] found;
        try
        {
            found = await resolve(host, cancel);
        }
        catch (SocketException e)
        {
            return Nowhere(SignInCause.NameUnknown, $"{host} has no address: {e.Message}");
        }

        if (found.Length == 0) return Nowhere(SignInCause.NameUnknown, $"{host} has no address");
        return new ConnectionLook(
            host, port, security, await Task.WhenAll(found.Select(a => LookAtAsync(a, cancel))), null);
    }

    /// <summary>
    /// Opens a connection to the first address that answers, protected as asked, for a password: only where the certificate is
    /// good.
    /// </summary>
    /// <exception cref="PeopleDirectoryException">There is no such way.</exception>
    public async Task<Stream> OpenAsync(CancellationToken cancel)
    {
        ConnectorException? last = null;
        foreach (var address in await resolve(host, cancel))
        {
            try
            {
                var (stream, _, limit) = await ConnectAsync(address, cancel);
                using var bounded = limit;
                return security == WireSecurity.Plain
                    ? stream
                    : await TurnAsync(stream, c => c.Problem is null, limit.Token);
            }
            catch (Exception e) when (TroubleOf(e, cancel) is { } trouble)
            {
                last = new PeopleDirectoryException(
                    trouble.Cause, ConnectorFailure.NotTrusted, $"{host}:{port}: {trouble.Words}.", e);
            }
        }

        throw last ?? new PeopleDirectoryException(
            SignInCause.NameUnknown, ConnectorFailure.Unreachable, $"{host} has no address.");
    }

    private async Task<AddressLook> LookAtAsync(IPAddress address, CancellationToken cancel)
    {
        TimeSpan? took = null;
        try
        {
            var (stream, after, limit) = await ConnectAsync(address, cancel);
            await using var open = stream;
            using var bounded = limit;
            took = after;
            if (security == WireSecurity.Plain)
            {
                await LdapWire.RootAsync(stream, limit.Token);
                return new AddressLook(address.ToString(), took, null, null);
            }

            CertificateLook? certificate = null;
            var clock = Stopwatch.StartNew();
            await using var tls = await TurnAsync(
                stream, c =>
                {
                    certificate = c;
                    return true; // only looked at: the judgement is kept, and nothing is ever sent over this connection
                },
                limit.Token);
            return new AddressLook(
                address.ToString(), took,
                new TlsLook(Version(tls.SslProtocol), tls.NegotiatedCipherSuite.ToString(), clock.Elapsed, certificate!), null);
        }
        catch (Exception e) when (TroubleOf(e, cancel) is { } trouble)
        {
            return new AddressLook(
                address.ToString(), took, null, took is null || trouble.Cause == SignInCause.StartTlsRefused
                    ? trouble
                    : await OtherwiseAsync(address, cancel) ?? trouble);
        }
    }

    /// <summary>What else the port is, where it is not what was asked for; null when that cannot be told.</summary>
    private async Task<WayTrouble?> OtherwiseAsync(IPAddress address, CancellationToken cancel)
    {
        if (security != WireSecurity.Tls && await SpeaksTlsAsync(address, cancel))
            return new WayTrouble(SignInCause.TlsPort, $"port {port} begins with TLS, as LDAPS does");
        if (security != WireSecurity.Tls) return null;
        try
        {
            var (stream, _, limit) = await ConnectAsync(address, cancel);
            await using var open = stream;
            using var bounded = limit;
            await LdapWire.RootAsync(stream, limit.Token);
            return new WayTrouble(SignInCause.PlainPort, $"port {port} speaks LDAP without TLS from the start");
        }
        catch (NotADirectoryException e) when (e.Spoke)
        {
            return new WayTrouble(SignInCause.NotADirectory, $"port {port} is not a directory's: {e.Message}");
        }
        catch (Exception e) when (TroubleOf(e, cancel) is not null)
        {
            return null;
        }
    }

    private async Task<bool> SpeaksTlsAsync(IPAddress address, CancellationToken cancel)
    {
        try
        {
            var (stream, _, limit) = await ConnectAsync(address, cancel);
            using var bounded = limit;
            await using var tls = await AgreeAsync(stream, _ => true, limit.Token);
            return true;
        }
        catch (Exception e) when (TroubleOf(e, cancel) is not null)
        {
            return false;
        }
    }

    private async Task<(NetworkStream Stream, TimeSpan Took, CancellationTokenSource Limit)> ConnectAsync(
        IPAddress address, CancellationToken cancel)
    {
        var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(Patience);
        var socket = new Socket(address.AddressFamily, SocketType.Stream, ProtocolType.Tcp);
        try
        {
            var clock = Stopwatch.StartNew();
            await socket.ConnectAsync(address, port, limit.Token);
            return (new NetworkStream(socket, ownsSocket: true), clock.Elapsed, limit);
        }
        catch
        {
            socket.Dispose();
            limit.Dispose();
            throw;
        }
    }

    private async Task<SslStream> TurnAsync(NetworkStream stream, Func<CertificateLook, bool> goesOn, CancellationToken cancel)
    {
        if (security == WireSecurity.StartTls && await LdapWire.StartTlsAsync(stream, cancel) is { Code: not 0 } refused)
            throw new PeopleDirectoryException(
                SignInCause.StartTlsRefused, ConnectorFailure.NotTrusted,
                $"it refuses StartTLS (result {refused.Code}{(refused.Diagnostic.Length > 0 ? ": " + refused.Diagnostic : "")})");
        return await AgreeAsync(stream, goesOn, cancel);
    }

    private async Task<SslStream> AgreeAsync(NetworkStream stream, Func<CertificateLook, bool> goesOn, CancellationToken cancel)
    {
        var roots = TlsTrust.Roots(caFolder ?? throw new PeopleDirectoryException(
            SignInCause.CertificateAuthority, ConnectorFailure.NotTrusted,
            "the estate names no authorities to trust: ca-folder"));
        var policy = new X509ChainPolicy
        {
            TrustMode = X509ChainTrustMode.CustomRootTrust,
            RevocationMode = X509RevocationMode.NoCheck,
        };
        policy.CustomTrustStore.AddRange(roots);
        CertificateLook? seen = null;
        var tls = new SslStream(stream, false, (_, shown, chain, errors) => goesOn(seen = Look(shown, chain, errors)));
        try
        {
            await tls.AuthenticateAsClientAsync(
                new SslClientAuthenticationOptions { TargetHost = host, CertificateChainPolicy = policy }, cancel);
            return tls;
        }
        catch (AuthenticationException e) when (seen?.Problem is { } problem)
        {
            await tls.DisposeAsync();
            throw new PeopleDirectoryException(
                problem.Cause, ConnectorFailure.NotTrusted, $"its certificate is not trusted: {problem.Words}", e);
        }
        catch
        {
            await tls.DisposeAsync();
            throw;
        }
    }

    /// <summary>What an exception on the way says; null for one that is no trouble of the way.</summary>
    private static WayTrouble? TroubleOf(Exception e, CancellationToken cancel) => e switch
    {
        PeopleDirectoryException said => new WayTrouble(said.Cause, said.Message),
        ConnectorException said => new WayTrouble(SignInCause.CertificateAuthority, said.Message),
        NotADirectoryException => new WayTrouble(SignInCause.NotADirectory, e.Message),
        SocketException => new WayTrouble(SignInCause.Silent, e.Message),
        AuthenticationException or IOException => new WayTrouble(SignInCause.TlsFailed, $"TLS does not come about: {e.Message}"),
        OperationCanceledException when !cancel.IsCancellationRequested => new WayTrouble(
            SignInCause.TooSlow, $"no answer in {Patience.TotalSeconds} seconds"),
        _ => null,
    };

    private CertificateLook Look(X509Certificate? shown, X509Chain? chain, SslPolicyErrors errors)
    {
        var certificate = shown as X509Certificate2 ?? new X509Certificate2(shown!);
        var names = certificate.Extensions.OfType<X509SubjectAlternativeNameExtension>()
            .SelectMany(e => e.EnumerateDnsNames().Concat(e.EnumerateIPAddresses().Select(a => a.ToString()))).ToList();
        return new CertificateLook(
            certificate.Subject, certificate.Issuer, names, certificate.NotBefore.ToUniversalTime(),
            certificate.NotAfter.ToUniversalTime(),
            [.. (chain?.ChainElements ?? Enumerable.Empty<X509ChainElement>()).Select(e => e.Certificate.Subject)],
            TlsTrust.Judge(host, certificate, chain, errors));
    }

    private static string Version(SslProtocols protocol) => protocol switch
    {
        SslProtocols.Tls13 => "TLS 1.3",
        SslProtocols.Tls12 => "TLS 1.2",
#pragma warning disable CA5397, SYSLIB0039 // named, not used
        SslProtocols.Tls11 => "TLS 1.1",
        SslProtocols.Tls => "TLS 1.0",
#pragma warning restore CA5397, SYSLIB0039
        _ => protocol.ToString(),
    };
}
