using System.Collections.Frozen;
using JustRight.Core.Directory;

namespace JustRight.Core.SignIn.Objects;

/// <summary>The attributes and classes that a directory knows. Names go without regard to case.</summary>
public sealed class AttributeSchema
{
    private readonly FrozenDictionary<string, AttributeKind> _attributes;
    private readonly FrozenDictionary<string, string?> _classes;

    /// <summary>A schema.</summary>
    /// <param name="family">The family of the directory.</param>
    /// <param name="attributes">Each attribute with every name and number it goes by.</param>
    /// <param name="classes">Each class by every name it goes by, with the class right above it.</param>
    public AttributeSchema(
        DirectoryFamily family, IEnumerable<(IReadOnlyList<string> Names, AttributeKind Kind)> attributes,
        IEnumerable<(string Name, string? Above)> classes)
    {
        Family = family;
        _attributes = attributes.SelectMany(a => a.Names.Select(n => (Name: n, a.Kind)))
            .DistinctBy(a => a.Name, StringComparer.OrdinalIgnoreCase)
            .ToFrozenDictionary(a => a.Name, a => a.Kind, StringComparer.OrdinalIgnoreCase);
        _classes = classes.DistinctBy(c => c.Name, StringComparer.OrdinalIgnoreCase)
            .ToFrozenDictionary(c => c.Name, c => c.Above, StringComparer.OrdinalIgnoreCase);
    }

    /// <summary>The family of the directory.</summary>
    public DirectoryFamily Family { get; }

    /// <summary>The names of all attributes, in no order.</summary>
    public IReadOnlyCollection<string> AttributeNames => _attributes.Keys;

    /// <summary>What is known of an attribute, by any name or number; null when the directory does not know it.</summary>
    public AttributeKind? Attribute(string name) => _attributes.GetValueOrDefault(name);

    /// <summary>Whether the directory knows a class.</summary>
    public bool HasClass(string name) => _classes.ContainsKey(name);

    /// <summary>The class itself and those above it, the nearest first; of a class that is not known, itself alone.</summary>
    public IEnumerable<string> ClassAndAbove(string name)
    {
        var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        for (var at = name; at is not null && seen.Add(at); at = _classes.GetValueOrDefault(at)) yield return at;
    }

    /// <summary>The first names of an attribute and of those that are kinds of it.</summary>
    public IEnumerable<AttributeKind> WithKindsBelow(AttributeKind attribute) =>
        _attributes.Values.Distinct().Where(a => a == attribute || IsBelow(a, attribute));

    private bool IsBelow(AttributeKind kind, AttributeKind above)
    {
        for (
            var (at, steps) = (kind, 0); at.Above is { } next && steps < 20
                && _attributes.GetValueOrDefault(next) is { } found; at = found,
            steps++)
            if (found == above) return true;
        return false;
    }
}
