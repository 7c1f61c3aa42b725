using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Worklists.Undo;

/// <summary>What changes take away, as memberships and entries to think away, and who is touched by it.</summary>
internal sealed class UndoCuts
{
    private readonly SurveyView _view;
    private readonly HashSet<int> _touched = [];

    /// <summary>Gathers what changes take away.</summary>
    public UndoCuts(SurveyView view, IEnumerable<Change> changes)
    {
        _view = view;
        foreach (var change in changes) Add(change);
    }

    /// <summary>What is thought away.</summary>
    public Cuts Cuts { get; private set; } = Cuts.None;

    /// <summary>The nodes whose memberships or entries those are.</summary>
    public IReadOnlyCollection<int> Touched => _touched;

    private void Add(Change change)
    {
        switch (change)
        {
            case RemoveMember c:
                Membership(c.Member, c.Group);
                break;
            case RemoveAccessRule c:
                AccessRule(c);
                break;
            case ChangePolicyList c:
                PolicyList(c);
                break;
            case RemoveLocalGroupMember c:
                Entry(c.Principal, new LocalGroupRight(c.Host, c.Group));
                break;
            case RevokeLogonRight c:
                Entry(c.Principal, new LogonRight(c.Host, c.Type));
                break;
            case RevokePrivilege c:
                Entry(c.Principal, new PrivilegeRight(c.Host, c.Constant));
                break;
            case InstanceChange c:
                foreach (var right in RightsOf(c))
                    foreach (var holder in HoldersOf(c)) Entry(holder, right);
                break;
            case CreateBranch or DeleteBranch or CreateAccount or DeleteAccount or DescribeAccount or SetPassword:
            case CreateGroup or DeleteGroup:
            case AddMember or AddAccessRule or SwitchInheritance or DisableAccount or EnableAccount:
            case AddLocalGroupMember or GrantLogonRight or GrantPrivilege or RefreshPolicy or ServiceChange or ProductChange:
                break;
            default:
                throw new InvalidOperationException($"Unknown change {change.GetType().Name}.");
        }
    }

    /// <summary>What a change of an instance takes from its principal, or from the owner of before.</summary>
    private static IEnumerable<Right> RightsOf(InstanceChange change) => change switch
    {
        RemoveInstanceRoleMember c => [new InstanceRoleRight(c.Instance, c.Role)],
        RevokeInstancePermission c => [new InstancePermissionRight(c.Instance, c.Permission)],
        RemoveDatabaseRoleMember c => [new DatabaseRoleRight(c.Instance, c.Database, c.Role)],
        RevokeDatabasePermission c => [new DatabasePermissionRight(c.Instance, c.Database, c.Permission, c.On)],
        ChangeDatabaseOwner c =>
            [new DatabaseOwnerRight(c.Instance, c.Database), new DatabaseRoleRight(c.Instance, c.Database, "db_owner")],
        DropLogin c =>
            [new InstancePermissionRight(c.Instance, SqlServerPermissions.ConnectSql), new InstancePermissionRight(
            c.Instance, RoleAttributeNames.Login)],
        DropDatabaseUser c => [new DatabasePermissionRight(c.Instance, c.Database, SqlServerPermissions.Connect, null)],
        CreateLogin or CreateDatabaseUser or AddInstanceRoleMember or AddDatabaseRoleMember => [],
        GrantInstancePermission or GrantDatabasePermission => [],
        _ => throw new InvalidOperationException($"Unknown change {change.GetType().Name}."),
    };

    /// <summary>Whose rights those are: in the PostgreSQL family, the accounts that sign in as the role.</summary>
    private IEnumerable<int> HoldersOf(InstanceChange change)
    {
        var principal = change is ChangeDatabaseOwner { Former: { } ours } ? ours : change.Principal;
        if (_view.Instance(change.Instance)?.PostgreSql is not { } catalog) return [NodeOf(principal)];
        var names = new SignInNames(catalog, new RoleAuthority(catalog));
        return [.. _view.Survey.Directory.Principals
            .Where(p =>
                p.Kind != PrincipalKind.Group && names.Of(p.Name, PostgreSqlGrants.RealmOf(p)).Any(n => n.Role == principal))
            .Select(p => _view.Graph.IndexOf(p.Sid))];
    }

    private void Membership(string member, string group)
    {
        if (NodeOf(member) is not (>= 0 and var inner) || NodeOf(group) is not (>= 0 and var outer)) return;
        _touched.Add(inner);
        Cuts = Cuts.With(inner, outer);
    }

    private void Entry(string principal, Right right) => Entry(NodeOf(principal), right);

    private void Entry(int node, Right right)
    {
        if (node < 0) return;
        _touched.Add(node);
        Cuts = Cuts.With(_view.Graph.SidOf(node), right);
    }

    /// <summary>An entry on an object, as the holdings of its principal name it.</summary>
    private void AccessRule(RemoveAccessRule change)
    {
        if (change.Rule.Denies || NodeOf(change.Rule.Principal) is not (>= 0 and var node)) return;
        foreach (var held in _view.HoldingsOf(node).All().Select(h => h.Right).OfType<EntryRight>())
            if (held.Rule.Key == change.Rule.Key && string.Equals(
                held.Where, change.Dn, StringComparison.OrdinalIgnoreCase)) Entry(node, held);
    }

    /// <summary>Those who go off a policy's list, at each host that it governs.</summary>
    private void PolicyList(ChangePolicyList change)
    {
        foreach (var entry in change.OldEntries.Except(change.Entries, StringComparer.OrdinalIgnoreCase))
            foreach (var host in change.Hosts)
                if (LogonRights.RightOf(change.Constant, host) is ({ } right, false)) Entry(NodeOf(entry), right);
    }

    private int NodeOf(string principal) =>
        Sid.TryParse(principal.TrimStart('*'), out var sid) ? _view.Graph.IndexOf(sid) : _view.Graph.IndexOf(
            LogonName.WithoutDomain(principal));
}
