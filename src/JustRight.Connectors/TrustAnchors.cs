using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using JustRight.Connectors.Directories.Ldap;

namespace JustRight.Connectors;

/// <summary>
/// What is trusted, by its content: the same path may hold another authority tomorrow, and the same authority may lie elsewhere.
/// </summary>
public static class TrustAnchors
{
    /// <summary>The authorities in a folder.</summary>
    public static string OfFolder(string? folder)
    {
        if (folder is null) return "no authority";
        try
        {
            return Of(TlsTrust.Roots(folder), "authorities");
        }
        catch (ConnectorException)
        {
            return $"no authority: {folder} holds none";
        }
        catch (CryptographicException)
        {
            return $"no authority: {folder} cannot be read";
        }
    }

    /// <summary>The certificates in a file; without one, those that the machine trusts.</summary>
    public static string OfFile(string? file)
    {
        if (file is null) return "the authorities of this machine";
        try
        {
            var certificates = new X509Certificate2Collection();
            certificates.ImportFromPemFile(file);
            return Of(certificates, "certificate");
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException or CryptographicException)
        {
            return $"no certificate: {file} cannot be read";
        }
    }

    /// <summary>Their fingerprints, in an order of their own, and twice the same counts once.</summary>
    private static string Of(X509Certificate2Collection certificates, string what)
    {
        var prints = certificates.Select(c => c.GetCertHashString(HashAlgorithmName.SHA256).ToLowerInvariant()).Distinct();
        return $"{what} sha256:{string.Join('+', prints.Order(StringComparer.Ordinal))}";
    }
}
