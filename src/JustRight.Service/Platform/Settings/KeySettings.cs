namespace JustRight.Service.Platform.Settings;

/// <summary>
/// What encrypts the keys in the data folder, under <c>JustRight:Keys</c>: a passphrase, a certificate, or nothing.
/// </summary>
public sealed class KeySettings
{
    /// <summary>A file whose content encrypts the keys; outside of the data folder.</summary>
    public string? PassphraseFile { get; set; }

    /// <summary>A PKCS #12 file with the certificate and its RSA key that encrypts the keys.</summary>
    public string? Certificate { get; set; }

    /// <summary>A file with the password of that file; null when it has none.</summary>
    public string? CertificatePasswordFile { get; set; }

    /// <summary>Whether secrets whose keys are gone are dropped at the start; otherwise the service does not start.</summary>
    public bool DropUnreadable { get; set; }

    /// <summary>Whether anything encrypts the keys.</summary>
    public bool AreEncrypted => PassphraseFile is not null || Certificate is not null;
}
