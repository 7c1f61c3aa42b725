using JustRight.Core.Directory;
using JustRight.Core.Rights.Memberships;

namespace JustRight.Core.Rights.Access;

/// <summary>Makes the token an account gets when it signs in to the directory over the network.</summary>
public static class AccessTokens
{
    private static readonly Sid Network = Sid.Parse("S-1-5-2");

    /// <summary>
    /// The account, every group it is in through any nesting, and what every signed-in account is in [MS-PAC 4.1.2.2].
    /// </summary>
    /// <param name="account">The account's node.</param>
    /// <param name="without">Memberships to leave out, to answer what their removal would do.</param>
    public static AccessToken Of(MembershipGraph graph, int account, IReadOnlySet<(int Member, int Group)>? without = null)
    {
        var sids = graph.Closure(account, without).Concat(graph.Everybody).Select(graph.SidOf).Append(Network).ToList();
        var rules = sids.Contains(Administrators);
        return new AccessToken(graph.SidOf(account), sids)
        {
            MayTakeOwnership = rules,
            MayManageAudit = rules,
            WhyDoubtful = Doubts(graph, account, [.. sids]),
        };
    }

    /// <summary>
    /// What an account may be in although it was not seen to be: groups whose members could not be read, and, when it is in a
    /// group that is hidden, every SID that has no name here.
    /// </summary>
    private static Func<Sid, string?>? Doubts(MembershipGraph graph, int account, HashSet<Sid> held)
    {
        var unread = graph.UnreadReach.Where(u => !held.Contains(graph.SidOf(u.Key)))
            .ToDictionary(u => graph.SidOf(u.Key), u => $"the members of {u.Value} could not be read");
        var hidden = graph.HiddenGroupOf(account);
        if (unread.Count == 0 && hidden is null) return null;
        return sid =>
            unread.GetValueOrDefault(sid)
                ?? (hidden is not null
                    && (graph.IndexOf(sid) is >= 0 and var node ? graph.IsNameless(node) : WellKnownSids.NameOf(sid) is null)
                        ? $"{hidden}, which it is in, may not be read"
                        : null);
    }

    /// <summary>Holds the privileges to take ownership and to manage the audit list on a controller by default.</summary>
    internal static Sid Administrators { get; } = Sid.Parse("S-1-5-32-544");
}
