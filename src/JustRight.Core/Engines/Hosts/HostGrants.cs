using JustRight.Core.Directory;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.Hosts;

/// <summary>
/// What one host gives and denies, worked out from its facts when it is asked for: whoever administers thousands of hosts holds
/// dozens of rights on each, and hardly any of them is ever asked about.
/// </summary>
internal sealed class HostGrants(HostSnapshot host, MembershipGraph graph) : IPlaceGrants
{
    private readonly Group[] _groups = [.. host.LocalGroups.Select(g => new Group(host.Name, g))];
    private readonly Right?[] _rights = new Right?[host.LogonLists.Count];

    /// <inheritdoc/>
    public string Place => host.Name;

    /// <summary>
    /// Everybody to whom the host gives something directly, and everybody whom it denies something; with repetitions.
    /// </summary>
    public IEnumerable<(Sid Sid, bool Denied)> Principals()
    {
        foreach (var group in _groups)
            foreach (var member in group.Facts.Members) yield return (member, false);
        foreach (var list in host.LogonLists)
        {
            var denies = LogonRights.OfConstant(list.Constant) is (_, true);
            foreach (var holder in HoldersOf(list))
            {
                if (GroupOf(holder) is not { } group) yield return (holder, denies);
                else if (denies)
                    foreach (var member in group.Facts.Members) yield return (member, true);
            }
        }
    }

    /// <summary>Who is given a right of this host directly.</summary>
    /// <param name="which">The principals that matter: most questions are about one account and what it is in.</param>
    public IEnumerable<RightTail> Of(Right right, Func<Sid, bool> which) =>
        right is LocalGroupRight member ? Members(member, which)
            : right.OnList is { } constant ? OnList(constant, which)
            : [];

    /// <summary>Who is denied a log-on right of this host; nothing else can be denied on one.</summary>
    public IEnumerable<RightTail> Denying(Right right) =>
        right is LogonRight logon
            ? OnList(LogonRights.DenyConstant(logon.Type), _ => true).Select(t => t with { Right = logon })
            : [];

    /// <summary>Everything the host gives to a principal directly.</summary>
    /// <param name="passOver">The local groups that need not be looked into: what comes along with them is left out.</param>
    public IEnumerable<RightTail> To(Sid holder, Func<Right, bool>? passOver)
    {
        var within = new List<Group>();
        foreach (var group in _groups)
        {
            if (!group.Facts.Members.Contains(holder)) continue;
            yield return new RightTail(holder, group.Right, [], null);
            if (passOver?.Invoke(group.Right) != true) within.Add(group);
        }

        for (var i = 0; i < host.LogonLists.Count; i++)
        {
            foreach (var named in HoldersOf(host.LogonLists[i]))
            {
                var through = named == holder ? null : within.Find(g => g.Facts.Sid == named);
                if (through is null && (named != holder || GroupOf(named) is not null)) continue;
                if (LogonRights.OfConstant(host.LogonLists[i].Constant) is not (_, true) && RightOf(i) is { } right)
                    yield return Tail(holder, right, through);
            }
        }
    }

    private IEnumerable<RightTail> Members(LocalGroupRight right, Func<Sid, bool> which)
    {
        foreach (var group in _groups)
        {
            if (!IsSame(group.Facts.Name, right.Group)) continue;
            foreach (var member in group.Facts.Members)
                if (which(member)) yield return new RightTail(member, group.Right, [], null);
        }
    }

    private IEnumerable<RightTail> OnList(string constant, Func<Sid, bool> which)
    {
        for (var i = 0; i < host.LogonLists.Count; i++)
        {
            if (!IsSame(host.LogonLists[i].Constant, constant) || RightOf(i) is not { } right) continue;
            foreach (var holder in HoldersOf(host.LogonLists[i]))
            {
                if (GroupOf(holder) is { } group)
                {
                    foreach (var member in group.Facts.Members)
                        if (which(member)) yield return Tail(member, right, group);
                }
                else if (which(holder))
                {
                    yield return Tail(holder, right, null);
                }
            }
        }
    }

    private static RightTail Tail(Sid holder, Right right, Group? through) =>
        new(holder, right, through?.Steps ?? [], through?.Right);

    /// <summary>The right of a list, made when it is first asked for.</summary>
    private Right? RightOf(int list) => _rights[list] ??= HostLists.RightOf(host.LogonLists[list].Constant, host.Name)?.Right;

    /// <summary>
    /// Whom a list names. A built-in group is the host's own, not the domain's of the same SID, unless it is a controller: one
    /// that was not read leads nowhere.
    /// </summary>
    private IEnumerable<Sid> HoldersOf(LogonList list)
    {
        var holders = list.Named.Count == 0
            ? list.Holders
            : list.Holders.Concat(list.Named.Select(n => PolicyEntries.SidOf(n, graph, host)).OfType<Sid>());
        return host.Role == HostRole.Controller ? holders : holders.Where(h => !h.IsBuiltIn || GroupOf(h) is not null);
    }

    private Group? GroupOf(Sid sid)
    {
        foreach (var group in _groups)
            if (group.Facts.Sid == sid) return group;
        return null;
    }

    private static bool IsSame(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);

    /// <summary>A local group, with what all that comes along with it shares, made when it is first asked for.</summary>
    private sealed class Group(string host, LocalGroup facts)
    {
        private LocalGroupRight? _right;
        private PathStep[]? _steps;

        public LocalGroup Facts { get; } = facts;

        public LocalGroupRight Right => _right ??= new LocalGroupRight(host, Facts.Name);

        public IReadOnlyList<PathStep> Steps => _steps ??= [new PathStep(StepKind.LocalGroup, $"{host}\\{Facts.Name}")];
    }
}
