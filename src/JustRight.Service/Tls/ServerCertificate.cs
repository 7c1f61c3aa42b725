using System.Net.Security;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using JustRight.Service.Settings;
using Microsoft.AspNetCore.Server.Kestrel.Core;
using Microsoft.AspNetCore.Server.Kestrel.Https;

namespace JustRight.Service.Tls;

/// <summary>
/// The service's own certificate, read again when its file was renewed: open connections go on, new ones get the new one. A
/// renewed file that cannot be read, or does not hold the key, is not used, and the log says so.
/// </summary>
internal sealed class ServerCertificate
{
    private static readonly TimeSpan LookedAtEvery = TimeSpan.FromSeconds(5);
    private readonly string _file;
    private readonly string? _keyFile;
    private readonly Action<string> _tell;
    private readonly Lock _lock = new();
    private SslStreamCertificateContext _context;
    private DateTime _writtenAt;
    private long _lookedAt;

    /// <summary>Reads the certificate.</summary>
    /// <param name="tell">Takes what is to be logged.</param>
    /// <exception cref="CryptographicException">The files hold no certificate, or not its key.</exception>
    public ServerCertificate(string file, string? keyFile, Action<string> tell)
    {
        (_file, _keyFile, _tell) = (file, keyFile, tell);
        _writtenAt = WrittenAt();
        _context = Read();
        _lookedAt = Environment.TickCount64;
    }

    /// <summary>Lets Kestrel use it for every <c>https</c> address.</summary>
    public static void Use(KestrelServerOptions kestrel, TlsSettings settings, Action<string> tell)
    {
        if (settings.Certificate is null) return;
        var certificate = new ServerCertificate(settings.Certificate, settings.Key, tell);
        kestrel.ConfigureHttpsDefaults(certificate.Configure);
    }

    private void Configure(HttpsConnectionAdapterOptions https)
    {
        https.ServerCertificateSelector = (_, _) => Current().TargetCertificate;
        https.OnAuthenticate = (_, options) =>
        {
            // With the certificates between, which the selector alone does not send.
            options.ServerCertificateSelectionCallback = null;
            options.ServerCertificateContext = Current();
        };
    }

    private SslStreamCertificateContext Current()
    {
        lock (_lock)
        {
            if (Environment.TickCount64 - _lookedAt < LookedAtEvery.TotalMilliseconds) return _context;
            _lookedAt = Environment.TickCount64;
            try
            {
                var writtenAt = WrittenAt();
                if (writtenAt == _writtenAt) return _context;
                _context = Read();
                _writtenAt = writtenAt;
                var until = _context.TargetCertificate.NotAfter.ToUniversalTime();
                _tell($"The certificate of {_file} was renewed: it is valid until {until:u}.");
            }
            catch (Exception e) when (e is CryptographicException or IOException or UnauthorizedAccessException)
            {
                _tell($"The renewed certificate of {_file} is not used: {e.Message} The one from before goes on.");
            }

            return _context;
        }
    }

    private DateTime WrittenAt()
    {
        var certificate = File.GetLastWriteTimeUtc(_file);
        var key = _keyFile is null ? certificate : File.GetLastWriteTimeUtc(_keyFile);
        return certificate > key ? certificate : key;
    }

    private SslStreamCertificateContext Read()
    {
        var all = new X509Certificate2Collection();
        all.ImportFromPemFile(_file);
        var leaf = X509Certificate2.CreateFromPemFile(_file, _keyFile);
        return SslStreamCertificateContext.Create(leaf, all, offline: true);
    }
}
