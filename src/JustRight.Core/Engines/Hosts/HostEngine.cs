using JustRight.Core.Changes;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.Hosts;

/// <summary>Windows hosts: local groups, lists of user rights, services.</summary>
public sealed class HostEngine : Engine
{
    /// <inheritdoc/>
    public override IEnumerable<IPlaceGrants> Places(Survey survey, MembershipGraph graph) =>
        survey.Hosts.Select(h => new HostGrants(h, graph));

    /// <summary>
    /// A controller has no local groups of its own: those of the domain count there, and who is in one is in it on every
    /// controller.
    /// </summary>
    public override IEnumerable<RightTail> Given(Survey survey, MembershipGraph graph, AccessTree? tree) =>
        from host in survey.Hosts
        where host.Role == HostRole.Controller
        from name in BuiltInGroups.AllNames
        let node = graph.IndexOf(BuiltInGroups.Find(name)!.Value)
        where node >= 0
        select new RightTail(graph.SidOf(node), new LocalGroupRight(host.Name, name), [], null);

    /// <inheritdoc/>
    public override Right? RightOf(Need need, AskedAt at) => at.Spot is not { } spot ? null : need.Kind switch
    {
        NeedKind.Logon => new LogonRight(spot.Host, need.Value),
        NeedKind.KeptOut => new KeptOutRight(spot.Host, need.Value),
        NeedKind.Privilege => new PrivilegeRight(spot.Host, need.Value),
        NeedKind.LocalGroup => new LocalGroupRight(spot.Host, need.Value),
        NeedKind.DomainGroup or NeedKind.Directory or NeedKind.Spn or NeedKind.Delegation => null,
        NeedKind.ProductRole or NeedKind.Task or NeedKind.Service => null,
        NeedKind.InstanceRole or NeedKind.InstancePermission => null,
        NeedKind.DatabaseRole or NeedKind.DatabasePermission or NeedKind.DatabaseOwner => null,
    };

    /// <inheritdoc/>
    public override IReadOnlyList<Loss>? LossesBy(Change change, SurveyView view) => change switch
    {
        ChangePolicyList c => [.. OffList(c, view)],
        RemoveLocalGroupMember c => [Loss.OfEntry(view.NodeOf(c.Principal), new LocalGroupRight(c.Host, c.Group))],
        RevokeLogonRight c => [Loss.OfEntry(view.NodeOf(c.Principal), new LogonRight(c.Host, c.Type))],
        RevokePrivilege c => [Loss.OfEntry(view.NodeOf(c.Principal), new PrivilegeRight(c.Host, c.Constant))],
        LiftLogonDenial c => [Loss.OfEntry(view.NodeOf(c.Principal), new KeptOutRight(c.Host, c.Type))],
        AddLocalGroupMember or GrantLogonRight or GrantPrivilege or DenyLogon or RefreshPolicy or ServiceChange => [],
        _ => null, // another engine's
    };

    /// <summary>Those who go off a policy's list, at each host that it governs.</summary>
    private static IEnumerable<Loss> OffList(ChangePolicyList change, SurveyView view) =>
        from entry in change.OldEntries.Except(change.Entries, StringComparer.OrdinalIgnoreCase)
        from host in change.Hosts
        let right = HostLists.RightOf(change.Constant, host)
        where right is not null
        select Loss.OfEntry(view.NodeOf(entry), right.Value.Right);
}
