using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.Hosts;

/// <summary>A log-on right on a host.</summary>
public sealed class LogonRight(string host, string type)
    : ListRight(NeedKind.Logon, host, LogonRights.Words(type), $"logon:{type}@{host}")
{
    /// <summary><c>service</c>, <c>batch</c>, <c>interactive</c>, <c>remote</c> or <c>network</c>.</summary>
    public string Type { get; } = type;

    /// <inheritdoc/>
    public override string Constant => LogonRights.Constant(Type);

    /// <inheritdoc/>
    public override RightReach Reach => new(5, $"{Words} stays within its host");

    private protected override string DraftedAs => Type;

    /// <summary>The denying twin outweighs it [MS-LSAD 3.1.1.2.2].</summary>
    public override Gate GateFor(SurveyView view, Holdings holdings)
    {
        var denials = Denials.Of(view, this, holdings);
        if (denials.Count > 0) return Gate.Denied(denials);
        var unseen = WhyDeniedUnread(view) ?? Denials.WhyUnseen(view, this, holdings.Account);
        return unseen is null ? Gate.Open : Gate.Unseen(unseen);
    }

    /// <summary>
    /// The list of those denied is one of its own: another policy may decide on it, and an empty one denies nobody.
    /// </summary>
    public override (GovernedDenial? Governed, string? Unseen) DenialGovernedIn(SurveyView view, Holdings holdings)
    {
        var governance = view.Policies.Of(Host, LogonRights.DenyConstant(Type));
        if (governance.Unseen is { } unseen) return (null, unseen);
        if (governance.Policy is not { } policy) return (null, null);
        if (governance.List is not { Entries: var entries })
            return (new GovernedDenial(policy.Id, policy.Name, null, "its list could not be read"), null);
        if (entries.Any(e => Reaches(view, e, holdings))) return (new GovernedDenial(policy.Id, policy.Name, true, null), null);
        var why = entries.Select(e => WhyMayReach(view, e, holdings)).FirstOrDefault(w => w is not null);
        return (new GovernedDenial(policy.Id, policy.Name, why is null ? false : null, why), null);
    }

    /// <inheritdoc/>
    public override Taken Take(Taking taking) => taking.Path.Has(StepKind.LocalGroup)
        ? Taken.NoStep
        : Off(taking, new RevokeLogonRight(Host, Type, taking.Principal));

    private protected override ListRight On(string host) => new LogonRight(host, Type);

    private protected override Change Grant(string principal) => new GrantLogonRight(Host, Type, principal);

    /// <summary>Why an entry may mean the account though nothing says so, or null when it does not.</summary>
    private string? WhyMayReach(SurveyView view, string entry, Holdings holdings)
    {
        if (PolicyEntries.SidOf(entry, view.Graph, Read(view)) is not { } sid) return $"its entry {entry} is not known here";
        if (view.WhyMembersUnread(Host, sid) is { } unread) return unread;
        if (view.Graph.IndexOf(sid) is >= 0 and var node && view.Graph.UnreadReach.TryGetValue(node, out var group))
            return $"the members of {group} could not be read";
        return view.Graph.HiddenGroupOf(holdings.Account) is { } hidden ? $"it is in {hidden}, which may not be read" : null;
    }

    private string? WhyDeniedUnread(SurveyView view) =>
        view.Host(Host)?.UnreadParts.FirstOrDefault(p =>
            p.Part == HostSnapshot.RightsPart || Same(p.Part, LogonRights.DenyConstant(Type))) is { } part
            ? $"the list of those denied could not be read: {part.Reason}"
            : WhyHoldersUnread(view, LogonRights.DenyConstant(Type)) is { } why
                ? $"a local group is on the list of those denied, and {why}"
                : null;
}
