using System.DirectoryServices.Protocols;

namespace JustRight.Connectors.Directories;

/// <summary>
/// Something a directory can be read from: a controller, or a file of what somebody else read. What is read means the same
/// either way; what the file does not hold is as if a controller did not show it.
/// </summary>
internal interface IDirectoryReader
{
    /// <summary>The naming context of the domain.</summary>
    string Root { get; }

    /// <summary>The naming context of the configuration.</summary>
    string ConfigurationRoot { get; }

    /// <summary>The naming context of the schema, or empty when none can be read.</summary>
    string SchemaRoot { get; }

    /// <summary>The controller that answers, by its own name.</summary>
    string Controller { get; }

    /// <summary>How many requests were sent.</summary>
    int Requests { get; }

    /// <summary>Searches below a base. A base that is not there, or may not be seen, gives nothing.</summary>
    IEnumerable<DirectoryEntry> Search(string baseDn, SearchScope scope, EntryFilter filter, params string[] attributes);
}

/// <summary>Reading single objects.</summary>
internal static class SingleReading
{
    /// <summary>
    /// Reads one object, or null when it is not there or may not be seen. The name may be <c>&lt;SID=…&gt;</c> [MS-ADTS
    /// 3.1.1.3.1.2.4].
    /// </summary>
    public static DirectoryEntry? Read(this IDirectoryReader reader, string dn, params string[] attributes) =>
        reader.Search(dn, SearchScope.Base, EntryFilter.Any, attributes).FirstOrDefault();

    /// <summary>Finds an object by logon name, or null.</summary>
    public static DirectoryEntry? Find(this IDirectoryReader reader, string name, params string[] attributes) =>
        reader.Search(reader.Root, SearchScope.Subtree, EntryFilter.Named(name), attributes).FirstOrDefault();
}
