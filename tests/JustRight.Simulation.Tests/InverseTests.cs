using System.Text.Json;
using System.Text.Json.Nodes;
using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Hosts;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Simulation.Tests;

/// <summary>
/// Undoing restores what was, and no more: random changes are made on random states that had part of them already, are undone,
/// and the whole state is as before.
/// </summary>
public sealed class InverseTests
{
    private const int Rounds = 24, Disturbances = 40, Steps = 40;
    private const string Domain = "FENNMOOR";
    private static readonly string[] Accounts =
        ["svc-archive", "svc-reports", "svc-tally", "svc-quern", "svc-roundsman", "m.ferris"];
    private static readonly string[] Groups = ["plant-tools", "fm-log-readers", "server-keepers", "tasters"];
    private static readonly string[] Hosts = ["fm-temp01", "fm-night01"];
    private static readonly string[] Branches =
        ["OU=People,OU=Fennmoor,DC=fennmoor,DC=example", "OU=Teams,OU=Fennmoor,DC=fennmoor,DC=example",
        "OU=Saltmere,OU=People,OU=Fennmoor,DC=fennmoor,DC=example"];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Whatever_was_there_before_undoing_restores_it_and_no_more()
    {
        var (kinds, met) = (new HashSet<string>(), 0);
        for (var round = 0; round < Rounds; round++)
        {
            using var simulation = new DemoSimulation();
            simulation.File.Change(s => s.Hosts.ForEach(h => h.Unreachable = null));
            var random = new Random(20261129 + round);
            var connectors = simulation.Connectors;
            var undoing = new RandomUndoing(
                c => connectors.ObserveAsync(c, Cancel), c => connectors.MakeAsync(c, PasswordFor(c), Cancel),
                () => StateAsync(simulation));
            await undoing.RoundAsync(() => AnyAsync(simulation, random), Disturbances, Steps, round);
            kinds.UnionWith(undoing.Made.Keys);
            met += undoing.Skipped;
        }

        met.ShouldBeGreaterThan(Rounds, "what was true already is to be met, and left alone");
        kinds.Order().ShouldBe([
            nameof(AddAccessRule), nameof(AddDatabaseRoleMember), nameof(AddInstanceRoleMember), nameof(AddLocalGroupMember),
            nameof(AddMember), nameof(AddServiceName), nameof(AllowDelegation), nameof(ChangeDatabaseOwner),
            nameof(ChangePolicyList), nameof(CreateAccount), nameof(CreateBranch), nameof(CreateDatabaseUser),
            nameof(CreateGroup), nameof(CreateLogin), nameof(DenyLogon), nameof(DescribeAccount), nameof(DisableAccount),
            nameof(EnableAccount), nameof(EndDelegation), nameof(EndDelegationTrust), nameof(GrantDatabasePermission),
            nameof(GrantInstancePermission), nameof(GrantLogonRight), nameof(GrantPrivilege), nameof(LiftLogonDenial),
            nameof(RemoveAccessRule), nameof(RemoveDatabaseRoleMember), nameof(RemoveInstanceRoleMember),
            nameof(RemoveLocalGroupMember), nameof(RemoveMember), nameof(RemoveServiceName), nameof(RevokeDatabasePermission),
            nameof(RevokeInstancePermission), nameof(RevokeLogonRight), nameof(RevokePrivilege), nameof(SetServiceAccount),
            nameof(SetServiceOrder), nameof(SetServiceStart), nameof(SwitchInheritance), nameof(TrustForDelegation),
        ]);
    }

    private static async Task<Change> AnyAsync(DemoSimulation simulation, Random random)
    {
        var account = One(Accounts);
        var principal = $@"{Domain}\{One([.. Accounts[..2], Groups[0]])}";
        var (group, host, number, sql) = (One(Groups), One(Hosts), random.Next(3), "fm-sql01");
        var found = simulation.File.Read(s => s.Principals.First(p => p.Name == account));
        var service = simulation.File.Read(s => s.Hosts.First(h => h.Name == host).Services.FirstOrDefault());
        switch (random.Next(40))
        {
            case 0: return new CreateBranch(Domain, $"OU=New{number},OU=Fennmoor,DC=fennmoor,DC=example");
            case 1:
                return new CreateAccount(
                Domain, $"svc-new{number}", $"CN=svc-new{number},OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example",
                $"svc-new{number}@fennmoor.example", "new", true)
                { Note = "ours" };
            case 2:
                return new CreateGroup(
                Domain, $"new-group{number}", $"CN=new-group{number},OU=Groups,OU=Fennmoor,DC=fennmoor,DC=example",
                GroupScope.Global, "new")
                { Note = "ours" };
            case 3: return new AddMember(Domain, group, account);
            case 4: return new RemoveMember(Domain, group, account);
            case 5:
                return new DescribeAccount(
                Domain, account, $"text {number}", number == 0, found.Description, found.State.HasFlag(
                AccountState.PasswordNeverExpires));
            case 6: return new DisableAccount(Domain, account);
            case 7: return new EnableAccount(Domain, account);
            case 8 or 9: return new AddAccessRule(Domain, One(Branches), Rule(principal), "write its title");
            case 10: return await ExistingRuleAsync(simulation, One(Branches), Rule(principal));
            case 11: return await PolicyListAsync(simulation, account);
            case 12: return new AddLocalGroupMember(host, "Administrators", principal);
            case 13: return new RemoveLocalGroupMember(host, "Administrators", principal);
            case 14: return new GrantLogonRight(host, "batch", principal);
            case 15: return new RevokeLogonRight(host, "batch", principal);
            case 16: return new GrantPrivilege(host, "SeAssignPrimaryTokenPrivilege", principal);
            case 17: return new RevokePrivilege(host, "SeAssignPrimaryTokenPrivilege", principal);
            case 18 when service is not null:
                return new SetServiceAccount(
                host, service.Name, One([$@"{Domain}\{account}", "LocalSystem"]), service.Account);
            case 19 when service is not null:
                return new SetServiceStart(
                host, service.Name, One([ServiceStart.Automatic, ServiceStart.Manual]), ServiceWords.StartOf(
                service.Start)!.Value);
            case 20 when service is not null:
                return new SetServiceOrder(
                host, service.Name, number == 0 ? [] : ["Netlogon"], service.WaitsFor);
            case 21: return new CreateLogin(sql, principal);
            case 22: return new AddInstanceRoleMember(sql, "dbcreator", principal);
            case 23: return new RemoveInstanceRoleMember(sql, "dbcreator", principal);
            case 24: return new GrantInstancePermission(sql, "VIEW SERVER STATE", principal);
            case 25: return new RevokeInstancePermission(sql, "VIEW SERVER STATE", principal);
            case 26: return new CreateDatabaseUser(sql, "ThermoReports", principal);
            case 27: return new AddDatabaseRoleMember(sql, "ThermoReports", "db_datareader", principal);
            case 28: return new RemoveDatabaseRoleMember(sql, "ThermoReports", "db_datareader", principal);
            case 30: return await SwitchAsync(simulation, Branches[^1]);
            case 34: return new AddServiceName(Domain, account, $"HTTP/web{number}");
            case 35: return new RemoveServiceName(Domain, account, $"HTTP/web{number}");
            case 36: return new AllowDelegation(Domain, account, $"HTTP/web{number}");
            case 37: return new EndDelegation(Domain, account, $"HTTP/web{number}");
            case 38: return new TrustForDelegation(Domain, account);
            case 39: return new EndDelegationTrust(Domain, account);
            case 32: return new DenyLogon(host, "interactive", principal);
            case 33: return new LiftLogonDenial(host, "interactive", principal);
            case 29: return number == 0 ? Owner() : new GrantDatabasePermission(sql, "ThermoReports", "SELECT", null, principal);
            default: return new RevokeDatabasePermission(sql, "ThermoReports", "SELECT", null, principal);
        }

        T One<T>(IReadOnlyList<T> all) => all[random.Next(all.Count)];

        static AccessRule Rule(string of) => new(of, false, AccessRights.WriteProperty, null, null, AceFlags.ContainerInherit);

        ChangeDatabaseOwner Owner() =>
            new(sql, "ThermoReports", principal, simulation.File.Read(
            s => s.Instances.First(i => i.Name == sql).Databases.First(
            d => d.Name == "ThermoReports").Owner) is { } owner ? $@"{Domain}\{owner}" : "sa");
    }

    private static async Task<Change> PolicyListAsync(DemoSimulation simulation, string account)
    {
        var read = await ReadAsync(simulation);
        var policy = read.Policies!.Policies[1];
        var entries = policy.Lists!.First(l => l.Constant == "SeBatchLogonRight").Entries;
        var graph = new MembershipGraph(read);
        var sid = $"*{graph.SidOf(graph.IndexOf(account))}";
        return new ChangePolicyList(
            Domain, policy.Id, policy.Name, "SeBatchLogonRight", entries.Contains(sid) ? [.. entries.Where(e => e != sid)]
            : [.. entries, sid], entries, account, ["fm-night01"]);
    }

    /// <summary>Enables inheritance, as a fix does; it is disabled at the last of the branches.</summary>
    private static async Task<Change> SwitchAsync(DemoSimulation simulation, string dn)
    {
        var tree = new AccessTree((await ReadAsync(simulation)).Access!);
        return new SwitchInheritance(Domain, dn, true, DescriptorText.Write(tree.DescriptorOf(tree.IndexOf(dn))!.DaclOnly));
    }

    /// <summary>
    /// Takes an entry away that stands there, with its place among the others; one that may not stand there where there is none.
    /// </summary>
    private static async Task<Change> ExistingRuleAsync(DemoSimulation simulation, string dn, AccessRule otherwise)
    {
        var tree = new AccessTree((await ReadAsync(simulation)).Access!);
        var entries = tree.DescriptorOf(tree.IndexOf(dn))!.Entries;
        var graph = new MembershipGraph(await ReadAsync(simulation));
        var own = entries.Select((ace, at) => (ace, at)).FirstOrDefault(
            e => !e.ace.IsInherited && graph.IndexOf(e.ace.Trustee) is >= 0 and var n && Accounts.Contains(
            graph.PrincipalOf(n)?.Name));
        return own.ace is null ? new RemoveAccessRule(Domain, dn, otherwise, "write its title")
            : new RemoveAccessRule(
                Domain, dn, AccessRule.Of(own.ace, $@"{Domain}\{graph.PrincipalOf(graph.IndexOf(own.ace.Trustee))!.Name}"),
                "write its title", own.at);
    }

    private static NewPassword? PasswordFor(Change change) => change switch
    {
        CreateAccount => NewPassword.Generate(),
        SetServiceAccount { NeedsPassword: true } set =>
            new NewPassword(SimulationPasswords.SimulatedOf(LogonName.WithoutDomain(set.Account))),
        _ => null,
    };

    private static Task<DirectorySnapshot> ReadAsync(DemoSimulation simulation) =>
        simulation.Connectors.Directory.ReadAsync(
            new DirectoryScope([], []) { Access = new AccessScope([], [], AllContainers: true) }, Cancel);

    /// <summary>
    /// The whole state, a line each; but for the counter of identifiers. A policy's lists are read, since they may be written in
    /// two ways.
    /// </summary>
    private static async Task<IReadOnlySet<string>> StateAsync(DemoSimulation simulation)
    {
        var read = await ReadAsync(simulation);
        var lines = read.Access!.Objects.Select(
            o => $"{o.Dn}: {(o.Descriptor < 0 ? "" : DescriptorText.Write(read.Access.Descriptors[o.Descriptor]))}")
            .Concat(read.Policies!.Policies.SelectMany(
                p => (p.Lists ?? []).Select(
                l => $"{p.Name} {l.Constant}: {string.Join(',', l.Entries.Order(StringComparer.Ordinal))}")))
            .ToHashSet(StringComparer.Ordinal);
        var state = simulation.File.Read(s => JsonSerializer.SerializeToNode(s)!.AsObject());
        foreach (var key in new[] { "NextRid", "AccessLists", "Policies" }) state.Remove(key);
        JsonLines.Add(state, "", "Name", lines);
        return lines;
    }
}
