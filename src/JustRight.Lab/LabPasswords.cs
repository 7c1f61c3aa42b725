using System.Security.Cryptography;
using System.Text;
using JustRight.Connectors;

namespace JustRight.Lab;

/// <summary>
/// Passwords of the pretend estate. Accounts and people that come with it have a pretend one that anybody can guess; of those made
/// in it, only a proof is kept.
/// </summary>
public static class LabPasswords
{
    private const int Rounds = 20_000, SaltLength = 16, ProofLength = 32;

    /// <summary>The pretend password of somebody who came with the lab.</summary>
    /// <param name="name">The logon name.</param>
    public static string PretendOf(string name) => $"pretend-{name}";

    /// <summary>What is kept of a password.</summary>
    public static string ProofOf(NewPassword password)
    {
        var salt = RandomNumberGenerator.GetBytes(SaltLength);
        return Convert.ToBase64String([.. salt, .. Derive(password, salt)]);
    }

    /// <summary>Whether a password is the one of which a proof was kept.</summary>
    public static bool Fits(NewPassword password, string proof)
    {
        var bytes = Convert.FromBase64String(proof);
        return CryptographicOperations.FixedTimeEquals(Derive(password, bytes.AsSpan(0, SaltLength)), bytes.AsSpan(SaltLength));
    }

    private static byte[] Derive(NewPassword password, ReadOnlySpan<byte> salt) => Rfc2898DeriveBytes.Pbkdf2(Encoding.UTF8.GetBytes(password.Reveal()), salt, Rounds, HashAlgorithmName.SHA256, ProofLength);
}
