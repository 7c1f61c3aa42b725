using System.Collections.Frozen;

namespace JustRight.Core.Directory;

/// <summary>Names for SIDs that mean the same everywhere and are no principal of a domain [MS-DTYP 2.4.2.4].</summary>
public static class WellKnownSids
{
    private static readonly FrozenDictionary<Sid, string> Names = new (string Sid, string Name)[]
    {
        ("S-1-1-0", "Everyone"), ("S-1-3-0", "Creator Owner"), (
            "S-1-3-1", "Creator Group"), ("S-1-3-4", "Owner Rights"), ("S-1-5-2", "Network"),
        ("S-1-5-3", "Batch"), ("S-1-5-4", "Interactive"), ("S-1-5-6", "Service"), ("S-1-5-7", "Anonymous"), (
            "S-1-5-9", "Enterprise Domain Controllers"),
        ("S-1-5-10", "Self"), ("S-1-5-11", "Authenticated Users"), (
            "S-1-5-14", "Remote Interactive Logon"), ("S-1-5-15", "This Organization"), (
            "S-1-5-80-0", "NT SERVICE\\ALL SERVICES"), ("S-1-5-18", "Local System"),
        ("S-1-5-19", "Local Service"), ("S-1-5-20", "Network Service"),
    }.ToFrozenDictionary(n => Sid.Parse(n.Sid), n => n.Name);

    /// <summary>The SID of a name, or null.</summary>
    public static Sid? Find(string name) =>
        Names.FirstOrDefault(n => string.Equals(n.Value, name, StringComparison.OrdinalIgnoreCase)) is { Value: not null } found
            ? found.Key
            : null;

    /// <summary>The name, or null.</summary>
    public static string? NameOf(Sid sid) => Names.GetValueOrDefault(sid);
}
