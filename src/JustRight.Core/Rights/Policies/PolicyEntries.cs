using JustRight.Core.Directory;
using JustRight.Core.Hosts;
using JustRight.Core.Rights.Memberships;

namespace JustRight.Core.Rights.Policies;

/// <summary>The entries of a policy's list, which name principals by SID or by name [MS-GPSB 2.2.6].</summary>
public static class PolicyEntries
{
    /// <summary>The SID an entry means, or null when its name is not known here.</summary>
    /// <param name="entry">Such as <c>*S-1-5-32-544</c>, <c>Administrators</c> or <c>FENNMOOR\svc-night</c>.</param>
    public static Sid? SidOf(string entry, MembershipGraph graph)
    {
        var text = entry.Trim();
        if (text.StartsWith('*')) return Sid.TryParse(text[1..], out var sid) ? sid : null;
        var name = text.StartsWith("NT AUTHORITY\\", StringComparison.OrdinalIgnoreCase) ? text["NT AUTHORITY\\".Length..] : text;
        if ((BuiltInGroups.Find(name) ?? WellKnownSids.Find(name)) is { } known) return known;
        if (name.Contains('\\', StringComparison.Ordinal)
            && !name.StartsWith(graph.Domain + "\\", StringComparison.OrdinalIgnoreCase))
            return null;
        return graph.IndexOf(LogonName.WithoutDomain(name)) is >= 0 and var node ? graph.SidOf(node) : null;
    }

    /// <summary>How a new entry is written: by SID where one is known, which every host reads; else by name.</summary>
    public static string EntryFor(string principal, MembershipGraph graph) =>
        graph.IndexOf(LogonName.WithoutDomain(principal)) is >= 0 and var node ? $"*{graph.SidOf(node)}" : principal;

    /// <summary>An entry in words: the name of its SID where there is one.</summary>
    public static string Words(string entry, MembershipGraph graph) => SidOf(entry, graph) is not { } sid ? entry
        : BuiltInGroups.NameOf(sid) ?? WellKnownSids.NameOf(sid)
            ?? (graph.IndexOf(sid) is >= 0 and var node ? graph.NameOf(node) : entry);
}
