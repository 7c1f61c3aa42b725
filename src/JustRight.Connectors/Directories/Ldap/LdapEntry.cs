using System.DirectoryServices.Protocols;

namespace JustRight.Connectors.Directories.Ldap;

/// <summary>An object as a controller sent it.</summary>
internal sealed class LdapEntry(SearchResultEntry entry) : DirectoryEntry
{
    /// <inheritdoc/>
    public override string Dn => entry.DistinguishedName;

    /// <inheritdoc/>
    // the keys of the collection are in lower case
    public override IEnumerable<string> AttributeNames => entry.Attributes.Values.Cast<DirectoryAttribute>().Select(a => a.Name);

    /// <inheritdoc/>
    public override bool Has(string attribute) => entry.Attributes[attribute] is not null;

    /// <inheritdoc/>
    public override IReadOnlyList<string> Texts(string attribute) =>
        entry.Attributes[attribute] is { Count: > 0 } values ? (string[])values.GetValues(typeof(string)) : [];

    /// <inheritdoc/>
    public override IReadOnlyList<byte[]> AllBytes(string attribute) =>
        entry.Attributes[attribute] is { Count: > 0 } values ? (byte[][])values.GetValues(typeof(byte[])) : [];
}
