using JustRight.Core.Changes;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.Worklists;

namespace JustRight.Core.Tests;

/// <summary>The order of steps, and what becomes one step, none, or a blocked one.</summary>
public sealed class WorklistTests
{
    [Fact]
    public void Steps_follow_what_depends_on_what()
    {
        var (_, worklist) = new FitScene().Account(exists: false).PlannedGroup("ops", "app-ops", false, "poller")
            .Host("fm-temp01", []).Instance("fm-sql01", [])
            .Need(R.Db("db_datareader")).Need(R.Role("dbcreator")).Need(R.Admin(), through: "ops").Need(R.InGroup("app-ops"))
            .Run();
        worklist.Give.Select(s => s.Change.GetType().Name).ShouldBe([
            nameof(CreateGroup), nameof(AddMember), nameof(AddLocalGroupMember), nameof(CreateLogin), nameof(CreateDatabaseUser), nameof(
                AddInstanceRoleMember), nameof(AddDatabaseRoleMember),
        ]);
        worklist.Give.Select(s => s.Number).ShouldBe(Enumerable.Range(1, 7));
        worklist.Give.ShouldAllBe(s => s.At.File == "sheet.yaml");
    }

    [Fact]
    public void One_step_serves_every_account_that_holds_the_right_through_the_group()
    {
        var (_, worklist) = new FitScene().Account().Account("svc-portal", "portal").Group("app-ops", "svc-poller", "svc-portal")
            .PlannedGroup("ops", "app-ops", false, "poller", "portal")
            .Host("fm-temp01", []).Need(R.Admin(), through: "ops").Need(R.Admin(), through: "ops", account: "portal").Run();
        var step = worklist.Give.ShouldHaveSingleItem();
        step.Change.ShouldBe(new AddLocalGroupMember("fm-temp01", "Administrators", @"FENNMOOR\app-ops"));
        step.For.ShouldBe(["poller/local-group:administrators@fm-temp01", "portal/local-group:administrators@fm-temp01"]);
    }

    [Fact]
    public void An_account_in_an_inner_group_of_the_plan_is_not_put_into_the_outer_one()
    {
        var (_, worklist) = new FitScene().Account().Group("app-inner").Group("app-outer")
            .PlannedGroup("inner", "app-inner", false, "poller").PlannedGroup("outer", "app-outer", false, "inner")
            .Need(R.InGroup("app-inner")).Need(R.InGroup("app-outer")).Run();
        worklist.Give.Select(s => s.Change)
            .ShouldBe(
                [new AddMember("FENNMOOR", "app-outer", "app-inner"), new AddMember("FENNMOOR", "app-inner", "svc-poller")],
                ignoreOrder: true);
    }

    [Fact]
    public void A_place_that_was_not_read_blocks_its_steps_and_says_why()
    {
        var (_, worklist) = new FitScene().Account().UnreadHost("fm-temp02").Host("fm-temp01", []).Need(R.Admin())
            .Need(R.Admin("fm-temp02")).Run();
        worklist.Give.Single(s => s.Change.Place == "fm-temp01").Blocked.ShouldBeNull();
        worklist.Give.Single(s => s.Change.Place == "fm-temp02").Blocked.ShouldBe("fm-temp02 could not be read: no answer");
    }

    [Fact]
    public void What_setup_gives_is_no_step_of_ours()
    {
        var (_, worklist) = new FitScene().Account().Host("fm-temp01", []).Need(R.Service(), GivenBy.Setup).Run();
        worklist.Give.ShouldBeEmpty();
        worklist.LeftToSetup.ShouldBe(["poller/logon:service@fm-temp01"]);
        new FitScene { Stage = Stage.Installed }.Account().Host("fm-temp01", []).Need(R.Service(), GivenBy.Setup)
            .Run().Worklist.Give.ShouldBeEmpty();
    }

    [Fact]
    public void What_is_planned_already_is_no_step()
    {
        var (_, worklist) = new FitScene().Account().Host("fm-temp01", ["svc-poller"]).Need(R.Admin()).Run();
        worklist.Give.ShouldBeEmpty();
        worklist.Remove.ShouldBeEmpty();
    }

    [Fact]
    public void Two_removals_that_are_harmless_alone_are_not_both_offered_when_they_break_a_need_together()
    {
        // Either group alone would do for the need on fm-temp01; each brings something excess on another host.
        var (_, worklist) = new FitScene { Stage = Stage.Installed }.Account().Group("one", "svc-poller")
            .Group("two", "svc-poller")
            .Host("fm-temp01", ["one", "two"]).Host("fm-temp02", ["one"]).Host("fm-temp03", ["two"])
            .Need(R.Admin(), GivenBy.Setup).Run();
        worklist.Remove.ShouldHaveSingleItem().Change.ShouldBe(new RemoveMember("FENNMOOR", "one", "svc-poller"));
        worklist.NotOffered.ShouldHaveSingleItem().Reason.ShouldBe(
            "taking svc-poller out of two would break Administrators on fm-temp01 for svc-poller, which install needs");
    }

    [Fact]
    public void A_primary_group_is_not_left_by_a_removal()
    {
        var scene = new FitScene().Group("prime").Host("fm-temp01", ["prime"]);
        var (_, worklist) = scene.Account(primary: scene.SidOf("prime").Rid).Run();
        worklist.Remove.ShouldBeEmpty();
        worklist.NotOffered.ShouldHaveSingleItem().Reason.ShouldContain("primary group");
    }

    [Fact]
    public void Beyond_a_group_of_the_plan_the_group_is_cut_not_the_account()
    {
        var scene = new FitScene().Account().Group("app-ops", "svc-poller").PlannedGroup("ops", "app-ops", false, "poller")
            .Need(R.InGroup("app-ops"));
        scene.Replace("Domain Admins", g => g with { Members = [scene.SidOf("app-ops")] });
        var (_, worklist) = scene.Forbid("Domain Admins").Run();
        worklist.Remove.ShouldHaveSingleItem().Change.ShouldBe(new RemoveMember("FENNMOOR", "Domain Admins", "app-ops"));
    }
}
