using JustRight.Core.Directory;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Hosts;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights;

/// <summary>A survey made ready for judging: the graph, the index, and what could not be read. Built once, asked by every install.</summary>
public sealed class SurveyView
{
    private readonly Dictionary<string, HostSnapshot> _hosts;
    private readonly Dictionary<string, InstanceSnapshot> _instances;

    /// <summary>Prepares a survey.</summary>
    public SurveyView(Survey survey)
    {
        Survey = survey;
        Graph = new MembershipGraph(survey.Directory);
        Tree = survey.Directory.Access is { } access ? new AccessTree(access) : null;
        Index = new GrantIndex(survey, Graph, Tree);
        Baseline = new BaselineRights(Graph, Index);
        Policies = new HostPolicies(survey, Graph);
        UnreadParts = [.. survey.UnreadParts()];
        ServiceNames = survey.Directory.Principals.SelectMany(p => p.ServicePrincipalNames.Select(n => (Name: n, p))).ToLookup(c => c.Name, c => c.p, StringComparer.OrdinalIgnoreCase);
        _hosts = survey.Hosts.ToDictionary(h => h.Name, StringComparer.OrdinalIgnoreCase);
        _instances = survey.Instances.ToDictionary(i => i.Name, StringComparer.OrdinalIgnoreCase);
    }

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
    public Holdings HoldingsOf(int account, Cuts? without = null) => new(Graph, Index, Baseline, Tree, account, without);

    /// <summary>Who claims each service principal name, in any case.</summary>
    public ILookup<string, DirectoryPrincipal> ServiceNames { get; }

    /// <summary>What could not be read.</summary>
    public IReadOnlyList<UnreadPlace> UnreadParts { get; }

    /// <summary>A host by name, or null when the survey did not ask for it.</summary>
    public HostSnapshot? Host(string name) => _hosts.GetValueOrDefault(name);

    /// <summary>An instance by name, or null.</summary>
    public InstanceSnapshot? Instance(string name) => _instances.GetValueOrDefault(name);

    /// <summary>Why a right that was not seen to be held might be held all the same, or null when everything that could give it was read.</summary>
    /// <param name="account">The account's node.</param>
    public string? WhyUnseen(Right right, int account)
    {
        if (Survey.Directory.Unread is { } unread) return $"the directory could not be read: {unread}";
        if (WhyUnread(right) is { } place) return place;
        if (right.AtInstance is { } instance && LocalLoginUnread(instance) is { } local) return local;
        foreach (var (node, group) in Graph.UnreadReach)
        {
            var gives = right is DomainGroupRight membership
                ? Graph.PrincipalOf(node) is { } principal && string.Equals(principal.Name, membership.Group, StringComparison.OrdinalIgnoreCase)
                : Index.Gives(Graph.SidOf(node), right);
            if (gives) return $"the members of {group} could not be read, and the right may come through them";
        }

        return Graph.HiddenGroupOf(account) is { } hidden ? $"it is in {hidden}, which may not be read, and the right may come through that group" : null;
    }

    /// <summary>Why it cannot be known whether a held right is denied, or null.</summary>
    /// <param name="account">The account's node.</param>
    public string? WhyDenyUnseen(Right right, int account)
    {
        if (right is LogonRight logon && Host(logon.Host)?.UnreadParts.FirstOrDefault(p => p.Part == HostSnapshot.RightsPart || string.Equals(p.Part, LogonRights.DenyConstant(logon.Type), StringComparison.OrdinalIgnoreCase)) is { } part)
            return $"the list of those denied could not be read: {part.Reason}";
        var denied = Index.DeniedFor(right).Select(t => Graph.IndexOf(t.Holder)).ToList();
        foreach (var node in denied)
            if (Graph.UnreadReach.TryGetValue(node, out var group)) return $"the members of {group} could not be read, and a deny may come through them";
        return denied.Any(n => n < 0 || Graph.IsNameless(n)) && Graph.HiddenGroupOf(account) is { } hidden ? $"it is in {hidden}, which may not be read, and a deny may come through that group" : null;
    }

    /// <summary>Why the place of a right could not be read, or null when it was.</summary>
    public string? WhyUnread(Right right) => right switch
    {
        LogonRight r => HostUnread(r.Host, LogonRights.Constant(r.Type), HostSnapshot.RightsPart, HostSnapshot.LocalGroupsPart),
        PrivilegeRight r => HostUnread(r.Host, r.Constant, HostSnapshot.RightsPart, HostSnapshot.LocalGroupsPart),
        ServiceRight { Aspect: ServiceAspect.Order } r => HostUnread(r.Host, HostSnapshot.ServicesPart, HostSnapshot.ServiceOrderPart),
        ServiceRight r => HostUnread(r.Host, HostSnapshot.ServicesPart),
        LocalGroupRight r => HostUnread(r.Host, HostSnapshot.LocalGroupsPart, r.Group),
        InstanceRoleRight r => InstanceUnread(r.Instance),
        InstancePermissionRight r => InstanceUnread(r.Instance) ?? PermissionsUnread(r.Instance),
        DatabaseOwnerRight r => InstanceUnread(r.Instance),
        DatabaseRoleRight r => InstanceUnread(r.Instance) ?? DatabaseUnread(r.Instance, r.Database),
        DatabasePermissionRight r => InstanceUnread(r.Instance) ?? PermissionsUnread(r.Instance) ?? DatabaseUnread(r.Instance, r.Database),
        DirectoryRight when Tree is null => "the ACLs of the directory were not surveyed",
        _ => null,
    };

    private string? HostUnread(string name, params string[] parts)
    {
        if (Host(name) is not { } host) return $"{name} was not surveyed";
        if (host.Unread is not null) return $"{host.Name} could not be read: {host.Unread}";
        return host.UnreadParts.FirstOrDefault(p => parts.Any(part => Same(part, p.Part))) is { } unread ? $"{unread.Part} on {host.Name} could not be read: {unread.Reason}" : null;
    }

    private string? InstanceUnread(string name) =>
        Instance(name) is not { } instance ? $"{name} was not surveyed"
        : instance.Unread is not null ? $"{instance.Name} could not be read: {instance.Unread}"
        : instance.PostgreSql?.SignInUnread is { } unread ? $"the roles of accounts at {instance.Name} could not be read: {unread}"
        : null;

    private string? DatabaseUnread(string instance, string database) =>
        Instance(instance)!.Databases.FirstOrDefault(d => Same(d.Name, database)) is { Unread: { } reason } ? $"{instance}/{database} could not be read: {reason}" : null;

    private string? PermissionsUnread(string instance) =>
        Instance(instance)!.UnreadParts.FirstOrDefault(p => p.Part == InstanceSnapshot.PermissionsPart) is { } part ? $"the permissions of {instance} could not be read: {part.Reason}" : null;

    /// <summary>A login may stand for a local group of the instance's host: whom that lets in only the host knows.</summary>
    private string? LocalLoginUnread(string name)
    {
        var instance = Instance(name)!;
        var local = instance.Logins.FirstOrDefault(l => l.Sid.IsBuiltIn);
        return local is not null && WhyUnread(new LocalGroupRight(instance.Host, local.Name.Split('\\')[^1])) is { } why ? $"{local.Name} has a login there, and {why}" : null;
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
