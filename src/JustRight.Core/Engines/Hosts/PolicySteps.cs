using JustRight.Core.Changes;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Policies;

namespace JustRight.Core.Engines.Hosts;

/// <summary>
/// A right that a policy governs goes into the policy, with its whole new list, and counts after a refresh: one change of each
/// list, and one refresh of each host, however many rights they are for.
/// </summary>
internal sealed class PolicySteps : SharedSteps
{
    /// <summary>Why the list of a real policy is not changed from here.</summary>
    public const string NotFromHere =
        "the owners of the policy change it: its template is on the domain controllers' file share, to which this release "
        + "does not write";

    private readonly Dictionary<(string Policy, string Constant), (GovernedRight Governed, List<(Giving For,
        string? Why)> Added)> _lists = [];
    private readonly SortedDictionary<string, (List<ExpectedHolder> Expect, List<(Giving For, Right Right)> For)> _refreshes =
        new(StringComparer.OrdinalIgnoreCase);

    /// <summary>The holder of a right is to be put on a policy's list.</summary>
    /// <param name="why">What for, where that is not the need itself.</param>
    public void PutOnList(Giving giving, GovernedRight governed, string constant, string? why)
    {
        var key = (governed.Policy.ToUpperInvariant(), constant);
        if (!_lists.TryGetValue(key, out var list)) _lists[key] = list = (governed, []);
        list.Added.Add((giving, why));
    }

    /// <summary>The host of a right is to read its policies again.</summary>
    public void Refresh(Giving giving, ListRight right)
    {
        if (!_refreshes.TryGetValue(right.Host, out var refresh)) _refreshes[right.Host] = refresh = ([], []);
        var expected = new ExpectedHolder(right.Constant, giving.Principal, true);
        if (!refresh.Expect.Contains(expected)) refresh.Expect.Add(expected);
        refresh.For.Add((giving, right));
    }

    /// <inheritdoc/>
    public override void Finish()
    {
        foreach (var ((policy, constant), (governed, added)) in _lists) ChangeList(policy, constant, governed, added);
        foreach (var (host, (expect, @for)) in _refreshes)
        {
            var loses = @for[0].For.WhoLosesByRefresh(host);
            foreach (var (giving, right) in @for)
                giving.AddBlocked(
                    StepOrder.Refreshes, new RefreshPolicy(host) { Expect = expect }, right.WhyUnread(giving.View) ?? loses,
                    "a policy's right applies only after a policy refresh");
        }
    }

    private static void ChangeList(string policy, string constant, GovernedRight governed, List<(Giving For, string? Why)> added)
    {
        var first = added[0].For;
        var view = first.View;
        var principals = added.Select(a => a.For.Principal).Distinct(StringComparer.OrdinalIgnoreCase).ToList();
        var old = governed.Entries ?? [];
        var change = new ChangePolicyList(
            first.Domain, governed.Policy, governed.Name, constant,
            [.. old, .. principals.Select(p => PolicyEntries.EntryFor(p, view.Graph))], old,
            string.Join(" and ", principals), view.Policies.HostsOf(policy, constant));
        var blocked = governed.Entries is null
            ? $"the list of {constant} in policy {governed.Name} could not be read, and a new list would replace it"
            : added.Select(a => a.For.HolderAbsent).FirstOrDefault(w => w is not null)
                ?? (view.Survey.Simulated ? null : NotFromHere);
        foreach (var (giving, why) in added) giving.AddBlocked(StepOrder.HostsAndBranches, change, blocked, why);
    }
}
