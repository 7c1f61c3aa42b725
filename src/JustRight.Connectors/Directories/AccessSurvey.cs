using System.DirectoryServices.Protocols;
using System.Runtime.InteropServices;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.Directories;

/// <summary>
/// Reads access lists. Most objects share their list with many others: each distinct one is parsed and kept once. What the
/// reader itself may not list is noted as unread, by judging the lists of the containers for the reader.
/// </summary>
internal sealed class AccessSurvey(IDirectoryReader directory, DirectorySchema schema)
{
    /// <summary>The attribute that holds an access list.</summary>
    public const string Descriptor = "nTSecurityDescriptor";

    private static readonly EntryFilter Containers = EntryFilter.OfClass(
        "organizationalUnit", "container", "domainDNS", "builtinDomain");

    /// <summary>What is read of each object.</summary>
    public static readonly string[] Attributes = [Descriptor, "objectClass", "objectSid", "adminCount"];
    private readonly List<DirectoryObject> _objects = [];
    private readonly HashSet<string> _known = new(StringComparer.OrdinalIgnoreCase);
    private readonly List<SecurityDescriptor> _descriptors = [];
    private readonly Dictionary<int, List<(byte[] Bytes, int Index)>> _byHash = [];
    private readonly List<UnreadPart> _unread = [];

    /// <summary>Reads what is asked for and all that lies above it.</summary>
    public AccessSnapshot Read(AccessScope scope, CancellationToken cancel)
    {
        var branches = Outermost(scope.Branches);
        if (scope.AllContainers && !branches.Contains(directory.Root, StringComparer.OrdinalIgnoreCase))
            Take(directory.Root, SearchScope.Subtree, Containers, cancel);
        foreach (var branch in branches) Take(branch, SearchScope.Subtree, EntryFilter.Any, cancel);
        foreach (var dn in scope.Objects) Take(dn, SearchScope.Base, EntryFilter.Any, cancel);
        foreach (var dn in branches.Concat(scope.Objects).SelectMany(Above)) Take(dn, SearchScope.Base, EntryFilter.Any, cancel);
        var whole = branches.Where(_known.Contains).ToList();
        NoteHidden(whole);
        return new AccessSnapshot(schema, _descriptors, _objects, whole, _unread);
    }

    private static List<string> Outermost(IReadOnlyList<string> branches) =>
        [.. branches.Distinct(StringComparer.OrdinalIgnoreCase).Where(b =>
            !branches.Any(o => o.Length < b.Length && DistinguishedName.IsAtOrBelow(b, o)))];

    private IEnumerable<string> Above(string dn)
    {
        for (var above = AccessTree.ParentDn(dn); above is not null
            && DistinguishedName.IsAtOrBelow(above, directory.Root); above = AccessTree.ParentDn(above))
            yield return above;
    }

    private void Take(string dn, SearchScope scope, EntryFilter filter, CancellationToken cancel)
    {
        if (scope == SearchScope.Base && _known.Contains(dn)) return;
        foreach (var entry in directory.Search(dn, scope, filter, Attributes))
        {
            cancel.ThrowIfCancellationRequested();
            if (!_known.Add(entry.Dn)) continue;
            Sid.TryFromBytes(entry.Bytes("objectSid"), out var sid);
            _objects.Add(new DirectoryObject(
                entry.Dn, entry.Texts("objectClass") is [.., var own]
                    ? own
                    : "", sid, DescriptorOf(entry), entry.Text("adminCount") == "1"));
        }
    }

    /// <summary>The number of the object's descriptor; -1 when it may not be read or is malformed.</summary>
    private int DescriptorOf(DirectoryEntry entry)
    {
        if (entry.Bytes(Descriptor) is not { } bytes) return -1;
        var code = new HashCode();
        code.AddBytes(bytes);
        var hash = code.ToHashCode();
        ref var alike = ref CollectionsMarshal.GetValueRefOrAddDefault(_byHash, hash, out _);
        alike ??= [];
        foreach (var (known, index) in alike)
            if (known.AsSpan().SequenceEqual(bytes)) return index;
        try
        {
            _descriptors.Add(DescriptorBytes.Read(bytes));
        }
        catch (DescriptorFormatException e)
        {
            _unread.Add(new UnreadPart(entry.Dn, $"its ACL cannot be decoded: {e.Message}"));
            alike.Add((bytes, -1));
            return -1;
        }

        alike.Add((bytes, _descriptors.Count - 1));
        return _descriptors.Count - 1;
    }

    /// <summary>A container whose children the reader may not list looks empty: it must not be taken for that.</summary>
    private void NoteHidden(List<string> whole)
    {
        if (ReaderToken.Of(directory) is not { } reader) return;
        var answers = new bool?[_descriptors.Count];
        foreach (var item in _objects)
        {
            if (!IsContainer(item.Class)) continue;
            if (!whole.Any(w => DistinguishedName.IsAtOrBelow(item.Dn, w)))
            {
                if (item.Class.Length > 0 && item.Descriptor < 0)
                    _unread.Add(new UnreadPart(item.Dn, "its ACL may not be read: delegations there are not known"));
                continue;
            }

            if (item.Descriptor < 0)
                _unread.Add(new UnreadPart(item.Dn, "its ACL may not be read, so the rights below it are not known"));
            else if (!(answers[item.Descriptor] ??= AccessCheck.Judge(
                _descriptors[item.Descriptor], reader,
                AccessQuestion.Simple(AccessRights.ListContents)).Answer == AccessAnswer.Yes))
                _unread.Add(new UnreadPart(item.Dn, "the reader may not list its contents"));
        }
    }

    /// <summary>Whether objects of a class hold others; one whose class may not be read may.</summary>
    private bool IsContainer(string @class) =>
        @class.Length == 0 || schema.IsA(@class, "organizationalUnit") || schema.IsA(@class, "container")
            || @class is "domainDNS" or "builtinDomain";
}
