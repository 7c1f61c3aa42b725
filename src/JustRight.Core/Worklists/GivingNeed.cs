using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Worklists;

/// <summary>What a right that an account of a plan lacks is told, and where its steps go.</summary>
/// <param name="needs">What all installs of the estate need.</param>
/// <param name="grants">All that the account needs, by the host that it is on; empty for no host.</param>
/// <param name="shared">What kinds gather over the whole worklist.</param>
internal sealed class GivingNeed(
    Plan plan, SurveyView view, NeedsIndex needs, PlannedAccount account, ILookup<string, PlannedGrant> grants,
    Judgement judgement, StepList steps, List<NotOffered> left, Dictionary<Type, SharedSteps> shared) : Giving
{
    private readonly PlannedGrant _grant = judgement.Grant!;

    /// <inheritdoc/>
    public override SurveyView View => view;

    /// <inheritdoc/>
    public override string Domain => plan.Domain;

    /// <inheritdoc/>
    public override string Install => plan.Install;

    /// <inheritdoc/>
    public override GivenAccount Account { get; } = new(account.Key, account.Name, account.Dn, account.Purpose);

    /// <inheritdoc/>
    public override string Holder => _grant.Through is null ? account.Name : plan.Groups.First(g => g.Key == _grant.Through).Name;

    /// <inheritdoc/>
    public override GivenState State => judgement.Verdict switch
    {
        Verdict.Met => GivenState.HeldAnotherWay,
        Verdict.Missing => GivenState.Missing,
        Verdict.Unseen => GivenState.Unseen,
        Verdict.Pending => GivenState.Pending,
        Verdict.Excess or Verdict.Forbidden or Verdict.Done =>
            throw new InvalidOperationException($"{judgement.Id} is {judgement.Verdict}, and not to be given."),
    };

    /// <inheritdoc/>
    public override GovernedRight? Governed => judgement.Governed;

    /// <inheritdoc/>
    public override string Why => _grant.Why ?? account.Purpose;

    /// <inheritdoc/>
    public override string? Unread => judgement.Verdict == Verdict.Unseen ? judgement.Reason : _grant.Right.WhyUnread(view);

    /// <inheritdoc/>
    public override string? Blocked => Unread ?? (judgement.Absent is null ? HolderAbsent : judgement.Reason);

    /// <inheritdoc/>
    public override string? HolderAbsent => plan.Groups.FirstOrDefault(g => g.Key == _grant.Through) is { Existing: true } group
        && view.Membership(group.Name).AbsentIn(view) is { } absent ? $"there is no {absent.What}" : null;

    /// <inheritdoc/>
    public override IEnumerable<Right> BesideOn(string host) => grants[host].Select(g => g.Right);

    /// <summary>Membership through an inner group of the plan is given by that inner group.</summary>
    public override IReadOnlyList<Entrant> WhoEnters(string group)
    {
        var target = plan.Groups.FirstOrDefault(g => string.Equals(g.Name, group, StringComparison.OrdinalIgnoreCase));
        if (target is null || target.Members.Contains(account.Key)) return [new Entrant(account.Name, null, null)];
        return
        [
            .. plan.Groups.Where(g => target.Members.Contains(g.Key) && Gathers(g, account.Key))
                .Select(g => new Entrant(g.Name, target.Purpose, target.At)),
        ];
    }

    /// <inheritdoc/>
    public override IEnumerable<Reached> WhoIsIn(string holder)
    {
        var names = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var seen = new HashSet<int>();
        if (view.Graph.IndexOf(holder) is >= 0 and var node) Walk(node);
        if (plan.Groups.FirstOrDefault(g => Same(g.Name, holder)) is { } group)
            names.UnionWith(plan.Accounts.Where(a => Gathers(group, a.Key)).Select(a => a.Name));
        else if (plan.Accounts.Any(a => Same(a.Name, holder))) names.Add(holder);
        return names.Order(StringComparer.OrdinalIgnoreCase).Select(n => new Reached(
            n, needs.IsPerson(n), !needs.UsersOf(n).Any(), [.. needs.Of(n).Select(s => (s.Install, s.Grant.Right))]));

        void Walk(int at)
        {
            if (!seen.Add(at) || view.Graph.PrincipalOf(at) is not { } principal) return;
            if (principal.Kind != PrincipalKind.Group) names.Add(principal.Name);
            foreach (var member in principal.Members)
                if (view.Graph.IndexOf(member) is >= 0 and var next) Walk(next);
        }
    }

    /// <inheritdoc/>
    public override string? WhoIsDeniedBy(string group, string entrant)
    {
        if (view.Graph.IndexOf(group) is not (>= 0 and var node)) return null;
        var denied = view.Graph.Closure(node).Append(node).Select(view.Graph.SidOf).Where(view.Index.IsDenied).ToHashSet();
        if (denied.Count == 0) return null;
        foreach (var one in WhoIsIn(entrant))
            foreach (var (install, right) in one.Needs)
                if (view.Index.DeniedFor(right).FirstOrDefault(t => denied.Contains(t.Holder)) is { } tail)
                    return $"it would deny {right} to {one.Name}, which {install} needs: "
                        + $"{view.Graph.NameOf(view.Graph.IndexOf(tail.Holder))} is denied it there";
        return null;
    }

    /// <inheritdoc/>
    public override string? WhoLosesByRefresh(string host)
    {
        foreach (var name in needs.Accounts)
        {
            var there = needs.Of(name).Where(n =>
                n.Install != plan.Install && string.Equals(n.Grant.Right.OnHost, host, StringComparison.OrdinalIgnoreCase))
                    .ToList();
            if (there.Count == 0 || view.Graph.IndexOf(name) is not (>= 0 and var node)) continue;
            var holdings = view.HoldingsOf(node);
            if (there.FirstOrDefault(n => n.Grant.Right.GovernedIn(view, holdings).Governed is { Gives: false }
                && BrokenNeeds.IsMet(view, holdings, n.Grant.Right)) is { } need)
                return $"the refresh would take {need.Grant.Right} from {name}, which {need.Install} needs: "
                    + $"first put it on the policy's list (justright grant {need.Install})";
        }

        return null;
    }

    /// <inheritdoc/>
    public override void AddBlocked(StepOrder order, Change change, string? blocked, string? why = null, Origin? at = null) =>
        steps.Add(order, change, _grant.Id, why ?? Why, blocked, at ?? _grant.At);

    /// <inheritdoc/>
    public override void ComesWith(Right other) =>
        steps.ComesWith(_grant.Id, grants[other.OnHost ?? ""].First(g => g.Right == other).Id);

    /// <inheritdoc/>
    public override void LeaveToPerson(string why) => left.Add(new NotOffered(judgement.Id, why));

    /// <inheritdoc/>
    public override T Shared<T>()
    {
        if (shared.TryGetValue(typeof(T), out var known)) return (T)known;
        var made = new T();
        shared[typeof(T)] = made;
        return made;
    }

    /// <summary>Whether an account is in a group of the plan, directly or through groups in it.</summary>
    private bool Gathers(PlannedGroup group, string member) => group.Members.Contains(member)
        || plan.Groups.Any(g => group.Members.Contains(g.Key) && Gathers(g, member));

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
