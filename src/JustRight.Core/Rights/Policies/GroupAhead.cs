using JustRight.Core.Directory;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights.Policies;

/// <summary>
/// Who is in a local group of a host after the next policy refresh. Preference items come first, those of the policy of lowest
/// precedence before the others, each on what the one before it left; then what the templates restrict, of which the policy of
/// highest precedence decides [MS-GPPREF, Local Users and Groups; MS-GPSB, Group Membership]. Written from knowledge, and not
/// checked against the text.
/// </summary>
internal sealed class GroupAhead
{
    private readonly HostSnapshot _host;
    private readonly LocalGroup _group;
    private readonly MembershipGraph _graph;
    private readonly HashSet<Sid> _members;

    private GroupAhead(HostSnapshot host, LocalGroup group, MembershipGraph graph) =>
        (_host, _group, _graph, _members) = (host, group, graph, [.. group.Members]);

    /// <summary>Who is in it then.</summary>
    public IReadOnlySet<Sid> Members => _members;

    /// <summary>The policy that decides, the last that says who is in it; null when none does.</summary>
    public PolicyStanding? Decides { get; private set; }

    /// <summary>Why it is not known who is in it then, or null.</summary>
    public string? Doubt { get; private set; }

    /// <summary>Works it out.</summary>
    /// <param name="group">The group as it is now.</param>
    /// <param name="order">The host's policies, the one of highest precedence first.</param>
    public static GroupAhead Of(
        HostSnapshot host, LocalGroup group, IReadOnlyList<PolicyStanding> order,
        IReadOnlyDictionary<string, GroupPolicy> policies, MembershipGraph graph)
    {
        var ahead = new GroupAhead(host, group, graph);
        var counting = order.Where(s => s.Fate is LinkFate.Applies or LinkFate.Unseen)
            .Select(s => (s, policies[s.Policy])).ToList();
        foreach (var (standing, policy) in Enumerable.Reverse(counting))
        {
            if (policy.Groups is null)
                ahead.Doubt ??= $"what policy {policy.Name} does to local groups could not be read"
                    + (policy.GroupsUnread is { } why ? $": {why}" : "");
            foreach (var rule in policy.Groups ?? []) ahead.Prefer(standing, rule);
        }

        ahead.Restrict(counting);
        return ahead;
    }

    private void Prefer(PolicyStanding standing, PolicyGroupRule rule)
    {
        if (rule.Act is PolicyGroupAct.Members or PolicyGroupAct.MemberOf || !Means(rule.Name)) return;
        if (!Settles(standing)) return;
        if (rule.IsTargeted) Doubt ??= $"an item of policy {standing.Name} is for some hosts alone, which only the host knows";
        switch (rule.Act)
        {
            case PolicyGroupAct.Create:
                return; // it is there
            case PolicyGroupAct.Delete:
            case PolicyGroupAct.Replace:
                _members.Clear();
                break;
            case PolicyGroupAct.Update:
                if (rule.ClearsUsers || rule.ClearsGroups) Clear(rule);
                break;
            case PolicyGroupAct.Members or PolicyGroupAct.MemberOf:
                return;
        }

        foreach (var entry in rule.Removed)
            if (SidOf(entry) is { } sid) _members.Remove(sid);
        if (rule.Act != PolicyGroupAct.Delete) Add(rule.Entries);
        Decides = standing;
    }

    private void Clear(PolicyGroupRule rule)
    {
        foreach (var member in _members.ToList())
        {
            if (rule is { ClearsUsers: true, ClearsGroups: true }) _members.Remove(member);
            else if (IsGroup(member) is not { } isGroup)
                Doubt ??= $"whether {member} is a user or a group is not known, and a policy takes away one of the two";
            else if (isGroup ? rule.ClearsGroups : rule.ClearsUsers) _members.Remove(member);
        }
    }

    private void Restrict(IReadOnlyList<(PolicyStanding Standing, GroupPolicy Policy)> counting)
    {
        var whole = counting.Select(c => (c.Standing, Rule: c.Policy.Groups?.FirstOrDefault(r =>
            r.Act == PolicyGroupAct.Members && Means(r.Name)))).FirstOrDefault(c => c.Rule is not null);
        if (whole.Rule is { } rule && Settles(whole.Standing))
        {
            _members.Clear();
            Add(rule.Entries);
            Decides = whole.Standing;
        }

        // Of each principal the policy of highest precedence says where it is put.
        var told = new HashSet<Sid>();
        foreach (var (standing, policy) in counting)
        {
            foreach (var put in policy.Groups?.Where(r => r.Act == PolicyGroupAct.MemberOf) ?? [])
            {
                if (SidOf(put.Name) is not { } principal)
                {
                    if (put.Entries.Any(Means)) Doubt ??= $"policy {standing.Name} puts {put.Name} in, which is not known here";
                    continue;
                }

                if (!told.Add(principal) || !put.Entries.Any(Means) || _members.Contains(principal)) continue;
                if (!Settles(standing)) continue;
                if (whole.Rule is not null)
                    Doubt ??= $"policy {whole.Standing.Name} says who is in it, and policy {standing.Name} puts {put.Name} in: "
                        + "which counts is not published";
                _members.Add(principal);
                Decides ??= standing;
            }
        }
    }

    private void Add(IReadOnlyList<string> entries)
    {
        foreach (var entry in entries)
        {
            if (SidOf(entry) is { } sid) _members.Add(sid);
            else Doubt ??= $"a policy puts {entry} in, which is not known here";
        }
    }

    /// <summary>Whether a policy applies; where that is not known, nothing is known after it.</summary>
    private bool Settles(PolicyStanding standing)
    {
        if (standing.Fate == LinkFate.Applies) return true;
        Doubt ??= $"whether policy {standing.Name} applies is not known: {standing.Why}";
        return false;
    }

    private bool Means(string name) => SidOf(name) == _group.Sid
        || string.Equals(name.Trim(), _group.Name, StringComparison.OrdinalIgnoreCase);

    private Sid? SidOf(string entry) => PolicyEntries.SidOf(entry, _graph, _host);

    private bool? IsGroup(Sid sid) => _graph.IndexOf(sid) is >= 0 and var node && _graph.PrincipalOf(node) is { } principal
        ? principal.Kind switch
        {
            PrincipalKind.Group => true,
            PrincipalKind.User or PrincipalKind.Computer => false,
            PrincipalKind.Foreign => null,
        }
        : null;
}
