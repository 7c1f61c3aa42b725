using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit;

/// <summary>
/// Finds what an account holds beyond the needs. A right that only comes along with a forbidden group or with an excess local
/// group is named under that one, so that each finding has one cause and one cure.
/// </summary>
internal sealed class ExcessFinder(SurveyView view, NeedsIndex needs, Plan plan, PlannedAccount account, Holdings holdings)
{
    private readonly List<(Judgement Judgement, List<Right> Brings)> _found = [];
    private readonly HashSet<string> _forbiddenEntries = new(StringComparer.Ordinal);
    private readonly Dictionary<string, bool> _neededGroups = new(StringComparer.Ordinal);
    private readonly Dictionary<string, List<Right>> _groupBrings = new(StringComparer.Ordinal);
    private Dictionary<string, PlannedGrant>? _grants;
    private HashSet<string>? _stronger;
    private IReadOnlyList<Right>? _neededRoles;
    private IReadOnlyList<Right>? _needed;

    /// <summary>The forbidden rights, then the excess ones.</summary>
    public IReadOnlyList<Judgement> Find()
    {
        var forbidden = FindForbidden();
        if (account.WorksAs == WorksAs.Person) return Found(); // what else a person may do is none of this product's affair
        var clean = WithoutForbidden(forbidden);
        var excessLocalGroups = new HashSet<string>(StringComparer.Ordinal);
        // What comes along with groups that are needed is most of what an administrator holds, and never excess. Local groups
        // first, so that what they bring along can be put under them.
        var beyond = holdings.All(IsNeededGroup).Where(h => h.Right.DomainGroup is null).ToList();
        var leaving = plan.Stage == Stage.Retiring;
        foreach (var held in MereEntrances.Without(beyond, Needed, leaving).OrderBy(h => h.Right.BringsAlong ? 0 : 1).ThenBy(
            h => h.Right.Key, StringComparer.Ordinal))
            FindExcess(held, clean, excessLocalGroups);
        FindEmptyMemberships(clean);
        if (leaving) FindRestraints();
        return Found();
    }

    /// <summary>What kept the account from something, by an entry of its own: that would outlast the account.</summary>
    private void FindRestraints()
    {
        foreach (var right in Grants.Values.Select(g => g.Right).Where(r => r.OnlyRestrains && !IsNeeded(r)))
        {
            if (holdings.Of(right) is not { } held) continue;
            var own = held.Tails.Where(t => t.Node == holdings.Account).ToList();
            if (own.Count > 0) _found.Add((Say(right, Verdict.Excess, Reason(right), holdings.PathsOf(own)), []));
        }
    }

    private IReadOnlyList<Judgement> Found() => [.. _found.Select(f => f.Judgement with { Brings = InWords(f.Brings) })];

    /// <summary>
    /// The same right at many places is named once: a group that administers every host brings ten rights on each.
    /// </summary>
    private static IReadOnlyList<string> InWords(List<Right> brings)
    {
        const int mostNamed = 3;
        return [.. brings.GroupBy(r => (r.Kind, r.Words)).SelectMany(g =>
            g.Count() > mostNamed ? [$"{g.Key.Words} on {g.Count()} places"] : g.Select(r => r.ToString()))];
    }

    private List<(int Node, List<Right> Brings)> FindForbidden()
    {
        var forbidden = new List<(int, List<Right>)>();
        var rules = plan.Forbidden.Where(b => b.Account is null || b.Account == account.Key);
        foreach (var rule in rules.Where(r => r.Act is not null)) FindForbiddenAct(rule);
        foreach (var held in holdings.All(_ => true).Where(h => h.Right.WhyForbidden is not null))
            if (_forbiddenEntries.Add(held.Right.Key))
                _found.Add((Say(held.Right, Verdict.Forbidden, held.Right.WhyForbidden!, holdings.PathsOf(held)), []));
        foreach (var rule in rules.Where(r => r.Act is null).DistinctBy(r => r.Group.ToUpperInvariant()))
        {
            var right = view.Membership(rule.Group);
            if (holdings.Of(right) is not { } held) continue;
            var brings = new List<Right>();
            _found.Add((Say(right, Verdict.Forbidden, rule.Why, holdings.PathsOf(held)) with { Rule = rule }, brings));
            forbidden.Add((held.Tails[0].Node, brings));
        }

        return forbidden;
    }

    /// <summary>
    /// Delegations that let the account do what is forbidden, wherever they stand and through whatever group they come.
    /// </summary>
    private void FindForbiddenAct(ForbiddenRule rule)
    {
        foreach (var held in holdings.All(_ => true)) // no entry of the directory comes along with a local group
        {
            if (!held.Right.Lets(rule.Act!, view) || !_forbiddenEntries.Add(held.Right.Key)) continue;
            _found.Add((Say(held.Right, Verdict.Forbidden, rule.Why, holdings.PathsOf(held)) with { Rule = rule }, []));
        }
    }

    /// <summary>
    /// The nodes the account reaches without passing a forbidden group; what only the forbidden ones bring is noted with them.
    /// </summary>
    private HashSet<int> WithoutForbidden(List<(int Node, List<Right> Brings)> forbidden)
    {
        var stops = forbidden.Select(b => b.Node).ToHashSet();
        var clean = new HashSet<int>(view.Graph.Closure(holdings.Account, notThrough: stops)) { holdings.Account };
        clean.UnionWith(view.Graph.Everybody);
        clean.ExceptWith(stops);
        foreach (var (node, brings) in forbidden)
        {
            var above = new HashSet<int>(view.Graph.Closure(node)) { node };
            brings.AddRange(holdings.All()
                .Where(h => h.Right.DomainGroup is null && h.Tails.All(t => above.Contains(t.Node) && !clean.Contains(t.Node)))
                .Select(h => h.Right));
        }

        return clean;
    }

    private void FindExcess(Held held, HashSet<int> clean, HashSet<string> excessLocalGroups)
    {
        var tails = held.Tails.Where(t => clean.Contains(t.Node) && !ComesWithNeededRole(held.Right, t.Tail)).ToList();
        if (tails.Count == 0 || _forbiddenEntries.Contains(held.Right.Key) || IsNeeded(held.Right)) return;
        if (held.Right.Above.Any(IsNeeded)) return; // part of a needed right: nothing beyond the needs
        if (view.Baseline.Of(held.Right).Count > 0) return; // every domain user has it
        var own = tails.Where(t => t.Tail.Via is null || !IsNeeded(t.Tail.Via) && !excessLocalGroups.Contains(t.Tail.Via.Key))
            .ToList();
        if (own.Count == 0)
        {
            foreach (var via in tails.Select(t => t.Tail.Via!.Key).Distinct())
                if (_groupBrings.TryGetValue(via, out var brings)) brings.Add(held.Right);
            return;
        }

        var along = new List<Right>();
        if (held.Right.BringsAlong && excessLocalGroups.Add(held.Right.Key)) _groupBrings[held.Right.Key] = along;
        _found.Add((Say(held.Right, Verdict.Excess, Reason(held.Right), holdings.PathsOf(own)), along));
    }

    /// <summary>
    /// What comes along with a role that is needed is the role's own affair, as with groups; but not what rules its place,
    /// which no need for a smaller role asks for.
    /// </summary>
    private bool ComesWithNeededRole(Right right, RightTail tail)
    {
        if (NeededRoles.Count == 0 || !tail.Steps.Any(s => s.Kind == StepKind.Role)) return false;
        var reach = right.Reach.Points;
        return NeededRoles.Any(r =>
            (reach < RightReach.Ruling || reach <= r.Reach.Points)
                && tail.Steps.Any(s => s.Kind == StepKind.Role && r.IsStep(s, right)));
    }

    /// <summary>Direct memberships through which nothing that was read comes: nobody knows what they are for.</summary>
    private void FindEmptyMemberships(HashSet<int> clean)
    {
        foreach (var group in view.Graph.GroupsOf(holdings.Account))
        {
            if (!clean.Contains(group) || view.Graph.Baseline.Contains(group)
                || view.Graph.PrincipalOf(group) is not { Kind: PrincipalKind.Group } principal)
                continue;
            var right = view.Membership(principal.Name);
            if (IsNeeded(right) || IsGroupOfPlan(principal.Name)) continue;
            var above = view.Graph.Closure(group).Append(group).ToList();
            var carries = above.Any(n => view.Index.To(view.Graph.SidOf(n)).Any() || view.Index.IsDenied(view.Graph.SidOf(n))
                || (view.Graph.PrincipalOf(n) is { } p && (IsNeeded(view.Membership(p.Name)) || IsForbidden(p.Name))));
            if (!carries)
                _found.Add((
                    Say(
                        right, Verdict.Excess, "nothing needs it, and it gives no right that was read",
                        holdings.PathsOf(holdings.Of(right)!)),
                    []));
        }
    }

    private string Reason(Right right)
    {
        if (right.WhyBeyond(Needed, view) is { } beyond) return beyond;
        if (plan.Stage == Stage.Retiring && Grants.ContainsKey(right.Key))
            return $"nothing needs it after {plan.Install} is retired";
        if (Grants.TryGetValue(right.Key, out var grant) && grant.Until == Until.Installed) return "left over from setup";
        var decision = plan.Decisions.FirstOrDefault(d =>
            d.Account == account.Key && d.Alternatives.Any(a => a.Label != d.Taken && a.Rights.Contains(right)));
        if (decision is not null) return $"less would do: {decision.Taken}";
        return Stronger.Contains(right.Key) ? "it does more than is needed" : "nothing needs it";
    }

    /// <summary>What the plan gives the account, by right: asked for every excess right, so found once.</summary>
    private Dictionary<string, PlannedGrant> Grants =>
        _grants ??= plan.GrantsOf(account.Key).DistinctBy(g => g.Right.Key)
            .ToDictionary(g => g.Right.Key, StringComparer.Ordinal);

    /// <summary>The rights that would bring a planned one along.</summary>
    private HashSet<string> Stronger =>
        _stronger ??= [.. plan.GrantsOf(account.Key).SelectMany(g => g.Right.Above).Select(r => r.Key)];

    private IReadOnlyList<Right> NeededRoles => _neededRoles ??= [.. Needed.Where(r => r.IsRole)];

    private IReadOnlyList<Right> Needed => _needed ??= [.. needs.Of(account.Name).Select(n => n.Grant.Right)];

    private bool IsNeeded(Right right) => right.IsMadeUpBy(Needed, view) ?? needs.IsNeeded(account.Name, right);

    private bool IsNeededGroup(Right group)
    {
        if (!_neededGroups.TryGetValue(group.Key, out var needed)) _neededGroups[group.Key] = needed = IsNeeded(group);
        return needed;
    }

    private bool IsForbidden(string group) =>
        plan.Forbidden.Any(b =>
            (b.Account is null || b.Account == account.Key) && string.Equals(b.Group, group, StringComparison.OrdinalIgnoreCase));

    private bool IsGroupOfPlan(string name) =>
        plan.Groups.Any(g => string.Equals(g.Name, name, StringComparison.OrdinalIgnoreCase) && g.Members.Contains(account.Key));

    private Judgement Say(Right right, Verdict verdict, string reason, IReadOnlyList<RightPath> paths) =>
        new(
            $"{account.Key}/{(verdict == Verdict.Forbidden ? "forbidden" : "excess")}/{right.Key}", account.Key, right, verdict,
            reason, paths);
}
