using System.Net;
using System.Net.Sockets;

namespace JustRight.Connectors.Tests;

/// <summary>Stands before a controller and passes bytes on, until a number of them came from it: then it is dead, as after a power cut.</summary>
internal sealed class CuttingProxy : IAsyncDisposable
{
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly CancellationTokenSource _dead = new();
    private readonly Task _accepting;
    private readonly string _host;
    private readonly int _port;
    private long _left;

    public CuttingProxy(string host, int port, long bytes)
    {
        (_host, _port, _left) = (host, port, bytes);
        _listener.Start();
        _accepting = AcceptAsync();
    }

    public int Port => ((IPEndPoint)_listener.LocalEndpoint).Port;

    public bool IsDead => _dead.IsCancellationRequested;

    public async ValueTask DisposeAsync()
    {
        Die();
        await _accepting;
        _dead.Dispose();
    }

    private async Task AcceptAsync()
    {
        try
        {
            while (true) _ = PassAsync(await _listener.AcceptTcpClientAsync(_dead.Token));
        }
        catch (Exception e) when (e is OperationCanceledException or SocketException or ObjectDisposedException)
        {
            // dead
        }
    }

    private async Task PassAsync(TcpClient client)
    {
        using var near = client;
        using var far = new TcpClient();
        try
        {
            await far.ConnectAsync(_host, _port, _dead.Token);
            var there = near.GetStream().CopyToAsync(far.GetStream(), _dead.Token);
            var buffer = new byte[8192];
            while (await far.GetStream().ReadAsync(buffer, _dead.Token) is > 0 and var read)
            {
                if (Interlocked.Add(ref _left, -read) < 0)
                {
                    Die();
                    return;
                }

                await near.GetStream().WriteAsync(buffer.AsMemory(0, read), _dead.Token);
            }

            await there;
        }
        catch (Exception e) when (e is OperationCanceledException or IOException or SocketException or ObjectDisposedException)
        {
            // either side is gone
        }
    }

    private void Die()
    {
        if (_dead.IsCancellationRequested) return;
        _dead.Cancel();
        _listener.Stop();
    }
}
