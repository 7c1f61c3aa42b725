using System.Diagnostics;
using System.Formats.Asn1;
using System.Net;
using System.Net.Security;
using System.Net.Sockets;
using System.Security.Authentication;
using System.Security.Cryptography.X509Certificates;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Directory;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>
/// Looks at the way to a directory: its addresses, TLS from the start or by StartTLS [RFC 4511 4.14], and the certificate, which
/// is judged and never trusted for the sake of looking.
/// </summary>
internal static class WayThere
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(10);

    /// <summary>An extended request for StartTLS, as the first message: its identifier is fixed.</summary>
    private static readonly byte[] StartTls = [
        0x30, 0x1d, 0x02, 0x01, 0x01, 0x77, 0x18, 0x80, 0x16, .. "1.3.6.1.4.1.1466.20037"u8];

    public static async Task<ConnectionLook> LookAsync(
        string host, int port, WireSecurity security, string? caFolder, CancellationToken cancel)
    {
        var addresses = new List<AddressLook>();
        ConnectionLook Seen(TlsLook? tls, string? failure) => new(host, port, security, addresses, tls, failure);

        IPAddress[] found;
        try
        {
            found = await Dns.GetHostAddressesAsync(host, cancel);
        }
        catch (SocketException e)
        {
            return Seen(null, $"{host} has no address: {e.Message}");
        }

        IPAddress? first = null;
        foreach (var address in found)
        {
            var (took, failure) = await KnockAsync(address, port, cancel);
            addresses.Add(new AddressLook(address.ToString(), took, failure));
            if (failure is null) first ??= address;
        }

        if (first is null) return Seen(null, $"{host}:{port} does not answer");
        if (security == WireSecurity.Plain) return Seen(null, null);
        try
        {
            return Seen(await AgreeAsync(host, first, port, security, caFolder, cancel), null);
        }
        catch (Exception e) when (e is AuthenticationException or IOException or SocketException or ConnectorException or AsnContentException
            || (e is OperationCanceledException && !cancel.IsCancellationRequested))
        {
            return Seen(
                null,
                e is ConnectorException said ? said.Message
                    : e is OperationCanceledException ? $"{host}:{port} does not answer for {Patience.TotalSeconds} seconds"
                    : $"{host}:{port} does not speak TLS: {e.Message}");
        }
    }

    private static async Task<(TimeSpan? Took, string? Failure)> KnockAsync(IPAddress address, int port, CancellationToken cancel)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(Patience);
        using var client = new TcpClient(address.AddressFamily);
        var clock = Stopwatch.StartNew();
        try
        {
            await client.ConnectAsync(address, port, limit.Token);
            return (clock.Elapsed, null);
        }
        catch (SocketException e)
        {
            return (null, e.Message);
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            return (null, $"no answer in {Patience.TotalSeconds} seconds");
        }
    }

    private static async Task<TlsLook> AgreeAsync(
        string host, IPAddress address, int port, WireSecurity security, string? caFolder, CancellationToken cancel)
    {
        var roots = TlsTrust.Roots(caFolder
            ?? throw new ConnectorException(ConnectorFailure.NotTrusted, "the estate names no authorities to trust: ca-folder."));
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(Patience);
        using var client = new TcpClient(address.AddressFamily);
        await client.ConnectAsync(address, port, limit.Token);
        var stream = client.GetStream();
        if (security == WireSecurity.StartTls) await TurnAsync(stream, host, port, limit.Token);
        CertificateLook? certificate = null;
        var clock = Stopwatch.StartNew();
#pragma warning disable CA5359 // only looked at: the judgement is kept, and nothing is ever sent over this connection
        await using var tls = new SslStream(stream, false, (_, shown, chain, errors) =>
        {
            certificate = Look(host, shown, chain, errors);
            return true;
        });
#pragma warning restore CA5359
        var policy = new X509ChainPolicy
        {
            TrustMode = X509ChainTrustMode.CustomRootTrust,
            RevocationMode = X509RevocationMode.NoCheck,
        };
        policy.CustomTrustStore.AddRange(roots);
        await tls.AuthenticateAsClientAsync(
            new SslClientAuthenticationOptions { TargetHost = host, CertificateChainPolicy = policy }, limit.Token);
        return new TlsLook(Version(tls.SslProtocol), tls.NegotiatedCipherSuite.ToString(), clock.Elapsed, certificate!);
    }

    private static async Task TurnAsync(NetworkStream stream, string host, int port, CancellationToken cancel)
    {
        await stream.WriteAsync(StartTls, cancel);
        var buffer = new byte[4096];
        var length = 0;
        while (length < 2 || length < buffer[1] + 2)
        {
            var read = await stream.ReadAsync(buffer.AsMemory(length), cancel);
            if (read == 0 || length + read == buffer.Length)
                throw new ConnectorException(
                    ConnectorFailure.NotTrusted, $"{host}:{port} ends the connection when asked for StartTLS.");
            length += read;
        }

        // LDAPMessage ::= SEQUENCE { messageID, [APPLICATION 24] SEQUENCE { resultCode, matchedDN, diagnosticMessage, … } }
        var message = new AsnReader(buffer.AsMemory(0, length), AsnEncodingRules.BER).ReadSequence();
        message.ReadInteger();
        var response = message.ReadSequence(new Asn1Tag(TagClass.Application, 24));
        var code = response.ReadEnumeratedBytes().Span[0];
        response.ReadOctetString();
        var said = System.Text.Encoding.UTF8.GetString(response.ReadOctetString());
        if (code != 0)
            throw new ConnectorException(
                ConnectorFailure.NotTrusted,
                $"{host}:{port} refuses StartTLS (result {code}{(said.Length > 0 ? ": " + said : "")}).");
    }

    private static CertificateLook Look(string host, X509Certificate? shown, X509Chain? chain, SslPolicyErrors errors)
    {
        var certificate = shown as X509Certificate2 ?? new X509Certificate2(shown!);
        var names = certificate.Extensions.OfType<X509SubjectAlternativeNameExtension>()
            .SelectMany(e => e.EnumerateDnsNames().Concat(e.EnumerateIPAddresses().Select(a => a.ToString()))).ToList();
        return new CertificateLook(
            certificate.Subject, certificate.Issuer, names, certificate.NotBefore.ToUniversalTime(),
            certificate.NotAfter.ToUniversalTime(),
            [.. (chain?.ChainElements ?? Enumerable.Empty<X509ChainElement>()).Select(e =>
                e.Certificate.Subject)], TlsTrust.Judge(
                host, certificate, chain, errors));
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
