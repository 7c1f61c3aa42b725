using System.Security.Cryptography;
using System.Text;

namespace JustRight.Service.Jobs.Notifications;

/// <summary>
/// Signs a call, so that whoever is called knows that it came from here and was not changed [RFC 9421, with RFC 9530 for the
/// body].
/// </summary>
internal static class MessageSignature
{
    private const string Label = "justright";

    /// <summary>
    /// The headers that carry the signature: over the method, the address and the digest of the body, by HMAC with SHA-256.
    /// </summary>
    /// <param name="keyId">The name of the key, for whoever checks.</param>
    /// <param name="key">The key, as text.</param>
    /// <param name="now">When it is signed, so that an old call that is sent again can be known.</param>
    public static IReadOnlyList<(string Name, string Value)> Of(
        string method, Uri address, byte[] body, string keyId, string key, DateTimeOffset now)
    {
        var digest = $"sha-256=:{Convert.ToBase64String(SHA256.HashData(body))}:";
        var how = $"(\"@method\" \"@target-uri\" \"content-digest\");created={now.ToUnixTimeSeconds()};keyid=\"{keyId}\";alg=\"hmac-sha256\"";
        var signed = $"\"@method\": {method}\n\"@target-uri\": {address.AbsoluteUri}\n\"content-digest\": {digest}\n\"@signature-params\": {how}";
        var signature = HMACSHA256.HashData(Encoding.UTF8.GetBytes(key), Encoding.UTF8.GetBytes(signed));
        return [
            ("Content-Digest", digest), ("Signature-Input", $"{Label}={how}"),
            ("Signature", $"{Label}=:{Convert.ToBase64String(signature)}:")];
    }
}
