using System.Text;
using JustRight.Core.SignIn.Filters;

namespace JustRight.Connectors.Directories;

/// <summary>Which objects a search is for: those that have one of some values in one attribute.</summary>
/// <param name="Attribute">The attribute.</param>
/// <param name="Values">The values, any of which will do; none asks only that the attribute is there.</param>
internal sealed record EntryFilter(string Attribute, IReadOnlyList<string> Values)
{
    /// <summary>Every object.</summary>
    public static EntryFilter Any { get; } = new("objectClass", []);

    /// <summary>Objects of any of the classes, or of classes below them.</summary>
    public static EntryFilter OfClass(params string[] classes) => new("objectClass", classes);

    /// <summary>The object with a logon name.</summary>
    public static EntryFilter Named(string name) => new("sAMAccountName", [name]);

    /// <summary>The objects with these distinguished names.</summary>
    public static EntryFilter At(IEnumerable<string> dns) => new("distinguishedName", [.. dns]);

    /// <summary>
    /// Whether an object is meant. Values are compared without regard to case, as all attributes asked for here are.
    /// </summary>
    public bool Matches(DirectoryEntry entry)
    {
        if (Attribute == "distinguishedName") return Values.Contains(entry.Dn, StringComparer.OrdinalIgnoreCase);
        // every object has a class, shown or not
        if (this == Any) return true;
        return Values.Count == 0
            ? entry.Has(Attribute)
            : entry.Texts(Attribute).Any(t => Values.Contains(t, StringComparer.OrdinalIgnoreCase));
    }

    /// <summary>The filter as LDAP writes it [RFC 4515].</summary>
    public override string ToString() => Values switch
    {
        [] => $"({Attribute}=*)",
        [var one] => Term(one),
        _ => $"(|{string.Concat(Values.Select(Term))})",
    };

    private string Term(string value) => $"({Attribute}={new FilterValue(Encoding.UTF8.GetBytes(value)).Escaped})";
}
