using System.Collections.Concurrent;
using System.DirectoryServices.Protocols;
using JustRight.Core.Rights.Directory.Schema;

namespace JustRight.Connectors.Ldap;

/// <summary>Reads the schemas of directories, and remembers each for as long as its version stays the same. One for a service, shared by all its connections.</summary>
public sealed class LdapSchemas
{
    private const int Confidential = 128; // search flag fCONFIDENTIAL [MS-ADTS 2.2.9]
    private const int Kept = 8;
    private readonly ConcurrentDictionary<string, DirectorySchema> _known = new(StringComparer.Ordinal);

    /// <summary>The schema, from the directory or from memory.</summary>
    internal DirectorySchema Read(LdapSession session)
    {
        var version = VersionOf(session);
        if (_known.TryGetValue(version, out var known)) return known;
        var schema = new DirectorySchema(version, [.. Attributes(session)], [.. Classes(session)], [.. Rights(session)]);
        if (_known.Count >= Kept) _known.Clear();
        return _known[version] = schema;
    }

    /// <summary>Each change of the schema changes <c>schemaInfo</c>, which holds the changing controller and a counter [MS-ADTS 3.1.1.2.2.4].</summary>
    private static string VersionOf(LdapSession session)
    {
        var head = session.Read(session.SchemaRoot, "schemaInfo", "objectVersion", "objectGUID", "uSNChanged")
            ?? throw new ConnectorException(ConnectorFailure.NotAllowed, $"the schema {session.SchemaRoot} may not be read.");
        return $"{Convert.ToHexStringLower(head.Bytes("objectGUID") ?? [])}-{head.Text("objectVersion")}-{Convert.ToHexStringLower(head.Bytes("schemaInfo") ?? [])}-{head.Text("uSNChanged")}";
    }

    private static IEnumerable<SchemaAttribute> Attributes(LdapSession session) =>
        session.Search(session.SchemaRoot, SearchScope.OneLevel, "(objectClass=attributeSchema)", "lDAPDisplayName", "schemaIDGUID", "attributeSecurityGUID", "searchFlags", "systemOnly")
            .Where(e => e.Text("lDAPDisplayName") is not null && e.Bytes("schemaIDGUID") is { Length: 16 })
            .Select(e => new SchemaAttribute(
                e.Text("lDAPDisplayName")!, new Guid(e.Bytes("schemaIDGUID")!), e.Bytes("attributeSecurityGUID") is { Length: 16 } set ? new Guid(set) : null,
                (e.Number("searchFlags") & Confidential) != 0, e.Text("systemOnly") == "TRUE"));

    private static IEnumerable<SchemaClass> Classes(LdapSession session) =>
        session.Search(
            session.SchemaRoot, SearchScope.OneLevel, "(objectClass=classSchema)", "lDAPDisplayName", "schemaIDGUID", "subClassOf", "objectClassCategory",
            "auxiliaryClass", "systemAuxiliaryClass", "mayContain", "systemMayContain", "mustContain", "systemMustContain", "defaultSecurityDescriptor")
            .Where(e => e.Text("lDAPDisplayName") is not null && e.Bytes("schemaIDGUID") is { Length: 16 })
            .Select(e => new SchemaClass(
                e.Text("lDAPDisplayName")!, new Guid(e.Bytes("schemaIDGUID")!), e.Text("subClassOf") ?? "",
                [.. e.Texts("auxiliaryClass"), .. e.Texts("systemAuxiliaryClass")],
                [.. e.Texts("mayContain"), .. e.Texts("systemMayContain"), .. e.Texts("mustContain"), .. e.Texts("systemMustContain")],
                (int)e.Number("objectClassCategory"), e.Text("defaultSecurityDescriptor")));

    private static IEnumerable<ControlRight> Rights(LdapSession session) =>
        session.Search($"CN=Extended-Rights,{session.ConfigurationRoot}", SearchScope.OneLevel, "(objectClass=controlAccessRight)", "cn", "displayName", "rightsGuid", "validAccesses", "appliesTo")
            .Where(e => Guid.TryParse(e.Text("rightsGuid"), out _))
            .Select(e => new ControlRight(
                e.Text("cn") ?? "", e.Text("displayName") ?? e.Text("cn") ?? "", Guid.Parse(e.Text("rightsGuid")!), KindsOf(e.Number("validAccesses")),
                [.. e.Texts("appliesTo").Where(a => Guid.TryParse(a, out _)).Select(Guid.Parse)]));

    /// <summary>The bits of an access mask that the right may be used with tell what it is [MS-ADTS 5.1.3.2.1].</summary>
    private static ControlRightKinds KindsOf(long validAccesses)
    {
        var kinds = ControlRightKinds.None;
        if ((validAccesses & 0x100) != 0) kinds |= ControlRightKinds.ExtendedRight;
        if ((validAccesses & 0x8) != 0) kinds |= ControlRightKinds.ValidatedWrite;
        if ((validAccesses & 0x30) != 0) kinds |= ControlRightKinds.PropertySet;
        return kinds;
    }
}
