using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;

namespace JustRight.Service.Platform.Keys;

/// <summary>
/// A data key for each kept password, in a file of its own beside the other keys. When the password was handed over, its key is
/// destroyed: what a copy of the database still holds of it opens no more.
/// </summary>
internal sealed class PasswordKeys(KeyFolder keys, IDataProtectionProvider protection)
{
    private const int KeyBytes = 32, NonceBytes = 12, TagBytes = 16;

    private readonly IDataProtector _protector = protection.CreateProtector("justright.password-keys.v1");

    private string Folder => Path.Combine(keys.Path, "passwords");

    /// <summary>Encrypts a password with a key of its own.</summary>
    /// <returns>The name of the key, and what is kept in the database.</returns>
    public (string Key, string Hidden) Encrypt(string password)
    {
        var name = Guid.CreateVersion7().ToString("N");
        var key = RandomNumberGenerator.GetBytes(KeyBytes);
        var folder = Directory.CreateDirectory(Folder);
        using (var file = new FileStream(PathOf(name), PrivateFile.New()))
        {
            file.Write(_protector.Protect(key));
            file.Flush(flushToDisk: true);
        }

        KeyRing.Close(folder);
        var clear = System.Text.Encoding.UTF8.GetBytes(password);
        var packed = new byte[NonceBytes + TagBytes + clear.Length];
        RandomNumberGenerator.Fill(packed.AsSpan(0, NonceBytes));
        using var cipher = new AesGcm(key, TagBytes);
        cipher.Encrypt(
            packed.AsSpan(0, NonceBytes), clear, packed.AsSpan(NonceBytes + TagBytes), packed.AsSpan(NonceBytes, TagBytes));
        return (name, Convert.ToBase64String(packed));
    }

    /// <summary>Decrypts a password.</summary>
    /// <exception cref="CryptographicException">Its key is gone, or does not fit.</exception>
    public string Decrypt(string name, string hidden)
    {
        if (!File.Exists(PathOf(name))) throw new CryptographicException("the key of this password is gone");
        var packed = Convert.FromBase64String(hidden);
        var clear = new byte[packed.Length - NonceBytes - TagBytes];
        using var cipher = new AesGcm(_protector.Unprotect(File.ReadAllBytes(PathOf(name))), TagBytes);
        cipher.Decrypt(
            packed.AsSpan(0, NonceBytes), packed.AsSpan(NonceBytes + TagBytes), packed.AsSpan(NonceBytes, TagBytes), clear);
        return System.Text.Encoding.UTF8.GetString(clear);
    }

    /// <summary>Destroys the key of a password that is no longer kept.</summary>
    public void Destroy(string? name)
    {
        if (name is not null) File.Delete(PathOf(name));
    }

    /// <summary>Destroys the keys of passwords that are kept no longer: a crash may have come between.</summary>
    public void DestroyOthers(IReadOnlySet<string> kept)
    {
        if (!Directory.Exists(Folder)) return;
        foreach (var file in Directory.GetFiles(Folder).Where(f => !kept.Contains(Path.GetFileName(f)))) File.Delete(file);
    }

    private string PathOf(string name) => Path.Combine(Folder, name);
}
