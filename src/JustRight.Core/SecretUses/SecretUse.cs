using System.Globalization;
using System.Security.Cryptography;
using System.Text;

namespace JustRight.Core.SecretUses;

/// <summary>
/// One use of a secret, whole. An owner allows a secret for a use; a connector states the use that it is about to make, and gets
/// the secret only when every part is the same. Whoever changes an estate so that a secret would go elsewhere, under another
/// name, or to somebody who proves themselves otherwise, states another use.
/// </summary>
/// <param name="Purpose">What for.</param>
/// <param name="Estate">The estate that asks; empty for the service's own settings.</param>
/// <param name="For">What of the estate it is for: a host, an instance, a domain, a directory of people.</param>
/// <param name="Address">Where it goes: <c>host:port</c>, or the address of a webhook.</param>
/// <param name="SignInAs">The name that is signed in with it; empty where none is.</param>
/// <param name="Transport">How the way is protected: <c>ldaps</c>, <c>ssh</c>, <c>tls</c>, <c>start-tls</c>, <c>plain</c>,
/// <c>https</c>.</param>
/// <param name="Anchor">What the other end must prove: a host key, or the content of the authorities that are trusted.</param>
public sealed record SecretUse(
    SecretPurpose Purpose, string Estate, string For, string Address, string SignInAs, string Transport, string Anchor)
{
    private const int IdCharacters = 20;

    /// <summary>
    /// Names the use: made of every part, so that a use that differs in any of them has another. Eighty bits of SHA-256: nobody
    /// finds a second use with the same.
    /// </summary>
    public string Id
    {
        get
        {
            // Lengths stand before the parts: no two lists of parts give the same text.
            string[] parts = [Purpose.Name(), Estate, For, Address, SignInAs, Transport, Anchor];
            var text = string.Concat(parts.Select(p => string.Create(CultureInfo.InvariantCulture, $"{p.Length}:{p}")));
            return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text)))[..IdCharacters];
        }
    }

    /// <summary>The host of the address.</summary>
    public string Host => Uri.TryCreate(Address, UriKind.Absolute, out var uri) && uri.Host.Length > 0
        ? uri.Host
        : Address[..Address.LastIndexOf(':')];

    /// <summary>The use in one line.</summary>
    public string Words =>
        $"{Purpose.Words()} {For}{(Estate.Length > 0 ? $" of {Estate}" : "")} at {Address}"
        + $"{(SignInAs.Length > 0 ? $" as {SignInAs}" : "")} ({Transport}, {Anchor})";
}
