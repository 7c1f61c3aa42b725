using JustRight.Core.Directory;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Hosts;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights;

/// <summary>The end of a path: a right that a principal is given directly at a place.</summary>
/// <param name="Holder">The domain principal.</param>
/// <param name="Steps">What lies between the principal and the right at the place: local group, login, roles.</param>
/// <param name="Via">The local group right that brings this right along, or null.</param>
public sealed record RightTail(Sid Holder, Right Right, IReadOnlyList<PathStep> Steps, LocalGroupRight? Via);

/// <summary>Every right that hosts, instances and entries of the directory give: by the right, and by the SID they give it to. Made once a survey, asked for every account.</summary>
public sealed class GrantIndex
{
    private readonly Dictionary<string, HostGrants> _hosts = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<Sid, List<HostGrants>> _hostsOf = [];
    private readonly Dictionary<string, List<RightTail>> _denied = new(StringComparer.Ordinal);
    private readonly HashSet<Sid> _deniedSids = [];
    private readonly Dictionary<Sid, List<RightTail>> _elsewhereTo = [];
    private readonly Dictionary<string, List<RightTail>> _elsewhereOf = new(StringComparer.Ordinal);

    /// <summary>Reads a survey.</summary>
    /// <param name="tree">The access lists of the directory, or null when they were not read.</param>
    public GrantIndex(Survey survey, MembershipGraph graph, AccessTree? tree)
    {
        if (tree is not null)
            foreach (var tail in DelegationFinder.Find(tree, graph)) Add(tail);
        foreach (var host in survey.Hosts) AddHost(host, graph);
        foreach (var host in survey.Hosts.Where(h => h.Role == HostRole.Controller)) AddDomainsGroups(host, graph);
        foreach (var instance in survey.Instances.Where(i => i.PostgreSql is not null))
            foreach (var tail in new PostgreSqlGrants(instance, instance.PostgreSql!).Given(survey.Directory.Principals)) Add(tail);
        foreach (var instance in survey.Instances.Where(i => i.PostgreSql is null)) AddInstance(instance, survey.Hosts.FirstOrDefault(h => h.Unread is null && string.Equals(h.Name, instance.Host, StringComparison.OrdinalIgnoreCase)));
    }

    /// <summary>Who is given a right directly.</summary>
    /// <param name="which">The principals that matter.</param>
    public IEnumerable<RightTail> Of(Right right, Func<Sid, bool> which)
    {
        var elsewhere = _elsewhereOf.TryGetValue(right.Key, out var tails) ? tails.Where(t => which(t.Holder)) : [];
        return right.OnHost is { } name && _hosts.TryGetValue(name, out var host) ? host.Of(right, which).Concat(elsewhere) : elsewhere;
    }

    /// <summary>What is given to a SID directly.</summary>
    /// <param name="passOver">The local groups that need not be looked into: what comes along with them is left out.</param>
    public IEnumerable<RightTail> To(Sid holder, Func<LocalGroupRight, bool>? passOver = null)
    {
        var hosts = _hostsOf.TryGetValue(holder, out var some) ? some : [];
        return hosts.SelectMany(h => h.To(holder, passOver)).Concat(ElsewhereTo(holder));
    }

    /// <summary>What is given to a SID directly elsewhere than by hosts: by instances and by entries of the directory.</summary>
    public IReadOnlyList<RightTail> ElsewhereTo(Sid holder) => _elsewhereTo.TryGetValue(holder, out var tails) ? tails : [];

    /// <summary>Whether a SID is given a right directly.</summary>
    public bool Gives(Sid holder, Right right) => Of(right, s => s == holder).Any();

    /// <summary>Who is denied a right: the log-on right itself; a permission or one that covers it; the way into the instance or database.</summary>
    public IEnumerable<RightTail> DeniedFor(Right right)
    {
        if (right is LogonRight logon) return _hosts.TryGetValue(logon.Host, out var host) ? host.Denying(logon) : [];
        return _denied.Count == 0 ? [] : Implication.Entrances(right).Prepend(right).SelectMany(r => Implication.Covering(r).Prepend(r)).DistinctBy(r => r.Key).SelectMany(r => _denied.TryGetValue(r.Key, out var tails) ? tails : []);
    }

    /// <summary>Whether a SID is denied anything directly.</summary>
    public bool IsDenied(Sid sid) => _deniedSids.Contains(sid);

    private void AddHost(HostSnapshot host, MembershipGraph graph)
    {
        var grants = new HostGrants(host, graph);
        _hosts[host.Name] = grants;
        foreach (var (sid, denied) in grants.Principals())
        {
            if (denied)
            {
                _deniedSids.Add(sid);
                continue;
            }

            if (!_hostsOf.TryGetValue(sid, out var hosts)) _hostsOf[sid] = hosts = [];
            if (hosts.Count == 0 || hosts[^1] != grants) hosts.Add(grants); // host by host, so a repetition can only be the last
        }
    }

    /// <summary>A controller has no local groups of its own: those of the domain count there, and who is in one is in it on every controller.</summary>
    private void AddDomainsGroups(HostSnapshot host, MembershipGraph graph)
    {
        foreach (var name in BuiltInGroups.AllNames)
            if (graph.IndexOf(BuiltInGroups.Find(name)!.Value) is >= 0 and var node) Add(new RightTail(graph.SidOf(node), new LocalGroupRight(host.Name, name), [], null));
    }

    private void AddInstance(InstanceSnapshot instance, HostSnapshot? host)
    {
        var grants = new InstanceGrants(instance, host);
        foreach (var tail in grants.Given()) Add(tail);
        foreach (var tail in grants.Denied())
        {
            _deniedSids.Add(tail.Holder);
            (_denied.TryGetValue(tail.Right.Key, out var of) ? of : _denied[tail.Right.Key] = []).Add(tail);
        }
    }

    private void Add(RightTail tail)
    {
        (_elsewhereTo.TryGetValue(tail.Holder, out var to) ? to : _elsewhereTo[tail.Holder] = []).Add(tail);
        (_elsewhereOf.TryGetValue(tail.Right.Key, out var of) ? of : _elsewhereOf[tail.Right.Key] = []).Add(tail);
    }
}
