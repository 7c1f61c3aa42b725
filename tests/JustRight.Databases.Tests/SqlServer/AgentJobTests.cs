using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Surveys;

namespace JustRight.Databases.Tests.SqlServer;

/// <summary>Jobs of an instance's agent, through the engine maker's own client library.</summary>
public sealed class AgentJobTests
{
    private const string Sees = $"GRANT VIEW ANY DEFINITION, CONNECT ANY DATABASE TO [{SimulatedScene.Reader}]";
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    [Fact]
    public async Task Jobs_are_read_with_their_owner_and_the_databases_their_steps_run_in_as_it()
    {
        using var scene = new SimulatedScene();
        var account = Login(scene);
        scene.Engine.AddJob(
            "nightly", account, true, ("TSQL", "Ledger", null), ("TSQL", "ledger", null), ("TSQL", null, null),
            ("TSQL", "Payroll", "clerk"), ("CmdExec", "Shop", null));
        scene.Engine.AddJob("copies", "sa", false);
        var agent = (await scene.ReadAsync()).Agent.ShouldNotBeNull();
        agent.Unread.ShouldBeNull();
        agent.Jobs.Select(j => (j.Name, j.Owner, j.OwnerName, j.IsOn, string.Join(", ", j.Databases))).ShouldBe(
        [
            ("copies", default, "sa", false, ""),
            ("nightly", scene.SidOf(account), account, true, "Ledger, master"),
        ]);
    }

    [Fact]
    public async Task Jobs_that_the_reader_may_not_read_are_unseen_with_the_right_that_is_missing()
    {
        using var scene = new SimulatedScene(reader: Sees);
        scene.Engine.AddJob("copies", "sa", true);
        (await scene.ReadAsync()).Agent!.Unread.ShouldBe(
            "jr_reader may not read them: GRANT SELECT ON dbo.sysjobs and dbo.sysjobsteps of msdb");

        Grant(scene, "sysjobs");
        (await scene.ReadAsync()).Agent!.Unread.ShouldNotBeNull("half of it is not enough");
        Grant(scene, "sysjobsteps");
        (await scene.ReadAsync()).Agent!.Jobs.ShouldHaveSingleItem().Name.ShouldBe("copies");
    }

    [Fact]
    public async Task A_login_that_owns_a_job_is_not_dropped()
    {
        using var scene = new SimulatedScene();
        var account = Login(scene);
        scene.Engine.AddJob("nightly", account, true);
        var refused = await Should.ThrowAsync<ConnectorException>(
            () => scene.Connector.MakeAsync(new DropLogin(SimulatedScene.Instance, account), null, Stop));
        refused.Message.ShouldContain("15170");
        (await scene.ReadAsync()).Logins.ShouldContain(l => l.Name == account);
    }

    private static string Login(SimulatedScene scene)
    {
        var account = scene.Account("svc-poll");
        scene.Engine.Run($"CREATE LOGIN [{account}] FROM WINDOWS");
        return account;
    }

    private static void Grant(SimulatedScene scene, string table) =>
        scene.Engine.Run($"USE [msdb]\nGO\nGRANT SELECT ON OBJECT::[dbo].[{table}] TO [guest]");
}
