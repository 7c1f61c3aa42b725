using System.Collections.Frozen;

namespace JustRight.Core.Directory.Descriptors;

/// <summary>The two-letter names of well-known SIDs [MS-DTYP 2.5.1.1, sid-token].</summary>
internal static class SddlSids
{
    private static readonly (string Name, string Sid)[] Everywhere =
    [
        ("WD", "S-1-1-0"), ("CO", "S-1-3-0"), ("CG", "S-1-3-1"), ("OW", "S-1-3-4"), ("NU", "S-1-5-2"), ("IU", "S-1-5-4"),
        ("SU", "S-1-5-6"), ("AN", "S-1-5-7"), ("ED", "S-1-5-9"), ("PS", "S-1-5-10"), ("AU", "S-1-5-11"), ("RC", "S-1-5-12"),
        ("SY", "S-1-5-18"), ("LS", "S-1-5-19"), ("NS", "S-1-5-20"), ("WR", "S-1-5-33"), (
            "UD", "S-1-5-84-0-0-0-0-0"), ("AC", "S-1-15-2-1"),
        ("LW", "S-1-16-4096"), ("ME", "S-1-16-8192"), ("MP", "S-1-16-8448"), (
            "HI", "S-1-16-12288"), ("SI", "S-1-16-16384"), ("AS", "S-1-18-1"),
        ("SS", "S-1-18-2"), ("BA", "S-1-5-32-544"), ("BU", "S-1-5-32-545"), (
            "BG", "S-1-5-32-546"), ("PU", "S-1-5-32-547"), ("AO", "S-1-5-32-548"),
        ("SO", "S-1-5-32-549"), ("PO", "S-1-5-32-550"), ("BO", "S-1-5-32-551"), (
            "RE", "S-1-5-32-552"), ("RU", "S-1-5-32-554"), ("RD", "S-1-5-32-555"),
        ("NO", "S-1-5-32-556"), ("MU", "S-1-5-32-558"), ("LU", "S-1-5-32-559"), (
            "IS", "S-1-5-32-568"), ("CY", "S-1-5-32-569"), ("ER", "S-1-5-32-573"),
        ("CD", "S-1-5-32-574"), ("RA", "S-1-5-32-575"), ("ES", "S-1-5-32-576"), (
            "MS", "S-1-5-32-577"), ("HA", "S-1-5-32-578"), ("AA", "S-1-5-32-579"),
        ("RM", "S-1-5-32-580"),
    ];

    private static readonly FrozenDictionary<string, Sid> Fixed = Everywhere.ToFrozenDictionary(
        p => p.Name, p => Sid.Parse(p.Sid), StringComparer.OrdinalIgnoreCase);

    private static readonly (string Name, uint Rid)[] InDomain =
    [
        ("RO", 498), ("LA", 500), ("LG", 501), ("DA", 512), ("DU", 513), ("DG", 514), ("DC", 515), ("DD", 516), ("CA", 517),
        ("SA", 518), ("EA", 519), ("PA", 520), ("CN", 522), ("AP", 525), ("KA", 526), ("EK", 527), ("RS", 553),
    ];

    private static readonly FrozenDictionary<string, uint> OfDomain = InDomain.ToFrozenDictionary(
        p => p.Name, p => p.Rid, StringComparer.OrdinalIgnoreCase);

    private static readonly FrozenDictionary<Sid, string> Names = Fixed.ToFrozenDictionary(p => p.Value, p => p.Key);

    /// <summary>The SID of a two-letter name, in any case; those of a domain need its SID.</summary>
    public static bool TryFind(ReadOnlySpan<char> name, Sid domain, out Sid sid)
    {
        if (Fixed.GetAlternateLookup<ReadOnlySpan<char>>().TryGetValue(name, out sid)) return true;
        if (domain.IsEmpty || !OfDomain.GetAlternateLookup<ReadOnlySpan<char>>().TryGetValue(name, out var rid)) return false;
        sid = domain.Append(rid);
        return true;
    }

    /// <summary>The two-letter name of a SID that is the same everywhere, or its full form.</summary>
    public static string Write(Sid sid) => Names.TryGetValue(sid, out var name) ? name : sid.ToString();
}
