using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Engines.Person;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists.Retirement;

namespace JustRight.Core.Worklists;

/// <summary>
/// Turns a fit into steps, in the order of what depends on what: branches, groups, accounts, memberships, hosts, logins, roles.
/// </summary>
public sealed class WorklistMaker
{
    private readonly InstallFit _fit;
    private readonly SurveyView _view;
    private readonly Plan _plan;
    private readonly List<(int Order, Change Change, string For, string Why, string? Blocked, Origin At)> _give = [];

    private readonly List<NotOffered> _notOffered = [];

    private readonly HostSteps _hosts;

    private WorklistMaker(InstallFit fit, SurveyView view) => (_fit, _view, _plan, _hosts) = (fit, view, fit.Plan, new HostSteps(fit.Plan, view));

    /// <summary>The steps left for an install.</summary>
    /// <param name="past">For an install that is being retired: what is known from before.</param>
    public static Worklist Make(InstallFit fit, SurveyView view, NeedsIndex needs, RetirementPast? past = null)
    {
        if (fit.Plan.Stage == Stage.Retiring) return Retiring(fit, view, needs, past ?? throw new ArgumentNullException(nameof(past), "An install that is being retired needs its past."));
        var maker = new WorklistMaker(fit, view);
        maker.Objects();
        foreach (var account in fit.Accounts)
            foreach (var judgement in account.Judgements.Where(j => j.Grant is { GivenBy: GivenBy.Us } && NeedsGiving(j) || IsTakenBack(j)))
                maker.Grant(account.Account, judgement);
        maker._hosts.Finish(maker.Add);
        foreach (var (id, group) in maker._hosts.Along) maker.ComesWith(id, group);
        var give = maker.Ordered();
        var setup = fit.Accounts.SelectMany(a => a.Judgements).Where(j => j.Verdict == Verdict.Pending).Select(j => j.Id).ToList();
        var (remove, notOffered) = new RemovalMaker(fit, view, needs, give).Make();
        IReadOnlyList<NotOffered> left = [.. maker._notOffered, .. notOffered];
        return new Worklist(give, remove, setup, [.. left, .. NotGiven.Of(fit, give, left)]);
    }

    private static Worklist Retiring(InstallFit fit, SurveyView view, NeedsIndex needs, RetirementPast past)
    {
        var retirement = new RetirementSteps(fit, view, needs, past);
        var (rights, kept) = new RemovalMaker(fit, view, needs, []) { Going = retirement.Going }.Make();
        var (steps, more) = retirement.Around(rights);
        return new Worklist([], steps, [], [.. kept, .. more]);
    }

    private static bool NeedsGiving(Judgement judgement) => judgement is { Right: not UnjudgedRight, Accepted: null } && judgement.Verdict switch
    {
        Verdict.Missing => judgement.DeniedBy.Count == 0, // a deny is not overcome by granting again
        Verdict.Met => !judgement.AsPlanned,
        Verdict.Unseen => true,
        _ => false,
    };

    /// <summary>What setup gives and a policy takes back is given in the policy, whoever gives it on the host.</summary>
    private static bool IsTakenBack(Judgement judgement) => judgement is { Verdict: Verdict.Pending, Governed.Gives: false, Grant.GivenBy: GivenBy.Setup };

    private void Objects()
    {
        if (_view.Survey.Directory.Unread is not null) return;
        var existing = _view.Survey.Directory.Branches.Select(DistinguishedName.Parse).ToHashSet();
        foreach (var branch in _plan.Branches)
        {
            // The estate names the branch; parents of it may be missing too, up to the root of the domain.
            var missing = new Stack<DistinguishedName>();
            for (var dn = DistinguishedName.Parse(branch.Dn); dn is not null && dn.Parts[0].Type != "DC" && !existing.Contains(dn); dn = dn.Parent) missing.Push(dn);
            while (missing.TryPop(out var dn))
            {
                existing.Add(dn);
                Add(0, new CreateBranch(_plan.Domain, dn.Text), branch.Dn, "the plan's objects belong there", null, branch.At);
            }
        }

        foreach (var group in _plan.Groups)
        {
            var node = _view.Graph.IndexOf(group.Name);
            if (node < 0 && group.Dn is not null)
                Add(1, new CreateGroup(_plan.Domain, group.Name, group.Dn, group.Scope, group.Description), group.Key, group.Purpose, null, group.At);
            foreach (var member in group.Members.Where(m => _plan.Groups.Any(g => g.Key == m)))
            {
                var name = _plan.Groups.First(g => g.Key == member).Name;
                var inner = _view.Graph.IndexOf(name);
                if (node < 0 || inner < 0 || !_view.Graph.GroupsOf(inner).Contains(node))
                    Add(3, new AddMember(_plan.Domain, group.Name, name), group.Key, group.Purpose, null, group.At);
            }
        }

        if (_plan.SignIn is { } signIn)
        {
            foreach (var member in signIn.Install.EnterMembers.Where(m => !IsIn(m, signIn.EnterName!)))
                Add(3, new AddMember(_plan.Domain, signIn.EnterName!, member), _plan.Groups.First(g => g.Name == signIn.EnterName).Key, $"may sign in to {_plan.Title}", _view.Graph.IndexOf(member) < 0 ? $"there is no {member} in {_plan.Domain}" : null, signIn.Install.Line("enter-members"));
        }

        foreach (var account in _fit.Accounts) Account(account);
    }

    /// <summary>Whether an account is in a group of the plan, directly or through groups in it.</summary>
    private bool Gathers(PlannedGroup group, string account) =>
        group.Members.Contains(account) || _plan.Groups.Any(g => group.Members.Contains(g.Key) && Gathers(g, account));

    private bool IsIn(string member, string group) => (_view.Graph.IndexOf(member), _view.Graph.IndexOf(group)) is ( >= 0 and var inner, >= 0 and var outer) && _view.Graph.GroupsOf(inner).Contains(outer);

    private void Account(AccountFit fit)
    {
        var account = fit.Account;
        if (!fit.Found)
        {
            if (account.Dn is not null && !fit.Judgements.Any(j => j is { Verdict: Verdict.Done, Right: AccountRight }))
            {
                Add(2, new CreateAccount(_plan.Domain, account.Name, account.Dn, $"{account.Name}@{_plan.UpnSuffix}", account.Description, account.PasswordNeverExpires), $"{account.Key}/account:exists", account.Purpose, null, account.At);
                if (account.PasswordCannotChange) ForbidPasswordChange(account, account.Dn, $"{account.Key}/account:exists");
            }

            return;
        }

        if (fit.Judgements.FirstOrDefault(j => j is { Verdict: Verdict.Missing, Right: AccountRight { Aspect: AccountAspect.PasswordChange } }) is { } free)
            ForbidPasswordChange(account, _view.Graph.PrincipalOf(_view.Graph.IndexOf(account.Name))!.Dn, free.Id);

        var off = fit.Judgements.Where(j => j is { Verdict: Verdict.Missing, Right: AccountRight { Aspect: AccountAspect.Description or AccountAspect.PasswordExpiry } }).ToList();
        if (off.Count == 0) return;
        var found = _view.Graph.PrincipalOf(_view.Graph.IndexOf(account.Name))!;
        var change = new DescribeAccount(_plan.Domain, account.Name, account.Description, account.PasswordNeverExpires, found.Description, found.State.HasFlag(AccountState.PasswordNeverExpires));
        foreach (var judgement in off) Add(2, change, judgement.Id, "as planned", null, account.At);
    }

    private void ForbidPasswordChange(PlannedAccount account, string dn, string id)
    {
        foreach (var rule in OwnPasswordChange.Denials) Add(3, new AddAccessRule(_plan.Domain, dn, rule, "change its password"), id, "it must not be able to change its own password", null, account.At);
    }

    private void Grant(PlannedAccount account, Judgement judgement)
    {
        var grant = judgement.Grant!;
        var group = grant.Through is null ? null : _plan.Groups.First(g => g.Key == grant.Through);
        var principal = $"{_plan.Domain}\\{group?.Name ?? account.Name}";
        var why = grant.Why ?? account.Purpose;
        var unread = judgement.Verdict == Verdict.Unseen ? judgement.Reason : _view.WhyUnread(grant.Right);
        var blocked = unread ?? (judgement.Absent is null ? null : judgement.Reason);
        switch (grant.Right)
        {
            case ProductRoleRight r:
                Add(8, new MapToProductRole(r.Place, r.Identity, principal, r.Lets), grant.Id, why, ByPerson(account, r), grant.At);
                break;
            case DomainGroupRight r:
                // Membership through an inner group of the plan is given by that inner group.
                var target = _plan.Groups.FirstOrDefault(g => string.Equals(g.Name, r.Group, StringComparison.OrdinalIgnoreCase));
                if (target is null || target.Members.Contains(account.Key))
                    Add(3, new AddMember(_plan.Domain, r.Group, account.Name), grant.Id, why, blocked, grant.At);
                else foreach (var inner in _plan.Groups.Where(g => target.Members.Contains(g.Key) && Gathers(g, account.Key)))
                    Add(3, new AddMember(_plan.Domain, r.Group, inner.Name), grant.Id, target.Purpose, blocked, target.At);
                break;
            case DirectoryRight r:
                Entries(r, judgement, grant, principal, why, blocked);
                break;
            case LocalGroupRight r when _view.Host(r.Host) is { Role: HostRole.Controller }:
                Add(3, new AddMember(_plan.Domain, r.Group, group?.Name ?? account.Name), grant.Id, $"{why}; {r.Host} is a domain controller, so this applies to every domain controller", blocked, grant.At);
                break;
            case LocalGroupRight r:
                Add(4, new AddLocalGroupMember(r.Host, r.Group, principal), grant.Id, why, blocked, grant.At);
                break;
            case LogonRight or PrivilegeRight or ServiceRight:
                _hosts.Grant(account, judgement, principal, why, blocked, Add);
                break;
            case InstanceRoleRight or InstancePermissionRight or DatabaseOwnerRight or DatabasePermissionRight when _view.Instance(grant.Right.AtInstance!)?.PostgreSql is { } catalog:
                foreach (var (order, change, why2) in PostgreSqlSteps.For(grant.Right, catalog, account, _view)) Add(order, change, grant.Id, why2 ?? why, blocked ?? (change is CreateLogin { Principal: "" } ? PostgreSqlSteps.NoWayIn(account) : null), grant.At);
                break;
            case DatabaseOwnerRight r:
                Login(r.Instance);
                Owner(r);
                break;
            case InstanceRoleRight r:
                Login(r.Instance);
                Add(6, new AddInstanceRoleMember(r.Instance, r.Role, principal), grant.Id, why, blocked, grant.At);
                break;
            case InstancePermissionRight r:
                if (Login(r.Instance) && r.Permission == SqlServerPermissions.ConnectSql) break; // a login is born with it
                Add(6, new GrantInstancePermission(r.Instance, r.Permission, principal), grant.Id, why, blocked, grant.At);
                break;
            case DatabasePermissionRight r:
                User(r.Instance, r.Database);
                Add(7, new GrantDatabasePermission(r.Instance, r.Database, r.Permission, r.On, principal), grant.Id, why, blocked, grant.At);
                break;
            case DatabaseRoleRight r:
                User(r.Instance, r.Database);
                Add(7, new AddDatabaseRoleMember(r.Instance, r.Database, r.Role, principal), grant.Id, why, blocked, grant.At);
                break;
        }

        bool Login(string instance)
        {
            if (_view.Instance(instance)?.Logins.Any(l => IsPrincipal(l.Sid)) == true) return false;
            Add(5, new CreateLogin(instance, principal), grant.Id, why, unread, grant.At); // it hangs on no database
            return true;
        }

        // An owner is dbo there, and may not be a user beside that.
        void Owner(DatabaseOwnerRight r)
        {
            var database = _view.Instance(r.Instance)?.Databases.FirstOrDefault(d => string.Equals(d.Name, r.Database, StringComparison.OrdinalIgnoreCase));
            if (database?.Users.Any(u => IsPrincipal(u.Sid)) == true) DropUser(r, database);
            Add(7, new ChangeDatabaseOwner(r.Instance, r.Database, principal, database?.OwnerName), grant.Id, why, blocked, grant.At);
        }

        // What the user holds goes by steps of its own: dropped with it, nobody could put it back.
        void DropUser(DatabaseOwnerRight r, DatabaseSnapshot database)
        {
            const string dbo = "an owner is dbo there, and cannot be a user too";
            foreach (var role in database.Roles.Where(m => m.Members.Any(IsPrincipal)))
                Add(6, new RemoveDatabaseRoleMember(r.Instance, r.Database, role.Role, principal), grant.Id, dbo, blocked, grant.At);
            foreach (var entry in database.Permissions.Where(p => p is { State: PermissionState.Grant, Role: null } && IsPrincipal(p.Holder) && !IsConnect(p)))
                Add(6, new RevokeDatabasePermission(r.Instance, r.Database, entry.Permission, entry.On, principal), grant.Id, dbo, blocked, grant.At);
            Add(6, new DropDatabaseUser(r.Instance, r.Database, principal), grant.Id, dbo, blocked, grant.At);
        }

        static bool IsConnect(PermissionEntry entry) => entry.On is null && entry.Permission == SqlServerPermissions.Connect;

        void User(string instance, string name)
        {
            Login(instance);
            var database = _view.Instance(instance)?.Databases.FirstOrDefault(d => string.Equals(d.Name, name, StringComparison.OrdinalIgnoreCase));
            if (database?.Users.Any(u => IsPrincipal(u.Sid)) != true) Add(6, new CreateDatabaseUser(instance, name, principal), grant.Id, why, blocked, grant.At);
        }

        bool IsPrincipal(Sid sid) => _view.Graph.IndexOf(group?.Name ?? account.Name) is var node && node >= 0 && _view.Graph.SidOf(node) == sid;
    }

    /// <summary>The smallest entries on the branch that give a right over all below it. Where they stand already and something below refuses all the same, a person must decide.</summary>
    private void Entries(DirectoryRight right, Judgement judgement, PlannedGrant grant, string principal, string why, string? blocked)
    {
        if (_view.Tree is not { } tree || Demands.Of(right, tree.Schema).Demands is not { } demands || tree.IndexOf(right.Branch) is var at && at < 0) return;
        var node = _view.Graph.IndexOf(LogonName.WithoutDomain(principal));
        var there = tree.DescriptorOf(at)?.Entries ?? [];
        var missing = demands
            .Select(d => d.RuleFor(principal, tree.Schema.Class(right.Of)!)).DistinctBy(r => r.Key)
            .Where(r => node < 0 || !there.Contains(r.ToAce(_view.Graph.SidOf(node))))
            .ToList();
        foreach (var rule in missing)
            Add(4, new AddAccessRule(_plan.Domain, right.Branch, rule, AceWords.What(rule.Rights, rule.ObjectType, rule.InheritedBy, tree.Schema)), grant.Id, why, blocked, grant.At);
        if (missing.Count == 0 && judgement is { Verdict: Verdict.Missing, Branch: not null })
            _notOffered.Add(new NotOffered(judgement.Id, "its ACEs are on the branch, but do not reach everything below: trace it, and choose a fix"));
    }

    /// <summary>Why no step of ours makes it: it happens inside the product.</summary>
    private string ByPerson(PlannedAccount account, ProductRoleRight right) =>
        $"a person makes it inside the product and confirms it: justright confirm {_plan.Install} {account.Key} \"{right.Identity}\"";

    private void Add(int order, Change change, string @for, string why, string? blocked, Origin at)
    {
        // A group's place right is one step however many accounts hold it through the group; it is already done if the group holds it.
        if (change is AddLocalGroupMember local && Holds(local.Principal, new LocalGroupRight(local.Host, local.Group))) return;
        _give.Add((order, change, @for, why, blocked, at));
    }

    /// <summary>The step that gives a local group gives what comes with it too.</summary>
    private void ComesWith(string id, LocalGroupRight group)
    {
        var at = _give.FindIndex(g => g.Change is AddLocalGroupMember member && new LocalGroupRight(member.Host, member.Group) == group);
        if (at >= 0) _give.Add(_give[at] with { For = id });
    }

    private bool Holds(string principal, Right right)
    {
        var node = _view.Graph.IndexOf(LogonName.WithoutDomain(principal));
        return node >= 0 && _view.Index.Gives(_view.Graph.SidOf(node), right);
    }

    private List<Step> Ordered() =>
    [
        .. _give
            .Select((g, i) => (g, i))
            .GroupBy(x => x.g.Change.Key)
            .Select(same => (First: same.First(), For: same.Select(s => s.g.For).Distinct().ToList()))
            .OrderBy(s => s.First.g.Order).ThenBy(s => s.First.i)
            .Select((s, i) => new Step(i + 1, s.First.g.Change, s.For, s.First.g.Why, s.First.g.Blocked, s.First.g.At)),
    ];
}
