using System.Net;

namespace JustRight.Service.Platform.Settings;

/// <summary>
/// How the service is reached from beyond its machine: through a proxy that ends TLS, or with a certificate of its own.
/// </summary>
public sealed class TlsSettings
{
    /// <summary>The addresses and networks of proxies whose forwarded headers are believed; none by default.</summary>
    public IList<string> Proxies { get; set; } = [];

    /// <summary>
    /// A PEM file with the certificate for <c>https</c> addresses, and the certificates of the authorities between.
    /// </summary>
    public string? Certificate { get; set; }

    /// <summary>A PEM file with its key; null when the certificate's file holds it too.</summary>
    public string? Key { get; set; }

    /// <summary>The proxies as networks; an address is a network of one.</summary>
    /// <exception cref="FormatException">One is neither.</exception>
    public IReadOnlyList<IPNetwork> Networks() => [.. Proxies.Select(Network)];

    private static IPNetwork Network(string text)
    {
        if (IPAddress.TryParse(text, out var address))
            return new IPNetwork(address, address.GetAddressBytes().Length * 8);
        return IPNetwork.TryParse(text, out var network) ? network
            : throw new FormatException($"'{text}' is no address and no network. Expected: such as 127.0.0.1 or 10.20.0.0/16.");
    }
}
