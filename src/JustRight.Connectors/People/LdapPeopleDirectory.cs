using System.DirectoryServices.Protocols;
using System.Net;
using System.Net.Sockets;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Connectors.People.Wire;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>A directory of people over LDAP, of either family.</summary>
/// <param name="resolve">The addresses of a name; the machine's own when it is not given.</param>
public sealed class LdapPeopleDirectory(
    PeopleDirectory directory, Func<string, CancellationToken, Task<IPAddress[]>>? resolve = null) : IPeopleDirectory
{
    private const int TurnAttempts = 6;
    private const int StrongerAuthRequired = 8, ConfidentialityRequired = 13, InappropriateAuthentication = 48,
        InvalidCredentials = 49, UnwillingToPerform = 53;
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);
    private static readonly TimeSpan TurnPause = TimeSpan.FromMilliseconds(50);

    /// <inheritdoc/>
    public Task<ConnectionLook> LookAsync(WireSecurity security, CancellationToken cancel) =>
        Way(security).LookAsync(cancel);

    /// <inheritdoc/>
    public async Task<PasswordAnswer> TryPasswordAsync(
        WireSecurity security, string name, NewPassword password, CancellationToken cancel)
    {
        if (password.Reveal().Length == 0) return new PasswordAnswer(SignInCause.WrongPassword, "the password is empty");
        try
        {
            MustBeProtected(security);
            await using var stream = await Way(security).OpenAsync(cancel);
            using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
            limit.CancelAfter(Patience);
            return PasswordAnswers.Of(await LdapWire.BindAsync(stream, name, password.Reveal(), limit.Token));
        }
        catch (PeopleDirectoryException e)
        {
            return new PasswordAnswer(e.Cause, e.Message.TrimEnd('.'));
        }
        catch (NotADirectoryException e)
        {
            return new PasswordAnswer(SignInCause.Broken, e.Message);
        }
        catch (Exception e) when (e is IOException or SocketException)
        {
            return new PasswordAnswer(SignInCause.Broken, $"the connection broke: {e.Message}");
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            return new PasswordAnswer(SignInCause.TooSlow, $"no answer in {Patience.TotalSeconds} seconds");
        }
    }

    /// <inheritdoc/>
    public Task<int?> ShownToAnybodyAsync(WireSecurity security, string baseDn, CancellationToken cancel) => Task.Run<int?>(
        () =>
        {
            try
            {
                using var session = Open(security, null, null);
                return session.Search(baseDn, SearchScope.Subtree, "(objectClass=*)", 1).Take(1).Count();
            }
            catch (ConnectorException e) when (e.Failure is not ConnectorFailure.Unreachable)
            {
                return null;
            }
        },
        cancel);

    /// <inheritdoc/>
    public async Task<IPeopleSession> BindAsync(
        WireSecurity security, string name, NewPassword password, CancellationToken cancel)
    {
        if (password.Reveal().Length == 0)
            throw new ConnectorException(
                ConnectorFailure.SignIn, "the password is empty: a directory treats that as an anonymous bind [RFC 4513 5.1.2].");
        MustBeProtected(security);
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

    private WayThere Way(WireSecurity security) => new(
        directory.Host, directory.Offers[security], security, directory.CaFolder,
        resolve ?? ((host, cancel) => Dns.GetHostAddressesAsync(host, cancel)));

    /// <summary>No password goes out unencrypted, unless the estate says why it may.</summary>
    private void MustBeProtected(WireSecurity security)
    {
        if (security == WireSecurity.Plain && directory.PlainTextBecause is null)
            throw new PeopleDirectoryException(
                SignInCause.Unprotected, ConnectorFailure.NotTrusted,
                $"{directory.Host}:{directory.Offers[security]} would get the password unencrypted: nothing was sent. "
                + "Enable TLS, or give the reason in the estate: plain-text-because.");
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

    /// <param name="name">Who signs in; null for nobody.</param>
    private LdapPeopleSession Open(WireSecurity security, string? name, NewPassword? password)
    {
        LdapLibrary.WaitThroughSignals();
        var place = $"{directory.Host}:{directory.Offers[security]}";
        var connection = new LdapConnection(
            new LdapDirectoryIdentifier(
                directory.Host, directory.Offers[security], fullyQualifiedDnsHostName: true,
                connectionless: false),
            name is null ? null : new NetworkCredential(name, password!.Reveal()),
            name is null ? AuthType.Anonymous : AuthType.Basic)
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
            return new LdapPeopleSession(connection, directory, name ?? "nobody");
        }
        catch (LdapException e)
        {
            connection.Dispose();
            throw Refused(e, place, name ?? "nobody");
        }
        catch (TlsOperationException e)
        {
            connection.Dispose();
            throw new PeopleDirectoryException(
                SignInCause.TlsFailed, ConnectorFailure.NotTrusted, $"{place} does not start TLS: {e.Message}", e);
        }
        catch (DirectoryOperationException e)
        {
            connection.Dispose();
            throw new PeopleDirectoryException(
                SignInCause.SignInRefused, ConnectorFailure.SignIn,
                $"{place} refuses the sign-in of {name}: {e.Response?.ResultCode.ToString() ?? e.Message}.", e);
        }
        catch
        {
            connection.Dispose();
            throw;
        }
    }

    private static PeopleDirectoryException Refused(LdapException e, string place, string name) => e.ErrorCode switch
    {
        InvalidCredentials => new PeopleDirectoryException(
            SignInCause.WrongPassword, ConnectorFailure.SignIn,
            $"{place} refuses the sign-in of {name}: {PasswordAnswers.Of(e.ServerErrorMessage).Words}.", e),
        StrongerAuthRequired or ConfidentialityRequired => new PeopleDirectoryException(
            SignInCause.ProtectionRequired, ConnectorFailure.SignIn,
            $"{place} refuses passwords over this connection: {e.ServerErrorMessage ?? e.Message}.", e),
        UnwillingToPerform or InappropriateAuthentication => new PeopleDirectoryException(
            SignInCause.SignInRefused, ConnectorFailure.SignIn,
            $"{place} refuses the sign-in of {name}: {e.ServerErrorMessage ?? e.Message}.", e),
        _ => new PeopleDirectoryException(
            SignInCause.Broken, ConnectorFailure.Unreachable, $"{place} cannot be used: {e.Message}", e),
    };
}
