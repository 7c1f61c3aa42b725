using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;
using JustRight.Service.Hosting;
using JustRight.Service.Log;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Reports;

/// <summary>
/// The key that signs evidence: RSA of 3072 bits, made at the first use, kept encrypted beside the other keys. Its thumbprint
/// [RFC 7638] goes into the log when it is made, so that a key put in its place later shows.
/// </summary>
internal sealed class EvidenceKey(IOptions<ServiceSettings> settings, IDataProtectionProvider protection, LogStore log) : IDisposable
{
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
