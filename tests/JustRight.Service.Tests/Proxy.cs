using System.Diagnostics;
using System.Net;
using System.Net.Security;
using System.Net.Sockets;
using System.Security.Cryptography.X509Certificates;

namespace JustRight.Service.Tests;

/// <summary>A real nginx in front of a service, which ends TLS as docs/operations.md says.</summary>
internal sealed class Proxy : IAsyncDisposable
{
    public const string Name = "justright.fennmoor.example";
    public const string Address = "https://" + Name;
    private readonly string _folder = Directory.CreateTempSubdirectory("justright-proxy-").FullName;
    private readonly int _port = Loopback.FreePort();
    private Process? _nginx;

    /// <summary>Starts it before a service that listens on a port of loopback.</summary>
    public static async Task<Proxy> StartAsync(string service)
    {
        var proxy = new Proxy();
        using var authority = new TestAuthority("Fennmoor Dairy test authority");
        authority.WriteTo(proxy._folder);
        authority.Issue(Path.Combine(proxy._folder, "proxy.pem"), Path.Combine(proxy._folder, "proxy.key"), [Name], 30);
        var file = Path.Combine(proxy._folder, "nginx.conf");
        await File.WriteAllTextAsync(file, $$"""
            daemon off;
            pid {{proxy._folder}}/nginx.pid;
            error_log stderr;
            events { }
            http {
              access_log off;
              client_body_temp_path {{proxy._folder}}/body;
              proxy_temp_path {{proxy._folder}}/proxied;
              fastcgi_temp_path {{proxy._folder}}/a; uwsgi_temp_path {{proxy._folder}}/b; scgi_temp_path {{proxy._folder}}/c;
              server {
                listen 127.0.0.1:{{proxy._port}} ssl;
                server_name {{Name}};
                ssl_certificate {{proxy._folder}}/proxy.pem;
                ssl_certificate_key {{proxy._folder}}/proxy.key;
                client_max_body_size 20m;
                location / {
                  proxy_pass {{service}};
                  proxy_set_header X-Forwarded-For $remote_addr;
                  proxy_set_header X-Forwarded-Proto $scheme;
                  proxy_buffering off;
                }
              }
            }
            """);
        proxy._nginx = Programs.Serve("/usr/sbin/nginx", ["-c", file]);
        await Waiting.UntilAsync("nginx listens", async () =>
        {
            try
            {
                using var socket = new TcpClient();
                await socket.ConnectAsync(IPAddress.Loopback, proxy._port);
                return true;
            }
            catch (SocketException)
            {
                return false;
            }
        });
        return proxy;
    }

    /// <summary>A client of the proxy by its name, from an address of loopback; it trusts its authority alone.</summary>
    public HttpClient Client(string from = "127.0.0.1")
    {
        var ca = X509CertificateLoader.LoadCertificateFromFile(Path.Combine(_folder, "ca.pem"));
        return ClientOf(Name, _port, ca, from);
    }

    /// <summary>A client of a name that is reached at a port of loopback.</summary>
    public static HttpClient ClientOf(string name, int port, X509Certificate2 authority, string from = "127.0.0.1")
    {
        var handler = new SocketsHttpHandler
        {
            ConnectCallback = async (_, cancel) =>
            {
                var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
                socket.Bind(new IPEndPoint(IPAddress.Parse(from), 0));
                await socket.ConnectAsync(IPAddress.Loopback, port, cancel);
                return new NetworkStream(socket, ownsSocket: true);
            },
            SslOptions = new SslClientAuthenticationOptions
            {
                CertificateChainPolicy = new X509ChainPolicy
                {
                    TrustMode = X509ChainTrustMode.CustomRootTrust,
                    CustomTrustStore = { authority },
                    RevocationMode = X509RevocationMode.NoCheck,
                },
            },
        };
        return new HttpClient(handler) { BaseAddress = new Uri($"https://{name}"), Timeout = TimeSpan.FromMinutes(2) };
    }

    public async ValueTask DisposeAsync()
    {
        if (_nginx is not null) await _nginx.EndAsync();
        Directory.Delete(_folder, true);
    }
}
