using System.DirectoryServices.Protocols;
using System.Net;
using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Core.Directory;
using JustRight.Core.Estates;

namespace JustRight.SignIn.Tests;

/// <summary>A real directory of people, of either family, for the tests that both must pass.</summary>
public interface IPeopleServer
{
    /// <summary>The directory as an estate describes it.</summary>
    PeopleDirectory Directory { get; }

    /// <summary>Somebody who may write everything.</summary>
    string Keeper { get; }

    /// <summary>The keeper's password.</summary>
    string KeeperPassword { get; }

    /// <summary>Has the server show another certificate: <c>good</c>, <c>ended</c>, <c>other-name</c>, or <c>untrusted</c> from an authority that nobody trusts.</summary>
    Task ShowAsync(string certificate);
}

/// <summary>What tests do with either server.</summary>
internal static class PeopleServers
{
    /// <summary>A connection of the keeper's, with TLS where the server has it, to write what a test needs.</summary>
    public static LdapConnection Write(this IPeopleServer server)
    {
        var offers = server.Directory.Offers;
        var plain = !offers.TryGetValue(WireSecurity.Tls, out var port);
        var connection = new LdapConnection(
            new LdapDirectoryIdentifier(server.Directory.Host, plain ? offers[WireSecurity.Plain] : port, true, false),
            new NetworkCredential(server.Keeper, server.KeeperPassword), AuthType.Basic)
        {
            Timeout = TimeSpan.FromSeconds(60),
        };
        connection.SessionOptions.ProtocolVersion = 3;
        connection.SessionOptions.ReferralChasing = ReferralChasingOptions.None;
        connection.SessionOptions.SecureSocketLayer = !plain;
        if (!plain && !OperatingSystem.IsWindows())
        {
            connection.SessionOptions.TrustedCertificatesDirectory = server.Directory.CaFolder!;
            connection.SessionOptions.StartNewTlsSessionContext();
        }

        connection.Bind();
        return connection;
    }

    /// <summary>Adds an object; each attribute once with all its values.</summary>
    public static void Add(this LdapConnection connection, string dn, params (string Attribute, string[] Values)[] attributes)
    {
        var request = new AddRequest(dn, [.. attributes.Select(a => new DirectoryAttribute(a.Attribute, (object[])a.Values))]);
        connection.SendRequest(request);
    }

    /// <summary>A session of the keeper's through the connector.</summary>
    public static Task<IPeopleSession> KeeperAsync(this IPeopleServer server) =>
        new LdapPeopleDirectory(server.Directory)
            .BindAsync(WireSecurity.Tls, server.Keeper, new NewPassword(server.KeeperPassword), CancellationToken.None);
}
