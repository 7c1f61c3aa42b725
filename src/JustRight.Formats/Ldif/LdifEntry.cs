using JustRight.Core.Faults;

namespace JustRight.Formats.Ldif;

/// <summary>An object as a file of LDIF holds it.</summary>
/// <param name="Dn">Its distinguished name as the file spells it; empty for the root entry of a directory.</param>
/// <param name="Values">Its attributes by name, without regard to case, options included.</param>
/// <param name="At">Where it begins.</param>
public sealed record LdifEntry(string Dn, IReadOnlyDictionary<string, IReadOnlyList<byte[]>> Values, Origin At)
{
    /// <summary>Writes entries as LDIF that <see cref="LdifReader"/> reads.</summary>
    public static void Write(IEnumerable<LdifEntry> entries, TextWriter text)
    {
        var lines = new LdifLines(text);
        lines.Plain("version: 1");
        foreach (var entry in entries)
        {
            lines.Plain("");
            lines.Value("dn", entry.Dn);
            foreach (var (attribute, values) in entry.Values)
                foreach (var value in values) lines.Value(attribute, value);
        }
    }
}
