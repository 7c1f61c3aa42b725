using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.Hosts;

/// <summary>A right that stands on a list of user rights of its host, which a group policy may replace.</summary>
public abstract class ListRight : HostRight
{
    private protected ListRight(NeedKind kind, string host, string words, string key)
        : base(kind, host, words, key)
    {
    }

    /// <summary>The constant of its list.</summary>
    public abstract string Constant { get; }

    /// <inheritdoc/>
    public sealed override string OnList => Constant;

    /// <inheritdoc/>
    public sealed override string? WhyUnread(SurveyView view) =>
        view.WhyHostUnread(Host, Constant, HostSnapshot.RightsPart, HostSnapshot.LocalGroupsPart)
        ?? WhyHoldersUnread(view, Constant);

    /// <inheritdoc/>
    public sealed override (GovernedRight? Governed, string? Unseen) GovernedIn(SurveyView view, Holdings? holdings)
    {
        var governance = view.Policies.Of(Host, Constant);
        if (governance.Unseen is { } why) return (null, why);
        if (governance.Policy is not { } policy) return (null, null);
        bool? gives = governance.List is null
            ? null
            : holdings is not null && governance.List.Entries.Any(e => Reaches(view, e, holdings));
        return (
            new GovernedRight(policy.Id, policy.Name, governance.Standing?.Container, governance.List?.Entries, gives), null);
    }

    /// <inheritdoc/>
    public sealed override void Give(Giving giving)
    {
        if (ComesAlong(giving) is { } group)
        {
            giving.ComesWith(group);
            return;
        }

        if (WhyNotGiven(giving) is { } not)
        {
            giving.LeaveToPerson(not);
            return;
        }

        var why = CautionOf(giving) is { } caution ? $"{giving.Why}; {caution}" : null;
        if (giving.Governed is not { } governed)
        {
            giving.Add(StepOrder.HostsAndBranches, Grant(giving.Principal), why);
            return;
        }

        var shared = giving.Shared<PolicySteps>();
        if (governed.Gives != true) shared.PutOnList(giving, governed, Constant, why);
        shared.Refresh(giving, this);
    }

    /// <summary>Why it is not given here by a step, but by a person's decision; null when it is.</summary>
    private protected virtual string? WhyNotGiven(Giving giving) => null;

    /// <summary>What somebody should know before it is given; null for nothing.</summary>
    private protected virtual string? CautionOf(Giving giving) => null;

    /// <inheritdoc/>
    public sealed override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(Kind!.Value, DraftedAs, PlaceKind.Host, Host);

    /// <summary>
    /// Why it is not known who comes through the holders of a list: one may be a local group that was not read.
    /// </summary>
    private protected string? WhyHoldersUnread(SurveyView view, string constant) =>
        view.IsAllReadOf(Host) ? null : view.Host(Host)?.LogonLists.FirstOrDefault(l => Same(l.Constant, constant))?.Holders
            .Select(h => view.WhyMembersUnread(Host, h)).FirstOrDefault(w => w is not null);

    /// <summary>The same right on another host.</summary>
    private protected abstract ListRight On(string host);

    /// <summary>
    /// Takes a principal off the host's list; and before that off the list of the policy that would put it there again, on all
    /// its hosts.
    /// </summary>
    private protected Taken Off(Taking taking, Change ownList)
    {
        var view = taking.View;
        var governance = view.Policies.Of(Host, Constant);
        if (governance is not { Policy: { } policy, List.Entries: { } entries }) return Taken.By(ownList);
        var left = entries.Where(e => PolicyEntries.SidOf(e, view.Graph, Read(view)) != taking.Sid).ToList();
        if (left.Count == entries.Count) return Taken.By(ownList);
        var hosts = view.Policies.HostsOf(policy.Id, Constant);
        return Taken.By(ownList) with
        {
            Before = new TakenBefore(
                new ChangePolicyList(taking.Domain, policy.Id, policy.Name, Constant, left, entries, taking.Principal, hosts),
                view.Survey.Simulated ? null : PolicySteps.NotFromHere, [.. hosts.Select(On)]),
        };
    }

    /// <summary>What a sheet calls it.</summary>
    private protected abstract string DraftedAs { get; }

    /// <summary>The change that puts a principal on the host's own list.</summary>
    private protected abstract Change Grant(string principal);

    /// <summary>
    /// The local group of the same host that the account is given and with which the right comes: then it is not given a second
    /// time. Null when there is none.
    /// </summary>
    private LocalGroupRight? ComesAlong(Giving giving)
    {
        var view = giving.View;
        if (giving.State != GivenState.Missing || view.Host(Host) is not { } host) return null;
        var holders = giving.Governed?.Entries is { } entries
            ? [.. entries.Select(e => PolicyEntries.SidOf(e, view.Graph, host)).OfType<Sid>()]
            : host.LogonLists.FirstOrDefault(l => Same(l.Constant, Constant))?.Holders ?? [];
        return giving.BesideOn(host.Name).OfType<LocalGroupRight>().FirstOrDefault(g =>
            host.LocalGroups.FirstOrDefault(l => Same(l.Name, g.Group)) is { } group && holders.Contains(group.Sid));
    }

    /// <summary>
    /// Whether an entry of a policy's list means the account: itself, a group it is in, or a local group of the host that holds
    /// either.
    /// </summary>
    private protected bool Reaches(SurveyView view, string entry, Holdings holdings)
    {
        if (PolicyEntries.SidOf(entry, view.Graph, Read(view)) is not { } sid) return false;
        return holdings.Reaches(sid)
            || view.Host(Host)?.LocalGroups.FirstOrDefault(g => g.Sid == sid) is { } group && group.Members.Any(holdings.Reaches);
    }
}
