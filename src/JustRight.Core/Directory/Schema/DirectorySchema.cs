using System.Collections.Concurrent;
using System.Collections.Frozen;
using JustRight.Core.Rights;

namespace JustRight.Core.Directory.Schema;

/// <summary>An attribute of the schema [MS-ADTS 3.1.1.2.3].</summary>
/// <param name="Name">Its name in requests, such as <c>mail</c>.</param>
/// <param name="Id">Its <c>schemaIDGUID</c>, by which entries name it.</param>
/// <param name="PropertySet">Its <c>attributeSecurityGUID</c>: the property set it belongs to, or null.</param>
/// <param name="IsConfidential">Whether reading it needs control access too (search flag 128).</param>
/// <param name="IsSystemOnly">Whether only the directory itself writes it.</param>
public sealed record SchemaAttribute(string Name, Guid Id, Guid? PropertySet, bool IsConfidential, bool IsSystemOnly);

/// <summary>A class of the schema [MS-ADTS 3.1.1.2.4].</summary>
/// <param name="Name">Its name, such as <c>group</c>.</param>
/// <param name="Id">Its <c>schemaIDGUID</c>.</param>
/// <param name="Parent">The class it is a subclass of.</param>
/// <param name="Auxiliaries">The auxiliary classes it always has.</param>
/// <param name="Attributes">The attributes it may or must hold, those of parents and auxiliaries not included.</param>
/// <param name="Kind">0 and 1 structural, 2 abstract, 3 auxiliary.</param>
/// <param name="DefaultDescriptor">The descriptor that new objects start with, in SDDL, or null.</param>
public sealed record SchemaClass(
    string Name, Guid Id, string Parent, IReadOnlyList<string> Auxiliaries, IReadOnlyList<string> Attributes, int Kind,
    string? DefaultDescriptor = null);

/// <summary>What an entry of the extended rights container stands for [MS-ADTS 5.1.3.2.1, 5.1.3.2.2].</summary>
[Flags]
public enum ControlRightKinds
{
    /// <summary>None.</summary>
    None = 0,

    /// <summary>An extended right, such as resetting a password.</summary>
    ExtendedRight = 1,

    /// <summary>A validated write, such as oneself into a group.</summary>
    ValidatedWrite = 2,

    /// <summary>A property set.</summary>
    PropertySet = 4,
}

/// <summary>An extended right, validated write or property set.</summary>
/// <param name="Name">Its common name, such as <c>User-Force-Change-Password</c>.</param>
/// <param name="Title">Its display name, such as <c>Reset Password</c>.</param>
/// <param name="Id">Its <c>rightsGuid</c>.</param>
/// <param name="AppliesTo">The classes whose objects it applies to.</param>
public sealed record ControlRight(string Name, string Title, Guid Id, ControlRightKinds Kinds, IReadOnlyList<Guid> AppliesTo);

/// <summary>The part of a directory's schema that access rests on. Immutable; read once for each version of the schema.</summary>
/// <param name="version">What tells one version from another: it changes with each change of the schema.</param>
public sealed class DirectorySchema(
    string version, IReadOnlyList<SchemaAttribute> attributes, IReadOnlyList<SchemaClass> classes,
    IReadOnlyList<ControlRight> rights)
{
    private readonly FrozenDictionary<string, SchemaAttribute> _attributes = attributes.ToFrozenDictionary(
        a => a.Name, StringComparer.OrdinalIgnoreCase);
    private readonly FrozenDictionary<string, SchemaClass> _classes = classes.ToFrozenDictionary(
        c => c.Name, StringComparer.OrdinalIgnoreCase);
    private readonly FrozenDictionary<Guid, ControlRight> _rights = rights.GroupBy(r => r.Id).ToFrozenDictionary(
        g => g.Key, g => g.First());

    private readonly FrozenDictionary<Guid, string> _names = attributes.Select(a => (a.Id, a.Name))
        .Concat(classes.Select(c => (c.Id, c.Name)))
        .Concat(rights.Select(r => (r.Id, r.Title)))
        // self-membership has the GUID of the attribute member
        .GroupBy(n => n.Id).ToFrozenDictionary(g => g.Key, g => g.First().Item2);

    private readonly ConcurrentDictionary<string, IReadOnlySet<string>> _held = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>What tells one version from another.</summary>
    public string Version { get; } = version;

    /// <summary>The attributes.</summary>
    public IReadOnlyList<SchemaAttribute> Attributes { get; } = attributes;

    /// <summary>The classes.</summary>
    public IReadOnlyList<SchemaClass> Classes { get; } = classes;

    /// <summary>Extended rights, validated writes and property sets.</summary>
    public IReadOnlyList<ControlRight> Rights { get; } = rights;

    /// <summary>A schema of which nothing is known.</summary>
    public static DirectorySchema Empty { get; } = new("", [], [], []);

    /// <summary>An attribute by name, in any case, or null.</summary>
    public SchemaAttribute? Attribute(string name) => _attributes.GetValueOrDefault(name);

    /// <summary>A class by name, in any case, or null.</summary>
    public SchemaClass? Class(string name) => _classes.GetValueOrDefault(name);

    /// <summary>A right by GUID, or null.</summary>
    public ControlRight? Right(Guid id) => _rights.GetValueOrDefault(id);

    /// <summary>The name of whatever a GUID stands for, or the GUID itself.</summary>
    public string NameOf(Guid id) => _names.TryGetValue(id, out var name) ? name : id.ToString();

    /// <summary>A class and all it is a subclass of, the most specific first.</summary>
    public IEnumerable<SchemaClass> Lineage(string name)
    {
        var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        for (var found = Class(name); found is not null && seen.Add(found.Name); found = Class(found.Parent)) yield return found;
    }

    /// <summary>Whether a class is another one or a subclass of it.</summary>
    public bool IsA(string name, string ancestor) =>
        Lineage(name).Any(c => string.Equals(c.Name, ancestor, StringComparison.OrdinalIgnoreCase));

    /// <summary>Whether objects of a class may hold an attribute.</summary>
    public bool Holds(string @class, string attribute) => HeldBy(@class).Contains(attribute);

    /// <summary>The attributes that objects of a class may hold, by name.</summary>
    public IReadOnlyList<SchemaAttribute> AttributesOf(string @class) =>
        [.. HeldBy(@class).Select(Attribute).OfType<SchemaAttribute>().OrderBy(a => a.Name, StringComparer.OrdinalIgnoreCase)];

    /// <summary>The extended rights or validated writes that apply to objects of a class, by title.</summary>
    public IReadOnlyList<ControlRight> RightsOf(string @class, ControlRightKinds kind)
    {
        var lineage = Lineage(@class).Select(c => c.Id).ToHashSet();
        return [.. Rights.Where(r => r.Kinds.HasFlag(kind) && r.AppliesTo.Any(lineage.Contains))
            .OrderBy(r => r.Title, StringComparer.OrdinalIgnoreCase)];
    }

    /// <summary>The names of all attributes of a class, worked out once.</summary>
    private IReadOnlySet<string> HeldBy(string @class) => _held.GetOrAdd(
        @class, name => Made(name).SelectMany(c => c.Attributes).ToFrozenSet(StringComparer.OrdinalIgnoreCase));

    /// <summary>The classes that a class is made of: those above it and the auxiliary ones of all these.</summary>
    private IEnumerable<SchemaClass> Made(string @class)
    {
        var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var queue = new Queue<string>(Lineage(@class).Select(c => c.Name));
        while (queue.TryDequeue(out var name))
        {
            if (!seen.Add(name) || Class(name) is not { } found) continue;
            yield return found;
            foreach (var auxiliary in found.Auxiliaries.SelectMany(Lineage)) queue.Enqueue(auxiliary.Name);
        }
    }
}
