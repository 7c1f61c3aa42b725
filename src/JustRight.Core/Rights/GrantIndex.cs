using JustRight.Core.Rights.Directory;
using JustRight.Core.Rights.Directory.Access;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights;

/// <summary>The end of a path: a right that a principal is given directly at a place.</summary>
/// <param name="Holder">The domain principal.</param>
/// <param name="Steps">What lies between the principal and the right at the place: local group, login, roles.</param>
/// <param name="Via">The local group right that brings this right along, or null.</param>
public sealed record RightTail(Sid Holder, Right Right, IReadOnlyList<PathStep> Steps, LocalGroupRight? Via);

/// <summary>Every right that hosts, instances and entries of the directory give, by the SID they give it to. Built once a survey, asked for every account.</summary>
public sealed class GrantIndex
{
    private static readonly IReadOnlyList<RightTail> Nothing = [];
    private readonly Dictionary<Sid, List<RightTail>> _tails = [];
    private readonly Dictionary<string, List<RightTail>> _denies = new(StringComparer.Ordinal);
    private readonly HashSet<Sid> _deniedSids = [];

    /// <summary>Reads a survey.</summary>
    /// <param name="tree">The access lists of the directory, or null when they were not read.</param>
    public GrantIndex(Survey survey, MembershipGraph graph, AccessTree? tree)
    {
        if (tree is not null)
            foreach (var tail in DelegationFinder.Find(tree, graph)) Add(_tails, tail);
        foreach (var host in survey.Hosts) AddHost(host, graph);
        foreach (var host in survey.Hosts.Where(h => h.Role == HostRole.Controller)) AddDomainsGroups(host, graph);
        foreach (var instance in survey.Instances) AddInstance(instance);
    }

    /// <summary>What is given to a SID directly.</summary>
    public IReadOnlyList<RightTail> Of(Sid sid) => _tails.TryGetValue(sid, out var tails) ? tails : Nothing;

    /// <summary>Who is denied a log-on right.</summary>
    public IReadOnlyList<RightTail> DeniedFor(Right right) => _denies.TryGetValue(right.Key, out var tails) ? tails : Nothing;

    /// <summary>Whether a SID is denied anything directly.</summary>
    public bool IsDenied(Sid sid) => _deniedSids.Contains(sid);

    private void AddHost(HostSnapshot host, MembershipGraph graph)
    {
        var groups = host.LocalGroups.ToDictionary(g => g.Sid);
        var along = new Dictionary<Sid, (LocalGroupRight Via, PathStep[] Steps)>();
        foreach (var group in host.LocalGroups)
        {
            var right = new LocalGroupRight(host.Name, group.Name);
            along[group.Sid] = (right, [new PathStep(StepKind.LocalGroup, $"{host.Name}\\{group.Name}")]); // shared by all rights that come with it
            foreach (var member in group.Members) Add(_tails, new RightTail(member, right, [], null));
        }

        foreach (var list in host.LogonLists)
        {
            if (LogonRights.RightOf(list.Constant, host.Name) is not var (right, denies)) continue;
            foreach (var tail in list.Holders.Concat(list.Named.Select(n => PolicyEntries.SidOf(n, graph)).OfType<Sid>()).SelectMany(h => Tails(h, right)))
            {
                if (!denies)
                {
                    Add(_tails, tail);
                    continue;
                }

                _deniedSids.Add(tail.Holder);
                (_denies.TryGetValue(right.Key, out var denied) ? denied : _denies[right.Key] = []).Add(tail);
            }
        }

        IEnumerable<RightTail> Tails(Sid holder, Right right)
        {
            if (!groups.TryGetValue(holder, out var group)) return [new RightTail(holder, right, [], null)];
            var (via, steps) = along[group.Sid];
            return group.Members.Select(m => new RightTail(m, right, steps, via));
        }
    }

    /// <summary>A controller has no local groups of its own: those of the domain count there, and who is in one is in it on every controller.</summary>
    private void AddDomainsGroups(HostSnapshot host, MembershipGraph graph)
    {
        foreach (var name in BuiltInGroups.AllNames)
            if (graph.IndexOf(BuiltInGroups.Find(name)!.Value) is >= 0 and var node) Add(_tails, new RightTail(graph.SidOf(node), new LocalGroupRight(host.Name, name), [], null));
    }

    private void AddInstance(InstanceSnapshot instance)
    {
        var logins = instance.Logins.ToDictionary(l => l.Sid);
        foreach (var (sid, role, steps) in RoleClosure.Of(instance.Roles))
        {
            if (logins.TryGetValue(sid, out var login))
                Add(_tails, new RightTail(sid, new InstanceRoleRight(instance.Name, role), [new PathStep(StepKind.Login, $"{instance.Name} login {login.Name}"), .. steps], null));
        }

        foreach (var database in instance.Databases)
        {
            var place = $"{instance.Name}/{database.Name}";
            var users = database.Users.ToDictionary(u => u.Sid);
            foreach (var (sid, role, steps) in RoleClosure.Of(database.Roles))
            {
                if (users.TryGetValue(sid, out var user))
                    Add(_tails, new RightTail(sid, new DatabaseRoleRight(instance.Name, database.Name, role), [new PathStep(StepKind.Login, $"{place} user {user.Name}"), .. steps], null));
            }

            if (!database.Owner.IsEmpty)
                Add(_tails, new RightTail(database.Owner, new DatabaseRoleRight(instance.Name, database.Name, "db_owner"), [new PathStep(StepKind.Login, $"owner of {place}")], null));
        }
    }

    private static void Add(Dictionary<Sid, List<RightTail>> tails, RightTail tail) =>
        (tails.TryGetValue(tail.Holder, out var list) ? list : tails[tail.Holder] = []).Add(tail);
}
