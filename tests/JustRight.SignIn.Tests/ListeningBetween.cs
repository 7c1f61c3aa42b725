using System.Net;
using System.Net.Sockets;
using System.Text;

namespace JustRight.SignIn.Tests;

/// <summary>Somebody on the way to a server, who hears all that is said to it, and passes it on.</summary>
internal sealed class ListeningBetween : IAsyncDisposable
{
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly CancellationTokenSource _stop = new();
    private readonly List<byte[]> _heard;
    private readonly Task _listening;

    public ListeningBetween(string host, int port, List<byte[]> heard)
    {
        _heard = heard;
        _listener.Start();
        _listening = Task.Run(async () =>
        {
            try
            {
                while (true) _ = PassOnAsync(await _listener.AcceptTcpClientAsync(_stop.Token), host, port);
            }
            catch (OperationCanceledException)
            {
                // It ends so.
            }
        });
    }

    /// <summary>Where it listens.</summary>
    public int Port => ((IPEndPoint)_listener.LocalEndpoint).Port;

    /// <summary>Whether a text was among what it heard.</summary>
    public bool Heard(string text)
    {
        lock (_heard) return _heard.Exists(h => h.AsSpan().IndexOf(Encoding.UTF8.GetBytes(text)) >= 0);
    }

    public async ValueTask DisposeAsync()
    {
        await _stop.CancelAsync();
        await _listening;
        _listener.Dispose();
        _stop.Dispose();
    }

    private async Task PassOnAsync(TcpClient from, string host, int port)
    {
        using var client = from;
        using var to = new TcpClient();
        await to.ConnectAsync(host, port);
        await Task.WhenAny(
            CopyAsync(client.GetStream(), to.GetStream(), listen: true),
            CopyAsync(to.GetStream(), client.GetStream(), listen: false));
    }

    private async Task CopyAsync(NetworkStream from, NetworkStream to, bool listen)
    {
        var buffer = new byte[8192];
        try
        {
            while (await from.ReadAsync(buffer, _stop.Token) is > 0 and var read)
            {
                if (listen)
                    lock (_heard) _heard.Add(buffer[..read]);
                await to.WriteAsync(buffer.AsMemory(0, read), _stop.Token);
            }
        }
        catch (Exception e) when (e is IOException or OperationCanceledException)
        {
            // Either side hung up.
        }
    }
}
