using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using JustRight.Service.Data.Log;
using JustRight.Service.Platform.Settings;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Data.Evidence;

/// <summary>
/// The key that signs evidence: RSA of 3072 bits, made at the first use, kept encrypted beside the other keys. Its thumbprint
/// [RFC 7638] goes into the log when it is made, so that a key put in its place later shows.
/// </summary>
internal sealed class EvidenceKey(IOptions<ServiceSettings> settings, IDataProtectionProvider protection, LogStore log) : IDisposable
{
    /// <summary>The media type of what it signs [RFC 7515, 9.2.2].</summary>
    public const string MediaType = "application/jose+json";

    private const int Bits = 3072;
    private readonly IDataProtector _protector = protection.CreateProtector("justright.evidence.v1");
    private readonly SemaphoreSlim _one = new(1);
    private RSA? _key;

    /// <summary>The public part as a JSON Web Key [RFC 7517], its members in the order of its thumbprint.</summary>
    public static string JwkOf(RSA key)
    {
        var parts = key.ExportParameters(false);
        return $$"""{"e":"{{Base64Url.EncodeToString(parts.Exponent)}}","kty":"RSA","n":"{{Base64Url.EncodeToString(parts.Modulus)}}"}""";
    }

    /// <summary>The thumbprint of the public part [RFC 7638].</summary>
    public static string ThumbprintOf(RSA key) => Base64Url.EncodeToString(SHA256.HashData(Encoding.UTF8.GetBytes(JwkOf(key))));

    /// <summary>The key, made when there is none yet.</summary>
    public async Task<RSA> GetAsync(CancellationToken cancel)
    {
        await _one.WaitAsync(cancel);
        try
        {
            return _key ??= await LoadAsync(cancel) ?? await MakeAsync(cancel);
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>Signs a text: a JSON Web Signature in its flattened JSON form [RFC 7515 7.2.2], by RS256.</summary>
    /// <param name="type">What it is, in the protected header: what was signed as one thing is not taken for another.</param>
    public async Task<JsonObject> SignAsync(string type, string payload, CancellationToken cancel)
    {
        var rsa = await GetAsync(cancel);
        var head = Encode($$"""{"alg":"RS256","kid":"{{ThumbprintOf(rsa)}}","typ":"{{type}}","jwk":{{JwkOf(rsa)}}}""");
        var body = Encode(payload);
        var signature = rsa.SignData(Encoding.ASCII.GetBytes($"{head}.{body}"), HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1);
        return new JsonObject { ["payload"] = body, ["protected"] = head, ["signature"] = Base64Url.EncodeToString(signature) };
    }

    /// <summary>The text of what this key signed as a type; null when something else signed it, or it is no such thing.</summary>
    public async Task<string?> OpenAsync(string type, string signed, CancellationToken cancel)
    {
        var rsa = await GetAsync(cancel);
        try
        {
            var parts = JsonNode.Parse(signed)!;
            var (head, body) = ((string)parts["protected"]!, (string)parts["payload"]!);
            if ((string?)JsonNode.Parse(Decode(head))!["typ"] != type) return null;
            var signature = Base64Url.DecodeFromChars((string)parts["signature"]!);
            return rsa.VerifyData(Encoding.ASCII.GetBytes($"{head}.{body}"), signature, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1)
                ? Decode(body)
                : null;
        }
        catch (Exception e) when (e is JsonException or FormatException or InvalidOperationException or NullReferenceException or ArgumentNullException)
        {
            return null; // not a signature at all
        }
    }

    private static string Encode(string text) => Base64Url.EncodeToString(Encoding.UTF8.GetBytes(text));

    private static string Decode(string text) => Encoding.UTF8.GetString(Base64Url.DecodeFromChars(text));

    /// <inheritdoc/>
    public void Dispose()
    {
        _key?.Dispose();
        _one.Dispose();
    }

    private string Place => Path.Combine(settings.Value.Data, "keys", "evidence.key");

    private async Task<RSA?> LoadAsync(CancellationToken cancel)
    {
        if (!File.Exists(Place)) return null;
        var key = RSA.Create();
        key.ImportPkcs8PrivateKey(_protector.Unprotect(await File.ReadAllBytesAsync(Place, cancel)), out _);
        return key;
    }

    private async Task<RSA> MakeAsync(CancellationToken cancel)
    {
        var key = RSA.Create(Bits);
        Directory.CreateDirectory(Path.GetDirectoryName(Place)!);
        var fresh = Place + ".new";
        await File.WriteAllBytesAsync(fresh, _protector.Protect(key.ExportPkcs8PrivateKey()), cancel);
        if (!OperatingSystem.IsWindows()) File.SetUnixFileMode(fresh, UnixFileMode.UserRead | UnixFileMode.UserWrite);
        File.Move(fresh, Place);
        await log.AddAsync("the service", "evidence key", ThumbprintOf(key), "made; evidence is signed with it from now on", cancel);
        return key;
    }
}
