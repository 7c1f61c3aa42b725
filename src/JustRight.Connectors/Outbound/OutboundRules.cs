using System.Net;
using System.Net.Sockets;

namespace JustRight.Connectors.Outbound;

/// <summary>
/// Where the service may connect to, as whoever runs it says: names, addresses and networks. An estate names places too, and so
/// does whoever may replace an estate; these rules stand outside of it. Without any, nothing is connected to.
/// </summary>
/// <remarks>
/// Loopback, link-local addresses (among them the metadata services of clouds) and the like are allowed only by an address or a
/// network that covers them, never by a name: whoever answers for a name could point it there.
/// </remarks>
public sealed class OutboundRules
{
    /// <summary>What reaches this machine, its own link, or nobody in particular.</summary>
    private static readonly IReadOnlyList<IPNetwork> Special =
    [
        .. new[]
        {
            "0.0.0.0/8", "127.0.0.0/8", "169.254.0.0/16", "224.0.0.0/3", "100.100.100.200/32",
            "::/127", "fe80::/10", "ff00::/8", "fd00:ec2::254/128",
        }.Select(IPNetwork.Parse),
    ];

    private readonly Func<string, CancellationToken, Task<IPAddress[]>> _resolve;
    private readonly List<IPNetwork> _networks = [];
    private readonly List<string> _names = [];

    /// <summary>Reads rules.</summary>
    /// <param name="allow">
    /// Each a host name, <c>*.example</c> for all names below one, an address, or a network such as <c>10.20.0.0/16</c>.
    /// </param>
    /// <param name="resolve">The addresses of a host name; throws <see cref="SocketException"/> when it has none.</param>
    /// <exception cref="FormatException">One of them is none of that.</exception>
    public OutboundRules(IEnumerable<string> allow, Func<string, CancellationToken, Task<IPAddress[]>> resolve)
    {
        _resolve = resolve;
        foreach (var rule in allow.Select(r => r.Trim()))
        {
            if (IPNetwork.TryParse(rule, out var network)) _networks.Add(network);
            else if (IPAddress.TryParse(rule, out var address)) _networks.Add(new IPNetwork(address, Bits(address)));
            else if (Uri.CheckHostName(Bare(rule)) == UriHostNameType.Dns) _names.Add(rule);
            else throw new FormatException($"'{rule}' is no host name, address or network.");
        }
    }

    /// <summary>The addresses of a host that may be connected to.</summary>
    /// <param name="host">A name or an address.</param>
    /// <exception cref="ConnectorException">It may not be connected to, or it has no address.</exception>
    public async Task<IReadOnlyList<IPAddress>> AddressesAsync(string host, CancellationToken cancel)
    {
        var bare = host.Trim('[', ']');
        IPAddress[] addresses;
        try
        {
            addresses = IPAddress.TryParse(bare, out var literal) ? [literal] : await _resolve(bare, cancel);
        }
        catch (SocketException e)
        {
            throw new ConnectorException(ConnectorFailure.Unreachable, $"{host} has no address: {e.Message}", e);
        }

        var named = _names.Any(n => Matches(n, bare));
        bool MayBe(IPAddress a) => _networks.Any(n => n.Contains(a)) || (named && !Special.Any(s => s.Contains(a)));
        var allowed = addresses.Select(Plain).Where(MayBe).ToList();
        return allowed.Count > 0 ? allowed : throw new ConnectorException(
            ConnectorFailure.Withheld,
            $"this service may not connect to {host}{(addresses is [var one] && one.ToString() != bare ? $" ({one})" : "")}: "
            + "whoever runs it allows the name or the network with the setting JustRight:Outbound:Allow (docs/operations.md). "
            + "Nothing was sent.");
    }

    private static bool Matches(string rule, string host) => rule.StartsWith("*.", StringComparison.Ordinal)
        ? host.EndsWith(rule[1..], StringComparison.OrdinalIgnoreCase)
        : string.Equals(rule, host, StringComparison.OrdinalIgnoreCase);

    private static string Bare(string rule) => rule.StartsWith("*.", StringComparison.Ordinal) ? rule[2..] : rule;

    /// <summary>An IPv4 address inside an IPv6 one is that IPv4 address.</summary>
    private static IPAddress Plain(IPAddress address) => address.IsIPv4MappedToIPv6 ? address.MapToIPv4() : address;

    private static int Bits(IPAddress address) => address.AddressFamily == AddressFamily.InterNetwork ? 32 : 128;
}
