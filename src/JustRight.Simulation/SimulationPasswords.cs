using System.Security.Cryptography;
using System.Text;
using JustRight.Connectors;
using JustRight.Core.Passwords;
using JustRight.Core.Surveys;

namespace JustRight.Simulation;

/// <summary>
/// Passwords of the simulated estate. Accounts and people that come with it have one that anybody can guess; of those made in it,
/// only a proof is kept.
/// </summary>
public static class SimulationPasswords
{
    private const int Rounds = 20_000, SaltLength = 16, ProofLength = 32;

    /// <summary>For how long a wrong password counts.</summary>
    internal static readonly TimeSpan WrongOnesCountFor = TimeSpan.FromMinutes(30);

    /// <summary>What the passwords of accounts and people that came with the simulation begin with; their logon name follows.</summary>
    public const string Prefix = "simulated-";

    /// <summary>The password of somebody who came with the simulation that ships with the product.</summary>
    /// <param name="name">The logon name.</param>
    public static string SimulatedOf(string name) => Prefix + name;

    /// <summary>The password of somebody who came with a simulation.</summary>
    internal static NewPassword FirstOf(SimulationState state, string name) => new(state.PasswordPrefix + name);

    /// <summary>What is kept of a password. That of one account is the same wherever the same password is typed, so that places can be compared without one.</summary>
    /// <param name="account">The account's logon name.</param>
    public static string ProofOf(string account, NewPassword password)
    {
        var salt = SHA256.HashData(Encoding.UTF8.GetBytes(account.ToUpperInvariant()))[..SaltLength];
        return Convert.ToBase64String([.. salt, .. Derive(password, salt)]);
    }

    /// <summary>Whether a password is the one of which a proof was kept.</summary>
    public static bool Fits(NewPassword password, string proof)
    {
        var bytes = Convert.FromBase64String(proof);
        return CryptographicOperations.FixedTimeEquals(Derive(password, bytes.AsSpan(0, SaltLength)), bytes.AsSpan(SaltLength));
    }

    /// <summary>The proof of an account's password: that of the simulated one until another is set.</summary>
    internal static string ProofOf(SimulationState state, SimulationPrincipal account) =>
        account.PasswordProof ?? ProofOf(account.Name, FirstOf(state, account.Name));

    /// <summary>Signs in as an account; a wrong password is counted, and locks it when there were too many.</summary>
    internal static PasswordTry Try(SimulationState state, SimulationPrincipal account, NewPassword password, DateTimeOffset now)
    {
        if (account.State.HasFlag(AccountState.Disabled))
            return new PasswordTry(false, $"the simulation refuses the sign-in of {account.Name}: it is disabled.");
        if (account.State.HasFlag(AccountState.Locked))
            return new PasswordTry(false, $"the simulation refuses the sign-in of {account.Name}: it is locked.");
        if (ProofOf(account.Name, password) == ProofOf(state, account))
        {
            (account.WrongPasswords, account.LastLogon) = (0, now);
            return new PasswordTry(true, "the simulation takes it");
        }

        var counted = account.WrongPasswordAt + WrongOnesCountFor < now ? 0 : account.WrongPasswords;
        (account.WrongPasswords, account.WrongPasswordAt) = (counted + 1, now);
        if (state.LockedAfter > 0 && account.WrongPasswords >= state.LockedAfter) account.State |= AccountState.Locked;
        return new PasswordTry(false, $"the simulation refuses the sign-in of {account.Name}: wrong password.");
    }

    private static byte[] Derive(NewPassword password, ReadOnlySpan<byte> salt) =>
        Rfc2898DeriveBytes.Pbkdf2(Encoding.UTF8.GetBytes(password.Reveal()), salt, Rounds, HashAlgorithmName.SHA256, ProofLength);
}
