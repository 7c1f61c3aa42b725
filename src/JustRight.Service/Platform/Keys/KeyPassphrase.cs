using System.Security.Cryptography;
using JustRight.Service.Platform.Faults;

namespace JustRight.Service.Platform.Keys;

/// <summary>The passphrase that encrypts the keys: the content of a file, without a line end.</summary>
internal sealed class KeyPassphrase
{
    /// <summary>As the guidance for passwords asks for PBKDF2 with SHA-256 [NIST SP 800-132; RFC 8018].</summary>
    private const int Rounds = 600_000;

    private const int KeyBytes = 32, LeastCharacters = 16;

    private readonly string _text;

    /// <summary>Reads the file.</summary>
    /// <exception cref="StartFault">It cannot be read, or holds too little.</exception>
    public KeyPassphrase(string file)
    {
        try
        {
            _text = File.ReadAllText(file).TrimEnd('\r', '\n');
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new StartFault(StartFault.Setting, $"JustRight:Keys:PassphraseFile cannot be read: {e.Message}");
        }

        if (_text.Length < LeastCharacters)
            throw new StartFault(
                StartFault.Setting, $"JustRight:Keys:PassphraseFile holds fewer than {LeastCharacters} characters.");
    }

    /// <summary>The key that a salt makes of the passphrase.</summary>
    public byte[] KeyFor(byte[] salt) => Rfc2898DeriveBytes.Pbkdf2(_text, salt, Rounds, HashAlgorithmName.SHA256, KeyBytes);
}
