using System.Collections.Concurrent;
using System.DirectoryServices.Protocols;
using JustRight.Core.Directory.Schema;

namespace JustRight.Connectors.Directories;

/// <summary>
/// Reads the schemas of directories, and remembers each for as long as its version stays the same. One for a service, shared by
/// all its connections.
/// </summary>
public sealed class DirectorySchemas
{
    private const int Confidential = 128; // search flag fCONFIDENTIAL [MS-ADTS 2.2.9]
    private const int Kept = 8;

    /// <summary>The attributes that tell one version of a schema from another.</summary>
    internal static readonly string[] HeadAttributes = ["schemaInfo", "objectVersion", "objectGUID", "uSNChanged"];

    /// <summary>What is read of each attribute.</summary>
    internal static readonly string[] AttributeAttributes = [
        "lDAPDisplayName", "schemaIDGUID", "attributeSecurityGUID", "searchFlags", "systemOnly"];

    /// <summary>What is read of each class.</summary>
    internal static readonly string[] ClassAttributes =
    [
        "lDAPDisplayName", "schemaIDGUID", "subClassOf", "objectClassCategory", "auxiliaryClass", "systemAuxiliaryClass",
        "mayContain", "systemMayContain", "mustContain", "systemMustContain",
        "defaultSecurityDescriptor",
    ];

    /// <summary>What is read of each right.</summary>
    internal static readonly string[] RightAttributes = ["cn", "displayName", "rightsGuid", "validAccesses", "appliesTo"];

    private readonly ConcurrentDictionary<string, DirectorySchema> _known = new(StringComparer.Ordinal);

    /// <summary>The schema, from the directory or from memory; the built-in one where none can be read.</summary>
    internal DirectorySchema Read(IDirectoryReader directory)
    {
        if (directory.SchemaRoot.Length == 0) return BuiltInSchema.Schema;
        var version = VersionOf(directory);
        if (_known.TryGetValue(version, out var known)) return known;
        var schema = new DirectorySchema(version, [.. Attributes(directory)], [.. Classes(directory)], [.. Rights(directory)]);
        if (_known.Count >= Kept) _known.Clear();
        return _known[version] = schema;
    }

    /// <summary>
    /// Each change of the schema changes <c>schemaInfo</c>, which holds the changing controller and a counter [MS-ADTS
    /// 3.1.1.2.2.4].
    /// </summary>
    private static string VersionOf(IDirectoryReader directory)
    {
        var head = directory.Read(directory.SchemaRoot, HeadAttributes)
            ?? throw new ConnectorException(ConnectorFailure.NotAllowed, $"the schema {directory.SchemaRoot} may not be read.");
        return $"{Convert.ToHexStringLower(head.Bytes("objectGUID") ?? [])}-{head.Text("objectVersion")}-{Convert.ToHexStringLower(head.Bytes("schemaInfo") ?? [])}-{head.Text("uSNChanged")}";
    }

    private static IEnumerable<SchemaAttribute> Attributes(IDirectoryReader directory) =>
        directory.Search(directory.SchemaRoot, SearchScope.OneLevel, EntryFilter.OfClass("attributeSchema"), AttributeAttributes)
            .Where(e => e.Text("lDAPDisplayName") is not null && e.Bytes("schemaIDGUID") is { Length: 16 })
            .Select(e => new SchemaAttribute(
                e.Text("lDAPDisplayName")!, new Guid(e.Bytes("schemaIDGUID")!), e.Bytes(
                    "attributeSecurityGUID") is { Length: 16 } set
                    ? new Guid(set)
                    : null,
                (e.Number("searchFlags") & Confidential) != 0, e.Text("systemOnly") == "TRUE"));

    private static IEnumerable<SchemaClass> Classes(IDirectoryReader directory) =>
        directory.Search(directory.SchemaRoot, SearchScope.OneLevel, EntryFilter.OfClass("classSchema"), ClassAttributes)
            .Where(e => e.Text("lDAPDisplayName") is not null && e.Bytes("schemaIDGUID") is { Length: 16 })
            .Select(e => new SchemaClass(
                e.Text("lDAPDisplayName")!, new Guid(e.Bytes("schemaIDGUID")!), e.Text("subClassOf") ?? "",
                [.. e.Texts("auxiliaryClass"), .. e.Texts("systemAuxiliaryClass")],
                [
                    .. e.Texts("mayContain"), .. e.Texts("systemMayContain"), .. e.Texts("mustContain"),
                    .. e.Texts("systemMustContain")],
                (int)e.Number("objectClassCategory"), e.Text("defaultSecurityDescriptor")));

    private static IEnumerable<ControlRight> Rights(IDirectoryReader directory) =>
        directory.Search(
            $"CN=Extended-Rights,{directory.ConfigurationRoot}", SearchScope.OneLevel, EntryFilter.OfClass("controlAccessRight"),
            RightAttributes)
            .Where(e => Guid.TryParse(e.Text("rightsGuid"), out _))
            .Select(e => new ControlRight(
                e.Text("cn") ?? "", e.Text("displayName") ?? e.Text("cn")
                    ?? "", Guid.Parse(e.Text("rightsGuid")!), KindsOf(e.Number("validAccesses")),
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
