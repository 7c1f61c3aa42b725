using JustRight.Core.Changes;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Fit.Hosts;
using JustRight.Core.Fit.Retirement;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Worklists;

/// <summary>
/// Finds, for each excess or forbidden right, the membership or entry to take away that breaks no need of any install, given that
/// what is still to be given is given first. Each removal is judged together with those found before it: two that are harmless
/// alone may break a need together.
/// </summary>
internal sealed class RemovalMaker(InstallFit fit, SurveyView view, NeedsIndex needs, IReadOnlyList<Step> give)
{
    private readonly Plan _plan = fit.Plan;
    private readonly HashSet<string> _toBeGiven = [.. give.Where(s => s.Blocked is null).SelectMany(s => s.For)];
    private readonly Dictionary<string, Removal> _steps = new(StringComparer.Ordinal);
    private readonly List<NotOffered> _notOffered = [];
    private Cuts _cuts = Cuts.None;

    /// <summary>
    /// The groups of the plan that go with their install: what they hold is taken from them, and everybody leaves them.
    /// </summary>
    public IReadOnlyList<PlannedGroup> Going { get; init; } = [];

    /// <summary>The removals in order, and what is left to a person.</summary>
    public (IReadOnlyList<Step> Steps, IReadOnlyList<NotOffered> NotOffered) Make()
    {
        foreach (var account in fit.Accounts)
        {
            var node = view.Graph.IndexOf(account.Account.Name);
            foreach (var accepted in account.Judgements.Where(j => j.Accepted is not null))
                _notOffered.Add(new NotOffered(
                    accepted.Id,
                    $"{accepted.Accepted!.By} accepted it until {accepted.Accepted.UntilWords}: {accepted.Accepted.Why}"));
            var excess = account.Judgements.Where(j => j.Verdict is Verdict.Forbidden or Verdict.Excess && j.Accepted is null)
                .OrderBy(j => j.Verdict == Verdict.Forbidden ? 0 : 1);
            foreach (var judgement in account.Judgements.Where(j =>
                j is { Verdict: Verdict.Excess, Right.Confirmable: InsideProduct, Accepted: null }))
                InsideTheProduct(account.Account, judgement);
            if (_plan.Stage == Stage.Installed && account.Judgements.FirstOrDefault(IsSetupsOwn) is { } done)
                Disable(account.Account, done);
            foreach (var judgement in excess)
                foreach (var path in judgement.Paths)
                    Offer(
                        Holder.Of(account.Account), node, judgement, path,
                        $"{judgement.Verdict.ToString().ToLowerInvariant()}: {judgement.Reason}");
            foreach (var (judgement, path) in account.Judgements.SelectMany(OtherWays))
                Offer(Holder.Of(account.Account), node, judgement, path, "held another way than planned");
        }

        foreach (var group in Going) Empty(group);
        Doors();
        return (
            [.. _steps.Values.OrderBy(s => s.Order).Select((s, i) => new Step(i + 1, s.Change, s.For, s.Why, s.Blocked, s.At))],
            [.. _notOffered.Distinct()]);
    }

    /// <summary>
    /// A login or a user goes only when all goes that it holds there: what stays would be lost with it, or keep it from going.
    /// </summary>
    private void Doors()
    {
        foreach (var (key, step) in _steps.Where(s =>
            s.Value is { Order: TakenOrder.User or TakenOrder.Login, Change: InstanceChange }).ToList())
        {
            var door = (InstanceChange)step.Change;
            var whose = fit.Accounts.FirstOrDefault(a => $"{_plan.Domain}\\{a.Account.Name}" == door.Principal);
            var rest = whose?.Judgements.FirstOrDefault(j =>
                string.Equals(j.Right.AtInstance, door.Instance, StringComparison.OrdinalIgnoreCase)
                && _notOffered.Any(n => n.For == j.Id)
                && !_steps.Values.Any(s => s.For.Contains(j.Id)));
            if (rest is null) continue;
            _steps.Remove(key);
            _notOffered.AddRange(
                step.For.Select(f => new NotOffered(f, $"{door.Principal} still holds {rest.Right}: first that")));
        }
    }

    private static bool IsSetupsOwn(Judgement judgement) =>
        judgement is { Verdict: Verdict.Excess, Right.OfAccount: AccountAspect.Exists, Accepted: null };

    private void Disable(PlannedAccount account, Judgement judgement)
    {
        var change = new DisableAccount(_plan.Domain, account.Name);
        var running = view.Survey.Hosts.SelectMany(h => StillRunning.On(h, _plan, needs, view))
            .FirstOrDefault(s => s.Account == account);
        _steps.TryAdd(
            change.Key, new Removal(TakenOrder.Use, change, [judgement.Id], judgement.Reason, running?.Words, account.At));
    }

    private void InsideTheProduct(PlannedAccount account, Judgement judgement)
    {
        var (inside, grant) = ((InsideProduct)judgement.Right.Confirmable!, judgement.Grant!);
        var change = new UnmapFromProductRole(
            inside.Product, inside.Identity, $"{_plan.Domain}\\{PersonJudge.PrincipalOf(_plan, account, grant)}",
            inside.Lets);
        _steps.TryAdd(
            change.Key,
            new Removal(
                TakenOrder.Right, change, [judgement.Id], judgement.Reason,
                $"a person does it inside the product and confirms it: justright confirm {_plan.Install} {account.Key} \"{inside.Identity}\" --not-there",
                grant.At));
    }

    /// <summary>Takes from a group that goes what it holds itself, whoever is in it, and lets everybody leave it.</summary>
    private void Empty(PlannedGroup group)
    {
        var node = view.Graph.IndexOf(group.Name);
        var holdings = view.HoldingsOf(node);
        var why = $"{group.Name} goes with {_plan.Install}";
        foreach (var held in holdings.All().Where(h => view.Baseline.Of(h.Right).Count == 0))
            // every login has what that role has
            foreach (var path in holdings.PathsOf(held).Where(p =>
                (p.Nodes.Count == 1 || !IsOwnGroup(p.Nodes[1])) && !p.Has(StepMeaning.Everybody) && !p.Has(StepMeaning.Guest)))
                Offer(
                    new Holder(group.Key, group.Name, group.At), node,
                    new Judgement($"{group.Key}/excess/{held.Right.Key}", group.Key, held.Right, Verdict.Excess, why, [path]),
                    path, why);
        foreach (var member in view.Graph.PrincipalOf(node)!.Members.Select(view.Graph.IndexOf))
            Take(
                Taken.By(new RemoveMember(_plan.Domain, group.Name, view.Graph.PrincipalOf(member)!.Name)),
                _cuts.With(member, node), member, group.Key, why, group.At);
    }

    private void Offer(Holder account, int node, Judgement judgement, RightPath path, string why)
    {
        if (judgement.Machine is { } machine && MachineStandIns.WhyStillNeeded(_plan, account.Key, machine, view) is { } still)
        {
            _notOffered.Add(new NotOffered(judgement.Id, $"first give {account.Name} the right another way: {still}"));
            return;
        }

        var (taken, cuts, touched) = Cut(account, node, judgement.Right, path);
        if (taken.Change is null) _notOffered.Add(new NotOffered(judgement.Id, taken.WhyNot));
        else Take(taken, cuts!, touched, judgement.Id, why, judgement.Rule?.At ?? judgement.Grant?.At ?? account.At);
    }

    /// <summary>Makes a removal a step, unless it breaks a need.</summary>
    private void Take(Taken taken, Cuts cuts, int touched, string id, string why, Origin at)
    {
        var change = taken.Change!;
        if (!_steps.ContainsKey(change.Key) && Broken(cuts, touched) is { } broken)
        {
            _notOffered.Add(new NotOffered(id, $"{Doing(change)} would break {broken}"));
            return;
        }

        _cuts = cuts;
        if (taken.Before is { } before)
        {
            Add(before.Change, TakenOrder.List, id, why, before.Blocked, at);
            if (before.Blocked is not null) return; // it would come back
        }

        Add(change, taken.Order, id, why, null, at);
    }

    /// <summary>Makes a change a step, or one with that of the same thing.</summary>
    private void Add(Change change, TakenOrder order, string id, string why, string? blocked, Origin at)
    {
        if (!_steps.TryGetValue(change.Key, out var step))
        {
            step = new Removal(order, change, [], why, blocked, at);
            if (order == TakenOrder.List
                && _steps.FirstOrDefault(s => s.Value.Change.Joined(change) is not null) is { Key: { } key } other)
            {
                _steps.Remove(key);
                step = other.Value with { Change = other.Value.Change.Joined(change)! };
            }
        }

        if (!step.For.Contains(id)) step.For.Add(id);
        _steps[step.Change.Key] = step;
    }

    /// <summary>A step that is found, with the findings that it is for.</summary>
    private sealed record Removal(TakenOrder Order, Change Change, List<string> For, string Why, string? Blocked, Origin At);

    /// <summary>Whose right is taken away: an account of the plan, or a group that goes.</summary>
    private readonly record struct Holder(string Key, string Name, Origin At)
    {
        public static Holder Of(PlannedAccount account) => new(account.Key, account.Name, account.At);
    }

    /// <summary>
    /// Direct entries of an account that should hold the right through a group of the plan: to go once the planned way is
    /// there.
    /// </summary>
    private IEnumerable<(Judgement Judgement, RightPath Path)> OtherWays(Judgement judgement)
    {
        if (judgement.Verdict != Verdict.Met || judgement.Grant is not { Through: not null } grant) return [];
        if (!judgement.AsPlanned && !_toBeGiven.Contains(grant.Id)) return [];
        if (judgement.Right != grant.Right) return [];
        return judgement.Paths
            .Where(p =>
                p.Nodes.Count == 1 && judgement.Right.Take(At(p, 0, view.Graph.NameOf(p.Nodes[0]), false)).Change is not null)
            .Select(p => (judgement, p));
    }

    /// <summary>The first membership of a path, from the account's side, that is ours to cut; or the entry at its end.</summary>
    private (Taken Taken, Cuts? Cuts, int Touched) Cut(Holder account, int node, Right right, RightPath path)
    {
        if (path.Nodes.Count > 1 && view.Graph.PrincipalOf(node)?.PrimaryGroupRid is { } rid && rid != 0
            && view.Graph.SidOf(path.Nodes[1]).Rid == rid)
            return (
                Taken.Not($"{view.Graph.NameOf(path.Nodes[1])} is the account's primary group: give it another primary group first"),
                null, node);

        // Out of the first group, unless that is a group of the plan that the account belongs in: then cut beyond it.
        var at = 0;
        while (at + 1 < path.Nodes.Count && IsOwnGroup(path.Nodes[at + 1])) at++;
        var holder = view.Graph.PrincipalOf(path.Nodes[at])?.Name ?? account.Name;
        if (at + 1 == path.Nodes.Count)
        {
            var hasAnotherHolder = _plan.Grants.Any(g => g.Right == right && g.Account != account.Key);
            var taken = right.Take(At(path, at, holder, hasAnotherHolder));
            var sid = view.Graph.SidOf(path.Nodes[at]);
            var cuts = (taken.Before?.Rights ?? []).Aggregate(_cuts.With(sid, right), (c, along) => c.With(sid, along));
            return (taken, cuts, path.Nodes[at]);
        }

        return view.Graph.PrincipalOf(path.Nodes[at + 1])?.Name is { } outer
            ? (
                Taken.By(new RemoveMember(_plan.Domain, outer, holder)), _cuts.With(path.Nodes[at], path.Nodes[at + 1]),
                path.Nodes[at])
            : (Taken.Not("part of the path is known by its SID only"), null, node);
    }

    private bool IsOwnGroup(int node) =>
        view.Graph.PrincipalOf(node)?.Name is { } name
            && (_plan.Stage == Stage.Retiring ? Going : _plan.Groups)
                .Any(g => string.Equals(g.Name, name, StringComparison.OrdinalIgnoreCase));

    /// <summary>
    /// The need of any account of any install that would no longer be met, or null. A need about to be given its own way counts
    /// as met.
    /// </summary>
    /// <param name="touched">Whose membership or entry the newest cut is: only who is that, or in it, can lose by it.</param>
    private string? Broken(Cuts cuts, int touched) => BrokenNeeds.Of(view, needs, cuts, [touched], (_, need) =>
        !(need.Grant.GivenBy == GivenBy.Setup && need.Stage == Stage.Planned) // setup will give it its own way
        && !(need.Install == _plan.Install && _toBeGiven.Contains(need.Grant.Id)));

    private static string Doing(Change change) => change switch
    {
        RemoveMember c => $"taking {c.Member} out of {c.Group}",
        _ => $"to {change.Words}",
    };

    /// <summary>What is told of a path that ends with the entry of one of its principals.</summary>
    private Taking At(RightPath path, int at, string holder, bool hasAnotherHolder) => new(
        view, _plan.Domain, path, path.Nodes[at], holder, [.. _steps.Values.Select(s => s.Change)], hasAnotherHolder,
            _plan.NewOwners);
}
