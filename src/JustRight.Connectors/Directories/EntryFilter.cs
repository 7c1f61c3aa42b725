using System.Globalization;
using System.Text;

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

    /// <summary>Whether an object is meant. Values are compared without regard to case, as all attributes asked for here are.</summary>
    public bool Matches(DirectoryEntry entry)
    {
        if (Attribute == "distinguishedName") return Values.Contains(entry.Dn, StringComparer.OrdinalIgnoreCase);
        return Values.Count == 0 ? entry.Has(Attribute) : entry.Texts(Attribute).Any(t => Values.Contains(t, StringComparer.OrdinalIgnoreCase));
    }

    /// <summary>The filter as LDAP writes it [RFC 4515].</summary>
    public override string ToString() => Values switch
    {
        [] => $"({Attribute}=*)",
        [var one] => Term(one),
        _ => $"(|{string.Concat(Values.Select(Term))})",
    };

    private string Term(string value) => $"({Attribute}={Escape(value)})";

    /// <summary>Escapes a value [RFC 4515 3].</summary>
    private static string Escape(string value)
    {
        var text = new StringBuilder(value.Length);
        foreach (var b in Encoding.UTF8.GetBytes(value))
        {
            if (b is (byte)'*' or (byte)'(' or (byte)')' or (byte)'\\' or 0 or >= 0x80) text.Append('\\').Append(b.ToString("x2", CultureInfo.InvariantCulture));
            else text.Append((char)b);
        }

        return text.ToString();
    }
}
