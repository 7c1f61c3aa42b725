using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Sheets;

namespace JustRight.Simulation.Tests;

/// <summary>The simulation refuses what the real thing refuses, and a refused change leaves its file as it was.</summary>
public sealed class SimulationRulesTests
{
    private const string Svc = "OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example";
    private const string Groups = "OU=Groups,OU=Fennmoor,DC=fennmoor,DC=example";

    public static TheoryData<string, Change, string> Refused => new()
    {
        { "a name in use", new CreateAccount("FENNMOOR", "SVC-ARCHIVE", $"CN=other,{Svc}", "x@y", "", false), "in use" },
        { "a group's name in use by an account", new CreateGroup(
            "FENNMOOR", "svc-archive", $"CN=g,{Groups}", GroupScope.Global, ""), "in use" },
        { "a place in use", new CreateAccount(
            "FENNMOOR", "svc-new", $"CN=svc-archive,{Svc}", "x@y", "", false), "exists already" },
        { "a branch that is not there", new CreateAccount(
            "FENNMOOR", "svc-new", "CN=svc-new,OU=Nowhere,DC=fennmoor,DC=example", "x@y", "", false), "no container" },
        { "a branch without a parent", new CreateBranch("FENNMOOR", "OU=a,OU=Nowhere,DC=fennmoor,DC=example"), "no container" },
        { "a branch that exists", new CreateBranch("FENNMOOR", Svc), "exists already" },
        { "a branch that is not empty", new DeleteBranch("FENNMOOR", Svc), "not empty" },
        { "a group with members", new DeleteGroup("FENNMOOR", "plant-tools", $"CN=plant-tools,{Groups}"), "still has members" },
        { "a member that does not exist", new AddMember("FENNMOOR", "plant-tools", "svc-nobody"), "no svc-nobody" },
        { "a group that does not exist", new AddMember("FENNMOOR", "no-group", "svc-archive"), "no no-group" },
        { "a member of an account", new AddMember("FENNMOOR", "svc-archive", "svc-reports"), "is no group" },
        { "a universal group in a global one", new AddMember(
            "FENNMOOR", "plant-tools", "Enterprise Admins"), "cannot hold the universal group" },
        { "a group in itself", new AddMember("FENNMOOR", "plant-tools", "plant-tools"), "cannot hold itself" },
        { "a host that does not answer", new AddLocalGroupMember(
            "fm-temp02", "Administrators", @"FENNMOOR\svc-archive"), "does not answer" },
        { "a local group that is not there", new AddLocalGroupMember(
            "fm-temp01", "Cold Store", @"FENNMOOR\svc-archive"), "no local group" },
        { "a local member that does not exist", new AddLocalGroupMember(
            "fm-temp01", "Administrators", @"FENNMOOR\svc-nobody"), "no FENNMOOR\\svc-nobody" },
        { "an instance role without a login", new AddInstanceRoleMember(
            "fm-sql01", "dbcreator", @"FENNMOOR\svc-archive"), "has no login" },
        { "a database user without a login", new CreateDatabaseUser(
            "fm-sql01", "msdb", @"FENNMOOR\svc-archive"), "has no login" },
        { "a database role without a user", new AddDatabaseRoleMember(
            "fm-sql01", "msdb", "db_owner", @"FENNMOOR\svc-reports"), "is not a user" },
        { "a permission of the instance without a login", new GrantInstancePermission(
            "fm-sql01", "VIEW SERVER STATE", @"FENNMOOR\svc-archive"), "has no login" },
        { "a permission in a database without a user", new GrantDatabasePermission(
            "fm-sql01", "msdb", "SELECT", null, @"FENNMOOR\svc-reports"), "is not a user" },
        { "a database that is not there", new CreateDatabaseUser("fm-sql01", "Milk", @"FENNMOOR\svc-reports"), "no database" },
    };

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Theory]
    [MemberData(nameof(Refused))]
    public async Task It_refuses(string what, Change change, string says)
    {
        using var simulation = new DemoSimulation();
        var before = simulation.File.Read(s => System.Text.Json.JsonSerializer.Serialize(s));
        var failure = await Should.ThrowAsync<ConnectorException>(
            () => simulation.Connectors.MakeAsync(change, change is CreateAccount ? NewPassword.Generate() : null, Cancel), what);
        failure.Message.ShouldContain(says);
        simulation.File.Read(s => System.Text.Json.JsonSerializer.Serialize(s)).ShouldBe(before, what);
    }

    [Fact]
    public async Task Every_step_of_the_demo_can_be_undone_by_its_inverse_in_reverse()
    {
        using var simulation = new DemoSimulation();
        await simulation.VerifyAsync("thermograph-dataroom");
        var (_, worklist) = await simulation.VerifyAsync("thermograph-dataroom");
        var before = simulation.File.Read(Lists);
        await simulation.MakeAsync(worklist.Give);
        simulation.File.Read(Lists).ShouldNotBe(before);
        foreach (var step in worklist.Give.Reverse()) await simulation.Connectors.MakeAsync(step.Change.Inverse!, null, Cancel);
        simulation.File.Read(Lists).ShouldBe(before);

        // What exists and who is in what; empty role lists and the counter of identifiers may differ.
        static string Lists(SimulationState s) =>
            string.Join('\n', s.Principals.Select(p => $"{p.Name}: {string.Join(',', p.Members)}")
            .Concat(s.Branches)
            .Concat(s.Hosts.SelectMany(h =>
                h.LocalGroups.Select(g => $"{h.Name}\\{g.Name}: {string.Join(',', g.Members)}")
                    .Concat(h.LogonRights.Select(r => $"{h.Name} {r.Key}: {string.Join(',', r.Value)}"))))
            .Concat(s.Instances.SelectMany(i => i.Roles.Where(r => r.Value.Count > 0).Select(r =>
                $"{i.Name} {r.Key}: {string.Join(',', r.Value)}").Append(string.Join(',', i.Logins))
                .Concat(i.Databases.SelectMany(d =>
                    d.Roles.Where(r => r.Value.Count > 0).Select(r => $"{d.Name} {r.Key}: {string.Join(',', r.Value)}")
                        .Append(string.Join(',', d.Users)))))));
    }

    [Fact]
    public async Task A_deleted_account_leaves_its_sid_behind_on_hosts_and_instances()
    {
        using var simulation = new DemoSimulation();
        await simulation.Connectors.MakeAsync(
            new DeleteAccount("FENNMOOR", "svc-reports", $"CN=svc-reports,{Svc}"), null, Cancel);
        simulation.File.Read(s => s.Instances[0].Logins).ShouldContain(l => l.StartsWith("S-1-5-21-", StringComparison.Ordinal));
        (await simulation.VerifyAsync("thermograph-dataroom")).Fit.Accounts.Single(a =>
            a.Account.Key == "reports").Found.ShouldBeFalse();
    }
}
