using System.Collections.Concurrent;
using JustRight.Core.Directory;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights.Memberships;

/// <summary>
/// Who is in which domain group, through any nesting. Principals are small integers; edges lie in flat arrays. Cycles are
/// legal. The primary group counts like any membership; distribution groups carry nothing and end the chain [MS-ADTS 6.4.2.1].
/// </summary>
public sealed class MembershipGraph
{
    private readonly Dictionary<Sid, int> _index;
    private readonly DirectoryPrincipal?[] _principals;
    private readonly Sid[] _sids;
    private readonly int[] _first; // edges of node n: _groups[_first[n] .. _first[n + 1]]
    private readonly int[] _groups;
    private readonly ConcurrentBag<ClosureScratch> _scratches = [];
    private readonly bool _hasHidden;
    private readonly Dictionary<string, int> _byName = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>Builds the graph of a snapshot.</summary>
    public MembershipGraph(DirectorySnapshot snapshot)
    {
        (Domain, DomainSid) = (snapshot.Domain, snapshot.DomainSid);
        var principals = snapshot.Principals;
        DnsDomain = principals.Select(p => DistinguishedName.DnsDomainOf(p.Dn)).FirstOrDefault(d => d.Length > 0) ?? "";
        _index = new Dictionary<Sid, int>(principals.Count + 16);
        foreach (var principal in principals) _index.TryAdd(principal.Sid, _index.Count);
        foreach (var member in principals.SelectMany(p => p.Members)) _index.TryAdd(member, _index.Count);
        foreach (var known in new[] { Sid.Everyone, Sid.AuthenticatedUsers, Sid.ThisOrganization })
            _index.TryAdd(known, _index.Count);

        _principals = new DirectoryPrincipal?[_index.Count];
        _sids = new Sid[_index.Count];
        foreach (var (sid, node) in _index) _sids[node] = sid;
        foreach (var principal in principals)
        {
            _principals[_index[principal.Sid]] = principal;
            if (principal.Kind != PrincipalKind.Foreign) _byName.TryAdd(principal.Name, _index[principal.Sid]);
        }

        _first = new int[_index.Count + 1];
        foreach (var (member, _) in Edges(principals)) _first[member + 1]++;
        for (var i = 0; i < _index.Count; i++) _first[i + 1] += _first[i];
        _groups = new int[_first[^1]];
        var next = _first.AsSpan(0, _index.Count).ToArray();
        foreach (var (member, group) in Edges(principals)) _groups[next[member]++] = group;
        for (var i = 0; i < _index.Count; i++) Array.Sort(_groups, _first[i], _first[i + 1] - _first[i]);

        int[] signedIn = [.. new[] { Sid.Everyone, Sid.AuthenticatedUsers, Sid.ThisOrganization }.Select(s => _index[s])];
        Everybody = [.. signedIn.Concat(signedIn.SelectMany(n => Closure(n))).Distinct()];
        var baseline = new HashSet<int>(Everybody);
        if (!snapshot.DomainSid.IsEmpty
            && _index.TryGetValue(snapshot.DomainSid.Append(DirectorySnapshot.DomainUsersRid), out var users))
        {
            baseline.Add(users);
            baseline.UnionWith(Closure(users));
        }

        Baseline = baseline;
        var unread = new Dictionary<int, string>();
        foreach (var group in principals.Where(p => p.MembersUnread is not null))
            foreach (var reached in Closure(_index[group.Sid]).Append(_index[group.Sid]))
                unread.TryAdd(reached, $"{Domain}\\{group.Name}");
        UnreadReach = unread;
        _hasHidden = principals.Any(p => p.HiddenGroups.Count > 0);
    }

    /// <summary>The domain's short name.</summary>
    public string Domain { get; }

    /// <summary>The domain's DNS name, by the names of what is in it; empty while nothing is.</summary>
    public string DnsDomain { get; }

    /// <summary>The domain's SID.</summary>
    public Sid DomainSid { get; }

    /// <summary>How many principals are known.</summary>
    public int Count => _sids.Length;

    /// <summary>
    /// The nodes that every signed-in principal has: Everyone, Authenticated Users, This Organization, and the groups that hold
    /// these.
    /// </summary>
    public IReadOnlyList<int> Everybody { get; }

    /// <summary>
    /// What every domain user has: <see cref="Everybody"/>, Domain Users, and every group that holds Domain Users.
    /// </summary>
    public IReadOnlySet<int> Baseline { get; }

    /// <summary>
    /// The groups whose members could not be read, and every group above them, each with the name of the one that could not be
    /// read: anybody may be in these.
    /// </summary>
    public IReadOnlyDictionary<int, string> UnreadReach { get; }

    /// <summary>The node of a SID, or -1.</summary>
    public int IndexOf(Sid sid) => _index.TryGetValue(sid, out var node) ? node : -1;

    /// <summary>The node with a logon name in this domain, or -1.</summary>
    public int IndexOf(string name) => _byName.TryGetValue(name, out var node) ? node : -1;

    /// <summary>The SID of a node.</summary>
    public Sid SidOf(int node) => _sids[node];

    /// <summary>What was read of a node, or null when only its SID is known.</summary>
    public DirectoryPrincipal? PrincipalOf(int node) => _principals[node];

    /// <summary>Whether nothing was read of a node but its SID, and that is of no well-known principal.</summary>
    public bool IsNameless(int node) => _principals[node] is null && WellKnownSids.NameOf(_sids[node]) is null;

    /// <summary>A node's name with its domain, or its SID when it has no name here.</summary>
    public string NameOf(int node)
    {
        if (WellKnownSids.NameOf(_sids[node]) is { } known) return known;
        return _principals[node] is not { } principal ? _sids[node].ToString()
            : principal.Kind == PrincipalKind.Foreign ? principal.Name
            : $"{Domain}\\{principal.Name}";
    }

    /// <summary>
    /// A group that a node is in through any nesting and that could not be read, by its distinguished name; or null.
    /// </summary>
    public string? HiddenGroupOf(int node) =>
        _hasHidden
            ? Closure(node).Prepend(node).Select(n => _principals[n]?.HiddenGroups is [var first, ..] ? first : null)
                .FirstOrDefault(h => h is not null)
            : null;

    /// <summary>The groups a node is directly in.</summary>
    public ReadOnlySpan<int> GroupsOf(int node) => _groups.AsSpan(_first[node], _first[node + 1] - _first[node]);

    /// <summary>Every group a node is in, nearest first, itself not included unless it is in a ring.</summary>
    /// <param name="without">Memberships (member, group) to leave out, to answer what their removal would do.</param>
    /// <param name="notThrough">Groups that are reached but not passed through.</param>
    public List<int> Closure(
        int node, IReadOnlySet<(int Member, int Group)>? without = null, IReadOnlySet<int>? notThrough = null)
    {
        // Working memory is as large as the directory: made once for each caller at a time, not once for each call.
        var scratch = _scratches.TryTake(out var free) ? free : new ClosureScratch(Count);
        List<int> closure = [.. Closure(node, scratch, without, notThrough)];
        _scratches.Add(scratch);
        return closure;
    }

    /// <summary>
    /// As <see cref="Closure(int, IReadOnlySet{ValueTuple{int, int}}?, IReadOnlySet{int}?)"/>, with working memory that many
    /// calls share.
    /// </summary>
    public List<int> Closure(
        int node, ClosureScratch scratch, IReadOnlySet<(int Member, int Group)>? without = null,
        IReadOnlySet<int>? notThrough = null)
    {
        var stamp = scratch.NextStamp();
        var reached = scratch.Reached;
        reached.Clear();
        Step(node);
        for (var i = 0; i < reached.Count; i++)
            if (notThrough?.Contains(reached[i]) != true) Step(reached[i]);
        return reached;

        void Step(int member)
        {
            foreach (var group in GroupsOf(member))
            {
                if (without?.Contains((member, group)) == true) continue;
                if (scratch.Seen[group] == stamp) continue;
                scratch.Seen[group] = stamp;
                reached.Add(group);
            }
        }
    }

    /// <summary>
    /// The ways from a node up to a group, shortest first, then by name; each starts at the node and ends at the group.
    /// </summary>
    /// <param name="most">At most so many.</param>
    public List<int[]> Paths(int from, int to, int most)
    {
        if (from == to) return [[from]];
        var reaching = ReachingWithin(from, to);
        var found = new List<int[]>();
        var queue = new Queue<int[]>();
        queue.Enqueue([from]);
        while (queue.Count > 0 && found.Count < most)
        {
            var path = queue.Dequeue();
            foreach (var group in GroupsOf(path[^1]).ToArray().OrderBy(NameOf, StringComparer.OrdinalIgnoreCase))
            {
                if (!reaching.Contains(group) || path.Contains(group)) continue;
                int[] longer = [.. path, group];
                if (group == to) found.Add(longer);
                else if (queue.Count < most * 64) queue.Enqueue(longer);
                if (found.Count == most) break;
            }
        }

        return found;
    }

    /// <summary>The nodes above <paramref name="from"/> from which <paramref name="to"/> can be reached.</summary>
    private HashSet<int> ReachingWithin(int from, int to)
    {
        var above = new HashSet<int>(Closure(from)) { from };
        var holders = new Dictionary<int, List<int>>();
        foreach (var node in above)
            foreach (var group in GroupsOf(node))
                (holders.TryGetValue(group, out var list) ? list : holders[group] = []).Add(node);
        var reaching = new HashSet<int> { to };
        var queue = new Queue<int>([to]);
        while (queue.TryDequeue(out var node))
            foreach (var member in holders.GetValueOrDefault(node, []))
                if (reaching.Add(member)) queue.Enqueue(member);
        return reaching;
    }

    private IEnumerable<(int Member, int Group)> Edges(IReadOnlyList<DirectoryPrincipal> principals)
    {
        foreach (var principal in principals)
        {
            var node = _index[principal.Sid];
            if (principal.Kind == PrincipalKind.Group && principal.IsSecurity)
                foreach (var member in principal.Members) yield return (_index[member], node);
            if (principal.PrimaryGroupRid != 0
                && _index.TryGetValue(principal.Sid.WithRid(principal.PrimaryGroupRid), out var primary))
                yield return (node, primary);
        }
    }
}

/// <summary>
/// Working memory for closures over one graph; not for two threads at once. The list a closure returns is reused by the next.
/// </summary>
public sealed class ClosureScratch(int nodes)
{
    private int _stamp;

    internal int[] Seen { get; } = new int[nodes];

    internal List<int> Reached { get; } = [];

    internal int NextStamp() => ++_stamp;
}
