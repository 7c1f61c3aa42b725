using System.DirectoryServices.Protocols;
using System.Net;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Directory.Descriptors;

namespace JustRight.Tests.Shared;

/// <summary>An ordinary LDAP client, bound as one account: it knows nothing of rights and only tries.</summary>
public sealed class RawClient : IDisposable
{
    private const string DescriptorAttribute = "nTSecurityDescriptor";
    private const SecurityMasks AllButAudit = SecurityMasks.Owner | SecurityMasks.Group | SecurityMasks.Dacl;
    private readonly LdapConnection _connection;

    /// <summary>Connects and binds.</summary>
    public RawClient(LdapTarget target, string signInAs, string password) => _connection = Open(target, signInAs, password);

    private static LdapConnection Open(LdapTarget target, string signInAs, string password)
    {
        LdapLibrary.WaitThroughSignals();
        var connection = new LdapConnection(
            new LdapDirectoryIdentifier(target.Controller, target.Port, true, false), new NetworkCredential(signInAs, password),
            AuthType.Basic)
        {
            Timeout = TimeSpan.FromMinutes(5),
        };
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

    /// <summary>Replaces the values of an attribute; the result code whatever it is.</summary>
    public ResultCode TryReplace(string dn, string attribute, params object[] values)
    {
        var modification = Replacing(attribute);
        foreach (var value in values)
        {
            if (value is byte[] bytes) modification.Add(bytes);
            else modification.Add((string)value);
        }

        var request = new ModifyRequest(dn, modification);
        if (attribute == DescriptorAttribute) request.Controls.Add(new SecurityDescriptorFlagControl(SecurityMasks.Dacl));
        return Try(request);
    }

    /// <summary>Writes owner and access list.</summary>
    public void Protect(string dn, SecurityDescriptor descriptor)
    {
        var modification = Replacing(DescriptorAttribute);
        modification.Add(DescriptorBytes.Write(descriptor));
        var request = new ModifyRequest(dn, modification);
        request.Controls.Add(new SecurityDescriptorFlagControl(AllButAudit));
        Do(request);
    }

    /// <summary>The owner, group and access list of an object.</summary>
    public SecurityDescriptor Descriptor(string dn) =>
        DescriptorBytes.Read((byte[])Entry(dn, DescriptorAttribute)!.Attributes[DescriptorAttribute][0]);

    /// <summary>One object, or null when it does not show.</summary>
    public SearchResultEntry? Entry(string dn, params string[] attributes) =>
        Search(dn, SearchScope.Base, "(objectClass=*)", attributes).FirstOrDefault();

    /// <summary>The objects found; none where the base does not show.</summary>
    public IEnumerable<SearchResultEntry> Search(string dn, SearchScope scope, string filter, params string[] attributes)
    {
        var request = new SearchRequest(dn, filter, scope, attributes);
        if (attributes.Contains(DescriptorAttribute)) request.Controls.Add(new SecurityDescriptorFlagControl(AllButAudit));
        try
        {
            return ((SearchResponse)_connection.SendRequest(request)).Entries.Cast<SearchResultEntry>();
        }
        catch (DirectoryOperationException e)
            when (e.Response.ResultCode is ResultCode.NoSuchObject or ResultCode.InsufficientAccessRights)
        {
            return [];
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _connection.Dispose();

    private static DirectoryAttributeModification Replacing(string attribute) =>
        new() { Name = attribute, Operation = DirectoryAttributeOperation.Replace };
}
