using JustRight.Contracts;
using JustRight.Core.Engines;
using JustRight.Core.Estates;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;
using JustRight.Service.Data.Storage;
using SurveyView = JustRight.Core.Rights.SurveyView;

namespace JustRight.Service.Features.Estates;

/// <summary>Policies for the wire.</summary>
internal static class PolicyViews
{
    /// <summary>Why no policy was read; null when they were.</summary>
    public static string? WhyNone(SurveyView? view) => view is null ? "The estate was not surveyed yet."
        : !view.Policies.WereSurveyed ? "Policies were not surveyed."
        : view.Survey.Directory.Policies?.Unread;

    /// <summary>All policies, each with where it counts.</summary>
    public static IReadOnlyList<PolicySummary> All(Estate estate, SurveyView view)
    {
        var links = LinksOf(view).ToLookup(l => l.Policy, l => l.Link.Dn, StringComparer.OrdinalIgnoreCase);
        var hosts = estate.Hosts
            .SelectMany(h => view.Policies.OrderOf(h.Name).Order.Where(p => p.Fate == LinkFate.Applies).Select(p => p.Policy)
                .Distinct(StringComparer.OrdinalIgnoreCase).Select(p => (Policy: p, Host: h.Name)))
            .ToLookup(p => p.Policy, p => p.Host, StringComparer.OrdinalIgnoreCase);
        return [.. view.Policies.Policies.Values.Select(p => new PolicySummary(
            p.Id, p.Name, [.. links[p.Id]], [.. hosts[p.Id]], p.Lists?.Count, p.Groups?.Count,
            p.Lists is null ? p.ListsUnread ?? "its template was not read" : p.GroupsUnread))];
    }

    /// <summary>One policy.</summary>
    public static PolicyView Of(Estate estate, GroupPolicy policy, SurveyView view) => new(
        estate.Name, policy.Id, policy.Name, estate.IsSimulated, view.Survey.Directory.ReadAt, policy.ComputerHalfDisabled,
        policy.QueryFilter,
        [.. LinksOf(view).Where(l => Same(l.Policy, policy.Id)).Select(l => l.Link)],
        [.. estate.Hosts.SelectMany(h => view.Policies.OrderOf(h.Name).Order.Where(p => Same(p.Policy, policy.Id)).Take(1)
            .Select(p => new PolicyHostView(h.Name, p.Fate.Word(), p.Why)))],
        [.. (policy.Lists ?? []).Select(l => Right(policy, l, view))],
        policy.Lists is null ? policy.ListsUnread ?? "its template was not read" : null,
        [.. (policy.Groups ?? []).Select(g => Rule(g, view))], policy.GroupsUnread);

    private static PolicyRightView Right(GroupPolicy policy, PolicyList list, SurveyView view)
    {
        var right = AllEngines.OnList(list.Constant, "");
        return new PolicyRightView(
            list.Constant, right?.Right.Words ?? list.Constant,
            right?.Denies ?? list.Constant.StartsWith("SeDeny", StringComparison.OrdinalIgnoreCase),
            [.. list.Entries.Select(e => PolicyEntries.Words(e, view.Graph))],
            view.Policies.HostsOf(policy.Id, list.Constant));
    }

    private static PolicyGroupRuleView Rule(PolicyGroupRule rule, SurveyView view) => new(
        rule.Act.Word(), PolicyEntries.Words(rule.Name, view.Graph),
        [.. rule.Entries.Select(e => PolicyEntries.Words(e, view.Graph))],
        [.. rule.Removed.Select(e => PolicyEntries.Words(e, view.Graph))], rule.IsTargeted);

    private static IEnumerable<(string Policy, PolicyLinkView Link)> LinksOf(SurveyView view) =>
        (view.Survey.Directory.Policies?.Containers ?? []).Concat(view.Survey.Directory.Policies?.Sites ?? [])
            .SelectMany(c => PolicyLink.Read(c.Links, out _).Select((l, i) =>
                (l.Policy, new PolicyLinkView(c.Dn, i + 1, l.IsEnforced, l.IsDisabled))));

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
