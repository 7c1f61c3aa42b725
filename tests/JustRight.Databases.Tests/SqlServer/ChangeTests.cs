using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Surveys;
using JustRight.Formats.SqlServer;
using JustRight.SimulatedInstance.Wire;

namespace JustRight.Databases.Tests.SqlServer;

/// <summary>Changes of a simulated instance through the engine maker's own client library, and by the scripts that are handed over.</summary>
public sealed class ChangeTests
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private static readonly int Rounds = RandomUndoing.Rounds(10);

    /// <summary>Names that would break out of what is carelessly quoted, and that a Windows account, role, schema or database may have.</summary>
    public static TheoryData<string> Names =>
    [
        "plain", "with space", "]", "]]; DROP LOGIN [sa]; --", "'", "'; DROP TABLE t; --", "\"", "--", "/*", "*/", "\u202Egpj",
        "Käserei", "名前", "$(x)", "[a].[b]", "N'x'", ";", new string('x', 119),
    ];

    private static InstanceChange[] All(string name, string account) =>
    [
        new CreateLogin(SimulatedScene.Instance, account), new AddInstanceRoleMember(
            SimulatedScene.Instance, "dbcreator", account), new GrantInstancePermission(
            SimulatedScene.Instance, "VIEW SERVER STATE", account),
        new CreateDatabaseUser(SimulatedScene.Instance, name, account), new AddDatabaseRoleMember(
            SimulatedScene.Instance, name, name, account), new GrantDatabasePermission(
            SimulatedScene.Instance, name, "CREATE TABLE", null, account),
        new GrantDatabasePermission(
            SimulatedScene.Instance, name, "EXECUTE", SqlServerSecurable.OfSchema(name).Words, account), new GrantDatabasePermission(
            SimulatedScene.Instance, name, "SELECT", SqlServerSecurable.OfObject("dbo", name).Words, account),
    ];

    [Theory]
    [MemberData(nameof(Names))]
    public async Task Every_change_is_made_once_and_its_undoing_restores_the_catalog(string name)
    {
        using var scene = new SimulatedScene();
        var account = Prepare(scene, name);
        var before = scene.Engine.Dump();
        var changes = All(name, account);
        foreach (var change in changes)
        {
            (await scene.Connector.ObserveAsync(change, Stop)).State.ShouldBe(ObservedState.NotDone, change.Words);
            await scene.Connector.MakeAsync(change, null, Stop);
            (await scene.Connector.ObserveAsync(change, Stop)).State.ShouldBe(ObservedState.Done, change.Words);
            var after = scene.Engine.Dump();
            await scene.Connector.MakeAsync(change, null, Stop);
            scene.Engine.Dump().ShouldBe(after, $"{change.Words}, made again, changes nothing");
        }

        foreach (var change in changes.Reverse()) await scene.Connector.MakeAsync((InstanceChange)change.Inverse!, null, Stop);
        scene.Engine.Dump().ShouldBe(before);
    }

    [Fact]
    public async Task Whatever_was_there_before_undoing_restores_it_and_no_more()
    {
        var random = new Random(20261129);
        var (kinds, met) = (new HashSet<string>(), 0);
        for (var round = 0; round < Rounds; round++)
        {
            using var scene = new SimulatedScene();
            var accounts = new[] { Prepare(scene, "one"), Prepare(scene, "two") };
            var undoing = new RandomUndoing(
                c => scene.Connector.ObserveAsync((InstanceChange)c, Stop),
                c => scene.Connector.MakeAsync((InstanceChange)c, null, Stop),
                () => Task.FromResult<IReadOnlySet<string>>(scene.Engine.Dump().Split('\n').ToHashSet(StringComparer.Ordinal)));
            await undoing.RoundAsync(() => Task.FromResult(Any(accounts)), 14, 24, round);
            kinds.UnionWith(undoing.Made.Keys);
            met += undoing.Skipped;
        }

        met.ShouldBeGreaterThan(Rounds, "what was true already is to be met, and left alone");
        kinds.Order().ShouldBe([
            nameof(AddDatabaseRoleMember), nameof(AddInstanceRoleMember), nameof(CreateDatabaseUser), nameof(CreateLogin),
            nameof(GrantDatabasePermission), nameof(GrantInstancePermission), nameof(RemoveDatabaseRoleMember),
            nameof(RemoveInstanceRoleMember), nameof(RevokeDatabasePermission), nameof(RevokeInstancePermission),
        ]);

        // A login or a user is dropped only as the inverse of its own making.
        Change Any(string[] accounts)
        {
            var at = random.Next(2);
            var all = All(at == 0 ? "one" : "two", accounts[at]);
            var change = all[random.Next(all.Length)];
            return random.Next(3) > 0 || change is CreateLogin or CreateDatabaseUser ? change : change.Inverse!;
        }
    }

    [Theory]
    [MemberData(nameof(Names))]
    public void The_scripts_do_the_same_may_be_run_twice_and_are_undone(string name)
    {
        using var scene = new SimulatedScene();
        var account = Prepare(scene, name);
        var before = scene.Engine.Dump();
        var changes = All(name, account).Select((c, i) => (i + 1, c)).ToList();
        var (give, undo) = Scripts(scene, All(name, account));
        var check = TransactSqlScripts.Check(["checks"], changes);
        States(scene, check).ShouldAllBe(s => s == "NOT DONE");
        scene.Engine.Run(give);
        States(scene, check).ShouldBe(changes.Select(_ => "done"));
        var after = scene.Engine.Dump();
        after.ShouldNotBe(before);
        scene.Engine.Run(give);
        scene.Engine.Dump().ShouldBe(after);
        scene.Engine.Run(undo);
        scene.Engine.Dump().ShouldBe(before);
        scene.Engine.Run(undo);
        scene.Engine.Dump().ShouldBe(before);
    }

    [Fact]
    public async Task The_undoing_script_takes_back_what_the_giving_one_made_and_no_more()
    {
        using var scene = new SimulatedScene();
        var account = Prepare(scene, "one");
        var all = All("one", account);
        foreach (var there in all[..4]) await scene.Connector.MakeAsync(there, null, Stop);
        var before = scene.Engine.Dump();
        var (give, undo) = Scripts(scene, all);
        scene.Engine.Run(undo);
        scene.Engine.Dump().ShouldBe(before, "nothing is on record yet");
        scene.Engine.Run(give);
        var after = scene.Engine.Dump();
        var (giveToo, undoToo) = Scripts(scene, all, "two");
        scene.Engine.Run(giveToo);
        scene.Engine.Run(undoToo);
        scene.Engine.Dump().ShouldBe(after, "what was made for one install, another's script leaves alone");
        foreach (var change in all) (await scene.Connector.ObserveAsync(change, Stop)).State.ShouldBe(ObservedState.Done);
        await scene.Connector.MakeAsync((InstanceChange)all[^1].Inverse!, null, Stop); // one was taken back by hand
        scene.Engine.Run(undo);
        scene.Engine.Dump().ShouldBe(before);
    }

    [Theory]
    [InlineData(false, "login", "belongs to another account")]
    [InlineData(true, "user", "belongs to another account")]
    [InlineData(false, "login", "by another name")]
    public void A_script_stops_where_a_login_or_user_is_not_the_accounts(bool isUser, string what, string why)
    {
        using var scene = new SimulatedScene();
        var account = Prepare(scene, "one");
        scene.Engine.Run($"CREATE LOGIN [{account}] FROM WINDOWS; USE [one]; CREATE USER [{account}] FOR LOGIN [{account}]");
        InstanceChange change = new GrantInstancePermission(SimulatedScene.Instance, "VIEW SERVER STATE", account);
        if (isUser) change = new GrantDatabasePermission(SimulatedScene.Instance, "one", "SELECT", null, account);
        if (why == "by another name") change = change with { Principal = scene.Rename(account, "FENNMOOR\\svc-renamed") };
        else scene.Remake(account);
        var before = scene.Engine.Dump();
        var (give, undo) = Scripts(scene, [change]);
        foreach (var script in new[] { give, undo })
        {
            var stopped = Should.Throw<SimulatedInstance.Engine.EngineException>(() => scene.Engine.Run(script));
            stopped.Message.ShouldContain(what);
            stopped.Message.ShouldContain(why);
        }

        scene.Engine.RunOn(give);
        scene.Engine.Dump().ShouldBe(before, "a client that goes on after an error makes nothing either");
    }

    [Fact]
    public async Task A_database_gets_another_owner_and_the_former_one_back()
    {
        using var scene = new SimulatedScene();
        var account = scene.Account("svc-owner");
        scene.Engine.Run($"CREATE DATABASE [Ledger]; CREATE LOGIN [{account}] FROM WINDOWS");
        var before = scene.Engine.Dump();
        var former = (await scene.ReadAsync()).Databases.Single(d => d.Name == "Ledger").OwnerName;
        former.ShouldBe("sa");
        var change = new ChangeDatabaseOwner(SimulatedScene.Instance, "Ledger", account, former);
        await MadeAsync(scene, change);
        (await scene.ReadAsync()).Databases.Single(d => d.Name == "Ledger").Owner.ShouldBe(scene.SidOf(account));
        await MadeAsync(scene, (InstanceChange)change.Inverse!);
        scene.Engine.Dump().ShouldBe(before);
        scene.Engine.Run($"USE [Ledger]; CREATE USER [{account}] FOR LOGIN [{account}]");
        (await Should.ThrowAsync<ConnectorException>(() =>
            scene.Connector.MakeAsync(change, null, Stop))).Message.ShouldContain("15110");
    }

    [Fact]
    public async Task A_name_with_a_line_end_is_refused_and_nothing_is_sent()
    {
        using var scene = new SimulatedScene();
        var before = scene.Engine.Dump();
        (await Should.ThrowAsync<ConnectorException>(() =>
            scene.Connector.MakeAsync(
                new CreateLogin(SimulatedScene.Instance, "FENNMOOR\\a\nGO\nDROP LOGIN sa"), null, Stop))).Failure.ShouldBe(
            ConnectorFailure.Conflict);
        scene.Engine.Dump().ShouldBe(before);
    }

    [Fact]
    public async Task A_role_is_found_however_its_name_is_written_also_where_case_counts()
    {
        using var scene = new SimulatedScene(caseSensitive: true);
        var account = Prepare(scene, "Ledger");
        scene.Engine.Run($"CREATE LOGIN [{account}] FROM WINDOWS; USE [Ledger]; CREATE USER [{account}] FOR LOGIN [{account}]; CREATE ROLE [readers]; CREATE ROLE [READERS]");
        await MadeAsync(scene, new AddInstanceRoleMember(SimulatedScene.Instance, "DBCreator", account));
        await MadeAsync(scene, new AddDatabaseRoleMember(SimulatedScene.Instance, "Ledger", "LEDGER", account));
        await MadeAsync(scene, new AddDatabaseRoleMember(SimulatedScene.Instance, "Ledger", "READERS", account));
        (await Should.ThrowAsync<ConnectorException>(() =>
            scene.Connector.MakeAsync(
                new AddDatabaseRoleMember(SimulatedScene.Instance, "Ledger", "Readers", account), null, Stop))).Failure.ShouldBe(
            ConnectorFailure.NotAllowed, "which of the two, nobody said");
    }

    [Fact]
    public async Task A_login_whose_account_was_made_anew_stands_in_the_way_and_is_named()
    {
        using var scene = new SimulatedScene();
        var account = scene.Account("svc-poll");
        scene.Engine.Run($"CREATE LOGIN [{account}] FROM WINDOWS");
        var old = scene.SidOf(account);
        scene.Remake(account);
        var create = new CreateLogin(SimulatedScene.Instance, account);
        var seen = await scene.Connector.ObserveAsync(create, Stop);
        seen.State.ShouldBe(ObservedState.Impossible);
        seen.Seen.ShouldBe($"there is a login {account} on {SimulatedScene.Instance}, but it belongs to another account ({old}) that was deleted or renamed since: drop that login first.");
        (await Should.ThrowAsync<ConnectorException>(() => scene.Connector.MakeAsync(create, null, Stop))).Failure.ShouldBe(
            ConnectorFailure.Conflict);
        scene.Engine.Run($"DROP LOGIN [{account}]");
        await MadeAsync(scene, create);
    }

    [Fact]
    public async Task After_the_domain_was_renamed_the_login_is_found_by_its_sid_under_its_old_name()
    {
        using var scene = new SimulatedScene();
        var old = scene.Account("OLDMOOR\\svc-poll");
        scene.Engine.Run($"CREATE DATABASE [Ledger]; CREATE LOGIN [{old}] FROM WINDOWS");
        var account = scene.Rename(old, "FENNMOOR\\svc-poll");
        (await scene.Connector.ObserveAsync(
            new CreateLogin(SimulatedScene.Instance, account), Stop)).State.ShouldBe(ObservedState.Done);
        await MadeAsync(scene, new AddInstanceRoleMember(SimulatedScene.Instance, "dbcreator", account));
        await MadeAsync(scene, new CreateDatabaseUser(SimulatedScene.Instance, "Ledger", account));
        await MadeAsync(scene, new AddDatabaseRoleMember(SimulatedScene.Instance, "Ledger", "db_datareader", account));
        var read = await scene.ReadAsync();
        read.Roles.Single(r => r.Role == "dbcreator").Members.ShouldBe([scene.SidOf(account)]);
        read.Databases.Single(d => d.Name == "Ledger").Roles.Single(r =>
            r.Role == "db_datareader").Members.ShouldBe([scene.SidOf(account)]);
    }

    [Fact]
    public async Task What_the_engine_refuses_is_told_with_its_reason_and_nothing_is_kept()
    {
        using var scene = new SimulatedScene(
            reader: $"GRANT VIEW ANY DEFINITION TO [{SimulatedScene.Reader}]; GRANT CONNECT ANY DATABASE TO [{SimulatedScene.Reader}]; GRANT ALTER ANY LOGIN TO [{SimulatedScene.Reader}]");
        var account = scene.Account("svc-poll");
        scene.Engine.Run($"CREATE LOGIN [{account}] FROM WINDOWS; CREATE DATABASE [Ledger]");
        var before = scene.Engine.Dump();
        await RefusedAsync(new CreateLogin(SimulatedScene.Instance, @"FENNMOOR\nobody"), ConnectorFailure.NotFound, "15401");
        await RefusedAsync(
            new AddInstanceRoleMember(SimulatedScene.Instance, "sysadmin", account), ConnectorFailure.NotAllowed, "15151");
        await RefusedAsync(
            new AddInstanceRoleMember(SimulatedScene.Instance, "nosuch", account), ConnectorFailure.NotAllowed, "15151");
        await RefusedAsync(
            new GrantInstancePermission(SimulatedScene.Instance, "VIEW SERVER STATE", account), ConnectorFailure.NotAllowed,
            "4613");
        await RefusedAsync(
            new CreateDatabaseUser(SimulatedScene.Instance, "Ledger", account), ConnectorFailure.NotAllowed, "15247");
        await RefusedAsync(new CreateDatabaseUser(SimulatedScene.Instance, "Nosuch", account), ConnectorFailure.NotFound, "911");
        scene.Engine.Dump().ShouldBe(before);

        async Task RefusedAsync(InstanceChange change, ConnectorFailure failure, string number)
        {
            var e = await Should.ThrowAsync<ConnectorException>(() => scene.Connector.MakeAsync(change, null, Stop));
            (e.Failure, e.Message.Contains($"(error {number})", StringComparison.Ordinal)).ShouldBe((failure, true), e.Message);
        }
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task A_secondary_replica_is_read_where_it_may_be_and_a_step_there_is_for_its_primary(bool readable)
    {
        using var scene = new SimulatedScene();
        var account = Prepare(scene, "Ledger");
        scene.Engine.Run($"CREATE LOGIN [{account}] FROM WINDOWS");
        scene.Engine.MakeReplica("Ledger", readable);
        var before = scene.Engine.Dump();
        (await scene.ReadAsync()).Databases.Single(d => d.Name == "Ledger").Unread.ShouldBe(readable
            ? null
            : $"{SimulatedScene.Reader} does not get into it: a replica of an availability group, which may not be open to readers");
        var e = await Should.ThrowAsync<ConnectorException>(
            () => scene.Connector.MakeAsync(new CreateDatabaseUser(SimulatedScene.Instance, "Ledger", account), null, Stop));
        e.Message.ShouldContain(readable ? "the step is for its primary" : "is not open to readers");
        scene.Engine.Dump().ShouldBe(before);
    }

    [Theory]
    [InlineData(Trouble.CutBefore, "GRANT", ObservedState.NotDone)]
    [InlineData(Trouble.CutAfter, "GRANT", ObservedState.NotDone)] // in a transaction that nobody committed
    [InlineData(Trouble.CutBefore, "COMMIT", ObservedState.NotDone)]
    [InlineData(Trouble.CutAfter, "COMMIT", ObservedState.Done)]
    public async Task A_connection_cut_in_mid_step_leaves_it_done_or_not_done_and_reading_tells_which(
        Trouble trouble, string at, ObservedState left)
    {
        using var scene = new SimulatedScene();
        var account = Prepare(scene, "Ledger");
        scene.Engine.Run($"CREATE LOGIN [{account}] FROM WINDOWS");
        var change = new GrantInstancePermission(SimulatedScene.Instance, "VIEW SERVER STATE", account);
        scene.Listener.TroubleAt = sql => sql.StartsWith(at, StringComparison.Ordinal) ? trouble : Trouble.None;
        (await Should.ThrowAsync<ConnectorException>(() => scene.Connector.MakeAsync(change, null, Stop))).Failure.ShouldBe(
            ConnectorFailure.Unreachable);
        scene.Listener.TroubleAt = _ => Trouble.None;
        (await scene.Connector.ObserveAsync(change, Stop)).State.ShouldBe(left);
        await MadeAsync(scene, change);
    }

    [Theory]
    [InlineData(2, true)]
    [InlineData(3, false)]
    public async Task Chosen_to_give_way_in_a_deadlock_it_is_tried_again_but_not_for_ever(int times, bool made)
    {
        using var scene = new SimulatedScene();
        var account = Prepare(scene, "Ledger");
        scene.Engine.Run($"CREATE LOGIN [{account}] FROM WINDOWS");
        var change = new CreateDatabaseUser(SimulatedScene.Instance, "Ledger", account);
        var before = scene.Engine.Dump();
        var left = times;
        scene.Listener.TroubleAt = sql =>
            sql.StartsWith("CREATE USER", StringComparison.Ordinal) && left-- > 0 ? Trouble.Deadlock : Trouble.None;
        if (made) await MadeAsync(scene, change);
        else
            (await Should.ThrowAsync<ConnectorException>(() =>
                scene.Connector.MakeAsync(change, null, Stop))).Message.ShouldContain("deadlock");
        if (!made) scene.Engine.Dump().ShouldBe(before);
    }

    [Fact]
    public async Task An_instance_that_was_restarted_is_spoken_to_anew()
    {
        using var scene = new SimulatedScene();
        var account = Prepare(scene, "Ledger");
        await MadeAsync(scene, new CreateLogin(SimulatedScene.Instance, account));
        scene.Restart();
        await MadeAsync(scene, new CreateDatabaseUser(SimulatedScene.Instance, "Ledger", account));
    }

    private static async Task MadeAsync(SimulatedScene scene, InstanceChange change)
    {
        await scene.Connector.MakeAsync(change, null, Stop);
        (await scene.Connector.ObserveAsync(change, Stop)).State.ShouldBe(ObservedState.Done, change.Words);
    }

    private static IEnumerable<string> States(SimulatedScene scene, string check) =>
        scene.Engine.Run(check, SimulatedInstance.Engine.SimulatedEngine.Administrator).Select(r => r[2]);

    /// <summary>A database of the name with a role, a schema and a table of it, and an account of the name.</summary>
    /// <summary>The scripts that give changes and take them back.</summary>
    private static (string Give, string Undo) Scripts(SimulatedScene scene, InstanceChange[] changes, string install = "one") => (
        TransactSqlScripts.Give(["gives"], install, [.. changes.Select((c, i) => (i + 1, c, (string?)"needed"))], Known(scene)),
        TransactSqlScripts.Undo(
            ["undoes"], install, [.. changes.Reverse().Select((c, i) => (i + 1, c, (InstanceChange)c.Inverse!))], Known(scene)));

    private static Func<string, Core.Directory.Sid?> Known(SimulatedScene scene) => name => scene.SidOf(name);

    private static string Prepare(SimulatedScene scene, string name)
    {
        var (id, table) = (TransactSql.Name(name), TransactSql.Name(name));
        scene.Engine.Run($"CREATE DATABASE {id}\nGO\nUSE {id}\nGO\nCREATE ROLE {id}\nGO\nCREATE SCHEMA {id}\nGO\nCREATE TABLE [dbo].{table}(a int)");
        return scene.Account($@"FENNMOOR\{name}");
    }
}
