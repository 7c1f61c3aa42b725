using System.Net.Sockets;
using JustRight.Connectors;
using JustRight.Connectors.Outbound;

namespace JustRight.Service.Jobs.Notifications;

/// <summary>
/// Connections of calls that leave the service: to an address that was checked and to no other, without a proxy, and without
/// following anybody elsewhere.
/// </summary>
internal sealed class OutboundHandler(OutboundRules outbound)
{
    /// <summary>Makes a handler for HTTP.</summary>
    public SocketsHttpHandler Make() => new()
    {
        AllowAutoRedirect = false,
        UseProxy = false,
        ConnectCallback = async (context, cancel) =>
        {
            try
            {
                return new NetworkStream(
                    await ConnectAsync(context.DnsEndPoint.Host, context.DnsEndPoint.Port, cancel), ownsSocket: true);
            }
            catch (ConnectorException e)
            {
                throw new HttpRequestException(e.Message, e);
            }
        },
    };

    /// <summary>Connects to a host at one of the addresses that may be connected to.</summary>
    /// <exception cref="ConnectorException">None of them may.</exception>
    /// <exception cref="SocketException">None of them answers.</exception>
    public async Task<Socket> ConnectAsync(string host, int port, CancellationToken cancel)
    {
        var addresses = await outbound.AddressesAsync(host, cancel);
        var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            await socket.ConnectAsync([.. addresses], port, cancel);
            return socket;
        }
        catch
        {
            socket.Dispose();
            throw;
        }
    }
}
