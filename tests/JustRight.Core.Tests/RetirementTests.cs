using JustRight.Core.Changes;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;
using JustRight.Core.Worklists.Retirement;

namespace JustRight.Core.Tests;

/// <summary>Taking an install away: what only it needed goes, what others need stays and says who, and for a while there is a way back.</summary>
public sealed class RetirementTests
{
    private static readonly DateTimeOffset Now = FitScene.Now;

    [Fact]
    public void What_only_it_needed_goes_and_what_another_needs_stays_and_says_who()
    {
        var (fit, worklist) = Retire(new FitScene().Account().Host(
            "fm-temp01", ["svc-poller"],
            ("SeBatchLogonRight", ["svc-poller"])).Instance("fm-sql01", [("dbcreator", ["svc-poller"])])
            .Need(R.Admin()).Need(R.Batch()).Need(R.Role("dbcreator")).OtherInstall("thermograph-depot", R.Admin()));
        worklist.Give.ShouldBeEmpty();
        worklist.Remove.Select(s => s.Change).ShouldBe([
            new RevokeLogonRight("fm-temp01", "batch", @"FENNMOOR\svc-poller"), new RemoveInstanceRoleMember(
                "fm-sql01", "dbcreator", @"FENNMOOR\svc-poller"),
            new DropLogin("fm-sql01", @"FENNMOOR\svc-poller"), // nobody else needs it there
        ], ignoreOrder: true);
        var judged = fit.Accounts.ShouldHaveSingleItem().Judgements;
        judged.Single(j => j.Id == "poller/local-group:administrators@fm-temp01")
            .ShouldSatisfyAllConditions(
                j => j.Verdict.ShouldBe(Verdict.Done),
                j => j.Reason.ShouldBe("no longer needed here; kept for thermograph-depot"));
        judged.Single(j => j.Right.OfAccount is not null).Reason.ShouldBe("kept: thermograph-depot uses it");
        worklist.NotOffered.ShouldContain(new NotOffered("poller/account:exists", "kept: thermograph-depot uses it"));
    }

    [Fact]
    public void An_account_that_was_there_before_us_stays_whoever_made_it()
    {
        var (fit, worklist) = Retire(new FitScene().Account());
        worklist.Remove.ShouldBeEmpty();
        worklist.NotOffered.ShouldHaveSingleItem().Reason.ShouldBe("kept: it existed before, and its owner decides");
        fit.Words.ShouldBe("nothing left");
    }

    [Fact]
    public void An_account_is_disabled_before_anything_is_taken_from_it_and_removed_last()
    {
        var (fit, worklist) = Retire(
            new FitScene().Account().Made("svc-poller").Host("fm-temp01", ["svc-poller"]).Need(R.Admin()));
        worklist.Remove.Select(s => s.Change.GetType())
            .ShouldBe([typeof(DisableAccount), typeof(RemoveLocalGroupMember), typeof(DeleteAccount)]);
        worklist.Remove.Select(s => s.Number).ShouldBe([1, 2, 3]);
        worklist.Remove.Select(s => s.Blocked).ShouldBe([null, null, "once it has been disabled for 30 days"]);
        fit.Words.ShouldBe("2 excess");
    }

    [Theory]
    [InlineData(0, "not before 2026-12-25 12:00 UTC: until then undo restores everything")]
    [InlineData(29.9, "not before 2026-12-25 12:00 UTC: until then undo restores everything")]
    [InlineData(-400, "not before 2026-12-25 12:00 UTC: until then undo restores everything")] // the clock was set back
    [InlineData(30, null)]
    public void A_disabled_account_waits(double days, string? blocked)
    {
        var scene = new FitScene().Account(state: AccountState.Disabled).Made("svc-poller");
        var (_, worklist) = Retire(scene, Now.AddDays(days), ("svc-poller", Now));
        var step = worklist.Remove.ShouldHaveSingleItem();
        step.Change.ShouldBeOfType<DeleteAccount>().Note.ShouldStartWith("Made by Maud Ferris at ");
        step.Blocked.ShouldBe(blocked);
    }

    [Fact]
    public void Everything_may_be_removed_when_the_last_of_it_has_waited()
    {
        var scene = new FitScene().Account(state: AccountState.Disabled).Made("svc-poller").Group("app-ops").Made("app-ops")
            .PlannedGroup("ops", "app-ops", false, "poller");
        var steps = Retire(scene, Now, ("svc-poller", Now.AddDays(3))).Worklist.Remove;
        scene.Past!.RemovableAt(steps).ShouldBe(Now.AddDays(33));
        scene.Past!.RemovableAt([]).ShouldBeNull();
        var enabled = new FitScene().Account().Made("svc-poller");
        var first = Retire(enabled).Worklist.Remove;
        enabled.Past!.RemovableAt(first).ShouldBeNull("it is not disabled yet");
    }

    [Fact]
    public void What_somebody_else_disabled_is_noted_first_and_waits_from_then_on()
    {
        var (_, worklist) = Retire(new FitScene().Account(state: AccountState.Disabled).Made("svc-poller"));
        worklist.Remove.Select(s => (s.Change.GetType(), s.Blocked is null))
            .ShouldBe([(typeof(DisableAccount), true), (typeof(DeleteAccount), false)]);
    }

    [Fact]
    public void An_account_that_still_holds_something_or_may_is_not_removed()
    {
        var due = ("svc-poller", Now.AddDays(-90));
        Retire(
            new FitScene().Account(state: AccountState.Disabled).Made("svc-poller").Host("fm-temp01", ["svc-poller"])
                .Need(R.Admin()),
            Now, due)
            .Worklist.Remove[^1].Blocked.ShouldBe("it still holds Administrators on fm-temp01");
        Retire(
            new FitScene().Account(state: AccountState.Disabled).Made("svc-poller").UnreadHost("fm-temp01").Need(R.Admin()), Now,
            due)
            .Worklist.Remove[^1].Blocked.ShouldBe(
                "whether it still holds Administrators on fm-temp01 is unseen: fm-temp01 could not be read: no answer");
    }

    [Fact]
    public void Nothing_is_taken_from_an_account_that_a_service_is_still_set_to_run_as()
    {
        var (fit, worklist) = Retire(new FitScene().Account().Made("svc-poller").Group(
            "app-ops", "svc-poller").Made("app-ops").PlannedGroup(
            "ops", "app-ops", false, "poller")
            .Host("fm-temp01", ["app-ops"], ("SeServiceLogonRight", ["svc-poller"]))
            .Of(
                "fm-temp01",
                h => h with
                {
                    Services = [new HostService("ThermoPoll", @"FENNMOOR\svc-poller", ServiceStart.Automatic, true, [])],
                })
                .Need(R.Admin(), through: "ops").Need(R.Service()).Runs("ThermoPoll"));
        worklist.Remove.Count.ShouldBeGreaterThan(3);
        worklist.Remove.Where(s => s.Change is not DeleteGroup)
            .ShouldAllBe(s =>
                s.Blocked == "ThermoPoll on fm-temp01 is still set to run as svc-poller: uninstall the product there first, or give the service another account.");
        fit.Findings.ShouldContain(f => f.Text.StartsWith("ThermoPoll on fm-temp01", StringComparison.Ordinal));
    }

    [Fact]
    public void A_service_that_another_install_runs_as_a_shared_account_stands_in_nobodys_way()
    {
        var (fit, worklist) = Retire(new FitScene().Account().Host("fm-temp01", [], ("SeBatchLogonRight", ["svc-poller"]))
            .Of(
                "fm-temp01",
                h => h with
                {
                    Services = [new HostService("DepotPoll", @"FENNMOOR\svc-poller", ServiceStart.Automatic, true, [])],
                })
            .Need(R.Batch())
            .OtherInstall(
                    "thermograph-depot",
                    new ServiceRight(
                        new ServiceAsked("fm-temp01", "DepotPoll", ServiceAspect.Identity), "DepotPoll runs as it")));
        worklist.Remove.ShouldHaveSingleItem().Blocked.ShouldBeNull();
        fit.Findings.ShouldBeEmpty();
    }

    [Fact]
    public void A_group_of_the_plan_loses_what_it_holds_then_its_members_and_goes_last()
    {
        var scene = new FitScene().Account().Made("svc-poller").Group("app-ops", "svc-poller").Made("app-ops")
            .PlannedGroup("ops", "app-ops", false, "poller").Host("fm-temp01", ["app-ops"]).Need(R.Admin(), through: "ops")
            .Need(R.InGroup("app-ops"));
        Retire(scene).Worklist.Remove.Select(s => s.Change.Words).ShouldBe([
            @"disable the account FENNMOOR\svc-poller", @"remove FENNMOOR\app-ops from fm-temp01\Administrators",
            @"remove FENNMOOR\svc-poller from FENNMOOR\app-ops",
            @"delete the account FENNMOOR\svc-poller", @"delete the empty group FENNMOOR\app-ops",
        ]);
    }

    [Fact]
    public void What_a_group_holds_goes_even_when_nobody_is_in_it_any_more()
    {
        var (_, worklist) = Retire(
            new FitScene().Account(exists: false).Group("app-ops").Made("app-ops")
                .PlannedGroup("ops", "app-ops", false, "poller").Host("fm-temp01", ["app-ops"]).Need(R.Admin(), through: "ops"),
            Now.AddDays(60));
        worklist.Remove.Select(s => (s.Change.Words, s.Blocked)).ShouldBe([
            (@"remove FENNMOOR\app-ops from fm-temp01\Administrators", null), (
                @"delete the empty group FENNMOOR\app-ops", "it still holds Administrators on fm-temp01"),
        ]);
    }

    [Fact]
    public void A_group_is_not_removed_while_what_it_held_somewhere_is_unseen()
    {
        var scene = new FitScene().Account(exists: false).Group("app-ops").Made("app-ops")
            .PlannedGroup("ops", "app-ops", false, "poller").UnreadHost("fm-temp01").Need(R.Admin(), through: "ops");
        Retire(scene, Now.AddDays(60)).Worklist.Remove.ShouldHaveSingleItem().Blocked.ShouldBe(
            "whether it still holds Administrators on fm-temp01 is unseen: fm-temp01 could not be read: no answer");
    }

    [Fact]
    public void A_group_with_an_unexpected_member_in_it_stays_and_only_our_account_leaves_it()
    {
        var (_, worklist) = Retire(
            new FitScene().Account().Account("t.okoro", planned: false).Group("app-ops", "svc-poller", "t.okoro").Made("app-ops")
                .PlannedGroup("ops", "app-ops", false, "poller").Host("fm-temp01", ["app-ops"]).Need(R.Admin(), through: "ops"));
        worklist.Remove.ShouldHaveSingleItem().Change.ShouldBe(new RemoveMember("FENNMOOR", "app-ops", "svc-poller"));
        worklist.NotOffered.ShouldContain(n =>
            n.For == "ops" && n.Reason.StartsWith("kept: app-ops has members", StringComparison.Ordinal));
    }

    [Fact]
    public void What_carries_no_note_of_ours_is_never_removed()
    {
        var (_, worklist) = Retire(
            new FitScene().Account(state: AccountState.Disabled).Made("svc-poller")
                .Replace("svc-poller", p => p with { Note = "Made by hand" }),
            Now.AddYears(1), ("svc-poller", Now));
        worklist.Remove.ShouldBeEmpty();
        worklist.NotOffered.ShouldHaveSingleItem().Reason.ShouldContain("does not carry our note");
    }

    [Fact]
    public void Two_installs_that_share_an_account_and_both_retire_do_not_hold_it_for_each_other()
    {
        var needs = new NeedsIndex([Plan("a", Stage.Retiring), Plan("b", Stage.Retiring), Plan("c", Stage.Planned)]);
        needs.UsersOf("SVC-POLLER").ShouldBe(["c"]);
        new NeedsIndex([Plan("a", Stage.Retiring), Plan("b", Stage.Retiring)]).UsersOf("svc-poller").ShouldBeEmpty();

        static Core.Plans.Plan Plan(string name, Stage stage) => new FitScene().Account().Judge().Plan with
        {
            Install = name,
            Stage = stage,
        };
    }

    private static (InstallFit Fit, Worklist Worklist) Retire(
        FitScene scene, DateTimeOffset? now = null, params (string Name, DateTimeOffset At)[] disabled)
    {
        scene.Stage = Stage.Retiring;
        scene.Past = new RetirementPast(Now, disabled.ToDictionary(d => d.Name, d => d.At), TimeSpan.FromDays(30), new Present(now ?? Now));
        return scene.Run();
    }
}
