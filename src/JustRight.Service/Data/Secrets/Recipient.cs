using System.Security.Cryptography;
using System.Security.Cryptography.Pkcs;
using System.Security.Cryptography.X509Certificates;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Data.Secrets;

/// <summary>Who alone can open what is encrypted: the holder of a certificate's key.</summary>
internal static class Recipient
{
    private const string Aes256Cbc = "2.16.840.1.101.3.4.1.42"; // id-aes256-CBC [RFC 3565 4.1]

    /// <summary>The certificate of a PEM text, with an RSA key.</summary>
    /// <returns>Why it will not do, or null.</returns>
    public static ProblemHttpResult? Of(string pem, out X509Certificate2? certificate)
    {
        try
        {
            certificate = X509Certificate2.CreateFromPem(pem);
        }
        catch (CryptographicException)
        {
            certificate = null;
            return Problems.Bad("certificate", "This is not a certificate.", "a PEM certificate with an RSA key");
        }

        return certificate.GetRSAPublicKey() is null
            ? Problems.Bad("certificate", "Secrets are encrypted to an RSA key.", "a PEM certificate with an RSA key")
            : null;
    }

    /// <summary>Encrypts to a certificate: AES-256-CBC under RSA-OAEP [RFC 5652 6, RFC 3565, RFC 3560].</summary>
    /// <returns>The enveloped data in DER.</returns>
    public static byte[] Encrypt(byte[] content, X509Certificate2 certificate)
    {
        var envelope = new EnvelopedCms(new ContentInfo(content), new AlgorithmIdentifier(new Oid(Aes256Cbc)));
        envelope.Encrypt(
            new CmsRecipient(SubjectIdentifierType.IssuerAndSerialNumber, certificate, RSAEncryptionPadding.OaepSHA256));
        return envelope.Encode();
    }

    /// <summary>Decrypts what was encrypted to a certificate.</summary>
    /// <exception cref="CryptographicException">It was encrypted to another one, or is damaged.</exception>
    public static byte[] Decrypt(byte[] encrypted, X509Certificate2 withKey)
    {
        var envelope = new EnvelopedCms();
        envelope.Decode(encrypted);
        envelope.Decrypt([withKey]);
        return envelope.ContentInfo.Content;
    }
}
