using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace JustRight.Tests.Shared;

/// <summary>An authority of the tests' own that issues certificates for servers on loopback.</summary>
public sealed class TestAuthority : IDisposable
{
    private const UnixFileMode ReadByOwnerOnly = UnixFileMode.UserRead | UnixFileMode.UserWrite;
    private readonly X509Certificate2 _certificate;

    public TestAuthority(string name)
    {
        using var key = RSA.Create(2048);
        var request = new CertificateRequest($"CN={name}", key, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1);
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(true, false, 0, true));
        request.CertificateExtensions.Add(new X509KeyUsageExtension(X509KeyUsageFlags.KeyCertSign, true));
        request.CertificateExtensions.Add(new X509SubjectKeyIdentifierExtension(request.PublicKey, false));
        _certificate = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-30), DateTimeOffset.UtcNow.AddDays(90));
    }

    /// <summary>Writes the authority's own certificate into a folder of those to trust.</summary>
    public void WriteTo(string folder)
    {
        Directory.CreateDirectory(folder);
        File.WriteAllText(Path.Combine(folder, "ca.pem"), _certificate.ExportCertificatePem() + "\n");
    }

    /// <summary>Issues a certificate for names and addresses and writes it and its key, which nobody else may read.</summary>
    /// <param name="days">How many days it has left; below 0 it has ended.</param>
    /// <param name="begun">How many days it has been valid; below 0 it will be.</param>
    public void Issue(string certificateFile, string keyFile, IReadOnlyList<string> names, double days, double begun = 20)
    {
        using var key = RSA.Create(2048);
        var request = new CertificateRequest("CN=fm-dc01", key, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1);
        var san = new SubjectAlternativeNameBuilder();
        foreach (var name in names)
        {
            if (IPAddress.TryParse(name, out var address)) san.AddIpAddress(address);
            else san.AddDnsName(name);
        }

        request.CertificateExtensions.Add(san.Build());
        var (from, until) = (DateTimeOffset.UtcNow.AddDays(-begun), DateTimeOffset.UtcNow.AddDays(days));
        using var server = request.Create(_certificate, from, until, RandomNumberGenerator.GetBytes(8));
        File.WriteAllText(certificateFile, server.ExportCertificatePem() + "\n");
        File.WriteAllText(keyFile, key.ExportRSAPrivateKeyPem() + "\n");
        // Servers refuse a key that others can read.
        if (!OperatingSystem.IsWindows()) File.SetUnixFileMode(keyFile, ReadByOwnerOnly);
    }

    public void Dispose() => _certificate.Dispose();
}
