using JustRight.Core.Directory;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Hosts;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Rights.Memberships;

namespace JustRight.Core.Rights;

/// <summary>A right an account holds, with every principal through which it comes.</summary>
public sealed class Held(Right right)
{
    /// <summary>The right.</summary>
    public Right Right { get; } = right;

    /// <summary>The ends of its paths, with the node each hangs on.</summary>
    public List<(int Node, RightTail Tail)> Tails { get; } = [];
}

/// <summary>Everything one account was seen to hold: rights at places, and domain groups.</summary>
public sealed class Holdings
{
    private const int MostPaths = 8;
    private readonly MembershipGraph _graph;
    private readonly GrantIndex _index;
    private readonly BaselineRights _baseline;
    private readonly DirectoryHoldings? _directory;
    private readonly Cuts? _without;
    private Dictionary<string, Held>? _elsewhere;
    private readonly Dictionary<string, Held> _memberships = new(StringComparer.Ordinal);
    private readonly Dictionary<int, List<int[]>> _ways = [];

    /// <summary>Reads what an account holds.</summary>
    /// <param name="baseline">What every domain user has.</param>
    /// <param name="tree">The access lists of the directory, or null when they were not read.</param>
    /// <param name="account">The account's node.</param>
    /// <param name="without">What to think away.</param>
    public Holdings(MembershipGraph graph, GrantIndex index, BaselineRights baseline, AccessTree? tree, int account, Cuts? without = null)
    {
        _directory = tree is null ? null : new DirectoryHoldings(tree, graph, index, account, without);
        _graph = graph;
        _index = index;
        _baseline = baseline;
        _without = without;
        Account = account;
        Groups = [.. graph.Closure(account, without?.Memberships)];
        foreach (var node in Groups)
        {
            if (graph.PrincipalOf(node) is not { Kind: Surveys.PrincipalKind.Group } group || node == account) continue;
            var right = new DomainGroupRight(graph.Domain, group.Name);
            var membership = new Held(right);
            membership.Tails.Add((node, new RightTail(group.Sid, right, [], null)));
            _memberships[right.Key] = membership;
        }
    }

    /// <summary>The account's node.</summary>
    public int Account { get; }

    /// <summary>The domain groups it is in, nearest first.</summary>
    public HashSet<int> Groups { get; }

    /// <summary>All rights held beyond what every domain user has, and all domain groups, in a fixed order.</summary>
    /// <param name="passOver">The local groups that need not be looked into: what comes along with them alone is left out.</param>
    public IEnumerable<Held> All(Func<LocalGroupRight, bool>? passOver = null)
    {
        var found = new Dictionary<string, Held>(_memberships, StringComparer.Ordinal);
        foreach (var node in Groups.Append(Account).Where(n => !_graph.Baseline.Contains(n)))
        {
            foreach (var tail in _index.To(_graph.SidOf(node), passOver).Where(t => !IsCut(t)))
            {
                if (!found.TryGetValue(tail.Right.Key, out var held)) found[tail.Right.Key] = held = new Held(tail.Right);
                held.Tails.Add((node, tail));
            }
        }

        return found.Values.OrderBy(h => h.Right.Key, StringComparer.Ordinal);
    }

    /// <summary>What is held of one right, by whatever path, or null.</summary>
    /// <param name="logons">The types of log-on by which the account is used, or null for every one: some rights come with the log-on itself.</param>
    public Held? Of(Right right, IReadOnlyList<string>? logons = null)
    {
        if (right is DirectoryRight directory) return _directory?.Held(directory);
        if (right is PrivilegeRight or LocalGroupRight && ByLogon(right, logons ?? LogonKind.All) is { Count: > 0 } brought)
        {
            var all = new Held(right);
            all.Tails.AddRange([.. HeldAlways(right)?.Tails ?? [], .. brought]);
            return all;
        }

        return HeldAlways(right);
    }

    /// <summary>What a log-on itself brings: whoever may log on as a service has what the group Service has, while it does.</summary>
    private List<(int Node, RightTail Tail)> ByLogon(Right right, IReadOnlyList<string> logons)
    {
        var brought = new List<(int, RightTail)>();
        foreach (var type in logons)
        {
            var tails = _index.Of(right, LogonKind.GroupsOf(type).Contains).ToList();
            if (tails.Count == 0 || HeldAlways(new LogonRight(right.Place, type)) is null) continue;
            brought.AddRange(tails.Select(t => (Account, t with { Steps = [new PathStep(StepKind.Logon, $"{LogonRights.Words(type)} on {right.Place}"), .. t.Steps] })));
        }

        return brought;
    }

    private Held? HeldAlways(Right right)
    {
        if (_memberships.TryGetValue(right.Key, out var membership)) return membership;
        if (right.OnHost is null) return (_elsewhere ??= Elsewhere()).GetValueOrDefault(right.Key);
        Held? held = null;
        foreach (var tail in _index.Of(right, Reaches))
        {
            var node = _graph.IndexOf(tail.Holder);
            if (_graph.Baseline.Contains(node) || !IsCut(tail)) (held ??= new Held(tail.Right)).Tails.Add((node, tail));
        }

        return held;
    }

    /// <summary>All that is held elsewhere than on hosts: an instance has thousands of logins, and an account few rights there.</summary>
    private Dictionary<string, Held> Elsewhere()
    {
        var found = new Dictionary<string, Held>(StringComparer.Ordinal);
        foreach (var node in Groups.Append(Account).Concat(_graph.Everybody).Distinct())
        {
            foreach (var tail in _index.ElsewhereTo(_graph.SidOf(node)))
            {
                if (!_graph.Baseline.Contains(node) && IsCut(tail)) continue;
                if (!found.TryGetValue(tail.Right.Key, out var held)) found[tail.Right.Key] = held = new Held(tail.Right);
                held.Tails.Add((node, tail));
            }
        }

        return found;
    }

    /// <summary>Whether what a principal is given reaches the account.</summary>
    public bool Reaches(Sid holder) => _graph.IndexOf(holder) is >= 0 and var node && (node == Account || Groups.Contains(node) || _graph.Everybody.Contains(node));

    /// <summary>What it may do to the objects below a right's branch; or null with the reason why that cannot be said.</summary>
    public (BranchAnswer? Answer, AccessTree? Tree, string? Unseen) Branch(DirectoryRight right)
    {
        if (_directory is null) return (null, null, "the ACLs of the directory were not surveyed");
        var (answer, unseen) = _directory.Of(right);
        return (answer, _directory.Tree, unseen);
    }

    /// <summary>The paths of a held right, shortest first.</summary>
    public IReadOnlyList<RightPath> PathsOf(Held held) => PathsOf(held.Tails);

    /// <summary>The paths that end in the given tails, shortest first.</summary>
    public IReadOnlyList<RightPath> PathsOf(IEnumerable<(int Node, RightTail Tail)> tails)
    {
        var paths = new List<RightPath>();
        foreach (var (node, tail) in tails)
            foreach (var way in WaysTo(node)) paths.Add(ToPath(way, tail));
        return paths.Count < 2 ? paths : [.. paths.OrderBy(p => p.Steps.Count).ThenBy(p => p.ToString(), StringComparer.OrdinalIgnoreCase).Take(MostPaths)];
    }

    /// <summary>A right that comes along with a local group goes when the entry in that group goes.</summary>
    private bool IsCut(RightTail tail) =>
        _without is not null && (_without.Entries.Contains((tail.Holder, tail.Right.Key)) || (tail.Via is not null && _without.Entries.Contains((tail.Holder, tail.Via.Key))));

    /// <summary>An account holds rights at many places through the same few groups: the ways to each are found once.</summary>
    private List<int[]> WaysTo(int node)
    {
        if (_ways.TryGetValue(node, out var ways)) return ways;
        return _ways[node] = _graph.Everybody.Contains(node) ? [[Account, node]] : _graph.Paths(Account, node, MostPaths);
    }

    private RightPath ToPath(int[] way, RightTail tail)
    {
        var steps = way.Select((n, i) => new PathStep(i == 0 ? StepKind.Account : StepKind.DomainGroup, _graph.NameOf(n))).Concat(tail.Steps);
        return new RightPath(way, tail.Right switch
        {
            DomainGroupRight => [.. steps],
            DirectoryRight or EntryRight => [.. steps, new PathStep(StepKind.Right, tail.Right.Words)],
            LocalGroupRight local => [.. steps, new PathStep(StepKind.LocalGroup, $"{local.Host}\\{local.Group}")],
            _ => [.. steps, new PathStep(StepKind.Right, $"{tail.Right.Words} on {tail.Right.Place}")],
        });
    }
}
