using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Changes;

/// <summary>
/// Finds, for each spare or barred right, the one membership or entry to take away that breaks no need of any install, given
/// that what is still to be given is given first.
/// </summary>
internal sealed class RemovalMaker(InstallFit fit, SurveyView view, NeedsBook needs, IReadOnlyList<Step> give)
{
    private readonly Plan _plan = fit.Plan;
    private readonly HashSet<string> _toBeGiven = [.. give.Where(s => s.Blocked is null).SelectMany(s => s.For)];

    /// <summary>The removals in order, and what is left to a person.</summary>
    public (IReadOnlyList<Step> Steps, IReadOnlyList<NotOffered> NotOffered) Make()
    {
        var steps = new Dictionary<string, (Change Change, List<string> For, string Why, Origin At)>(StringComparer.Ordinal);
        var notOffered = new List<NotOffered>();
        foreach (var account in fit.Accounts)
        {
            var node = view.Graph.IndexOf(account.Account.Name);
            foreach (var (judgement, path) in account.Judgements.SelectMany(OtherWays)) Offer(TakeAway(judgement.Right, $"{_plan.Domain}\\{account.Account.Name}", path)!, judgement, "held another way than planned", judgement.Grant!.At);
            var surplus = account.Judgements.Where(j => j.Verdict is Verdict.Barred or Verdict.Spare).OrderBy(j => j.Verdict == Verdict.Barred ? 0 : 1).ToList();
            foreach (var judgement in surplus)
            {
                foreach (var path in judgement.Paths)
                {
                    var (change, reason) = Cut(account.Account, node, judgement.Right, path);
                    if (change is null)
                    {
                        notOffered.Add(new NotOffered(judgement.Id, reason));
                        continue;
                    }

                    Offer(change, judgement, $"{judgement.Verdict.ToString().ToLowerInvariant()}: {judgement.Reason}", judgement.Rule?.At ?? account.Account.At);
                }
            }
        }

        return ([.. steps.Values.Select((s, i) => new Step(i + 1, s.Change, s.For, s.Why, null, s.At))], [.. notOffered.Distinct()]);

        void Offer(Change change, Judgement judgement, string why, Origin at)
        {
            if (!steps.TryGetValue(change.Key, out var step)) steps[change.Key] = step = (change, [], why, at);
            if (!step.For.Contains(judgement.Id)) step.For.Add(judgement.Id);
        }
    }

    /// <summary>Direct entries of an account that should hold the right through a group of the plan: to go once the planned way is there.</summary>
    private IEnumerable<(Judgement Judgement, RightPath Path)> OtherWays(Judgement judgement)
    {
        if (judgement.Verdict != Verdict.Met || judgement.Grant is not { Through: not null } grant) return [];
        if (!judgement.AsPlanned && !_toBeGiven.Contains(grant.Id)) return [];
        return judgement.Paths.Where(p => p.Nodes.Count == 1 && TakeAway(judgement.Right, "", p) is not null && judgement.Right == grant.Right).Select(p => (judgement, p));
    }

    /// <summary>The first membership of the path, from the account's side, that is ours to cut and whose cut breaks nothing.</summary>
    private (Change? Change, string Reason) Cut(PlannedAccount account, int node, Right right, RightPath path)
    {
        if (path.Nodes.Count == 1) return (TakeAway(right, $"{_plan.Domain}\\{account.Name}", path), "the right cannot be taken away by a step of ours");
        if (view.Graph.PrincipalOf(node)?.PrimaryGroupRid is { } rid && rid != 0 && view.Graph.SidOf(path.Nodes[1]).Rid == rid)
            return (null, $"{view.Graph.NameOf(path.Nodes[1])} is the account's primary group: give it another primary group first");

        // Out of the first group, unless that is a group of the plan that the account belongs in: then cut beyond it.
        var at = 0;
        while (at + 1 < path.Nodes.Count && IsOwnGroup(path.Nodes[at + 1])) at++;
        if (at + 1 == path.Nodes.Count)
        {
            var group = view.Graph.PrincipalOf(path.Nodes[at])!.Name;
            var broken = BrokenByPlace(right, group);
            return broken is null ? (TakeAway(right, $"{_plan.Domain}\\{group}", path), "") : (null, broken);
        }

        var member = view.Graph.PrincipalOf(path.Nodes[at]);
        var outer = view.Graph.PrincipalOf(path.Nodes[at + 1]);
        if (member is null || outer is null) return (null, "part of the path is known by its SID only");
        var loss = Broken(account.Name, node, (path.Nodes[at], path.Nodes[at + 1]));
        return loss is null ? (new RemoveMember(_plan.Domain, outer.Name, member.Name), "") : (null, $"taking {member.Name} out of {outer.Name} would break {loss}");
    }

    private bool IsOwnGroup(int node) =>
        view.Graph.PrincipalOf(node)?.Name is { } name && _plan.Groups.Any(g => string.Equals(g.Name, name, StringComparison.OrdinalIgnoreCase));

    /// <summary>The need that would no longer be met without a membership, or null. A need about to be given its own way counts as met.</summary>
    private string? Broken(string account, int node, (int Member, int Group) cut)
    {
        var now = view.HoldingsOf(node);
        var then = view.HoldingsOf(node, cut);
        foreach (var (install, stage, grant) in needs.Of(account))
        {
            if (grant.GivenBy == GivenBy.Setup && stage == Stage.Planned) continue; // setup will give it its own way
            if (!IsMet(now, grant.Right) || IsMet(then, grant.Right)) continue;
            if (install == _plan.Install && _toBeGiven.Contains(grant.Id)) continue;
            return $"{grant.Right}, which {install} needs";
        }

        return null;
    }

    private string? BrokenByPlace(Right right, string group) =>
        fit.Accounts.Select(a => a.Account.Name).SelectMany(a => needs.Installs(a, right).Select(i => (a, i))).FirstOrDefault() is { i: { } install, a: var account }
            ? $"taking {group} away from {right} would break it for {account}, which {install} needs"
            : null;

    private static bool IsMet(Holdings holdings, Right right) => holdings.Of(right) is not null || Implication.Above(right).Any(a => holdings.Of(a) is not null);

    private static Change? TakeAway(Right right, string principal, RightPath path) => right switch
    {
        LocalGroupRight r => new RemoveLocalGroupMember(r.Host, r.Group, principal),
        LogonRight r when path.Steps.All(s => s.Kind != StepKind.LocalGroup) => new RevokeLogonRight(r.Host, r.Type, principal),
        InstanceRoleRight r when path.Steps.All(s => s.Kind != StepKind.Role) => new RemoveInstanceRoleMember(r.Instance, r.Role, principal),
        DatabaseRoleRight r when path.Steps.All(s => s.Kind != StepKind.Role && !s.Name.StartsWith("owner of", StringComparison.Ordinal)) => new RemoveDatabaseRoleMember(r.Instance, r.Database, r.Role, principal),
        _ => null,
    };
}
