using JustRight.Core.Directory;

namespace JustRight.Core.Rights.Memberships;

/// <summary>
/// The groups whose members' access lists the directory resets to one of its own, within the hour [MS-ADTS 3.1.1.6.1].
/// </summary>
public static class ProtectedGroups
{
    private static readonly uint[] OfDomain = [498, 512, 516, 518, 519, 521, 526, 527]; // [MS-ADTS 3.1.1.6.1.2]
    private static readonly uint[] BuiltIn = [544, 548, 549, 550, 551, 552];

    /// <summary>Whether a principal is such a group, or in one through any nesting.</summary>
    public static bool Holds(MembershipGraph graph, Sid sid)
    {
        var node = graph.IndexOf(sid);
        return node >= 0
            && graph.Closure(node).Append(node).Select(graph.SidOf)
                .Any(s => s.IsBuiltIn ? BuiltIn.Contains(s.Rid) : OfDomain.Contains(s.Rid));
    }
}
