using System.Collections.Frozen;
using JustRight.Core.Directory;

namespace JustRight.Core.SignIn.Objects;

/// <summary>The attributes and classes that a directory knows. Names go without regard to case.</summary>
public sealed class AttributeSchema
{
    private readonly FrozenDictionary<string, AttributeKind> _attributes;
    private readonly FrozenDictionary<string, (string First, string? Above)> _classes;

    /// <summary>A schema.</summary>
    /// <param name="family">The family of the directory.</param>
    /// <param name="attributes">Each attribute with every name and number it goes by.</param>
    /// <param name="classes">
    /// Each class with every name and number it goes by, the first name first, and the class right above it.
    /// </param>
    public AttributeSchema(
        DirectoryFamily family, IEnumerable<(IReadOnlyList<string> Names, AttributeKind Kind)> attributes,
        IEnumerable<(IReadOnlyList<string> Names, string? Above)> classes)
    {
        Family = family;
        _attributes = attributes.SelectMany(a => a.Names.Select(n => (Name: n, a.Kind)))
            .DistinctBy(a => a.Name, StringComparer.OrdinalIgnoreCase)
            .ToFrozenDictionary(a => a.Name, a => a.Kind, StringComparer.OrdinalIgnoreCase);
        _classes = classes.SelectMany(c => c.Names.Select(n => (Name: n, First: c.Names[0], c.Above)))
            .DistinctBy(c => c.Name, StringComparer.OrdinalIgnoreCase)
            .ToFrozenDictionary(c => c.Name, c => (c.First, c.Above), StringComparer.OrdinalIgnoreCase);
    }

    /// <summary>The family of the directory.</summary>
    public DirectoryFamily Family { get; }

    /// <summary>The names of all attributes, in no order.</summary>
    public IReadOnlyCollection<string> AttributeNames => _attributes.Keys;

    /// <summary>
    /// What is known of an attribute, by any name or number; null when the directory does not know it. Options behind the name
    /// choose among its values [RFC 4512 2.5.2]: AD-like directories have none.
    /// </summary>
    public AttributeKind? Attribute(string name) =>
        _attributes.GetValueOrDefault(Family == DirectoryFamily.AdLike ? name : AttributeOptions.NameOf(name));

    /// <summary>The first name of a class; null when the directory does not know it.</summary>
    public string? ClassName(string name) => _classes.TryGetValue(name, out var known) ? known.First : null;

    /// <summary>Whether the directory knows a class.</summary>
    public bool HasClass(string name) => _classes.ContainsKey(name);

    /// <summary>
    /// The class itself and those above it by their first names, the nearest first; of a class that is not known, itself alone.
    /// </summary>
    public IEnumerable<string> ClassAndAbove(string name)
    {
        var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        for (var at = ClassName(name) ?? name; at is not null && seen.Add(at);)
        {
            yield return at;
            at = _classes.GetValueOrDefault(at).Above is { } above ? ClassName(above) ?? above : null;
        }
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
