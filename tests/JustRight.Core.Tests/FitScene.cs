using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Engines;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Fit.Exceptions;
using JustRight.Core.Hosts;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;
using JustRight.Core.Worklists.Retirement;

namespace JustRight.Core.Tests;

/// <summary>A small estate that a test describes in a few words: who is in what, and what an account needs.</summary>
internal sealed class FitScene
{
    public static readonly DateTimeOffset Now = new(2026, 11, 25, 12, 0, 0, TimeSpan.Zero);
    private static readonly Sid DomainSid = Sid.Parse("S-1-5-21-1-2-3");
    private static readonly Origin Line = new("sheet.yaml", 7, 9);

    private readonly List<DirectoryPrincipal> _principals = [];
    private readonly List<HostSnapshot> _hosts = [];
    private readonly List<InstanceSnapshot> _instances = [];
    private readonly List<PlannedAccount> _accounts = [];
    private readonly List<PlannedGroup> _groups = [];
    private readonly List<PlannedGrant> _grants = [];
    private readonly List<ForbiddenRule> _forbidden = [];
    private readonly List<Decision> _decisions = [];
    private readonly List<Plan> _others = [];
    private readonly List<GroupPolicy> _policies = [];
    private readonly List<PlannedService> _services = [];
    private readonly List<Confirmation> _confirmations = [];
    private uint _rid = 1000;
    private AccessSnapshot? _access;
    private Func<DirectorySnapshot, DirectorySnapshot> _directory = d => d;

    public FitScene()
    {
        _principals.Add(new DirectoryPrincipal(
            DomainSid.Append(513), PrincipalKind.Group, "Domain Users", "CN=Domain Users,CN=Users,DC=fennmoor,DC=example"));
        Group("Domain Admins");
    }

    public Stage Stage { get; set; } = Stage.Planned;

    public OrganizationRules Rules { get; set; } = new([], null, []);

    public DateTimeOffset SurveyedAt { get; set; } = Now;

    public IReadOnlyList<AcceptedException> Exceptions { get; set; } = [];

    public string? DirectoryUnread { get; set; }

    /// <summary>For an install that is being retired: what is known from before.</summary>
    public RetirementPast? Past { get; set; }

    /// <summary>An account that exists, and is one of the plan under the key <c>poller</c> unless told otherwise.</summary>
    public FitScene Account(
        string name = "svc-poller", string key = "poller", bool exists = true, uint primary = 513,
        AccountState state = AccountState.None, bool planned = true, WorksAs worksAs = WorksAs.Service)
    {
        if (exists)
            _principals.Add(new DirectoryPrincipal(
                DomainSid.Append(_rid++), PrincipalKind.User, name,
                $"CN={name},OU=Svc,DC=fennmoor,DC=example")
            { PrimaryGroupRid = primary, State = state });
        if (planned) _accounts.Add(new PlannedAccount(key, name, null, "", "polls", worksAs, false, true, Line));
        return this;
    }

    /// <summary>Makes an account of the plan, or a group, one that we made, with the note of that.</summary>
    /// <param name="exists">Whether it is there.</param>
    public FitScene Made(string name, bool exists = true)
    {
        var at = _accounts.FindIndex(a => a.Name == name);
        if (at >= 0) _accounts[at] = _accounts[at] with { Existing = false, Dn = $"CN={name},OU=Svc,DC=fennmoor,DC=example" };
        if (!exists) return this;
        return Replace(name, p => p with { Note = CreationNote.Of("Maud Ferris", Now.AddYears(-1), "install") });
    }

    public FitScene Group(string name, params string[] members)
    {
        _principals.Add(new DirectoryPrincipal(
            DomainSid.Append(_rid++), PrincipalKind.Group, name,
            $"CN={name},OU=Groups,DC=fennmoor,DC=example")
        { Members = [.. members.Select(SidOf)] });
        return this;
    }

    public FitScene Replace(string name, Func<DirectoryPrincipal, DirectoryPrincipal> change)
    {
        var at = _principals.FindIndex(p => p.Name == name);
        _principals[at] = change(_principals[at]);
        return this;
    }

    /// <summary>Changes what was read of the directory besides its principals.</summary>
    public FitScene Directory(Func<DirectorySnapshot, DirectorySnapshot> change)
    {
        _directory = change;
        return this;
    }

    public FitScene PlannedGroup(string key, string name, bool closed, params string[] members)
    {
        _groups.Add(new PlannedGroup(
            key, name, $"CN={name},OU=Groups,DC=fennmoor,DC=example", GroupScope.Global, "", "runs it", closed, false, members,
            Line));
        return this;
    }

    /// <summary>A group of the plan that an install says is there already.</summary>
    public FitScene ExistingGroup(string key, string name, params string[] members)
    {
        _groups.Add(new PlannedGroup(key, name, null, GroupScope.Global, "", "runs it", false, true, members, Line));
        return this;
    }

    /// <summary>A host with members of its Administrators, and lists by constant.</summary>
    public FitScene Host(string name, string[] admins, params (string Constant, string[] Holders)[] lists)
    {
        _hosts.Add(new HostSnapshot(
            name, SurveyedAt, null,
            [
                new LocalGroup("Administrators", Sid.Parse("S-1-5-32-544"), [.. admins.Select(SidOf)]),
                new LocalGroup("Users", Sid.Parse("S-1-5-32-545"), [SidOf("Domain Users")])],
            [.. lists.Select(l => new LogonList(l.Constant, [.. l.Holders.Select(SidOf)]))], []));
        return this;
    }

    /// <summary>Changes what was read of a host.</summary>
    public FitScene Of(string host, Func<HostSnapshot, HostSnapshot> change)
    {
        var at = _hosts.FindIndex(h => h.Name == host);
        _hosts[at] = change(_hosts[at]);
        return this;
    }

    /// <summary>Changes what was read of an instance.</summary>
    public FitScene OfInstance(string name, Func<InstanceSnapshot, InstanceSnapshot> change)
    {
        var at = _instances.FindIndex(i => i.Name == name);
        _instances[at] = change(_instances[at]);
        return this;
    }

    /// <summary>A host's computer account, in the branch that policies are linked to in <see cref="Policy"/>.</summary>
    public FitScene Computer(string host)
    {
        _principals.Add(new DirectoryPrincipal(
            DomainSid.Append(_rid++), PrincipalKind.Computer, ServiceIdentity.ComputerAccount(host),
            $"CN={host},OU=Servers,DC=fennmoor,DC=example")
        { PrimaryGroupRid = 515 });
        return this;
    }

    /// <summary>A policy of computers with one list, applied by everybody.</summary>
    public FitScene Policy(string name, string constant, params string[] entries)
    {
        var id = PolicyLink.IdOf(new Guid(_policies.Count + 1, 0, 0, new byte[8]));
        _policies.Add(new GroupPolicy(
            id, name, false, "O:BAG:BAD:(A;;RPCR;;;AU)",
            [new PolicyList(constant, [.. entries.Select(e => e.StartsWith('*') ? e : $"*{SidOf(e)}")])])
        {
            Groups = [],
        });
        return this;
    }

    /// <summary>A policy of computers with rules for local groups, applied by everybody; null when they were not read.</summary>
    public FitScene PolicyOfGroups(string name, params PolicyGroupRule[]? rules)
    {
        Policy(name, "SeNothingPrivilege");
        _policies[^1] = _policies[^1] with { Groups = rules };
        return this;
    }

    /// <summary>A service that an account of the plan must run.</summary>
    public FitScene Runs(
        string service, string host = "fm-temp01", GivenBy by = GivenBy.Us, ServiceStart? start = null, string account = "poller",
        params string[] after)
    {
        var planned = new PlannedService(service, host, "place", account, start, after, by, Line);
        _services.Add(planned);
        foreach (var (aspect, asked) in new[] { (ServiceAspect.Identity, true), (ServiceAspect.Restarted, true), (
            ServiceAspect.Start, start is not null), (ServiceAspect.Order, after.Length > 0) })
            if (asked)
                Need(
                    new ServiceRight(new ServiceAsked(host, service, aspect, start, after), $"{service} {aspect}"), by,
                    account: account);
        return this;
    }

    public FitScene UnreadHost(string name)
    {
        _hosts.Add(HostSnapshot.NotRead(name, SurveyedAt, "no answer"));
        return this;
    }

    public FitScene UnreadPart(string host, string part)
    {
        var at = _hosts.FindIndex(h => h.Name == host);
        _hosts[at] = _hosts[at] with { UnreadParts = [new UnreadPart(part, "access denied")] };
        return this;
    }

    /// <summary>An instance with members of its roles; every member has a login, and is a user of the database <c>Store</c>.</summary>
    public FitScene Instance(
        string name, (string Role, string[] Members)[] roles, params (string Role, string[] Members)[] databaseRoles)
    {
        var logins = roles.Concat(databaseRoles).SelectMany(r => r.Members).Distinct()
            .Select(m => new InstanceLogin(SidOf(m), m)).ToList();
        _instances.Add(new InstanceSnapshot(
            name, "sqlserver", SurveyedAt, null, logins, [.. roles.Select(Members)],
            [new DatabaseSnapshot(
                "Store", default, null,
                [.. databaseRoles.SelectMany(r => r.Members).Distinct().Select(m => new InstanceLogin(SidOf(m), m))],
                [.. databaseRoles.Select(Members)])]));
        return this;

        RoleMembers Members((string Role, string[] Members) r) => new(r.Role, [.. r.Members.Select(SidOf)], []);
    }

    public FitScene Need(
        Right right, GivenBy by = GivenBy.Us, Until until = Until.Always, string? through = null, string account = "poller",
        string? decision = null, bool madeBySetup = false)
    {
        _grants.Add(Grant(right, by, until, through, account, decision) with { MadeBySetup = madeBySetup });
        return this;
    }

    public FitScene Forbid(string group, string? account = null)
    {
        _forbidden.Add(new ForbiddenRule(account, group, null, "organization rule", Line));
        return this;
    }

    public FitScene Decide(string taken, bool byInstall, params (string Label, Right[] Rights)[] alternatives)
    {
        _decisions.Add(new Decision(
            "poller.choice", "poller", "choice", taken, "a reason", byInstall,
            [.. alternatives.Select(a => new Alternative(a.Label, a.Rights, 1, ""))], Line));
        return this;
    }

    /// <summary>Another install that uses the account <c>svc-poller</c> and needs a right.</summary>
    public FitScene OtherInstall(string name, Right right)
    {
        _others.Add(Plan(name) with
        {
            Accounts = [new PlannedAccount(
            "other", "svc-poller", null, "", "", WorksAs.Service, false, true,
            Line)],
            Groups = [],
            Services = [],
            Grants = [Grant(right, GivenBy.Us, Until.Always, null, "other",
            null)],
            Decisions = [],
            Forbidden = []
        });
        return this;
    }

    /// <summary>Objects of the directory with what stands on their own lists in SDDL, parents first; what they inherit is worked out. Names in braces stand for SIDs.</summary>
    public FitScene Tree(params (string Dn, string Class, string Own)[] objects)
    {
        var lists = objects.Select(o =>
            Sddl.Read(
                System.Text.RegularExpressions.Regex.Replace(o.Own, "{(.*?)}", m => SidOf(m.Groups[1].Value).ToString()),
                DomainSid))
            .ToList();
        var raw = new AccessSnapshot(
            BuiltInSchema.Schema, lists, [.. objects.Select((o, i) =>
                new DirectoryObject(
                    o.Dn, o.Class, _principals.Find(p => p.Dn == o.Dn)?.Sid ?? default, i,
                    false))], ["DC=fennmoor,DC=example"], TreeUnread);
        _access = new AccessTree(raw).With(lists.Select((l, i) => (l, i)).ToDictionary(l => l.i, l => l.l)).ToSnapshot();
        return this;
    }

    public IReadOnlyList<UnreadPart> TreeUnread { get; set; } = [];

    public FitScene BarAct(DirectoryAct act, string of)
    {
        _forbidden.Add(new ForbiddenRule(
            null, "", new DirectoryRight(new BranchAsked(act, [], of, "DC=fennmoor,DC=example")), "organization rule", Line));
        return this;
    }

    public InstallFit Judge() => Run().Fit;

    /// <summary>A person's word on what the account needs inside the product.</summary>
    public FitScene Confirmed(Confirmation word)
    {
        _confirmations.Add(word);
        return this;
    }

    public SurveyView View()
    {
        var directory = new DirectorySnapshot(
            "FENNMOOR", DomainSid, "fm-dc01", SurveyedAt, DirectoryUnread is null ? _principals : [],
            ["OU=Svc,DC=fennmoor,DC=example"], DirectoryUnread)
        {
            Access = _access,
            AskedFor = [.. _grants.Select(g => g.Right).OfType<DomainGroupRight>().Select(r => r.DomainGroup)],
            Policies = _policies.Count == 0
                ? null
                : new PolicySnapshot(
                    [new PolicyContainer(
                        "OU=Servers,DC=fennmoor,DC=example",
                        PolicyLink.Write(_policies.Select(p => new PolicyLink(p.Id, false, false)), "DC=fennmoor,DC=example"),
                        false)],
                    [], _policies, null),
        };
        return AllEngines.View(new Survey("fennmoor", SurveyedAt, true, _directory(directory), _hosts, _instances));
    }

    /// <summary>What all installs need, this one among them.</summary>
    public NeedsIndex Needs() => new([.. _others, Plan("install")], Unplanned);

    /// <summary>Installs that cannot be planned.</summary>
    public IReadOnlyList<UnplannedInstall> Unplanned { get; set; } = [];

    /// <summary>The present, where a test asks how long the answer holds; <see cref="Now"/> otherwise.</summary>
    public Present? Present { get; set; }

    public (InstallFit Fit, Worklist Worklist) Run()
    {
        var view = View();
        var plan = Plan("install");
        var needs = Needs();
        var fit = new FitJudge(view, needs, Rules, Present ?? new Present(Now))
        {
            Confirmations = new ConfirmationIndex(_confirmations),
            Exceptions = new ExceptionIndex(Exceptions)
        }.Judge(plan);
        var worklist = WorklistMaker.Make(fit, view, needs, Past);
        if (Stage != Stage.Retiring) Accounted(fit, worklist);
        return (fit, worklist);
    }

    /// <summary>Whatever is missing, a step gives it, or somebody is named who does.</summary>
    private static void Accounted(InstallFit fit, Worklist worklist)
    {
        var named = worklist.Give.SelectMany(s => s.For).Concat(worklist.NotOffered.Select(n => n.For)).ToHashSet();
        fit.Accounts.SelectMany(a => a.Judgements).Where(j => j.Verdict == Verdict.Missing).Select(j => j.Id)
            .ShouldBeSubsetOf(named);
    }

    /// <summary>People sign in to another install, whose group they must be in.</summary>
    public FitScene OtherSignIn(string name, string group, params string[] expected)
    {
        _others.Add(Plan(name) with
        {
            Accounts = [],
            Groups = [],
            Services = [],
            Grants = [],
            Decisions = [],
            Forbidden = [],
            SignIn = SignIn.SettingsScene.Plan(SignIn.SettingsScene.Staff) with
            {
                EnterName = group,
                Install = new InstallSignIn("staff", Line) { ExpectedNames = expected },
                Memberships = [.. expected.Select(e => new Core.SignIn.SignInMembership("staff", group, e, false, Line))],
            },
        });
        return this;
    }

    /// <summary>The plan that is judged.</summary>
    public Plan Plan(string name = "install") => new(
        name, "thermograph@4.2", "Thermograph", "fennmoor", "FENNMOOR", "fennmoor.example", Stage, [], _groups, _accounts,
        _grants, _decisions, _forbidden, [])
    {
        Services = _services,
        NewOwners = Rules.NewOwners,
    };

    private static PlannedGrant Grant(Right right, GivenBy by, Until until, string? through, string account, string? decision) =>
        new(
            $"{account}/{right.Key}", account, right, "place", through, by, until, NeedKinds.ByKind[right.Kind!.Value].Team,
            "because", decision, Line);

    public Sid SidOf(string name) =>
        Sid.TryParse(name, out var sid)
            ? sid
            : (_principals.Find(p => p.Name == name) ?? throw new InvalidOperationException($"No {name} yet.")).Sid;
}

/// <summary>Short words for rights in tests.</summary>
internal static class R
{
    public static Right Admin(string host = "fm-temp01") => new LocalGroupRight(host, "Administrators");

    public static Right Service(string host = "fm-temp01") => new LogonRight(host, "service");

    public static Right Batch(string host = "fm-temp01") => new LogonRight(host, "batch");

    public static Right Privilege(string constant, string host = "fm-temp01") => new PrivilegeRight(host, constant);

    public static Right Role(string role) => new InstanceRoleRight("fm-sql01", role);

    public static Right Db(string role, string database = "Store") => new DatabaseRoleRight("fm-sql01", database, role);

    public static DirectoryRight Write(string attribute, string branch = "OU=People,DC=fennmoor,DC=example") =>
        new(new BranchAsked(DirectoryAct.WriteAttributes, [attribute], "user", branch));

    public static DirectoryRight Act(DirectoryAct act, string of, string branch) => new(new BranchAsked(act, [], of, branch));

    public static Right InGroup(string group) => new DomainGroupRight("FENNMOOR", group);
}
