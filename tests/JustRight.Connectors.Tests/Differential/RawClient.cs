using System.DirectoryServices.Protocols;
using System.Net;
using JustRight.Connectors.Ldap;
using JustRight.Core.Rights.Directory.Descriptors;

namespace JustRight.Connectors.Tests.Differential;

/// <summary>An ordinary LDAP client, bound as one account: it knows nothing of rights and only tries.</summary>
public sealed class RawClient : IDisposable
{
    private const int Unavailable = 81; // LDAP_SERVER_DOWN
    private readonly LdapConnection _connection;

    public RawClient(LdapTarget target, string signInAs, string password)
    {
        try
        {
            _connection = Open(target, signInAs, password);
        }
        catch (LdapException e) when (e.ErrorCode == Unavailable)
        {
            Thread.Sleep(TimeSpan.FromSeconds(1)); // busy with many tests at once, not away
            _connection = Open(target, signInAs, password);
        }
    }

    private static LdapConnection Open(LdapTarget target, string signInAs, string password)
    {
        var connection = new LdapConnection(new LdapDirectoryIdentifier(target.Controller, target.Port, true, false), new NetworkCredential(signInAs, password), AuthType.Basic) { Timeout = TimeSpan.FromSeconds(30) };
        connection.SessionOptions.ProtocolVersion = 3;
        connection.SessionOptions.ReferralChasing = ReferralChasingOptions.None;
        connection.SessionOptions.SecureSocketLayer = true;
        if (!OperatingSystem.IsWindows())
        {
            connection.SessionOptions.TrustedCertificatesDirectory = target.CaFolder;
            connection.SessionOptions.StartNewTlsSessionContext();
        }

        connection.Bind();
        return connection;
    }

    /// <summary>Sends a request; the result code whatever it is.</summary>
    public ResultCode Try(DirectoryRequest request)
    {
        try
        {
            return _connection.SendRequest(request).ResultCode;
        }
        catch (DirectoryOperationException e)
        {
            return e.Response.ResultCode;
        }
    }

    /// <summary>Sends a request that must succeed.</summary>
    public void Do(DirectoryRequest request) => _connection.SendRequest(request);

    public ResultCode TryReplace(string dn, string attribute, params object[] values)
    {
        var modification = new DirectoryAttributeModification { Name = attribute, Operation = DirectoryAttributeOperation.Replace };
        foreach (var value in values)
        {
            if (value is byte[] bytes) modification.Add(bytes);
            else modification.Add((string)value);
        }

        var request = new ModifyRequest(dn, modification);
        if (attribute == "nTSecurityDescriptor") request.Controls.Add(new SecurityDescriptorFlagControl(SecurityMasks.Dacl));
        return Try(request);
    }

    /// <summary>Writes owner and access list.</summary>
    public void Protect(string dn, SecurityDescriptor descriptor)
    {
        var modification = new DirectoryAttributeModification { Name = "nTSecurityDescriptor", Operation = DirectoryAttributeOperation.Replace };
        modification.Add(DescriptorBytes.Write(descriptor));
        var request = new ModifyRequest(dn, modification);
        request.Controls.Add(new SecurityDescriptorFlagControl(SecurityMasks.Owner | SecurityMasks.Group | SecurityMasks.Dacl));
        Do(request);
    }

    public SecurityDescriptor Descriptor(string dn) => DescriptorBytes.Read((byte[])Entry(dn, "nTSecurityDescriptor")!.Attributes["nTSecurityDescriptor"][0]);

    /// <summary>One object, or null when it does not show.</summary>
    public SearchResultEntry? Entry(string dn, params string[] attributes) => Search(dn, SearchScope.Base, "(objectClass=*)", attributes).FirstOrDefault();

    public IEnumerable<SearchResultEntry> Search(string dn, SearchScope scope, string filter, params string[] attributes)
    {
        var request = new SearchRequest(dn, filter, scope, attributes);
        if (attributes.Contains("nTSecurityDescriptor")) request.Controls.Add(new SecurityDescriptorFlagControl(SecurityMasks.Owner | SecurityMasks.Group | SecurityMasks.Dacl));
        try
        {
            return ((SearchResponse)_connection.SendRequest(request)).Entries.Cast<SearchResultEntry>();
        }
        catch (DirectoryOperationException e) when (e.Response.ResultCode is ResultCode.NoSuchObject or ResultCode.InsufficientAccessRights)
        {
            return [];
        }
    }

    public void Dispose() => _connection.Dispose();
}
