using System.Collections.Concurrent;
using System.Net;
using System.Net.Sockets;
using System.Security.Cryptography.X509Certificates;
using JustRight.SimulatedInstance.Engine;

namespace JustRight.SimulatedInstance.Wire;

/// <summary>What can go wrong on the way, for rehearsals.</summary>
public enum Trouble
{
    /// <summary>Nothing.</summary>
    None,

    /// <summary>The connection is cut before the statement is run.</summary>
    CutBefore,

    /// <summary>The statement is run, and the connection cut before the answer.</summary>
    CutAfter,

    /// <summary>The session is chosen to give way in a deadlock.</summary>
    Deadlock,
}

/// <summary>Listens on a loopback address for clients of a simulated instance, over TLS alone.</summary>
public sealed class SimulatedListener : IDisposable
{
    private readonly TcpListener _listener;
    private readonly X509Certificate2 _certificate;
    private readonly SimulatedEngine _engine;
    private readonly CancellationTokenSource _stop = new();
    private readonly ConcurrentDictionary<TcpClient, bool> _clients = new();

    /// <summary>Begins to listen.</summary>
    /// <param name="port">A TCP port of the loopback address; 0 for any free one.</param>
    /// <param name="certificate">The certificate to show, with its private key.</param>
    public SimulatedListener(SimulatedEngine engine, X509Certificate2 certificate, int port = 0)
    {
        (_engine, _certificate) = (engine, certificate);
        _listener = new TcpListener(IPAddress.Loopback, port);
        _listener.Start();
        Port = ((IPEndPoint)_listener.LocalEndpoint).Port;
        _ = AcceptAsync();
    }

    /// <summary>The port it listens on.</summary>
    public int Port { get; }

    /// <summary>
    /// What goes wrong with a statement; nothing unless a rehearsal sets it. A commit is asked for as <c>COMMIT</c>.
    /// </summary>
    public Func<string, Trouble> TroubleAt { get; set; } = _ => Trouble.None;

    /// <summary>Cuts every client off.</summary>
    public void CutOff()
    {
        foreach (var client in _clients.Keys) client.Close();
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        _stop.Cancel();
        _listener.Dispose();
        CutOff();
        _stop.Dispose();
    }

    private async Task AcceptAsync()
    {
        try
        {
            while (true)
            {
                var client = await _listener.AcceptTcpClientAsync(_stop.Token);
                client.NoDelay = true;
                _clients[client] = true;
                _ = ServeAsync(client);
            }
        }
        catch (Exception e) when (e is SocketException or ObjectDisposedException or OperationCanceledException)
        {
            // It stopped listening.
        }
    }

    private async Task ServeAsync(TcpClient client)
    {
        await new Connection(client, _certificate, _engine, sql => TroubleAt(sql)).ServeAsync(_stop.Token);
        _clients.TryRemove(client, out _);
    }
}
