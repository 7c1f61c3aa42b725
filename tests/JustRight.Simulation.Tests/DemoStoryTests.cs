using System.Text;
using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Engines;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Worklists;
using JustRight.Core.Worklists.Undo;
using JustRight.Formats.Estates;
using JustRight.Formats.Installs;
using JustRight.Formats.Sheets;

namespace JustRight.Simulation.Tests;

/// <summary>The Fennmoor demo from sheet to just right, without the service.</summary>
public sealed class DemoStoryTests(ITestOutputHelper output)
{
    [Fact]
    public async Task Thermograph_becomes_just_right_after_granting_and_removing()
    {
        using var simulation = new DemoSimulation();
        var first = await simulation.VerifyAsync("thermograph-dataroom");
        Print(first);
        first.Fit.Counts.Forbidden.ShouldBe(1);
        first.Fit.Counts.Unseen.ShouldBeGreaterThan(0);
        first.Fit.Counts.Missing.ShouldBeGreaterThan(0);
        first.Fit.Counts.Pending.ShouldBe(4);

        var second = await simulation.VerifyAsync("thermograph-dataroom"); // fm-temp02 is back
        second.Fit.Counts.Unseen.ShouldBe(0);
        await simulation.MakeAsync(second.Worklist.Give);
        var third = await simulation.VerifyAsync("thermograph-dataroom");
        Print(third);
        third.Fit.Counts.Missing.ShouldBe(0);
        third.Worklist.Give.ShouldBeEmpty();
        third.Fit.Counts.AnyExcess.ShouldBeTrue();

        await simulation.MakeAsync(third.Worklist.Remove);
        var last = await simulation.VerifyAsync("thermograph-dataroom");
        Print(last);
        last.Fit.Words.ShouldBe("just right, 7 pending");
        last.Worklist.Remove.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_product_gets_an_OU_of_its_own_that_is_protected_and_goes_with_undo()
    {
        const string Above = "OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example";
        using var simulation = new DemoSimulation();
        simulation.Say("\n  accounts-in: service-accounts", $"\n  accounts-in: 'OU={{product}},{Above}'");
        await simulation.VerifyAsync("thermograph-dataroom");
        var (_, list) = await simulation.VerifyAsync("thermograph-dataroom"); // fm-temp02 is back
        list.Give.Take(3).Select(s => s.Change.Words).ShouldBe(
        [
            $"create the OU OU=thermo,{Above}",
            $"forbid Everyone to delete it, delete it with all below it, by an ACE on OU=thermo,{Above}",
            $"forbid Everyone to delete children of every class, by an ACE on {Above}",
        ]);
        list.Give[1].HangsOn.ShouldBe([1]);
        await simulation.MakeAsync(list.Give);
        var after = await simulation.VerifyAsync("thermograph-dataroom");
        after.Worklist.Give.ShouldBeEmpty();
        after.Fit.Counts.Missing.ShouldBe(0);
        simulation.File.Read(s => s.Branches.Contains($"OU=thermo,{Above}")).ShouldBeTrue();

        // another place for accounts to come moves none that is there, and asks for no empty OU
        simulation.Say("\n  accounts-in: service-accounts", $"\n  accounts-in: 'OU={{product}},OU=Else,{Above}'");
        (await simulation.VerifyAsync("thermograph-dataroom")).Worklist.Give.ShouldBeEmpty();

        await simulation.MakeAsync(Undoing.Of([.. list.Give.Select(s => s.Change)]));
        simulation.File.Read(s => s.Branches.Contains($"OU=thermo,{Above}")).ShouldBeFalse();
    }

    [Fact]
    public async Task Tallystick_shows_a_denial_that_no_grant_fixes()
    {
        using var simulation = new DemoSimulation();
        var first = await simulation.VerifyAsync("tallystick-dataroom");
        Print(first);
        var denied = first.Fit.Accounts.Single(a => a.Account.Key == "counter").Judgements.Single(j => j.DeniedBy.Count > 0);
        denied.Reason.ShouldBe("denied by FENNMOOR\\no-service-hosts");
        first.Worklist.Give.ShouldNotContain(s => s.Change is GrantLogonRight);
    }

    [Fact]
    public async Task Roundsman_is_stopped_by_a_branch_that_does_not_inherit_until_it_is_fixed()
    {
        using var simulation = new DemoSimulation();
        var first = await simulation.VerifyAsync("roundsman-dataroom");
        Print(first);
        first.Fit.Words.ShouldBe("3 missing, 1 forbidden");
        first.Worklist.Give.Count(s => s.Change is AddAccessRule).ShouldBe(3);
        await simulation.MakeAsync(first.Worklist.Give);
        var second = await simulation.VerifyAsync("roundsman-dataroom");
        Print(second);
        await simulation.MakeAsync(second.Worklist.Remove);
        var third = await simulation.VerifyAsync("roundsman-dataroom");
        Print(third);
        third.Fit.Words.ShouldBe("1 missing");
        var branch = third.Fit.Accounts[0].Judgements.Single(j => j.Verdict == Verdict.Missing).Branch!;
        (branch.Can, branch.Cannot, branch.Failures.Single().At.Single())
            .ShouldBe((17, 9, "OU=Saltmere,OU=People,OU=Fennmoor,DC=fennmoor,DC=example"));
        third.Worklist.Give.ShouldBeEmpty();
        third.Worklist.NotOffered.ShouldHaveSingleItem().Reason.ShouldContain("trace it");
    }

    [Fact]
    public async Task Nightchurn_is_governed_by_a_policy_that_takes_back_what_setup_and_a_hasty_hand_gave()
    {
        using var simulation = new DemoSimulation();
        var first = await simulation.VerifyAsync("nightchurn-dataroom");
        Print(first);
        var jobs = first.Fit.Accounts.Single(a => a.Account.Key == "jobs").Judgements.Single(j => j.Right is LogonRight);
        (jobs.Verdict, jobs.Reason).ShouldBe((Verdict.Met, "held, until the next policy refresh"));
        var engine = first.Fit.Accounts.Single(a => a.Account.Key == "engine").Judgements.Single(j => j.Right is LogonRight);
        (engine.Verdict, engine.Governed!.Name).ShouldBe((Verdict.Pending, "Job servers: who may log on"));
        first.Fit.Findings.ShouldContain(f =>
            f.Text.Contains("its list lacks", StringComparison.Ordinal)
                && f.Text.Contains("Performance Log Users", StringComparison.Ordinal));

        var lists = first.Worklist.Give.Select(s => s.Change).OfType<ChangePolicyList>().ToList();
        lists.Select(c => (c.Constant, c.Who))
            .ShouldBe([("SeServiceLogonRight", @"FENNMOOR\svc-night-engine"), ("SeBatchLogonRight", @"FENNMOOR\svc-nightjobs")]);
        lists.ShouldAllBe(c => c.Hosts.SequenceEqual(new[] { "fm-night01", "fm-night02" }));
        lists[1].Entries.Count.ShouldBe(3);
        first.Worklist.Give.ShouldNotContain(s => s.Change is GrantLogonRight);
        // the other comes with Administrators
        first.Worklist.Give.Select(s => s.Change).OfType<GrantPrivilege>()
            .ShouldHaveSingleItem().Constant.ShouldBe("SeAssignPrimaryTokenPrivilege");
        first.Worklist.Give[^1].Change.ShouldBeOfType<RefreshPolicy>();

        await simulation.MakeAsync(first.Worklist.Give);
        var second = await simulation.VerifyAsync("nightchurn-dataroom");
        Print(second);
        second.Fit.Counts.JustRight.ShouldBeTrue(second.Fit.Words);
        second.Fit.Accounts.Single(a => a.Account.Key == "jobs").Judgements.Single(j =>
            j.Right is LogonRight).Reason.ShouldBe("held");

        // What was made can be taken back in its right order, and the lists are then as they were.
        var undo = Undoing.Of([.. first.Worklist.Give.Select(s => s.Change)]);
        undo[^1].ShouldBeOfType<RefreshPolicy>();
        await simulation.MakeAsync(undo);
        simulation.File.Read(s => s.Policies[1].Lists["SeBatchLogonRight"].Count).ShouldBe(2);
    }

    [Theory]
    [InlineData("quernstone-sql01", "small-set", "VIEW SERVER STATE")]
    [InlineData("quernstone-sql02", "small-set-16", "VIEW SERVER PERFORMANCE STATE")]
    public async Task Quernstone_takes_the_small_set_of_its_release_and_gives_the_big_role_back(
        string install, string taken, string permission)
    {
        using var simulation = new DemoSimulation();
        var first = await simulation.VerifyAsync(install);
        Print(first);
        first.Fit.Plan.Decisions.Single().Taken.ShouldBe(taken);
        var watcher = first.Fit.Accounts.Single().Judgements;
        var big = watcher.Single(j => j.Verdict == Verdict.Excess);
        if (install == "quernstone-sql01")
            (watcher.Single(j => j.Right.Words == permission).Reason, big.Reason)
                .ShouldBe(("implied by sysadmin on fm-sql01", "less would do: small-set"));
        else watcher.Single(j => j.Right.Words == permission).Verdict.ShouldBe(Verdict.Missing);
        await simulation.MakeAsync(first.Worklist.Give);
        await simulation.MakeAsync((await simulation.VerifyAsync(install)).Worklist.Remove);
        var last = await simulation.VerifyAsync(install);
        last.Fit.Accounts.Single().Judgements.Single(j => j.Right.Words == permission)
            .ShouldSatisfyAllConditions(j => j.Reason.ShouldBe("held"), j => j.AsPlanned.ShouldBeTrue());
        last.Fit.Words.ShouldBe("just right");
        foreach (var step in first.Worklist.Give.Reverse())
            await simulation.Connectors.MakeAsync(step.Change.Inverse!, null, TestContext.Current.CancellationToken);
        (await simulation.VerifyAsync(install)).Fit.Counts.Missing.ShouldBe(4);
    }

    [Fact]
    public async Task Without_the_policy_a_grant_of_ours_is_taken_back_at_the_next_refresh()
    {
        using var simulation = new DemoSimulation();
        await simulation.MakeAsync(new GrantLogonRight("fm-night02", "batch", @"FENNMOOR\svc-nightjobs"));
        await simulation.MakeAsync(
            new RefreshPolicy("fm-night02")
            {
                Expect = [new ExpectedHolder("SeBatchLogonRight", @"FENNMOOR\svc-nightjobs", false)],
            });
    }

    [Fact]
    public async Task Wheyline_swaps_the_machine_for_a_named_account_and_only_then_takes_the_machine_out()
    {
        using var simulation = new DemoSimulation();
        var first = await simulation.VerifyAsync("wheyline-lines");
        Print(first);
        var sender = first.Fit.Accounts.Single(a => a.Account.Key == "sender").Judgements;
        sender.Single(j => j.Right.OfService is { Aspect: ServiceAspect.Restarted, Host: "fm-line02" }).Reason.ShouldBe(
            "it still runs as NetworkService since 2026-11-21 04:02 UTC: restart it");
        sender.Count(j => j.Machine is not null && j.Verdict == Verdict.Excess)
            .ShouldBe(8, "for each machine: the local group, the role, the user and the login");
        first.Fit.Findings.ShouldContain(f =>
            f.Text.StartsWith("WheylineSender runs as NetworkService and should run as svc-whey-sender", StringComparison.Ordinal)
                && f.Text.Contains(@"FENNMOOR\FM-LINE01$", StringComparison.Ordinal));
        first.Fit.Findings.ShouldContain(f => f.Text.Contains("its next start fails", StringComparison.Ordinal));
        first.Worklist.Remove.ShouldBeEmpty();
        first.Worklist.NotOffered.Count(n =>
            n.Reason.Contains("still set to run as NetworkService", StringComparison.Ordinal)
                || n.Reason.Contains("restart it first", StringComparison.Ordinal))
            .ShouldBe(8);

        // Rights first, then the order and the account, then the restart.
        var order = first.Worklist.Give.Select(s => s.Change.GetType().Name).Distinct().ToList();
        order.ShouldBe(
            [
                "CreateBranch", "CreateGroup", "AddMember", "GrantLogonRight", "AddLocalGroupMember", "CreateLogin",
                "CreateDatabaseUser", "AddDatabaseRoleMember", "MapToProductRole", "SetServiceStart", "SetServiceOrder",
                "SetServiceAccount", "RestartService"],
            string.Join(", ", order));
        await simulation.MakeAsync([.. first.Worklist.Give.Where(s => s.Change is not ProductChange)]);
        var second = await simulation.VerifyAsync("wheyline-lines");
        Print(second);
        second.Fit.Words.ShouldBe("8 excess, 1 unseen");
        foreach (var machine in new[] { @"FENNMOOR\FM-LINE01$", @"FENNMOOR\FM-LINE02$" })
        {
            second.Worklist.Remove.Select(s => s.Change).Where(c => c.Words.Contains(machine, StringComparison.Ordinal))
                .ShouldBe([
                new RemoveDatabaseRoleMember("fm-sql02", "WheyReadings", "db_datawriter", machine), new RemoveLocalGroupMember(
                    "fm-rec01", "Wheyline Writers", machine),
                new DropDatabaseUser("fm-sql02", "WheyReadings", machine), new DropLogin("fm-sql02", machine),
            ]);
        }

        await simulation.MakeAsync(second.Worklist.Remove);
        // what the recorder itself keeps, a person confirms
        (await simulation.VerifyAsync("wheyline-lines")).Fit.Words.ShouldBe("just right as far as seen, 1 unseen");

        await simulation.MakeAsync(Undoing.Of([.. first.Worklist.Give.Select(s => s.Change).Where(c => c is HostChange)]));
        simulation.File.Read(s =>
            s.Hosts.Single(h => h.Name == "fm-line01").Services.Single(v => v.Name == "WheylineSender").RunsNowAs)
            .ShouldBe(@"NT AUTHORITY\NetworkService");
    }

    [Fact]
    public async Task Curdhouses_setup_account_gives_back_what_only_setup_needed_and_the_database_gets_the_book_for_owner()
    {
        using var simulation = new DemoSimulation();
        var first = await simulation.VerifyAsync("curdhouse-books");
        Print(first);
        var setup = first.Fit.Accounts.Single(a => a.Account.Key == "fitter").Judgements;
        setup.Where(j => j.Verdict == Verdict.Excess).Select(j => j.Right.ToString())
            .ShouldBe(
                [
                    "Administrators on fm-book01", "Administrators on fm-book02", "dbcreator on fm-sql03",
                    "owner on fm-sql03/CurdRecipes", "securityadmin on fm-sql03"],
                ignoreOrder: true);
        first.Fit.Accounts.Single(a => a.Account.Key == "book").Judgements.Single(j =>
            j.Right is DatabaseOwnerRight).Verdict.ShouldBe(Verdict.Missing);
        var owner = new ChangeDatabaseOwner("fm-sql03", "CurdRecipes", @"FENNMOOR\svc-curd-book", @"FENNMOOR\svc-curd-fitter");
        var reader = new SetServiceAccount("fm-book02", "CurdCards", @"FENNMOOR\svc-curd-cards", @"FENNMOOR\svc-curd-labeller");
        first.Worklist.Give.Where(s => s.Blocked is null).Select(s => s.Change.Words)
            .ShouldBe([owner.Words, reader.Words, new RestartService("fm-book02", "CurdCards", reader.Account).Words]);
        first.Fit.Findings.ShouldContain(f =>
            f.Place == "fm-book02"
                && f.Text.Contains("CurdCards runs as svc-curd-labeller, the account of labeller, and the sheet keeps cards apart from it"));
        // the partner does not answer
        first.Fit.Accounts.SelectMany(a => a.Judgements).Where(j => j.Right.Place == "fm-sql04")
            .ShouldAllBe(j => j.Verdict == Verdict.Unseen && j.Reason.Contains("being patched"));
        first.Fit.Findings.ShouldContain(f =>
            f.Place == "fm-sql03/CurdRecipes" && f.Text.Contains("shares its instance with MilkQuality")
                && f.Text.EndsWith(@"can read it too: FENNMOOR\svc-curd-fitter."));
        first = await simulation.VerifyAsync("curdhouse-books");
        Print(first);
        // the other login is there
        first.Worklist.Give.Select(s => s.Change).Take(2)
            .ShouldBe([new CreateLogin("fm-sql04", @"FENNMOOR\svc-curd-book"), owner]);
        await simulation.MakeAsync(first.Worklist.Give);
        var second = await simulation.VerifyAsync("curdhouse-books");
        await simulation.MakeAsync(second.Worklist.Remove);
        (await simulation.VerifyAsync("curdhouse-books")).Fit.Words.ShouldBe("just right");
        await simulation.MakeAsync(Undoing.Of([.. first.Worklist.Give.Select(s => s.Change)]));
        simulation.File.Read(s =>
            s.Instances.Single(i => i.Name == "fm-sql03").Databases.Single(d => d.Name == "CurdRecipes").Owner)
            .ShouldBe("svc-curd-fitter");
    }

    private void Print((InstallFit Fit, Worklist Worklist) result)
    {
        output.WriteLine($"== {result.Fit.Words}");
        foreach (var judgement in result.Fit.Accounts.SelectMany(a => a.Judgements))
            output.WriteLine($"{judgement.Verdict,-7} {judgement.Account,-10} {judgement.Right} [{judgement.Reason}] {judgement.Paths.FirstOrDefault()} {string.Join("; ", judgement.Brings)}");
        foreach (var finding in result.Fit.Findings) output.WriteLine($"finding {finding.Place}: {finding.Text}");
        foreach (var step in result.Worklist.Give) output.WriteLine($"give {step.Number} {step.Change.Words} {step.Blocked}");
        foreach (var step in result.Worklist.Remove) output.WriteLine($"remove {step.Number} {step.Change.Words} {step.Why}");
        foreach (var left in result.Worklist.NotOffered) output.WriteLine($"not offered {left.For}: {left.Reason}");
    }
}

/// <summary>A simulation of its own for a test, with the demo's sheets, estate and installs.</summary>
internal sealed class DemoSimulation : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("justright-simulation-").FullName;

    public DemoSimulation()
    {
        File = SimulationFile.Open(
            Path.Combine(_folder, "simulation.json"), Path.Combine(DemoData, "simulation", "fennmoor.json"));
        Connectors = Connect(File);
        Estate = Read();
    }

    /// <summary>The demo's estate.</summary>
    /// <param name="words">What it says otherwise.</param>
    private static Estate Read(params (string Part, string Instead)[] words)
    {
        var text = words.Aggregate(
            Encoding.UTF8.GetString(Bytes("estates/fennmoor.yaml")),
            (all, w) => all.Replace(w.Part, w.Instead, StringComparison.Ordinal));
        var (estate, faults) = EstateReader.Read(Encoding.UTF8.GetBytes(text), "fennmoor.yaml");
        faults.ShouldBeEmpty();
        return estate!;
    }

    /// <summary>Says something of the estate otherwise from now on.</summary>
    public void Say(string part, string instead) => Estate = Read((part, instead));

    public static string DemoData => Path.Combine(Checkout.Top, "demo-data");

    public SimulationFile File { get; }

    public Estate Estate { get; private set; }

    public EstateConnectors Connectors { get; }

    public async Task<(InstallFit Fit, Worklist Worklist)> VerifyAsync(string name)
    {
        var install = InstallReader.Read(Bytes($"installs/{name}.yaml"), name).Install!;
        var plan = PlanOf(install);
        var survey = await EstateSurveyor.TakeAsync(
            Estate, Connectors, new SurveyAims([.. plan.Accounts.Select(a => a.Name)], []), TimeProvider.System, _ => { },
            TestContext.Current.CancellationToken);
        var view = AllEngines.View(survey);
        var needs = new NeedsIndex([plan]);
        var fit = new FitJudge(view, needs, Estate.Rules, new Present(DateTimeOffset.UtcNow)).Judge(plan);
        return (fit, WorklistMaker.Make(fit, view, needs));
    }

    public Task MakeAsync(IReadOnlyList<Step> steps) => MakeAsync([.. steps.Select(s => s.Change)]);

    public Task MakeAsync(params IReadOnlyList<Change> changes) => MakeAsync(Connectors, changes);

    public static EstateConnectors Connect(SimulationFile file) => new(
        new SimulationDirectory(file, TimeProvider.System), new SimulationHosts(file, TimeProvider.System),
        new SimulationInstances(file, TimeProvider.System));

    public static async Task MakeAsync(EstateConnectors connectors, params IReadOnlyList<Change> changes)
    {
        foreach (var change in changes)
        {
            await connectors.MakeAsync(change, change switch
            {
                CreateAccount => NewPassword.Generate(),
                SetServiceAccount { NeedsPassword: true } set =>
                    new NewPassword(SimulationPasswords.SimulatedOf(LogonName.WithoutDomain(set.Account))),
                _ => null,
            }, TestContext.Current.CancellationToken);
            (await connectors.ObserveAsync(change, TestContext.Current.CancellationToken)).State.ShouldBe(
                ObservedState.Done, change.Words);
        }
    }

    public void Dispose() => Directory.Delete(_folder, true);

    private static byte[] Bytes(string path) => System.IO.File.ReadAllBytes(Path.Combine(DemoData, path));

    public Plan PlanOf(string install) => PlanOf(InstallReader.Read(Bytes($"installs/{install}.yaml"), install).Install!);

    private Plan PlanOf(Install install)
    {
        var (sheet, faults) = SheetReader.Read(Bytes($"sheets/{install.Product}.yaml"), install.Product + ".yaml");
        faults.ShouldBeEmpty();
        var (plan, planFaults) = Planner.Make(sheet!, Estate, install, NameIndex.Empty);
        planFaults.ShouldBeEmpty();
        return plan!;
    }
}
