using JustRight.Core.Changes;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Retirement;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Worklists.Retirement;

/// <summary>
/// What is done with the accounts and groups of an install that is being retired. Accounts are disabled before anything is
/// taken from them: that alone ends their use, and is the quickest to take back. Removed for good is only what we made, what
/// nobody else uses, what has waited long enough, and what holds nothing any more.
/// </summary>
internal sealed class RetirementSteps(InstallFit fit, SurveyView view, NeedsIndex needs, RetirementPast past)
{
    private readonly Plan _plan = fit.Plan;
    private readonly List<NotOffered> _notOffered = [];

    /// <summary>
    /// The groups of the plan that go along: made for it, used by no other install, and with nobody in them whom the plan does
    /// not know.
    /// </summary>
    public IReadOnlyList<PlannedGroup> Going { get; } = GoingOf(fit.Plan, view, needs);

    /// <summary>The removals with the steps of accounts and groups before and after them.</summary>
    public (IReadOnlyList<Step> Steps, IReadOnlyList<NotOffered> NotOffered) Around(IReadOnlyList<Step> removals)
    {
        var running = Running();
        var first = new List<Step>();
        var last = new List<Step>();
        foreach (var account in fit.Accounts) Account(account, running.GetValueOrDefault(account.Account.Key), first, last);
        foreach (var group in _plan.Groups) Group(group, last);
        var between = removals.Select(s =>
            s with { Blocked = s.Blocked ?? running.FirstOrDefault(r => Concerns(s, r.Key)).Value });
        return ([.. first.Concat(between).Concat(last).Select((s, i) => s with { Number = i + 1 })], _notOffered);
    }

    private static List<PlannedGroup> GoingOf(Plan plan, SurveyView view, NeedsIndex needs)
    {
        var known = plan.Accounts.Select(a => a.Name).Concat(plan.Groups.Select(g => g.Name))
            .Concat(plan.SignIn?.Memberships.Where(m => m.Placed).Select(m => m.Member) ?? [])
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        return [.. plan.Groups.Where(g =>
            !g.Existing && !needs.UsersOf(g.Name).Any() && Found(view, g.Name) is { } found
                && found.Members.All(m => known.Contains(view.Graph.PrincipalOf(view.Graph.IndexOf(m))?.Name ?? "")))];
    }

    /// <summary>By account key, why nothing may be taken from it yet.</summary>
    private Dictionary<string, string> Running() =>
        view.Survey.Hosts.Where(h => h.Unread is null).SelectMany(h => StillRunning.On(h, _plan, needs, view))
            .DistinctBy(s => s.Account.Key).ToDictionary(s => s.Account.Key, s => s.Words);

    private bool Concerns(Step step, string account) =>
        step.For.Any(f => f.StartsWith($"{account}/", StringComparison.Ordinal))
        || step.Change is RemoveMember leave
            && string.Equals(leave.Member, _plan.Accounts.First(a => a.Key == account).Name, StringComparison.OrdinalIgnoreCase)
        || _plan.Groups.Any(g =>
            step.For.Any(f => f == g.Key || f.StartsWith($"{g.Key}/", StringComparison.Ordinal)) && g.Members.Contains(account));

    private void Account(AccountFit account, string? running, List<Step> first, List<Step> last)
    {
        var planned = account.Account;
        if (Found(view, planned.Name) is not { Kind: not PrincipalKind.Group } found) return;
        var id = $"{planned.Key}/account:exists";
        if (RetiredAccounts.WhyKept(needs, planned) is { } kept)
        {
            _notOffered.Add(new NotOffered(id, kept));
            return;
        }

        var disabled = found.State.HasFlag(AccountState.Disabled);
        var since = disabled && past.DisabledAt.TryGetValue(planned.Name, out var at) ? at : (DateTimeOffset?)null;
        if (since is null)
            first.Add(new Step(
                0, new DisableAccount(_plan.Domain, planned.Name), [id],
                disabled ? "was disabled outside Just Right; the waiting period starts now" : "nothing uses it any more", running,
                planned.At));
        if (!CreationNote.IsOurs(found.Note))
            _notOffered.Add(new NotOffered(
                id,
                $"deleting {planned.Name}: it does not carry our note; whoever created it deletes it after the waiting period"));
        else
            last.Add(new Step(
                0, new DeleteAccount(_plan.Domain, planned.Name, found.Dn) { Note = found.Note }, [id],
                "it is not needed any more", running ?? WhyWait(since, past.RemoveAfter) ?? Rest(account), planned.At));
    }

    private string? WhyWait(DateTimeOffset? since, TimeSpan wait) =>
        since is { } start ? past.WhyNotYet(start) : $"once it has been disabled for {wait.TotalDays:0} days";

    /// <summary>What an account still holds: deleted now, it would leave a SID there that nobody knows.</summary>
    private static string? Rest(AccountFit account)
    {
        var rest = account.Judgements.FirstOrDefault(j => j.Verdict is Verdict.Excess or Verdict.Forbidden)
            ?? account.Judgements.FirstOrDefault(j => j.Verdict == Verdict.Unseen);
        return rest is null ? null
            : rest.Verdict == Verdict.Unseen ? WhyUnseen(rest.Right, rest.Reason)
            : $"it still holds {rest.Right}";
    }

    private static string WhyUnseen(Right right, string why) => $"whether it still holds {right} is unseen: {why}";

    private void Group(PlannedGroup group, List<Step> last)
    {
        if (Found(view, group.Name) is not { } found || group.Existing) return;
        if (!Going.Contains(group))
        {
            var users = needs.UsersOf(group.Name).Distinct().ToList();
            _notOffered.Add(new NotOffered(
                group.Key,
                users.Count > 0
                    ? $"kept: {string.Join(" and ", users)} {(users.Count == 1 ? "uses" : "use")} {group.Name}"
                    : $"kept: {group.Name} has members that are in no install's plan; their owner decides"));
        }
        else if (!CreationNote.IsOurs(found.Note))
        {
            _notOffered.Add(new NotOffered(
                group.Key, $"deleting {group.Name}: it does not carry our note; whoever created it deletes it"));
        }
        else
        {
            var node = view.Graph.IndexOf(group.Name);
            var blocked = past.WhyNotYet(past.Since) ?? (found.Members.Count > 0 ? "its members leave first" : null)
                ?? (view.HoldingsOf(node).All().FirstOrDefault(h =>
                    view.Baseline.Of(h.Right).Count == 0) is { } rest ? $"it still holds {rest.Right}" : null)
                ?? _plan.Grants.Where(g => g.Through == group.Key)
                    .Select(g => g.Right.WhyUnread(view) is { } why ? WhyUnseen(g.Right, why) : null)
                    .FirstOrDefault(w => w is not null);
            last.Add(new Step(
                0, new DeleteGroup(_plan.Domain, group.Name, found.Dn) { Note = found.Note }, [group.Key],
                "it is not needed any more", blocked, group.At));
        }
    }

    private static DirectoryPrincipal? Found(SurveyView view, string name) =>
        view.Graph.IndexOf(name) is >= 0 and var node ? view.Graph.PrincipalOf(node) : null;
}
