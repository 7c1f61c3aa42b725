using System.Collections.Frozen;
using JustRight.Core.Directory;

namespace JustRight.Core.Hosts;

/// <summary>
/// The groups that every host is born with [MS-DTYP 2.4.2.4]. Their names are translated on hosts of other languages; their
/// SIDs are not.
/// </summary>
public static class BuiltInGroups
{
    private static readonly FrozenDictionary<string, Sid> Sids = new (string Name, uint Rid)[]
    {
        ("Administrators", 544), ("Users", 545), ("Guests", 546), ("Power Users", 547), (
            "Account Operators", 548), ("Server Operators", 549),
        ("Print Operators", 550), ("Backup Operators", 551), ("Replicator", 552), (
            "Pre-Windows 2000 Compatible Access", 554), ("Remote Desktop Users", 555),
        ("Network Configuration Operators", 556), ("Performance Monitor Users", 558), (
            "Performance Log Users", 559), ("Distributed COM Users", 562),
        ("IIS_IUSRS", 568), ("Cryptographic Operators", 569), ("Event Log Readers", 573), (
            "Certificate Service DCOM Access", 574), ("Hyper-V Administrators", 578),
        ("Access Control Assistance Operators", 579), ("Remote Management Users", 580),
    }.ToFrozenDictionary(g => g.Name, g => Builtin.Append(g.Rid), StringComparer.OrdinalIgnoreCase);

    private static readonly FrozenDictionary<Sid, string> Names = Sids.ToFrozenDictionary(g => g.Value, g => g.Key);

    private static Sid Builtin => Sid.Parse("S-1-5-32");

    /// <summary>
    /// The SID of a group by its English name, with or without <c>BUILTIN\</c>; null when it is no built-in group.
    /// </summary>
    public static Sid? Find(string name) =>
        Sids.TryGetValue(name.StartsWith("BUILTIN\\", StringComparison.OrdinalIgnoreCase) ? name[8..] : name, out var sid)
            ? sid
            : null;

    /// <summary>Every name.</summary>
    public static IEnumerable<string> AllNames => Sids.Keys;

    /// <summary>The English name of a SID, or null when it is no built-in group.</summary>
    public static string? NameOf(Sid sid) => Names.GetValueOrDefault(sid);
}
