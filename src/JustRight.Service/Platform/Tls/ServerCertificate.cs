using System.Net.Security;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using JustRight.Service.Platform.Settings;
using Microsoft.AspNetCore.Server.Kestrel.Core;
using Microsoft.AspNetCore.Server.Kestrel.Https;

namespace JustRight.Service.Platform.Tls;

/// <summary>
/// The service's own certificate, read again when its file was renewed: open connections go on, new ones get the new one. A
/// renewed file that cannot be read, or does not hold the key, is not used, and the log says so.
/// </summary>
internal sealed partial class ServerCertificate
{
    private static readonly TimeSpan LookedAtEvery = TimeSpan.FromSeconds(5);
    private readonly string _file;
    private readonly string? _keyFile;
    private readonly ILogger<ServerCertificate> _log;
    private readonly Lock _lock = new();
    private SslStreamCertificateContext _context;
    private DateTime _writtenAt;
    private long _lookedAt;

    /// <summary>Reads the certificate.</summary>
    /// <param name="log">Where a renewal is told.</param>
    /// <exception cref="CryptographicException">The files hold no certificate, or not its key.</exception>
    public ServerCertificate(string file, string? keyFile, ILogger<ServerCertificate> log)
    {
        (_file, _keyFile, _log) = (file, keyFile, log);
        _writtenAt = WrittenAt();
        _context = Read();
        _lookedAt = Environment.TickCount64;
    }

    /// <summary>Lets Kestrel use it for every <c>https</c> address.</summary>
    public static void Use(KestrelServerOptions kestrel, TlsSettings settings, ILogger<ServerCertificate> log)
    {
        if (settings.Certificate is null) return;
        var certificate = new ServerCertificate(settings.Certificate, settings.Key, log);
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
                LogRenewed(_log, _file, until);
            }
            catch (Exception e) when (e is CryptographicException or IOException or UnauthorizedAccessException)
            {
                LogNotUsed(_log, _file, e.Message);
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

    [LoggerMessage(LogLevel.Warning, "The certificate of {File} was renewed: it is valid until {Until:u}.")]
    private static partial void LogRenewed(ILogger logger, string file, DateTime until);

    [LoggerMessage(LogLevel.Warning, "The renewed certificate of {File} is not used: {Why} The one from before goes on.")]
    private static partial void LogNotUsed(ILogger logger, string file, string why);
}
