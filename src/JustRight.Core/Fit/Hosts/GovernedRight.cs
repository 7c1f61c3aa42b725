using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Policies;

namespace JustRight.Core.Fit.Hosts;

/// <summary>What a policy does to a right that an account needs on a host.</summary>
/// <param name="Policy">The policy's identifier.</param>
/// <param name="Name">Its name.</param>
/// <param name="LinkedAt">Where it is linked, or null when only the host's word is known.</param>
/// <param name="Entries">Its list for the right, as written; null when the template was not read.</param>
/// <param name="Gives">Whether its list gives the right to the account; null when the list was not read.</param>
public sealed record GovernedRight(string Policy, string Name, string? LinkedAt, IReadOnlyList<string>? Entries, bool? Gives);

/// <summary>Works out for a right of a host whether a policy governs it, and whether the policy's list gives it to an account.</summary>
internal static class RightGovernor
{
    /// <summary>What a policy does to the right; null when none governs it or it is no right of a list. Unseen says why that is not known.</summary>
    public static (GovernedRight? Governed, string? Unseen) Of(SurveyView view, Right right, Holdings? holdings)
    {
        if (LogonRights.ConstantOf(right) is not { } constant) return (null, null);
        var governance = view.Policies.Of(right.Place, constant);
        if (governance.Unseen is { } why) return (null, why);
        if (governance.Policy is not { } policy) return (null, null);
        bool? gives = governance.List is null ? null : holdings is not null && governance.List.Entries.Any(e => Reaches(view, right.Place, e, holdings));
        return (new GovernedRight(policy.Id, policy.Name, governance.Standing?.Container, governance.List?.Entries, gives), null);
    }

    /// <summary>Whether an entry of a list means the account: itself, a group it is in, or a local group of the host that holds either.</summary>
    private static bool Reaches(SurveyView view, string host, string entry, Holdings holdings)
    {
        if (PolicyEntries.SidOf(entry, view.Graph) is not { } sid) return false;
        if (view.Graph.IndexOf(sid) is >= 0 and var node && IsIn(view, node, holdings)) return true;
        return view.Host(host)?.LocalGroups.FirstOrDefault(g => g.Sid == sid) is { } group
            && group.Members.Any(m => view.Graph.IndexOf(m) is >= 0 and var member && IsIn(view, member, holdings));
    }

    private static bool IsIn(SurveyView view, int node, Holdings holdings) => node == holdings.Account || holdings.Groups.Contains(node) || view.Graph.Everybody.Contains(node);
}
