using JustRight.Core.Directory;
using JustRight.Core.Hosts;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights.Policies;

/// <summary>The entries of a policy's list, which name principals by SID or by name [MS-GPSB 2.2.6].</summary>
public static class PolicyEntries
{
    private static readonly string[] OfEveryHost = ["NT AUTHORITY", "BUILTIN"];

    /// <summary>
    /// The SID an entry means on a host, or null when its name is not known here. A name alone is first what every host knows,
    /// then a local group of the host, then a principal of the domain [MS-LSAT 3.1.4.5].
    /// </summary>
    /// <param name="entry">
    /// Such as <c>*S-1-5-32-544</c>, <c>Administrators</c>, <c>FENNMOOR\svc-night</c>, <c>fennmoor.example\svc-night</c>,
    /// <c>svc-night@fennmoor.example</c> or <c>.\Line Writers</c>.
    /// </param>
    /// <param name="host">The host that reads the list, or null where that does not matter or is not known.</param>
    public static Sid? SidOf(string entry, MembershipGraph graph, HostSnapshot? host = null)
    {
        var text = entry.Trim();
        if (text.StartsWith('*')) return Sid.TryParse(text[1..], out var sid) ? sid : null;
        var (authority, name) = Parts(text);
        if (authority is null)
            return OfAnyHost(name) ?? Local(name, host) ?? OfDomain(name, graph);
        if (OfEveryHost.Any(a => Same(a, authority))) return OfAnyHost(name);
        if (authority == "." || (host is not null && Same(authority, host.Name))) return Local(name, host);
        return Same(authority, graph.Domain) || Same(authority, graph.DnsDomain) ? OfDomain(name, graph) : null;
    }

    /// <summary>Before and after <c>\</c>, or after and before <c>@</c>; no authority for a name alone.</summary>
    private static (string? Authority, string Name) Parts(string text)
    {
        if (text.IndexOf('\\', StringComparison.Ordinal) is >= 0 and var slash) return (text[..slash], text[(slash + 1)..]);
        return text.LastIndexOf('@') is > 0 and var at ? (text[(at + 1)..], text[..at]) : (null, text);
    }

    private static Sid? OfAnyHost(string name) => BuiltInGroups.Find(name) ?? WellKnownSids.Find(name);

    private static Sid? Local(string name, HostSnapshot? host) =>
        host?.LocalGroups.FirstOrDefault(g => Same(g.Name, name))?.Sid;

    private static Sid? OfDomain(string name, MembershipGraph graph) =>
        graph.IndexOf(name) is >= 0 and var node ? graph.SidOf(node) : null;

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);

    /// <summary>How a new entry is written: by SID where one is known, which every host reads; else by name.</summary>
    public static string EntryFor(string principal, MembershipGraph graph) =>
        graph.IndexOf(LogonName.WithoutDomain(principal)) is >= 0 and var node ? $"*{graph.SidOf(node)}" : principal;

    /// <summary>An entry in words: the name of its SID where there is one.</summary>
    public static string Words(string entry, MembershipGraph graph) => SidOf(entry, graph) is not { } sid ? entry
        : BuiltInGroups.NameOf(sid) ?? WellKnownSids.NameOf(sid)
            ?? (graph.IndexOf(sid) is >= 0 and var node ? graph.NameOf(node) : entry);
}
