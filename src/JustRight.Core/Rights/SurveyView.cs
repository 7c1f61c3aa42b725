using JustRight.Core.Directory;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights;

/// <summary>
/// A survey made ready for judging: the graph, the index, and what could not be read. Built once, asked by every install.
/// </summary>
public sealed class SurveyView
{
    private readonly Engine _members;
    private readonly Right?[] _memberships;
    private readonly PathStep?[] _steps;
    private readonly Dictionary<string, HostSnapshot> _hosts;
    private readonly Dictionary<string, InstanceSnapshot> _instances;

    /// <summary>Prepares a survey.</summary>
    /// <param name="engines">What reads the rights of its parts.</param>
    public SurveyView(Survey survey, IReadOnlyList<Engine> engines)
    {
        Survey = survey;
        Engines = engines;
        _members = engines.First(e => e.Membership("", "") is not null);
        Graph = new MembershipGraph(survey.Directory);
        (_memberships, _steps) = (new Right?[Graph.Count], new PathStep?[Graph.Count]);
        Tree = survey.Directory.Access is { } access ? new AccessTree(access) : null;
        Index = new GrantIndex(engines, survey, Graph, Tree);
        Baseline = new BaselineRights(Graph, Index);
        Policies = new HostPolicies(survey, Graph);
        UnreadParts = [.. survey.UnreadParts()];
        ServiceNames = survey.Directory.Principals.SelectMany(p => p.ServicePrincipalNames.Select(n => (Name: n, p)))
            .ToLookup(c => c.Name, c => c.p, StringComparer.OrdinalIgnoreCase);
        _hosts = survey.Hosts.ToDictionary(h => h.Name, StringComparer.OrdinalIgnoreCase);
        _instances = survey.Instances.ToDictionary(i => i.Name, StringComparer.OrdinalIgnoreCase);
    }

    private SurveyView(SurveyView view, AccessTree tree)
    {
        (_members, _memberships, _steps) = (view._members, view._memberships, view._steps);
        (Survey, Engines, Graph, Tree, Index) = (view.Survey, view.Engines, view.Graph, tree, view.Index);
        (Baseline, Policies, UnreadParts, ServiceNames) = (view.Baseline, view.Policies, view.UnreadParts, view.ServiceNames);
        (_hosts, _instances) = (view._hosts, view._instances);
    }

    /// <summary>The same with other access lists of the directory, to answer what changing them would do.</summary>
    public SurveyView With(AccessTree tree) => new(this, tree);

    /// <summary>What reads the rights of its parts.</summary>
    public IReadOnlyList<Engine> Engines { get; }

    /// <summary>Membership of a group of the domain.</summary>
    public Right Membership(string group) => _members.Membership(Graph.Domain, group)!;

    /// <summary>Membership of the group of a node, made when it is first asked for: whoever is in it shares it.</summary>
    internal Right MembershipOf(int node) => _memberships[node] ??= Membership(Graph.PrincipalOf(node)!.Name);

    /// <summary>The step of a path through the group of a node, made when it is first asked for: many paths share it.</summary>
    internal PathStep StepOf(int node) => _steps[node] ??= new PathStep(StepKind.DomainGroup, Graph.NameOf(node));

    /// <summary>The survey.</summary>
    public Survey Survey { get; }

    /// <summary>Domain memberships.</summary>
    public MembershipGraph Graph { get; }

    /// <summary>The access lists of the directory, or null when they were not read.</summary>
    public AccessTree? Tree { get; }

    /// <summary>What places give.</summary>
    public GrantIndex Index { get; }

    /// <summary>What every domain user has.</summary>
    public BaselineRights Baseline { get; }

    /// <summary>Which policies govern the hosts.</summary>
    public HostPolicies Policies { get; }

    /// <summary>What an account holds.</summary>
    /// <param name="account">The account's node.</param>
    /// <param name="without">What to think away, to answer what its removal would do.</param>
    public Holdings HoldingsOf(int account, Cuts? without = null) => new(this, account, without);

    /// <summary>Who claims each service principal name, in any case.</summary>
    public ILookup<string, DirectoryPrincipal> ServiceNames { get; }

    /// <summary>What could not be read.</summary>
    public IReadOnlyList<UnreadPlace> UnreadParts { get; }

    /// <summary>A host by name, or null when the survey did not ask for it.</summary>
    public HostSnapshot? Host(string name) => _hosts.GetValueOrDefault(name);

    /// <summary>An instance by name, or null.</summary>
    public InstanceSnapshot? Instance(string name) => _instances.GetValueOrDefault(name);

    /// <summary>Whether nothing of a host, nor of any group of the domain, was left unread.</summary>
    internal bool IsAllReadOf(string host) =>
        Graph.UnreadReach.Count == 0 && Host(host) is { Unread: null, UnreadParts.Count: 0 };

    /// <summary>Why a host, or one of some parts of its facts, could not be read; null when they were.</summary>
    public string? WhyHostUnread(string name, params ReadOnlySpan<string> parts)
    {
        if (Host(name) is not { } host) return $"{name} was not surveyed";
        if (host.Unread is not null) return $"{host.Name} could not be read: {host.Unread}";
        foreach (var unread in host.UnreadParts)
            foreach (var part in parts)
                if (string.Equals(part, unread.Part, StringComparison.OrdinalIgnoreCase))
                    return $"{unread.Part} on {host.Name} could not be read: {unread.Reason}";
        return null;
    }

    /// <summary>
    /// The node of a principal as changes and policies name it: <c>DOMAIN\name</c>, or a SID with an asterisk or without.
    /// </summary>
    public int NodeOf(string principal) => Sid.TryParse(principal.TrimStart('*'), out var sid)
        ? Graph.IndexOf(sid)
        : Graph.IndexOf(LogonName.WithoutDomain(principal));

    /// <summary>
    /// Why a right that was not seen to be held might be held all the same, or null when everything that could give it was read.
    /// </summary>
    /// <param name="account">The account's node.</param>
    public string? WhyUnseen(Right right, int account)
    {
        if (Survey.Directory.Unread is { } unread) return $"the directory could not be read: {unread}";
        return WhyHoldersUnseen(right) ?? (Graph.HiddenGroupOf(account) is { } hidden
            ? $"it is in {hidden}, which may not be read, and the right may come through that group"
            : null);
    }

    /// <summary>Why it is not known to whom a right comes at its place, or null when it is.</summary>
    public string? WhyHoldersUnseen(Right right)
    {
        if ((right.WhyUnread(this) ?? right.WhyEntrantsUnread(this)) is { } place) return place;
        foreach (var (node, group) in Graph.UnreadReach)
            if (right.Above.Prepend(right).Any(r => r.IsGivenTo(node, this)))
                return $"the members of {group} could not be read, and the right may come through them";
        return null;
    }
}
