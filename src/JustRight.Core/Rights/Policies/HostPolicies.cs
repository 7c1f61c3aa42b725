using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Hosts;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights.Policies;

/// <summary>
/// Which policies count for each host of a survey, from the directory's links, options and filters and the policies' templates.
/// Where the directory does not tell, the host's own word counts: which policies it has applied, and which one a list came from.
/// </summary>
public sealed class HostPolicies
{
    private static readonly Guid Apply = new("edacfd8f-ffb3-11d1-b41d-00a0c968f939");
    private readonly Lock _lock = new();
    private readonly MembershipGraph _graph;
    private readonly Dictionary<string, HostSnapshot> _hosts;
    private readonly PolicySnapshot? _snapshot;
    private readonly Dictionary<string, GroupPolicy> _policies;
    private readonly Dictionary<DistinguishedName, PolicyContainer> _containers = [];
    private readonly Dictionary<string, (IReadOnlyList<PolicyStanding> Order, string? Unseen)> _orders = new(
        StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, (IReadOnlyList<PolicyContainer> Chain, string? Unseen)> _chains = new(
        StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, SecurityDescriptor> _descriptors = new(StringComparer.Ordinal);

    /// <summary>Prepares a survey's policies.</summary>
    public HostPolicies(Survey survey, MembershipGraph graph)
    {
        _graph = graph;
        _hosts = survey.Hosts.ToDictionary(h => h.Name, StringComparer.OrdinalIgnoreCase);
        _snapshot = survey.Directory.Policies;
        _policies = (_snapshot?.Policies ?? [])
            .ToDictionary(
                p => p.Id, p => p.Lists is null ? p with { Lists = Brought(survey, p.Id) } : p, StringComparer.OrdinalIgnoreCase);
        foreach (var container in _snapshot?.Containers ?? [])
            if (DistinguishedName.TryParse(container.Dn, out var dn)) _containers[dn] = container;
    }

    /// <summary>The policies by identifier.</summary>
    public IReadOnlyDictionary<string, GroupPolicy> Policies => _policies;

    /// <summary>Whether policies were asked for at all.</summary>
    public bool WereSurveyed => _snapshot is not null;

    /// <summary>
    /// The policies of a host in order, the one of highest precedence first; and why that could not be worked out, or null.
    /// </summary>
    public (IReadOnlyList<PolicyStanding> Order, string? Unseen) OrderOf(string host)
    {
        lock (_lock)
        {
            if (_orders.TryGetValue(host, out var known)) return known;
            return _orders[host] = Work(host);
        }
    }

    /// <summary>Which policy's list decides on a right of a host.</summary>
    /// <param name="constant">Such as <c>SeBatchLogonRight</c>.</param>
    public Governance Of(string host, string constant)
    {
        var told = Told(host, constant);
        var (order, unseen) = OrderOf(host);
        if (unseen is not null) return told ?? new Governance(null, null, null, unseen);
        var worked = Governance.Of(order, _policies, constant);
        return worked.Unseen is null ? worked : told ?? worked;
    }

    /// <summary>
    /// The other hosts of the survey on which the same policy decides on the same right: a change of its list changes them too.
    /// </summary>
    public IReadOnlyList<string> HostsOf(string policy, string constant) =>
        [.. _hosts.Keys.Where(h => string.Equals(Of(h, constant).Policy?.Id, policy, StringComparison.OrdinalIgnoreCase)).Order(
            StringComparer.OrdinalIgnoreCase)];

    /// <summary>The lists of a template as a host read them: the newest reading counts.</summary>
    private static IReadOnlyList<PolicyList>? Brought(Survey survey, string policy) =>
        survey.Hosts.OrderByDescending(h => h.ReadAt).SelectMany(h => h.Policies ?? [])
            .FirstOrDefault(p => p.Lists is not null && string.Equals(p.Id, policy, StringComparison.OrdinalIgnoreCase))?.Lists;

    /// <summary>What the host itself says of the list's source; null when it does not say.</summary>
    private Governance? Told(string host, string constant)
    {
        if (_hosts.GetValueOrDefault(host) is not { Unread: null, Policies: { } applied } facts
            || facts.UnreadParts.Any(p => p.Part == HostSnapshot.SourcesPart))
            return null;
        if (facts.LogonLists.FirstOrDefault(l =>
            string.Equals(l.Constant, constant, StringComparison.OrdinalIgnoreCase)) is not { } told)
            return null;
        if (told.Policy is not { } id) return Governance.None;
        var policy = _policies.GetValueOrDefault(id)
            ?? new GroupPolicy(
                id, applied.FirstOrDefault(p => string.Equals(p.Id, id, StringComparison.OrdinalIgnoreCase))?.Name ?? id, false,
                null, null);
        return new Governance(
            policy, policy.Lists?.FirstOrDefault(l => string.Equals(l.Constant, constant, StringComparison.OrdinalIgnoreCase)),
            null, null);
    }

    private (IReadOnlyList<PolicyStanding> Order, string? Unseen) Work(string host)
    {
        if (_snapshot is null) return ([], "the policies of the domain were not surveyed");
        if (_snapshot.Unread is { } unread) return ([], $"the policies of the domain could not be read: {unread}");
        var node = _graph.IndexOf(ServiceIdentity.ComputerAccount(host));
        if (node < 0 || _graph.PrincipalOf(node) is not { } computer)
            return ([], $"the computer account of {host} was not found in the directory");
        var (above, hidden) = ChainOf(AccessTree.ParentDn(computer.Dn) ?? "");
        if (hidden is not null) return ([], hidden);
        var applied = _hosts.GetValueOrDefault(host)?.Policies;
        var (site, siteUnseen) = SiteOf(above, applied);
        var token = AccessTokens.Of(_graph, node);
        return (PolicyOrder.Of(site is null ? above : [site, .. above], _policies, p => Filter(p, token, applied)), siteUnseen);
    }

    /// <summary>
    /// The containers above the computers of a branch from the domain down; and why their links are not known, or null. Many
    /// computers lie in one branch.
    /// </summary>
    private (IReadOnlyList<PolicyContainer> Chain, string? Unseen) ChainOf(string branch)
    {
        if (_chains.TryGetValue(branch, out var known)) return known;
        return _chains[branch] = Walk();

        (IReadOnlyList<PolicyContainer>, string?) Walk()
        {
            var chain = new List<PolicyContainer>();
            for (var dn = DistinguishedName.TryParse(branch, out var lowest) ? lowest : null; dn is not null; dn = dn.Parent)
            {
                if (!_containers.TryGetValue(dn, out var container))
                {
                    if (string.Equals(dn.Parts[0].Type, "OU", StringComparison.OrdinalIgnoreCase))
                        return ([], $"{dn}, the container of the computer account, is hidden from the reader");
                    continue; // plain containers carry no links
                }

                if (container.Unread is { } why) return ([], $"the links of {container.Dn} could not be read: {why}");
                PolicyLink.Read(container.Links, out var broken);
                if (broken.Count > 0) return ([], $"a link of {container.Dn} is not understood: {broken[0]}");
                chain.Insert(0, container);
            }

            return (chain, null);
        }
    }

    /// <summary>
    /// Policies linked at the topology's site of a host: known from what the host has applied, or to be none when no site has
    /// links.
    /// </summary>
    private (PolicyContainer? Site, string? Unseen) SiteOf(
        IReadOnlyList<PolicyContainer> chain, IReadOnlyList<AppliedPolicy>? applied)
    {
        if (_snapshot!.Sites.Count == 0 && _snapshot.SitesUnread is null) return (null, null);
        if (applied is null)
            return (
                null,
                _snapshot.SitesUnread is { } why
                    ? $"the sites could not be read: {why}"
                    : "policies are linked at sites, and the site of the host is not known");
        var linked = chain.SelectMany(c => PolicyLink.Read(c.Links, out _)).Select(l => l.Policy)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        var beyond = applied.Where(a => !linked.Contains(a.Id)).Select(a => a.Id).ToHashSet(StringComparer.OrdinalIgnoreCase);
        if (beyond.Count == 0) return (null, null);
        var site = _snapshot.Sites.FirstOrDefault(s => beyond.IsSubsetOf(PolicyLink.Read(s.Links, out _).Select(l => l.Policy)));
        return site is null
            ? (
                null,
                $"the host has applied {string.Join(", ", beyond.Order(StringComparer.Ordinal))}, and no link that was read leads there")
            : (site, null);
    }

    /// <summary>
    /// Whether the computer may read and apply the policy [MS-GPOL 3.2.5.1.6], and passes its query [MS-GPOL 3.2.5.1.7].
    /// </summary>
    private PolicyFilter Filter(GroupPolicy policy, AccessToken token, IReadOnlyList<AppliedPolicy>? applied)
    {
        // A host says which policies it has applied; one that it has is certain, one that it has not may have come since.
        var hasIt = applied?.Any(a => string.Equals(a.Id, policy.Id, StringComparison.OrdinalIgnoreCase));
        if (policy.AccessList is null)
            return hasIt == true ? new PolicyFilter(true, "") : new PolicyFilter(null, "its access list could not be read");
        if (!_descriptors.TryGetValue(policy.AccessList, out var descriptor))
            _descriptors[policy.AccessList] = descriptor = DescriptorText.Read(policy.AccessList);
        foreach (var (question, words) in new[] { (AccessQuestion.Simple(AccessRights.ReadProperty), "read"), (
            new AccessQuestion(AccessRights.ControlAccess, null, null, Apply), "apply") })
        {
            var decision = AccessCheck.Judge(descriptor, token, question);
            if (decision.Answer == AccessAnswer.No)
                return new PolicyFilter(
                    false,
                    $"the computer may not {words} it: {(decision.Reason == AccessReason.Denied ? "an entry denies it" : "no entry allows it")}");
            if (decision.Answer == AccessAnswer.Unknown)
                return hasIt == true
                    ? new PolicyFilter(true, "")
                    : new PolicyFilter(null, $"whether the computer may {words} it is not known");
        }

        if (policy.QueryFilter is null || hasIt == true) return new PolicyFilter(true, "");
        return hasIt == false
            ? new PolicyFilter(false, "its WMI filter excludes the host: the host has not applied it")
            : new PolicyFilter(null, $"its query {policy.QueryFilter} is evaluated on the host, which did not report it");
    }
}
