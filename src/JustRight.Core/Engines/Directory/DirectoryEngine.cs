using JustRight.Core.Changes;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.Directory;

/// <summary>The directory: groups of the domain, and access lists.</summary>
public sealed class DirectoryEngine : Engine
{
    /// <inheritdoc/>
    public override IEnumerable<RightTail> Given(Survey survey, MembershipGraph graph, AccessTree? tree) =>
        (tree is null ? [] : DelegationFinder.Find(tree, graph)).Concat(
            from account in survey.Directory.Principals
            where account.Kind == PrincipalKind.User || account.PasswordFetchers is not null
            from right in Own(account, survey.Directory.Domain)
            select new RightTail(account.Sid, right, [], null));

    /// <summary>What stands on an account's own object.</summary>
    private static IEnumerable<Right> Own(DirectoryPrincipal account, string domain) =>
    [
        .. account.ServicePrincipalNames.Select(n => new SpnRight(domain, n)),
        .. account.DelegatesTo.Select(t => new DelegationRight(domain, t)),
        .. account.IsTrustedForDelegation ? [new AnyDelegationRight(domain)] : Array.Empty<Right>(),
    ];

    /// <inheritdoc/>
    public override Right Membership(string domain, string group) => new DomainGroupRight(domain, group);

    /// <inheritdoc/>
    public override Right? RightOf(Need need, AskedAt at) => need.Kind switch
    {
        NeedKind.DomainGroup => new DomainGroupRight(at.Domain, need.Value),
        NeedKind.Spn => new SpnRight(at.Domain, need.Value),
        NeedKind.Delegation => new DelegationRight(at.Domain, need.Value),
        NeedKind.Directory => at.Spot?.Branch is { } branch
            ? new DirectoryRight(BranchAsked.Make(DirectoryActs.Of(need.Value)!, need.Attributes, need.Of, branch))
            : null,
        NeedKind.Logon or NeedKind.KeptOut or NeedKind.Privilege or NeedKind.LocalGroup or NeedKind.Service => null,
        NeedKind.ProductRole or NeedKind.Task => null,
        NeedKind.InstanceRole or NeedKind.InstancePermission => null,
        NeedKind.DatabaseRole or NeedKind.DatabasePermission or NeedKind.DatabaseOwner => null,
    };

    /// <inheritdoc/>
    public override IReadOnlyList<Loss>? LossesBy(Change change, SurveyView view) => change switch
    {
        RemoveMember c => [Loss.OfMembership(view.NodeOf(c.Member), view.NodeOf(c.Group))],
        RemoveAccessRule { Rule.Denies: false } c =>
            [Loss.OfEntry(view.NodeOf(c.Rule.Principal), new EntryRight(c.Says, c.Dn, c.Rule, 1))],
        RemoveServiceName c => [Loss.OfEntry(view.NodeOf(c.Account), new SpnRight(c.Domain, c.ServiceName))],
        EndDelegation c => [Loss.OfEntry(view.NodeOf(c.Account), new DelegationRight(c.Domain, c.Target))],
        EndDelegationTrust c => [Loss.OfEntry(view.NodeOf(c.Account), new AnyDelegationRight(c.Domain))],
        AddServiceName or AllowDelegation or TrustForDelegation => [],
        RemoveAccessRule => [], // who is no longer denied loses nothing
        CreateBranch or DeleteBranch or CreateAccount or DeleteAccount or DescribeAccount or SetPassword => [],
        CreateGroup or DeleteGroup or AddMember or AddAccessRule or SwitchInheritance or DisableAccount or EnableAccount => [],
        _ => null, // another engine's
    };
}
