using System.DirectoryServices.Protocols;
using JustRight.Core.Directory;
using JustRight.Core.Rights.Access;
using JustRight.Formats.Ldif;

namespace JustRight.Connectors.Directories.Files;

/// <summary>What somebody read of a directory and put into a file, made ready for searching.</summary>
public sealed class DirectoryFile : IDirectoryReader
{
    private readonly List<FileEntry> _entries;
    private readonly Dictionary<string, FileEntry> _byDn = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<Sid, FileEntry> _bySid = [];
    private readonly ILookup<string, FileEntry> _byName;

    /// <summary>Makes a file ready.</summary>
    /// <param name="name">The file's name.</param>
    /// <param name="root">The distinguished name of the domain.</param>
    public DirectoryFile(string name, string root, IReadOnlyList<LdifEntry> entries)
    {
        (Name, Root) = (name, root);
        _entries = [.. entries.Select(e => new FileEntry(e))];
        foreach (var entry in _entries)
        {
            _byDn[entry.Dn] = entry;
            if (entry.Bytes("objectSid") is { } bytes && Sid.TryFromBytes(bytes, out var sid)) _bySid[sid] = entry;
        }

        _byName = _entries.Where(e => e.Has("sAMAccountName"))
            .ToLookup(e => e.Text("sAMAccountName")!, StringComparer.OrdinalIgnoreCase);
        var head = _byDn.GetValueOrDefault("");
        ConfigurationRoot = head?.Text("configurationNamingContext") ?? $"CN=Configuration,{root}";
        var schema = head?.Text("schemaNamingContext") ?? $"CN=Schema,{ConfigurationRoot}";
        SchemaRoot = _byDn.ContainsKey(schema) ? schema : "";
        Controller = head?.Text("dnsHostName") is { } host ? $"{host} (file {name})" : $"file {name}";
        ReadAt = head?.Moment("currentTime");
    }

    /// <summary>The attributes that a file is read for: all others are passed over.</summary>
    public static IReadOnlySet<string> Attributes { get; } = new HashSet<string>(
        [
            .. PrincipalSurvey.Attributes, .. PrincipalSurvey.RootKeyAttributes, .. AccessSurvey.Attributes,
            .. DirectorySchemas.HeadAttributes, .. DirectorySchemas.AttributeAttributes, .. DirectorySchemas.ClassAttributes,
            .. DirectorySchemas.RightAttributes, .. PolicySurvey.Attributes, "tokenGroups", "dnsHostName", "currentTime",
            "configurationNamingContext", "schemaNamingContext",
        ], StringComparer.OrdinalIgnoreCase);

    /// <summary>The file's name.</summary>
    public string Name { get; }

    /// <summary>How many objects it holds.</summary>
    public int Count => _entries.Count;

    /// <summary>When it was read, by the controller's clock, or null when it does not say.</summary>
    public DateTimeOffset? ReadAt { get; }

    /// <inheritdoc/>
    public string Root { get; }

    /// <inheritdoc/>
    public string ConfigurationRoot { get; }

    /// <inheritdoc/>
    public string SchemaRoot { get; }

    /// <inheritdoc/>
    public string Controller { get; }

    /// <inheritdoc/>
    int IDirectoryReader.Requests => 0;

    /// <summary>
    /// Whether it says which groups the account that read it was in: only then is it known what may be missing.
    /// </summary>
    public bool SaysWhoRead => _byDn.GetValueOrDefault("")?.Has("tokenGroups") == true;

    /// <summary>Whether the domain itself is in it.</summary>
    public bool HasDomain => _byDn.ContainsKey(Root);

    /// <summary>Names of containers that are not in it, though objects below them are.</summary>
    public IEnumerable<string> MissingContainers() =>
        _entries.Where(e =>
            DistinguishedName.IsAtOrBelow(e.Dn, Root) && e.Dn.Length > Root.Length
                && !DistinguishedName.IsAtOrBelow(e.Dn, ConfigurationRoot))
            .Select(e => AccessTree.ParentDn(e.Dn)).OfType<string>().Distinct(StringComparer.OrdinalIgnoreCase)
            .Where(p => !_byDn.ContainsKey(p)).Order(StringComparer.OrdinalIgnoreCase);

    /// <inheritdoc/>
    IEnumerable<DirectoryEntry> IDirectoryReader.Search(
        string baseDn, SearchScope scope, EntryFilter filter, params string[] attributes)
    {
        if (scope == SearchScope.Base) return Lookup(baseDn) is { } one && filter.Matches(one) ? [one] : [];
        if (Lookup(baseDn) is not { } head) return [];
        if (scope == SearchScope.Subtree && head.Dn.Equals(Root, StringComparison.OrdinalIgnoreCase))
        {
            if (filter is { Attribute: "sAMAccountName", Values: [var name] }) return _byName[name];
            if (filter.Attribute == "distinguishedName")
                return filter.Values.Select(v => _byDn.GetValueOrDefault(v)).OfType<FileEntry>();
        }

        // a search does not pass from one naming context into another [MS-ADTS 3.1.1.1.5]
        var ofConfiguration = DistinguishedName.IsAtOrBelow(head.Dn, ConfigurationRoot);
        return _entries.Where(e =>
            DistinguishedName.IsAtOrBelow(e.Dn, head.Dn)
                && (ofConfiguration || !DistinguishedName.IsAtOrBelow(e.Dn, ConfigurationRoot))
                && (scope == SearchScope.Subtree
                    || string.Equals(AccessTree.ParentDn(e.Dn), head.Dn, StringComparison.OrdinalIgnoreCase))
                && filter.Matches(e));
    }

    private FileEntry? Lookup(string dn)
    {
        const string bySid = "<SID=";
        if (dn.StartsWith(bySid, StringComparison.Ordinal))
            return Sid.TryParse(dn[bySid.Length..^1], out var sid) ? _bySid.GetValueOrDefault(sid) : null;
        return _byDn.GetValueOrDefault(dn);
    }
}
