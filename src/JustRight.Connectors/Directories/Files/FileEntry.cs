using System.Text;
using JustRight.Formats.Ldif;

namespace JustRight.Connectors.Directories.Files;

/// <summary>An object as a file holds it.</summary>
internal sealed class FileEntry(LdifEntry entry) : DirectoryEntry
{
    /// <inheritdoc/>
    public override string Dn => entry.Dn;

    /// <inheritdoc/>
    public override IEnumerable<string> AttributeNames => entry.Values.Keys;

    /// <inheritdoc/>
    public override bool Has(string attribute) => entry.Values.ContainsKey(attribute);

    /// <inheritdoc/>
    public override IReadOnlyList<string> Texts(string attribute) => [.. AllBytes(attribute).Select(Encoding.UTF8.GetString)];

    /// <inheritdoc/>
    public override IReadOnlyList<byte[]> AllBytes(string attribute) =>
        entry.Values.TryGetValue(attribute, out var values) ? values : [];
}
