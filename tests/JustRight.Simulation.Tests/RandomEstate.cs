using CsCheck;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Simulation.Tests;

/// <summary>
/// A small estate made at random: three accounts, six groups nested in any way, two hosts, one instance with a database; and
/// needs made at random too. With it comes a second, simpler model of who holds what, written without the core.
/// </summary>
internal sealed class RandomEstate
{
    private const string Domain = "FENNMOOR";
    private static readonly Origin Line = new("random.yaml", 1, 1);
    private static readonly string[] Accounts = ["a0", "a1", "a2"];
    private static readonly string[] Groups = ["g0", "g1", "g2", "g3", "g4", "g5"];
    private static readonly string[] Principals = [.. Accounts, .. Groups];

    /// <summary>Where a principal can be put: the lists of the places, and what being on each gives.</summary>
    private static readonly Right[] Rights =
    [
        new LocalGroupRight("h0", "Administrators"), new LocalGroupRight(
            "h1", "Administrators"), new LogonRight("h0", "service"), new LogonRight("h1", "service"),
        new InstanceRoleRight("i0", "dbcreator"), new InstanceRoleRight("i0", "sysadmin"), new DatabaseRoleRight(
            "i0", "db", "db_datareader"), new DatabaseRoleRight("i0", "db", "db_owner"),
        new InstancePermissionRight("i0", "VIEW SERVER STATE"), new InstancePermissionRight(
            "i0", "ALTER SERVER STATE"), new DatabasePermissionRight("i0", "db", "SELECT", null), new DatabasePermissionRight(
            "i0", "db", "CONTROL", null),
    ];

    private readonly (int Member, int Group)[] _edges;
    private readonly (int Principal, int Right)[] _entries;
    private readonly (int Account, int Right)[] _needs;
    private readonly bool _forbidden;

    private RandomEstate(
        (int Member, int Group)[] edges, (int Principal, int Right)[] entries, (int Account, int Right)[] needs,
        bool forbidden) =>
        (_edges, _entries, _needs, _forbidden) = (edges, entries, needs, forbidden);

    /// <summary>Any such estate.</summary>
    public static Gen<RandomEstate> Any { get; } = Gen.Select(
        Gen.Select(Gen.Int[0, 8], Gen.Int[0, 5]).Select((m, g) => (m, g)).Where(e => e.m != e.g + 3).Array[0, 14],
        Gen.Select(Gen.Int[0, 8], Gen.Int[0, 11]).Select((p, r) => (p, r)).Array[0, 12],
        Gen.Select(Gen.Int[0, 2], Gen.Int[0, 11]).Select((a, r) => (a, r)).Array[0, 8],
        Gen.Bool).Select((edges, entries, needs, forbidden) => new RandomEstate(edges, entries, needs, forbidden));

    /// <summary>The simulation's state.</summary>
    public SimulationState State()
    {
        var state = new SimulationState
        {
            Domain = Domain,
            DomainSid = "S-1-5-21-1-2-3",
            Root = "DC=fennmoor,DC=example",
            NextRid = 3000,
        };
        foreach (var (name, i) in Principals.Select((n, i) => (n, i)))
        {
            state.Principals.Add(new SimulationPrincipal
            {
                Name = name,
                Kind = i < Accounts.Length ? PrincipalKind.User : PrincipalKind.Group,
                Rid = (uint)(2000 + i),
                Dn = $"CN={name},DC=fennmoor,DC=example",
                Members = i < Accounts.Length
                    ? []
                    : [.. _edges.Where(e => e.Group == i - Accounts.Length).Select(e => Principals[e.Member]).Distinct()],
            });
        }

        foreach (var host in new[] { "h0", "h1" })
        {
            state.Hosts.Add(new SimulationHost
            {
                Name = host,
                LocalGroups = [new SimulationLocalGroup { Name = "Administrators", Sid = "S-1-5-32-544", Members = On(r =>
                    r is LocalGroupRight l && l.Host == host) }],
                LogonRights = new SortedDictionary<string, List<string>>
                {
                    ["SeServiceLogonRight"] = On(r =>
                    r is LogonRight l && l.Host == host)
                },
            });
        }

        state.Instances.Add(new SimulationInstance
        {
            Name = "i0",
            Logins = On(r => r.AtInstance is not null),
            Permissions = new()
            {
                ["VIEW SERVER STATE"] = On(r =>
                r is InstancePermissionRight { Permission: "VIEW SERVER STATE" }),
                ["ALTER SERVER STATE"] = On(
                r => r is InstancePermissionRight { Permission: "ALTER SERVER STATE" })
            },
            Roles = new()
            {
                ["dbcreator"] = On(r => r is InstanceRoleRight { Role: "dbcreator" }),
                ["sysadmin"] = On(r =>
                r is InstanceRoleRight { Role: "sysadmin" })
            },
            Databases =
            [
                new SimulationDatabase
                {
                    Name = "db",
                    Users = On(r => r is DatabaseRoleRight or DatabasePermissionRight),
                    Permissions = new() { ["SELECT"] = On(r =>
                        r is DatabasePermissionRight { Permission: "SELECT" }), ["CONTROL"] = On(
                        r => r is DatabasePermissionRight { Permission: "CONTROL" }) },
                    Roles = new() { ["db_datareader"] = On(r =>
                        r is DatabaseRoleRight { Role: "db_datareader" }), ["db_owner"] = On(
                        r => r is DatabaseRoleRight { Role: "db_owner" }) },
                },
            ],
        });
        return state;

        List<string> On(Func<Right, bool> list) =>
            [.. _entries.Where(e => list(Rights[e.Right])).Select(e => Principals[e.Principal]).Distinct()];
    }

    /// <summary>The estate that goes with it.</summary>
    public static Estate Estate() => new(
        "random", "Random", new Domain("fennmoor.example", Domain), new DirectoryReach(
            Reach.Simulation, null, 636, null, null, null, Line), [],
        new Naming(
            "svc-{product}-{account}", "app-{product}-{group}", "", "x", "x", new Dictionary<string, string>(),
            new Dictionary<string, Origin>(), Line),
        [new EstateHost("h0", Reach.Simulation, Line), new EstateHost("h1", Reach.Simulation, Line)], [new EstateInstance(
            "i0", "h0", "sqlserver", null, Reach.Simulation, Line)], new OrganizationRules([], null, []), Line);

    /// <summary>The plan: every account was there before, and has the needs drawn for it.</summary>
    public Plan Plan() => new(
        "random", "random@1", "Random", "random", Domain, "fennmoor.example", Stage.Planned, [], [],
        [.. Accounts.Select(a => new PlannedAccount(a, a, null, "", "tests", WorksAs.Service, false, true, Line))],
        [.. _needs.Distinct().Select(n =>
            new PlannedGrant(
                $"{Accounts[n.Account]}/{Rights[n.Right].Key}", Accounts[n.Account], Rights[n.Right], "place", null, GivenBy.Us,
                Until.Always, NeedKinds.ByKind[Rights[n.Right].Kind!.Value].Team, null, null, Line))],
        [], _forbidden ? [new ForbiddenRule(null, "g5", null, "organization rule", Line)] : [], []);

    /// <summary>The simpler model: whether an account holds a right or one that implies it, by repeating until nothing is added.</summary>
    public bool Holds(int account, Right right) =>
        Rights.Where((r, i) => (r == right || Implies(r, right)) && Reached(account).Any(p => _entries.Contains((p, i)))).Any();

    /// <summary>The simpler model: whether an account is in a group.</summary>
    public bool IsIn(int account, int group) => Reached(account).Contains(group + Accounts.Length);

    /// <summary>The accounts by number.</summary>
    public static int Number(string account) => Array.IndexOf(Accounts, account);

    /// <inheritdoc/>
    public override string ToString() =>
        $"edges {string.Join(' ', _edges)} entries {string.Join(' ', _entries)} needs {string.Join(' ', _needs)}{(_forbidden ? " forbidden g5" : "")}";

    private HashSet<int> Reached(int account)
    {
        var reached = new HashSet<int> { account };
        while (true)
        {
            var before = reached.Count;
            foreach (var (member, group) in _edges)
                if (reached.Contains(member)) reached.Add(group + Accounts.Length);
            if (reached.Count == before) return reached;
        }
    }

    private static bool Implies(Right strong, Right weak) => (strong, weak) switch
    {
        (InstanceRoleRight { Role: "sysadmin" }, _) => weak.AtInstance is not null,
        (DatabaseRoleRight { Role: "db_owner" }, DatabaseRoleRight or DatabasePermissionRight) => true,
        (
            DatabaseRoleRight { Role: "db_datareader" } or DatabasePermissionRight { Permission: "CONTROL" },
            DatabasePermissionRight { Permission: "SELECT" }) => true,
        (
            InstancePermissionRight { Permission: "ALTER SERVER STATE" },
            InstancePermissionRight { Permission: "VIEW SERVER STATE" }) => true,
        _ => false,
    };
}
