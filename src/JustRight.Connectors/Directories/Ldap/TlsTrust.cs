using System.Net.Security;
using System.Net.Sockets;
using System.Security.Authentication;
using System.Security.Cryptography.X509Certificates;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.Directories.Ldap;

/// <summary>
/// Looks at a controller's certificate before anything is sent to it. The LDAP library reports every such failure as "server
/// unavailable"; this says which it is.
/// </summary>
internal static class TlsTrust
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(10);

    /// <summary>
    /// Connects once and checks name, chain and dates; throws <see cref="ConnectorException"/> with the reason.
    /// </summary>
    public static async Task CheckAsync(LdapTarget target, CancellationToken cancel)
    {
        var where = $"{target.Controller}:{target.Port}";
        var roots = Roots(target.CaFolder);
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(Patience);
        using var client = new TcpClient();
        try
        {
            await client.ConnectAsync(target.Controller, target.Port, limit.Token);
        }
        catch (Exception e) when (e is SocketException or OperationCanceledException && !cancel.IsCancellationRequested)
        {
            throw new ConnectorException(
                ConnectorFailure.Unreachable,
                $"{where} does not answer: {(e is SocketException s ? s.Message : "no answer in 10 seconds")}.", e);
        }

        WayTrouble? reason = null;
        await using var tls = new SslStream(client.GetStream(), false, (_, certificate, chain, errors) =>
        {
            reason = Judge(target.Controller, certificate, chain, errors);
            return reason is null;
        });
        try
        {
            var policy = new X509ChainPolicy
            {
                TrustMode = X509ChainTrustMode.CustomRootTrust,
                RevocationMode = X509RevocationMode.NoCheck,
            };
            policy.CustomTrustStore.AddRange(roots);
            await tls.AuthenticateAsClientAsync(
                new SslClientAuthenticationOptions { TargetHost = target.Controller, CertificateChainPolicy = policy },
                limit.Token);
        }
        catch (Exception e) when (e is AuthenticationException or IOException or OperationCanceledException
            && !cancel.IsCancellationRequested)
        {
            throw new ConnectorException(
                ConnectorFailure.NotTrusted,
                reason is null
                    ? $"{where} does not speak TLS: {e.Message}"
                    : $"the certificate of {where} is not trusted: {reason.Words}. The authorities to trust are read from {target.CaFolder}.",
                e);
        }
    }

    /// <summary>The authorities to trust, and no others.</summary>
    public static X509Certificate2Collection Roots(string folder)
    {
        if (!Directory.Exists(folder))
            throw new ConnectorException(
                ConnectorFailure.NotTrusted, $"the folder of trusted authorities {folder} does not exist.");
        var roots = new X509Certificate2Collection();
        foreach (var file in Directory.EnumerateFiles(folder).Where(f => Path.GetExtension(f) is ".pem" or ".crt" or ".0"))
            roots.ImportFromPemFile(file);
        return roots.Count > 0
            ? roots
            : throw new ConnectorException(
                ConnectorFailure.NotTrusted, $"the folder of trusted authorities {folder} holds no certificate (.pem, .crt).");
    }

    /// <summary>Why a certificate is not to be trusted; null when it is.</summary>
    public static WayTrouble? Judge(string name, X509Certificate? certificate, X509Chain? chain, SslPolicyErrors errors)
    {
        if (errors == SslPolicyErrors.None) return null;
        if (certificate is null) return new WayTrouble(SignInCause.CertificateOther, "it showed none");
        if (errors.HasFlag(SslPolicyErrors.RemoteCertificateNameMismatch))
            return new WayTrouble(SignInCause.CertificateName, $"it is not for the name {name}");
        var status = chain?.ChainStatus.FirstOrDefault(s => s.Status != X509ChainStatusFlags.NoError);
        return status?.Status switch
        {
            X509ChainStatusFlags.UntrustedRoot or X509ChainStatusFlags.PartialChain => new WayTrouble(
                SignInCause.CertificateAuthority,
                $"none of the trusted authorities issued it (it was issued by {certificate.Issuer})"),
            X509ChainStatusFlags.NotTimeValid when certificate is X509Certificate2 own && own.NotBefore > DateTime.Now =>
                new WayTrouble(SignInCause.CertificateNotYetValid, "it is not valid yet"),
            X509ChainStatusFlags.NotTimeValid => new WayTrouble(SignInCause.CertificateExpired, "it has expired"),
            { } other => new WayTrouble(SignInCause.CertificateOther, other.ToString()),
            null => new WayTrouble(SignInCause.CertificateOther, errors.ToString()),
        };
    }
}
