using System.Net;
using System.Net.Security;
using System.Net.Sockets;
using System.Security.Cryptography.X509Certificates;
using System.Text;

namespace JustRight.SignIn.Tests;

/// <summary>A port on loopback where something listens that is no directory, or another one than it should be.</summary>
internal sealed class OddPort : IDisposable
{
    private readonly TcpListener _listener;
    private readonly Func<NetworkStream, Task> _meet;

    private OddPort(IPAddress address, int port, Func<NetworkStream, Task> meet)
    {
        (_listener, _meet) = (new TcpListener(address, port), meet);
        _listener.Start();
        _ = AcceptAsync();
    }

    /// <summary>Where it listens.</summary>
    public int Port => ((IPEndPoint)_listener.LocalEndpoint).Port;

    /// <summary>Says something before it is asked, as servers of shells and mail do.</summary>
    public static OddPort Greeting(IPAddress? address = null, int port = 0) => new(
        address ?? IPAddress.Loopback, port, async stream =>
        {
            await stream.WriteAsync(Encoding.ASCII.GetBytes("220 ready when you are\r\n"));
            await Task.Delay(TimeSpan.FromSeconds(1));
        });

    /// <summary>Answers whatever it is asked in words.</summary>
    public static OddPort Answering() => new(IPAddress.Loopback, 0, async stream =>
    {
        _ = await stream.ReadAsync(new byte[4096]);
        await stream.WriteAsync(Encoding.ASCII.GetBytes("HTTP/1.1 400 Bad Request\r\n\r\n"));
    });

    /// <summary>Answers whatever it is asked with some octets.</summary>
    public static OddPort Saying(byte[] octets) => new(IPAddress.Loopback, 0, async stream =>
    {
        _ = await stream.ReadAsync(new byte[4096]);
        await stream.WriteAsync(octets);
    });

    /// <summary>Hangs up at once.</summary>
    public static OddPort HangingUp() => new(IPAddress.Loopback, 0, _ => Task.CompletedTask);

    /// <summary>Takes the connection, and says nothing.</summary>
    public static OddPort Silent() => new(IPAddress.Loopback, 0, stream => stream.ReadAsync(new byte[1]).AsTask()
        .ContinueWith(_ => Task.Delay(TimeSpan.FromMinutes(1)), TaskScheduler.Default).Unwrap());

    /// <summary>Speaks TLS, with a certificate of its own.</summary>
    public static OddPort Showing(IPAddress address, int port, X509Certificate2 certificate) => new(address, port, async stream =>
    {
        await using var tls = new SslStream(stream, true);
        await tls.AuthenticateAsServerAsync(new SslServerAuthenticationOptions { ServerCertificate = certificate });
        _ = await tls.ReadAsync(new byte[1]);
    });

    public void Dispose() => _listener.Dispose();

    private async Task AcceptAsync()
    {
        try
        {
            while (true) _ = MeetAsync(await _listener.AcceptTcpClientAsync());
        }
        catch (Exception e) when (e is SocketException or ObjectDisposedException)
        {
            // It ends so.
        }
    }

    private async Task MeetAsync(TcpClient client)
    {
        using var met = client;
        try
        {
            await _meet(client.GetStream());
        }
        catch (Exception e) when (e is IOException or System.Security.Authentication.AuthenticationException)
        {
            // The other side hung up.
        }
    }
}
