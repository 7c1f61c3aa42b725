using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace JustRight.SimulatedInstance.Wire;

/// <summary>The certificate that a simulated instance shows: signed by itself, for the loopback address.</summary>
public static class SimulatedCertificate
{
    /// <summary>
    /// Makes one, valid from yesterday for a month, for <paramref name="name"/> and 127.0.0.1; with its private key, which is
    /// the caller's to dispose of.
    /// </summary>
    public static X509Certificate2 New(string name = "localhost")
    {
        using var key = RSA.Create(2048);
        var request = new CertificateRequest(
            $"CN={name}, O=Fennmoor Dairy (simulated)", key, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1);
        var names = new SubjectAlternativeNameBuilder();
        names.AddDnsName(name);
        names.AddIpAddress(IPAddress.Loopback);
        request.CertificateExtensions.Add(names.Build());
        using var made = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(30));
        return X509CertificateLoader.LoadPkcs12(made.Export(X509ContentType.Pkcs12), null);
    }
}
