using System.DirectoryServices.Protocols;
using System.Net;
using JustRight.Connectors.People;

namespace JustRight.Connectors.Directories.Ldap;

/// <summary>A bound connection to a controller, with our errors instead of the library's.</summary>
internal sealed class LdapSession : IDirectoryReader, IDisposable
{
    private const int PageSize = 500;
    private const int InvalidCredentials = 49;
    private readonly LdapConnection _connection;
    private readonly LdapTarget _target;
    private int _requests;

    private LdapSession(LdapConnection connection, LdapTarget target) => (_connection, _target) = (connection, target);

    /// <summary>The naming context of the domain.</summary>
    public string Root { get; private set; } = "";

    /// <summary>The naming context of the configuration.</summary>
    public string ConfigurationRoot { get; private set; } = "";

    /// <summary>The naming context of the schema.</summary>
    public string SchemaRoot { get; private set; } = "";

    /// <summary>What the controller's clock said when it was connected, or null when it did not say.</summary>
    public DateTimeOffset? Time { get; private set; }

    /// <summary>The controller that answers, by its own name.</summary>
    public string Controller { get; private set; } = "";

    /// <summary>How many requests were sent.</summary>
    public int Requests => _requests;

    /// <summary>Checks the certificate, connects and binds.</summary>
    public static async Task<LdapSession> OpenAsync(LdapTarget target, CancellationToken cancel)
    {
        if (target.Refusal is { } refusal) throw new ConnectorException(ConnectorFailure.SignIn, refusal);
        if (target.Password.Reveal().Length == 0)
            throw new ConnectorException(
                ConnectorFailure.SignIn, "the password is empty: a directory treats that as an anonymous bind [RFC 4513 5.1.2].");
        await TlsTrust.CheckAsync(target, cancel);
        return await Task.Run(() => Open(target), cancel);
    }

    /// <summary>
    /// Searches, page by page [RFC 2696]. While the caller works on a page, the directory is asked for the next.
    /// </summary>
    public IEnumerable<DirectoryEntry> Search(string baseDn, SearchScope scope, EntryFilter filter, params string[] attributes)
    {
        Task<SearchResponse?>? ahead = Task.FromResult(Page(baseDn, scope, filter, attributes, []));
        try
        {
            while (ahead?.GetAwaiter().GetResult() is { } response)
            {
                var cookie = response.Controls.OfType<PageResultResponseControl>().FirstOrDefault()?.Cookie ?? [];
                ahead = cookie.Length == 0 ? null : Task.Run(() => Page(baseDn, scope, filter, attributes, cookie));
                foreach (SearchResultEntry entry in response.Entries) yield return new LdapEntry(entry);
            }
        }
        finally
        {
            // nobody may be asking when the connection closes
            ahead?.ContinueWith(
                _ => { }, CancellationToken.None, TaskContinuationOptions.ExecuteSynchronously, TaskScheduler.Default)
                .Wait();
        }
    }

    /// <summary>One page, or null when there is no such base.</summary>
    private SearchResponse? Page(string baseDn, SearchScope scope, EntryFilter filter, string[] attributes, byte[] cookie)
    {
        var request = new SearchRequest(baseDn, filter.ToString(), scope, attributes);
        if (scope != SearchScope.Base) request.Controls.Add(new PageResultRequestControl(PageSize) { Cookie = cookie });
        // the audit list needs a privilege
        if (attributes.Contains(AccessSurvey.Descriptor))
            request.Controls.Add(
                new SecurityDescriptorFlagControl(SecurityMasks.Owner | SecurityMasks.Group | SecurityMasks.Dacl));
        try
        {
            return Send<SearchResponse>(request, $"reading {baseDn}");
        }
        catch (ConnectorException e) when (e.Failure == ConnectorFailure.NotFound)
        {
            return null;
        }
    }

    /// <summary>Sends a request that changes something.</summary>
    /// <param name="doing">What it is for, for the error: <c>creating CN=…</c>.</param>
    public void Change(DirectoryRequest request, string doing) => Send<DirectoryResponse>(request, doing);

    /// <inheritdoc/>
    public void Dispose() => _connection.Dispose();

    private static LdapSession Open(LdapTarget target)
    {
        LdapLibrary.WaitThroughSignals();
        var connection = new LdapConnection(
            new LdapDirectoryIdentifier(target.Controller, target.Port, fullyQualifiedDnsHostName: true, connectionless: false),
            new NetworkCredential(target.SignInAs, target.Password.Reveal()),
            AuthType.Basic)
        {
            Timeout = TimeSpan.FromSeconds(30),
        };
        try
        {
            connection.SessionOptions.ProtocolVersion = 3;
            connection.SessionOptions.ReferralChasing = ReferralChasingOptions.None;
            connection.SessionOptions.SecureSocketLayer = true;
            if (!OperatingSystem.IsWindows())
            {
                connection.SessionOptions.TrustedCertificatesDirectory = Path.GetFullPath(target.CaFolder);
                connection.SessionOptions.StartNewTlsSessionContext();
            }

            connection.Bind();
            var session = new LdapSession(connection, target);
            var rootDse = session.Read(
                "", "defaultNamingContext", "configurationNamingContext", "schemaNamingContext", "dnsHostName", "currentTime")
                ?? throw new ConnectorException(ConnectorFailure.Unreachable, $"{target.Controller} shows no root entry.");
            session.Root = rootDse.Text("defaultNamingContext") ?? target.Domain.Root;
            session.ConfigurationRoot = rootDse.Text("configurationNamingContext") ?? "";
            session.SchemaRoot = rootDse.Text("schemaNamingContext") ?? "";
            session.Time = rootDse.Moment("currentTime");
            session.Controller = rootDse.Text("dnsHostName") ?? target.Controller;
            return session;
        }
        catch (LdapException e)
        {
            connection.Dispose();
            throw e.ErrorCode == InvalidCredentials
                ? new ConnectorException(
                    ConnectorFailure.SignIn,
                    $"{target.Controller} refuses the sign-in of {target.SignInAs}: "
                    + $"{PasswordAnswers.Of(e.ServerErrorMessage).Words}.", e)
                : new ConnectorException(
                    ConnectorFailure.Unreachable, $"{target.Controller}:{target.Port} cannot be used: {e.Message}", e);
        }
        catch
        {
            connection.Dispose();
            throw;
        }
    }

    private T Send<T>(DirectoryRequest request, string doing)
        where T : DirectoryResponse
    {
        try
        {
            Interlocked.Increment(ref _requests);
            var response = _connection.SendRequest(request);
            // the library takes that for success
            if (response.ResultCode is ResultCode.Referral or ResultCode.ReferralV2)
                throw new DirectoryOperationException(response);
            return (T)response;
        }
        catch (DirectoryOperationException e) when (e.Response is not null)
        {
            throw Translate(e, doing);
        }
        catch (LdapException e)
        {
            throw new ConnectorException(
                ConnectorFailure.Unreachable, $"{_target.Controller} broke the connection while {doing}: {e.Message}", e);
        }
    }

    private ConnectorException Translate(DirectoryOperationException e, string doing)
    {
        var said = e.Response.ErrorMessage?.Split('\n')[0].Trim();
        var detail = string.IsNullOrEmpty(said) ? "" : $" ({said})";
        var (failure, text) = e.Response.ResultCode switch
        {
            ResultCode.InsufficientAccessRights => (ConnectorFailure.NotAllowed, $"{_target.SignInAs} has no right for {doing}"),
            ResultCode.NoSuchObject => (ConnectorFailure.NotFound, $"{doing} failed: the container or object does not exist"),
            ResultCode.Referral or ResultCode.ReferralV2 =>
                (ConnectorFailure.Conflict, $"{doing} failed: this domain controller refers to another directory"),
            ResultCode.EntryAlreadyExists => (ConnectorFailure.Conflict, $"{doing} failed: it exists already"),
            ResultCode.NotAllowedOnNonLeaf => (ConnectorFailure.Conflict, $"{doing} failed: it is not empty"),
            var code => (ConnectorFailure.Conflict, $"{doing} was refused: {code}"),
        };
        return new ConnectorException(failure, $"{_target.Controller}: {text}{detail}.", e);
    }
}
