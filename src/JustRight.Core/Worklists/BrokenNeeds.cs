using JustRight.Core.Fit;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Worklists;

/// <summary>Which need of an install would no longer be met if memberships and entries were taken away.</summary>
internal static class BrokenNeeds
{
    /// <summary>The first such need, in words; null when every need is met as before.</summary>
    /// <param name="cuts">What would be taken away.</param>
    /// <param name="touched">The nodes whose memberships or entries those are: only who is one of them, or in one, can
    /// lose.</param>
    /// <param name="counts">Which needs of which account count.</param>
    public static string? Of(
        SurveyView view, NeedsIndex needs, Cuts cuts, IReadOnlyCollection<int> touched, Func<string, StandingNeed, bool> counts)
    {
        if (Unknown(view, needs, touched) is { } unknown) return unknown;
        foreach (var account in needs.Accounts)
        {
            var node = view.Graph.IndexOf(account);
            if (node < 0 || !IsTouched(view, node, touched)) continue;
            Holdings? now = null, then = null;
            foreach (var need in needs.Of(account).Where(n => counts(account, n)))
            {
                now ??= view.HoldingsOf(node);
                then ??= view.HoldingsOf(node, cuts);
                var right = need.Grant.Right;
                if (IsMet(view, now, right) && !IsMet(view, then, right) || Loses(now, then, right))
                    return $"{right} for {account}, which {need.Install} needs";
            }
        }

        return null;
    }

    /// <summary>What an install may need that cannot be planned, of whoever is touched; null when there is none.</summary>
    private static string? Unknown(SurveyView view, NeedsIndex needs, IReadOnlyCollection<int> touched)
    {
        foreach (var unplanned in needs.Unplanned)
        {
            var words = $"what {unplanned.Install} may need: it cannot be planned";
            if (unplanned.Names is null) return words;
            if (unplanned.Names.Select(view.Graph.IndexOf).Any(n => n >= 0 && IsTouched(view, n, touched))) return words;
        }

        return null;
    }

    private static bool IsTouched(SurveyView view, int node, IReadOnlyCollection<int> touched)
    {
        if (touched.Contains(node)) return true;
        var groups = touched.Where(t => view.Graph.PrincipalOf(t) is { Kind: PrincipalKind.Group }).ToHashSet();
        return groups.Count > 0 && view.Graph.Closure(node).Any(groups.Contains);
    }

    /// <summary>A right over a branch that not every object grants can still get worse.</summary>
    private static bool Loses(Holdings now, Holdings then, Right right) =>
        right.BranchIn(now).Facts is { Can: > 0 } before && (right.BranchIn(then).Facts?.Can ?? 0) < before.Can;

    /// <summary>It is held, and the way to it is not known to be shut: who loses a login loses what is behind it.</summary>
    public static bool IsMet(SurveyView view, Holdings holdings, Right right) =>
        (holdings.Of(right) is not null || right.Above.Any(a => holdings.HandingOn(a) is not null))
        && right.GateFor(view, holdings).State != GateState.Shut;
}
