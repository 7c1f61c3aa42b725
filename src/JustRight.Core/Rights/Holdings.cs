using JustRight.Core.Directory;
using JustRight.Core.Hosts;
using JustRight.Core.Rights.Memberships;

namespace JustRight.Core.Rights;

/// <summary>Everything one account was seen to hold: rights at places, and domain groups.</summary>
public sealed class Holdings
{
    private const int MostPaths = 8;
    private readonly SurveyView _view;
    private readonly MembershipGraph _graph;
    private readonly GrantIndex _index;
    private Dictionary<string, Held>? _elsewhere;
    private readonly Dictionary<string, Held> _memberships = new(StringComparer.Ordinal);
    private readonly Dictionary<int, List<Way>> _ways = [];
    private readonly Dictionary<Type, object> _kept = [];

    /// <summary>Reads what an account holds.</summary>
    /// <param name="account">The account's node.</param>
    /// <param name="without">What to think away.</param>
    internal Holdings(SurveyView view, int account, Cuts? without = null)
    {
        (_view, _graph, _index) = (view, view.Graph, view.Index);
        Without = without;
        Account = account;
        Groups = [.. _graph.Closure(account, without?.Memberships)];
        foreach (var node in Groups)
        {
            if (_graph.PrincipalOf(node) is not { Kind: Surveys.PrincipalKind.Group } group || node == account) continue;
            var right = view.MembershipOf(node);
            var membership = new Held(right);
            membership.Tails.Add((node, new RightTail(group.Sid, right, [], null)));
            _memberships[right.Key] = membership;
        }
    }

    /// <summary>The survey they were read from.</summary>
    public SurveyView View => _view;

    /// <summary>What is thought away, or null.</summary>
    public Cuts? Without { get; }

    /// <summary>The account's node.</summary>
    public int Account { get; }

    /// <summary>The domain groups it is in, nearest first.</summary>
    public HashSet<int> Groups { get; }

    /// <summary>All rights held beyond what every domain user has, and all domain groups, in a fixed order.</summary>
    /// <param name="passOver">The rights that need not be looked into: what comes along with them alone is left out.</param>
    public IEnumerable<Held> All(Func<Right, bool>? passOver = null)
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
    /// <param name="logons">The types of log-on by which the account is used, or null for every one: some rights come with the
    /// log-on itself.</param>
    public Held? Of(Right right, IReadOnlyList<string>? logons = null) => right.HeldIn(this, logons ?? LogonKind.All);

    /// <summary>What is held of a right and brings along what that is above; or null.</summary>
    public Held? HandingOn(Right above) => Of(above) is { } held && above.HandsOn(held) ? held : null;

    /// <summary>What an engine works out about the account and keeps with it, made when it is first asked for.</summary>
    internal T Kept<T>(Func<T> make)
        where T : class
    {
        if (_kept.TryGetValue(typeof(T), out var known)) return (T)known;
        var made = make();
        _kept[typeof(T)] = made;
        return made;
    }

    /// <summary>What is held of a right by entries at its place, or null.</summary>
    internal Held? Entered(Right right)
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

    /// <summary>
    /// All that is held elsewhere than on hosts: an instance has thousands of logins, and an account few rights there.
    /// </summary>
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
    public bool Reaches(Sid holder) =>
        _graph.IndexOf(holder) is >= 0 and var node
            && (node == Account || Groups.Contains(node) || _graph.Everybody.Contains(node));

    /// <summary>The paths of a held right, shortest first.</summary>
    public IReadOnlyList<RightPath> PathsOf(Held held) => PathsOf(held.Tails);

    /// <summary>The paths that end in the given tails, shortest first.</summary>
    public IReadOnlyList<RightPath> PathsOf(IEnumerable<(int Node, RightTail Tail)> tails)
    {
        var paths = new List<RightPath>();
        foreach (var (node, tail) in tails)
            foreach (var way in WaysTo(node)) paths.Add(way.To(tail));
        return paths.Count < 2 ? paths : [.. paths.Order(ShortestFirst).Take(MostPaths)];
    }

    /// <summary>A right that comes along with a local group goes when the entry in that group goes.</summary>
    private bool IsCut(RightTail tail) =>
        Without is not null
            && (Without.Entries.Contains((tail.Holder, tail.Right.Key))
                || (tail.Via is not null && Without.Entries.Contains((tail.Holder, tail.Via.Key))));

    /// <summary>An account holds rights at many places through the same few groups: the ways to each are found once.</summary>
    private List<Way> WaysTo(int node)
    {
        if (_ways.TryGetValue(node, out var ways)) return ways;
        IReadOnlyList<int[]> found =
            _graph.Everybody.Contains(node) ? [[Account, node]] : _graph.Paths(Account, node, MostPaths);
        return _ways[node] = [.. found.Select(nodes => new Way(nodes, [.. nodes.Select(StepAt)]))];
    }

    private PathStep StepAt(int node, int at) =>
        at == 0 ? new PathStep(StepKind.Account, _graph.NameOf(node)) : _view.StepOf(node);

    /// <summary>By length, then by the names of the steps.</summary>
    private static readonly Comparer<RightPath> ShortestFirst = Comparer<RightPath>.Create((a, b) =>
    {
        if (a.Steps.Count != b.Steps.Count) return a.Steps.Count.CompareTo(b.Steps.Count);
        for (var i = 0; i < a.Steps.Count; i++)
            if (string.Compare(a.Steps[i].Name, b.Steps[i].Name, StringComparison.OrdinalIgnoreCase) is not 0 and var order)
                return order;
        return 0;
    });

    /// <summary>A way from the account to a principal, with its steps: what is held through the principal shares them.</summary>
    private sealed record Way(int[] Nodes, PathStep[] Steps)
    {
        public RightPath To(RightTail tail) => new(Nodes, [.. Steps, .. tail.Steps, .. tail.Right.LastSteps]);
    }
}
