using System.Security.Cryptography;
using System.Text;
using System.Xml.Linq;
using Microsoft.AspNetCore.DataProtection.XmlEncryption;

namespace JustRight.Service.Platform.Keys;

/// <summary>
/// Encrypts a key with the passphrase: AES-256 in Galois/Counter Mode [NIST SP 800-38D] under a key of its own salt.
/// </summary>
internal sealed class PassphraseEncryptor(KeyPassphrase passphrase) : IXmlEncryptor
{
    private const int SaltBytes = 16, NonceBytes = 12, TagBytes = 16;

    /// <inheritdoc/>
    public EncryptedXmlInfo Encrypt(XElement plaintextElement)
    {
        var clear = Encoding.UTF8.GetBytes(plaintextElement.ToString(SaveOptions.DisableFormatting));
        var (salt, nonce) = (RandomNumberGenerator.GetBytes(SaltBytes), RandomNumberGenerator.GetBytes(NonceBytes));
        var (hidden, tag) = (new byte[clear.Length], new byte[TagBytes]);
        using var cipher = new AesGcm(passphrase.KeyFor(salt), TagBytes);
        cipher.Encrypt(nonce, clear, hidden, tag);
        var element = new XElement(
            "passphrase",
            new XAttribute("salt", Convert.ToBase64String(salt)), new XAttribute("nonce", Convert.ToBase64String(nonce)),
            new XAttribute("tag", Convert.ToBase64String(tag)), Convert.ToBase64String(hidden));
        return new EncryptedXmlInfo(element, typeof(PassphraseDecryptor));
    }
}

/// <summary>Opens what <see cref="PassphraseEncryptor"/> encrypted. The framework makes it by its name.</summary>
internal sealed class PassphraseDecryptor(IServiceProvider services) : IXmlDecryptor
{
    /// <inheritdoc/>
    public XElement Decrypt(XElement encryptedElement)
    {
        byte[] Part(string name) => Convert.FromBase64String(encryptedElement.Attribute(name)!.Value);
        var hidden = Convert.FromBase64String(encryptedElement.Value);
        var clear = new byte[hidden.Length];
        var tag = Part("tag");
        using var cipher = new AesGcm(services.GetRequiredService<KeyPassphrase>().KeyFor(Part("salt")), tag.Length);
        cipher.Decrypt(Part("nonce"), hidden, tag, clear);
        return XElement.Parse(Encoding.UTF8.GetString(clear));
    }
}
