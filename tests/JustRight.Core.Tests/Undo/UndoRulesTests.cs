using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Replicas;
using JustRight.Core.Rights.Access;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists.Undo;

namespace JustRight.Core.Tests.Undo;

/// <summary>
/// Undoing a grant is as careful as retiring: nothing that is used goes, and deleted is only what is known to be unused.
/// </summary>
public sealed class UndoRulesTests
{
    private const string Domain = "FENNMOOR";
    private const string Poller = @"FENNMOOR\svc-poller";
    private static readonly string Note = CreationNote.Of("Maud Ferris", FitScene.Now.AddYears(-1), "install");

    private static readonly CreateAccount Created =
        new(Domain, "svc-poller", "CN=svc-poller,OU=Svc,DC=fennmoor,DC=example", "svc-poller@fennmoor.example", "",
            true)
        { Note = Note };

    private static readonly AddLocalGroupMember Admin = new("fm-temp01", "Administrators", Poller);

    [Fact]
    public void An_account_that_is_known_to_be_unused_is_disabled_first_and_deleted_last()
    {
        var plan = Undo(Scene(), [Created, Admin]);
        plan.Blocked.ShouldBeEmpty();
        plan.Left.ShouldBeEmpty();
        plan.Changes.Select(c => c.GetType()).ShouldBe(
            [typeof(DisableAccount), typeof(RemoveLocalGroupMember), typeof(DeleteAccount)]);
    }

    /// <summary>What counts as use: each of them keeps the account, disabled, and offers to retire the install.</summary>
    public static TheoryData<string, string> Uses => new()
    {
        { "installed", "its product is installed" },
        { "handed over", "its password was handed over" },
        { "signed in", "it signed in at fm-dc02, last 2026-11-01 08:00 UTC" },
        { "a controller did not answer", "whether it signed in at fm-dc02 is not known: no answer" },
        { "no controller was asked", "were not asked whether it signed in" },
        { "no controller answered at all", "no domain controller could be asked" },
        { "a host could not be read", "fm-temp02 could not be read" },
    };

    [Theory]
    [MemberData(nameof(Uses))]
    public void What_may_be_in_use_is_disabled_and_not_deleted(string use, string why)
    {
        var scene = use == "a host could not be read" ? Scene().UnreadHost("fm-temp02") : Scene();
        var facts = Facts(scene);
        facts = use switch
        {
            "installed" => facts with { Stage = Stage.Installed },
            "handed over" => facts with { PasswordsOut = new HashSet<string> { "svc-poller" } },
            "signed in" =>
                facts with
                {
                    Uses = Use(
                new ControllerLogon("fm-dc01", null, null), new ControllerLogon(
                "fm-dc02", null, new DateTimeOffset(2026, 11, 1, 8, 0, 0, TimeSpan.Zero)))
                },
            "a controller did not answer" =>
                facts with
                {
                    Uses = Use(
                new ControllerLogon("fm-dc01", null, null), new ControllerLogon("fm-dc02", "no answer", null))
                },
            "no controller was asked" => facts with { Uses = new Dictionary<string, AccountUse>() },
            "no controller answered at all" => facts with { Uses = Use() },
            _ => facts,
        };
        var plan = UndoRules.Of([Created, Admin], facts);
        plan.Blocked.ShouldBeEmpty();
        plan.Changes.Select(c => c.GetType()).ShouldBe([typeof(DisableAccount), typeof(RemoveLocalGroupMember)]);
        plan.Left.ShouldHaveSingleItem().ShouldSatisfyAllConditions(
            l => l.ShouldStartWith("svc-poller stays, disabled: "), l => l.ShouldContain(why),
            l => l.ShouldEndWith("retire the install: justright install stage install retiring"));
    }

    [Theory]
    [InlineData(
        @"FENNMOOR\svc-poller", null,
        "Poller on fm-temp01 is set to run as svc-poller: give it another account first, or uninstall it")]
    [InlineData(
        "svc-poller@fennmoor.example", null,
        "Poller on fm-temp01 is set to run as svc-poller: give it another account first, or uninstall it")]
    [InlineData("LocalSystem", @"FENNMOOR\svc-poller", "Poller on fm-temp01 still runs as svc-poller: restart it first")]
    [InlineData("LocalSystem", "LocalSystem", null)]
    [InlineData(@"OTHER\svc-poller", null, null)]
    public void Nothing_goes_while_a_service_runs_as_the_account(string set, string? runs, string? blocked)
    {
        var scene = Scene().Of("fm-temp01", h => h with { Services = [Service(set, runs)] });
        Undo(scene, [Created, Admin]).Blocked.ShouldBe(blocked is null ? [] : [blocked]);
    }

    [Fact]
    public void A_service_that_the_job_itself_gave_the_account_goes_back_before_the_account_is_disabled()
    {
        var scene = Scene().Of("fm-temp01", h => h with { Services = [Service(Poller, Poller)] });
        var plan = Undo(
            scene, [Created, Admin, new SetServiceAccount("fm-temp01", "Poller", Poller, "LocalSystem"), new RestartService(
            "fm-temp01", "Poller", Poller)]);
        plan.Blocked.ShouldBeEmpty();
        plan.Changes.Select(c => c.GetType()).ShouldBe([
            typeof(SetServiceAccount), typeof(RestartService), typeof(DisableAccount), typeof(RemoveLocalGroupMember), typeof(
                DeleteAccount),
        ]);
    }

    [Fact]
    public void What_another_install_needs_or_uses_does_not_go()
    {
        var needed = Scene().OtherInstall("thermograph-depot", R.Admin());
        Undo(needed, [Created, Admin]).Blocked.ShouldBe(
            ["thermograph-depot uses svc-poller",
            "it would break Administrators on fm-temp01 for svc-poller, which thermograph-depot needs"]);
        Undo(needed, [Admin]).Blocked.ShouldBe(
            ["it would break Administrators on fm-temp01 for svc-poller, which thermograph-depot needs"]);
        var batch = Scene().OtherInstall("thermograph-depot", R.Batch());
        Undo(batch, [Admin]).Blocked.ShouldBeEmpty();
    }

    [Fact]
    public void What_an_install_may_need_that_cannot_be_planned_does_not_go()
    {
        var facts = Facts(Scene());
        var unplanned = new UnplannedInstall(
            "thermograph-depot", "its sheet does not read", new HashSet<string> { "svc-poller" }, new HashSet<string>());
        UndoRules.Of([Admin], facts with { Needs = new NeedsIndex([], [unplanned]) }).Blocked
            .ShouldBe(["it would break what thermograph-depot may need: it cannot be planned"]);
        UndoRules.Of(
            [Admin], facts with
            {
                Needs = new NeedsIndex(
            [], [unplanned with { Names = new HashSet<string> { "svc-other" } }])
            }).Blocked.ShouldBeEmpty();
    }

    [Fact]
    public void An_account_that_holds_what_the_job_did_not_give_does_not_go()
    {
        var scene = new FitScene().Account().Made("svc-poller").Group("shifts", "svc-poller")
            .Host("fm-temp01", ["svc-poller"], ("SeBatchLogonRight", ["svc-poller"])).Instance(
                "fm-sql01", [("dbcreator", ["svc-poller"])]);
        Undo(scene, [Created, Admin]).Blocked.ShouldBe([
            "svc-poller holds shifts on FENNMOOR, which this job did not give",
                "svc-poller holds dbcreator on fm-sql01, which this job did not give",
            "svc-poller holds CONNECT SQL on fm-sql01, which this job did not give",
                "svc-poller holds log on as a batch job on fm-temp01, which this job did not give",
        ], ignoreOrder: true);
        Undo(scene, [
            Created, Admin, new AddMember(Domain, "shifts", "svc-poller"), new GrantLogonRight("fm-temp01", "batch", Poller),
            new CreateLogin("fm-sql01", Poller), new AddInstanceRoleMember("fm-sql01", "dbcreator", Poller),
        ]).Blocked.ShouldBeEmpty();
    }

    [Fact]
    public void A_login_takes_nothing_along_that_the_job_did_not_give()
    {
        var scene = new FitScene().Account().Instance("fm-sql01", [("dbcreator", ["svc-poller"])]);
        Undo(scene, [new CreateLogin("fm-sql01", Poller)]).Blocked
            .ShouldBe([
                @"FENNMOOR\svc-poller holds dbcreator on fm-sql01, which this job did not give and which would go with its login",
            ]);
        Undo(scene, [new CreateLogin("fm-sql01", Poller), new AddInstanceRoleMember("fm-sql01", "dbcreator", Poller)]).Blocked
            .ShouldBeEmpty();
    }

    [Fact]
    public void Another_account_of_that_name_is_left_alone()
    {
        Undo(Scene().Replace("svc-poller", p => p with { Note = "Made by hand" }), [Created]).Blocked
            .ShouldBe(["svc-poller does not carry the note of this job: it is another account"]);
        Undo(new FitScene().Host("fm-temp01", []), [Created]).ShouldSatisfyAllConditions(
            p => p.Blocked.ShouldBeEmpty(), p => p.Changes.ShouldHaveSingleItem().ShouldBeOfType<DeleteAccount>());
    }

    [Fact]
    public void A_group_goes_only_when_nobody_else_is_in_it_and_it_holds_nothing_else()
    {
        var made = new CreateGroup(
            Domain, "app-ops", "CN=app-ops,OU=Groups,DC=fennmoor,DC=example", GroupScope.Global, "")
        { Note = Note };
        var scene = new FitScene().Account().Account("m.ferris", "person", planned: false).Group(
            "app-ops", "svc-poller", "m.ferris").Made("app-ops").Host("fm-temp01", ["app-ops"]);
        Undo(scene, [made, new AddMember(Domain, "app-ops", "svc-poller")]).Blocked.ShouldBe([
            "app-ops holds Administrators on fm-temp01, which this job did not give",
                @"FENNMOOR\m.ferris is in app-ops, and this job did not put it there",
        ]);
        var all = new Change[] { made, new AddMember(Domain, "app-ops", "svc-poller"), new AddMember(
            Domain, "app-ops", "m.ferris"), new AddLocalGroupMember("fm-temp01", "Administrators", @"FENNMOOR\app-ops") };
        Undo(scene, all).ShouldSatisfyAllConditions(
            p => p.Blocked.ShouldBeEmpty(), p => p.Changes[^1].ShouldBeOfType<DeleteGroup>());
        UndoRules.Of(all, Facts(scene) with { Stage = Stage.Installed }).ShouldSatisfyAllConditions(
            p => p.Changes.ShouldNotContain(c => c is DeleteGroup), p =>
                p.Left.ShouldHaveSingleItem().ShouldStartWith("app-ops stays, empty: its product is installed"));
    }

    [Fact]
    public void A_branch_stays_with_what_stays_in_it()
    {
        var branch = new CreateBranch(Domain, "OU=Svc,DC=fennmoor,DC=example");
        Undo(Scene(), [branch, Created, Admin]).Changes[^1].ShouldBeOfType<DeleteBranch>();
        UndoRules.Of([branch, Created, Admin], Facts(Scene()) with { Stage = Stage.Installed }).ShouldSatisfyAllConditions(
            p => p.Changes.ShouldNotContain(c => c is DeleteBranch), p =>
                p.Left.ShouldContain("OU=Svc,DC=fennmoor,DC=example stays: it is not empty"));
    }

    [Fact]
    public void An_OU_goes_with_its_own_protection_and_what_protects_the_OUs_beside_it_stays()
    {
        var dn = DistinguishedName.Parse("OU=probe,OU=Svc,DC=fennmoor,DC=example");
        var branch = new CreateBranch(Domain, dn.Text);
        var (own, above) = DeletionProtection.OfNew(Domain, dn) is [var first, var second] ? (first, second) : default;
        (own.Words, above.Words).ShouldBe((
            $"forbid Everyone to delete it, delete it with all below it, by an ACE on {dn}",
            $"forbid Everyone to delete children of every class, by an ACE on {dn.Parent}"));
        var inside = Created with { Dn = $"CN=svc-poller,{dn}" };
        Change[] all = [branch, own, above, inside, Admin];
        Undo(Scene(), all).ShouldSatisfyAllConditions(
            p => p.Changes.TakeLast(2).ShouldBe([own.Inverse!, branch.Inverse!]),
            p => p.Changes.ShouldNotContain(above.Inverse!),
            p => p.Left.ShouldContain(
                "what is below OU=Svc,DC=fennmoor,DC=example stays protected from deletion: that is also for other OUs there"));
        UndoRules.Of(all, Facts(Scene()) with { Stage = Stage.Installed }).ShouldSatisfyAllConditions(
            p => p.Changes.ShouldNotContain(own.Inverse!), p => p.Left.ShouldContain($"{dn} stays: it is not empty"));
        // protection that was set on its own is lifted whole, as it was set
        Undo(Scene(), [own, above]).Changes.ShouldBe([above.Inverse!, own.Inverse!]);
    }

    [Fact]
    public void Without_a_reading_of_the_directory_nothing_is_deleted()
    {
        UndoRules.Of([Created], new UndoFacts(null, new NeedsIndex([]))).Blocked.ShouldHaveSingleItem().ShouldContain(
            "survey the estate first");
        var scene = Scene();
        scene.DirectoryUnread = "no answer";
        Undo(scene, [Created]).Blocked.ShouldBe(["the directory could not be read: no answer"]);
        UndoRules.Of([Admin], new UndoFacts(null, new NeedsIndex([]))).Changes.ShouldHaveSingleItem();
    }

    private static FitScene Scene() => new FitScene().Account().Made("svc-poller").Host("fm-temp01", ["svc-poller"]);

    private static HostService Service(string account, string? runsNowAs) =>
        new("Poller", account, ServiceStart.Automatic, runsNowAs is not null, []) { RunsNowAs = runsNowAs };

    private static UndoPlan Undo(FitScene scene, IReadOnlyList<Change> made) => UndoRules.Of(made, Facts(scene));

    private static Dictionary<string, AccountUse> Use(params ControllerLogon[] controllers) =>
        new() { ["svc-poller"] = new AccountUse("svc-poller", controllers) };

    private static UndoFacts Facts(FitScene scene) => new(scene.View(), scene.Needs())
    {
        Install = "install",
        Stage = Stage.Planned,
        Uses = Use(new ControllerLogon("fm-dc01", null, null)),
    };
}
