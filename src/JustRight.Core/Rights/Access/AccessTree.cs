using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights.Access;

/// <summary>
/// The objects of a snapshot as a tree, made ready for judging: objects, classes and descriptors are small integers, and each
/// distinct descriptor is judged once. A tree never changes; what-ifs make another one that shares all but what differs.
/// </summary>
public sealed class AccessTree
{
    private static readonly string[] ContainerClasses = ["organizationalUnit", "container", "domainDNS", "builtinDomain"];
    private readonly DirectoryObject[] _objects;
    private readonly int[] _parents;
    private readonly int[][] _children;
    private readonly int[] _classes;
    private readonly string[] _classNames;
    private readonly int[] _descriptors;
    private readonly List<SecurityDescriptor> _distinct;
    private readonly Dictionary<string, int> _byDn;
    private readonly bool[] _containers;

    /// <summary>Builds the tree of a snapshot.</summary>
    public AccessTree(AccessSnapshot snapshot)
    {
        Snapshot = snapshot;
        _objects = [.. snapshot.Objects];
        _byDn = new Dictionary<string, int>(_objects.Length, StringComparer.OrdinalIgnoreCase);
        for (var i = 0; i < _objects.Length; i++) _byDn[_objects[i].Dn] = i;
        _parents = new int[_objects.Length];
        var counts = new int[_objects.Length];
        for (var i = 0; i < _objects.Length; i++)
        {
            var parent = ParentDn(_objects[i].Dn);
            _parents[i] = parent is not null && _byDn.TryGetValue(parent, out var found) && found != i ? found : -1;
            if (_parents[i] >= 0) counts[_parents[i]]++;
        }

        _children = new int[_objects.Length][];
        for (var i = 0; i < _objects.Length; i++) _children[i] = counts[i] == 0 ? [] : new int[counts[i]];
        for (var i = _objects.Length - 1; i >= 0; i--)
            if (_parents[i] >= 0) _children[_parents[i]][--counts[_parents[i]]] = i;

        var names = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
        _classes = new int[_objects.Length];
        for (var i = 0; i < _objects.Length; i++)
        {
            if (!names.TryGetValue(_objects[i].Class, out var name)) names[_objects[i].Class] = name = names.Count;
            _classes[i] = name;
        }

        _classNames = [.. names.OrderBy(n => n.Value).Select(n => n.Key)];
        _containers = [.. _classNames.Select(n =>
            ContainerClasses.Any(c => snapshot.Schema.IsA(n, c) || string.Equals(n, c, StringComparison.OrdinalIgnoreCase)))];
        _descriptors = [.. _objects.Select(o => o.Descriptor)];
        _distinct = [.. snapshot.Descriptors];
    }

    private AccessTree(AccessTree other, int[] descriptors, List<SecurityDescriptor> distinct)
    {
        (Snapshot, _objects, _parents, _children, _classes, _classNames, _byDn, _containers) =
            (
                other.Snapshot, other._objects, other._parents, other._children, other._classes, other._classNames, other._byDn,
                other._containers);
        (_descriptors, _distinct) = (descriptors, distinct);
    }

    /// <summary>What it was built from.</summary>
    public AccessSnapshot Snapshot { get; }

    /// <summary>The schema.</summary>
    public DirectorySchema Schema => Snapshot.Schema;

    /// <summary>How many objects there are.</summary>
    public int Count => _objects.Length;

    /// <summary>How many distinct descriptors there are.</summary>
    public int DescriptorCount => _distinct.Count;

    /// <summary>The object of an index.</summary>
    public DirectoryObject this[int index] => _objects[index];

    /// <summary>The index of a distinguished name, or -1.</summary>
    public int IndexOf(string dn) => _byDn.GetValueOrDefault(dn, -1);

    /// <summary>The object above, or -1.</summary>
    public int ParentOf(int index) => _parents[index];

    /// <summary>The objects directly below.</summary>
    public IReadOnlyList<int> ChildrenOf(int index) => _children[index];

    /// <summary>The number of an object's descriptor, or -1.</summary>
    public int DescriptorIdOf(int index) => _descriptors[index];

    /// <summary>A descriptor by number.</summary>
    public SecurityDescriptor Distinct(int id) => _distinct[id];

    /// <summary>An object's descriptor, or null when it was not read.</summary>
    public SecurityDescriptor? DescriptorOf(int index) => _descriptors[index] < 0 ? null : _distinct[_descriptors[index]];

    /// <summary>A test whether an object is of a class; for asking many objects.</summary>
    public Func<int, bool> IsOfClass(string name)
    {
        var matches = _classNames.Select(n => string.Equals(n, name, StringComparison.OrdinalIgnoreCase)).ToArray();
        return index => matches[_classes[index]];
    }

    /// <summary>Whether an object holds others by its class.</summary>
    public bool IsContainer(int index) => _containers[_classes[index]];

    /// <summary>An object and all that is below it, parents first, siblings in the order of the snapshot.</summary>
    public IEnumerable<int> AtAndBelow(int index)
    {
        var stack = new Stack<int>();
        stack.Push(index);
        while (stack.TryPop(out var next))
        {
            yield return next;
            for (var i = _children[next].Length - 1; i >= 0; i--) stack.Push(_children[next][i]);
        }
    }

    /// <summary>An object and those above it, nearest first.</summary>
    public IEnumerable<int> AtAndAbove(int index)
    {
        for (var at = index; at >= 0; at = _parents[at]) yield return at;
    }

    /// <summary>
    /// The tree as it would be after objects got new descriptors: what is below inherits anew, as the directory does it, stopping
    /// at protected objects.
    /// </summary>
    /// <param name="changed">New descriptors by object: their own entries and protection; what they inherit is computed
    /// here.</param>
    public AccessTree With(IReadOnlyDictionary<int, SecurityDescriptor> changed)
    {
        var descriptors = (int[])_descriptors.Clone();
        var distinct = new List<SecurityDescriptor>(_distinct);
        var known = new Dictionary<SecurityDescriptor, int>();
        for (var id = distinct.Count - 1; id >= 0; id--) known[distinct[id]] = id; // most come back as they were
        var inherited = new Dictionary<(int Parent, int Own, int Class), int>();
        foreach (var start in changed.Keys.Where(k => !AtAndAbove(k).Skip(1).Any(changed.ContainsKey)))
        {
            foreach (var index in AtAndBelow(start))
            {
                var parent = _parents[index] < 0 ? -1 : descriptors[_parents[index]];
                if (changed.TryGetValue(index, out var given)) descriptors[index] = Intern(Inherit(given, parent, index));
                else if (descriptors[index] >= 0 && parent >= 0)
                    descriptors[index] = InheritKnown(parent, descriptors[index], index);
            }
        }

        return new AccessTree(this, descriptors, distinct);

        int InheritKnown(int parent, int own, int index)
        {
            var key = (parent, own, _classes[index]);
            if (!inherited.TryGetValue(key, out var id)) inherited[key] = id = Intern(Inherit(distinct[own], parent, index));
            return id;
        }

        SecurityDescriptor Inherit(SecurityDescriptor own, int parent, int index) =>
            parent < 0 ? own : Inheritance.Apply(own, distinct[parent].Dacl, ClassIds(_objects[index].Class));

        int Intern(SecurityDescriptor descriptor)
        {
            if (known.TryGetValue(descriptor, out var id)) return id;
            distinct.Add(descriptor);
            return known[descriptor] = distinct.Count - 1;
        }
    }

    /// <summary>The tree as a snapshot, every object with the list it has in this tree.</summary>
    public AccessSnapshot ToSnapshot() => Snapshot with
    {
        Descriptors = _distinct,
        Objects = [.. _objects.Select((o, i) => o with { Descriptor = _descriptors[i] })],
    };

    /// <summary>
    /// The descriptor an object of a class would have if it were created in a container now [MS-ADTS 6.1.3.1]: the class's own
    /// entries, then what it inherits.
    /// </summary>
    /// <param name="creator">Who creates it and so owns it, for whom Creator Owner stands [MS-DTYP 2.5.3.4.1]; empty for
    /// somebody else.</param>
    public SecurityDescriptor? Newborn(int container, SchemaClass @class, Sid domain, Sid creator)
    {
        if (DescriptorOf(container) is not { } above) return null;
        var own = @class.DefaultDescriptor is { } sddl ? Sddl.Read(sddl, domain).Entries : [];
        var control = DescriptorControl.DaclPresent | DescriptorControl.SelfRelative | DescriptorControl.DaclAutoInherited;
        return new SecurityDescriptor(
            control, creator, default,
            Acl.Of(
            [
                .. own.Select(a => a.IsKnown && a.Trustee == Sid.CreatorOwner ? a with { Trustee = creator } : a),
                .. Inheritance.From(above.Dacl, new Heir(creator, default, ClassIds(@class.Name))),
            ]), null);
    }

    /// <summary>The distinguished name above, or null at the top. An escaped comma does not part names [RFC 4514 2.4].</summary>
    public static string? ParentDn(string dn)
    {
        for (var i = 0; i < dn.Length; i++)
        {
            if (dn[i] == '\\') i++;
            else if (dn[i] == ',') return dn[(i + 1)..];
        }

        return null;
    }

    private Guid[] ClassIds(string name) => Schema.Class(name) is { } found ? [found.Id] : [];
}
