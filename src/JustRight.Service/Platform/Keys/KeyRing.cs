using System.Security.Cryptography.X509Certificates;
using System.Xml.Linq;
using JustRight.Service.Platform.Faults;
using JustRight.Service.Platform.Settings;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.DataProtection.KeyManagement;
using Microsoft.AspNetCore.DataProtection.XmlEncryption;

namespace JustRight.Service.Platform.Keys;

/// <summary>The folder that holds the keys.</summary>
internal sealed record KeyFolder(string Path);

/// <summary>
/// The keys that encrypt what is secret: in <c>keys/</c> of the data folder, for nobody else to read, and encrypted themselves
/// when a passphrase or a certificate is set.
/// </summary>
internal static class KeyRing
{
    private const UnixFileMode Owner = UnixFileMode.UserRead | UnixFileMode.UserWrite;

    private static readonly XNamespace DataProtection = "http://schemas.asp.net/2015/03/dataProtection";

    /// <summary>The folder of the keys in a data folder.</summary>
    private static string FolderOf(string data) => Path.Combine(data, "keys");

    /// <summary>Sets the keys up.</summary>
    /// <exception cref="StartFault">The passphrase or the certificate that is set cannot be read.</exception>
    public static void AddKeyRing(this IServiceCollection services, string data, KeySettings settings)
    {
        var folder = Directory.CreateDirectory(FolderOf(data));
        services.AddSingleton(settings);
        services.AddSingleton(new KeyFolder(folder.FullName));
        services.AddSingleton<PasswordKeys>();
        var keys = services.AddDataProtection().SetApplicationName("justright").PersistKeysToFileSystem(folder);
        if (settings.Certificate is not null)
        {
            var certificate = CertificateOf(settings);
            keys.ProtectKeysWithCertificate(certificate).UnprotectKeysWithAnyCertificate(certificate);
            Encrypt(folder, new CertificateXmlEncryptor(certificate, LoggerFactory.Create(_ => { })));
        }
        else if (settings.PassphraseFile is { } file)
        {
            var passphrase = new KeyPassphrase(file);
            var encryptor = new PassphraseEncryptor(passphrase);
            services.AddSingleton(passphrase);
            services.Configure<KeyManagementOptions>(options => options.XmlEncryptor = encryptor);
            Encrypt(folder, encryptor);
        }

        Close(folder);
    }

    /// <summary>Lets nobody else read the folder and its files.</summary>
    public static void Close(DirectoryInfo folder)
    {
        if (OperatingSystem.IsWindows()) return;
        File.SetUnixFileMode(folder.FullName, Owner | UnixFileMode.UserExecute);
        foreach (var inner in folder.EnumerateDirectories()) Close(inner);
        foreach (var file in folder.EnumerateFiles()) File.SetUnixFileMode(file.FullName, Owner);
    }

    /// <summary>
    /// Encrypts the keys that were written while nothing encrypted them. What requires it is marked in the file, and is replaced
    /// as the framework itself replaces it in a key that it writes.
    /// </summary>
    private static void Encrypt(DirectoryInfo folder, IXmlEncryptor encryptor)
    {
        foreach (var file in folder.EnumerateFiles("key-*.xml"))
        {
            var document = XDocument.Load(file.FullName);
            var open = document.Descendants()
                .Where(e => e.Attribute(DataProtection + "requiresEncryption")?.Value == "true")
                .Where(e => e.Name != DataProtection + "encryptedSecret")
                .ToList();
            if (open.Count == 0) continue;
            foreach (var element in open)
            {
                var hidden = encryptor.Encrypt(element);
                element.ReplaceWith(new XElement(
                    DataProtection + "encryptedSecret",
                    new XAttribute("decryptorType", hidden.DecryptorType.AssemblyQualifiedName!), hidden.EncryptedElement));
            }

            var fresh = file.FullName + ".new";
            document.Save(fresh); // in a folder that nobody else may enter
            File.Move(fresh, file.FullName, overwrite: true);
        }
    }

    private static X509Certificate2 CertificateOf(KeySettings settings)
    {
        try
        {
            var password = settings.CertificatePasswordFile is { } file ? File.ReadAllText(file).TrimEnd('\r', '\n') : null;
            return X509CertificateLoader.LoadPkcs12FromFile(settings.Certificate!, password);
        }
        catch (Exception e) when (
            e is IOException or UnauthorizedAccessException or System.Security.Cryptography.CryptographicException)
        {
            throw new StartFault(StartFault.Setting, $"JustRight:Keys:Certificate cannot be read: {e.Message}");
        }
    }
}
