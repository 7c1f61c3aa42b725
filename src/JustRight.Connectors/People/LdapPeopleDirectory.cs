using System.DirectoryServices.Protocols;
using System.Net;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>A directory of people over LDAP, of either family.</summary>
public sealed class LdapPeopleDirectory(PeopleDirectory directory) : IPeopleDirectory
{
    private const int TurnAttempts = 6;
    private const int InvalidCredentials = 49, NotSupported = 8, UnwillingToPerform = 53;
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);
    private static readonly TimeSpan TurnPause = TimeSpan.FromMilliseconds(50);

    /// <inheritdoc/>
    public Task<ConnectionLook> LookAsync(WireSecurity security, CancellationToken cancel) =>
        WayThere.LookAsync(directory.Host, directory.Offers[security], security, directory.CaFolder, cancel);

    /// <inheritdoc/>
    public async Task<IPeopleSession> BindAsync(
        WireSecurity security, string name, NewPassword password, CancellationToken cancel)
    {
        if (password.Reveal().Length == 0)
            throw new ConnectorException(
                ConnectorFailure.SignIn, "the password is empty: a directory treats that as an anonymous bind [RFC 4513 5.1.2].");
        return await Task.Run(() => Open(security, name, password), cancel);
    }

    /// <inheritdoc/>
    public async Task<EmptyPasswordAnswer> TryEmptyPasswordAsync(WireSecurity security, string name, CancellationToken cancel)
    {
        try
        {
            using var session = await Task.Run(() => Open(security, name, new NewPassword("")), cancel);
            return EmptyPasswordAnswer.TakenForNobody;
        }
        catch (ConnectorException e) when (e.Failure == ConnectorFailure.SignIn)
        {
            return EmptyPasswordAnswer.Refused;
        }
    }

    /// <summary>
    /// Turns a connection to TLS. The library connects only when something is asked: the root entry, which every directory
    /// shows to anybody, and which says nothing of us.
    /// </summary>
    private static void Turn(LdapConnection connection)
    {
        connection.AutoBind = false;
        try
        {
            connection.SendRequest(new SearchRequest("", "(objectClass=*)", SearchScope.Base, "1.1"));
        }
        catch (DirectoryOperationException)
        {
            // Refused is an answer too: it is connected.
        }

        for (var left = TurnAttempts; ; left--)
        {
            try
            {
                connection.SessionOptions.StartTransportLayerSecurity(null);
                return;
            }
            catch (TlsOperationException) when (left > 1)
            {
                // a server may answer before it has put the question away, and turns only what has no question open
                Thread.Sleep(TurnPause);
            }
        }
    }

    private LdapPeopleSession Open(WireSecurity security, string name, NewPassword password)
    {
        LdapLibrary.WaitThroughSignals();
        var place = $"{directory.Host}:{directory.Offers[security]}";
        var connection = new LdapConnection(
            new LdapDirectoryIdentifier(
                directory.Host, directory.Offers[security], fullyQualifiedDnsHostName: true,
                connectionless: false), new NetworkCredential(name, password.Reveal()), AuthType.Basic)
        {
            Timeout = Patience,
        };
        try
        {
            connection.SessionOptions.ProtocolVersion = 3;
            connection.SessionOptions.ReferralChasing = ReferralChasingOptions.None;
            if (security != WireSecurity.Plain && !OperatingSystem.IsWindows())
            {
                connection.SessionOptions.TrustedCertificatesDirectory = Path.GetFullPath(directory.CaFolder!);
                connection.SessionOptions.StartNewTlsSessionContext();
            }

            if (security == WireSecurity.Tls) connection.SessionOptions.SecureSocketLayer = true;
            if (security == WireSecurity.StartTls) Turn(connection);
            connection.Bind();
            return new LdapPeopleSession(connection, directory, name);
        }
        catch (LdapException e)
        {
            connection.Dispose();
            throw e.ErrorCode switch
            {
                InvalidCredentials =>
                    new ConnectorException(
                        ConnectorFailure.SignIn,
                        $"{place} refuses the sign-in of {name}: {LdapSession.WhyRefused(e.ServerErrorMessage)}.", e),
                NotSupported or UnwillingToPerform =>
                    new ConnectorException(
                        ConnectorFailure.SignIn,
                        $"{place} refuses passwords over this connection: {e.ServerErrorMessage ?? e.Message}.", e),
                _ => new ConnectorException(ConnectorFailure.Unreachable, $"{place} cannot be used: {e.Message}", e),
            };
        }
        catch (TlsOperationException e)
        {
            connection.Dispose();
            throw new ConnectorException(ConnectorFailure.NotTrusted, $"{place} does not start TLS: {e.Message}", e);
        }
        catch (DirectoryOperationException e)
        {
            connection.Dispose();
            throw new ConnectorException(
                ConnectorFailure.SignIn,
                $"{place} refuses the sign-in of {name}: {e.Response?.ResultCode.ToString() ?? e.Message}.", e);
        }
        catch
        {
            connection.Dispose();
            throw;
        }
    }
}
