using JustRight.Core.Changes;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests;

/// <summary>An account that only setup needed is disabled once setup is done.</summary>
public sealed class SetupAccountTests
{
    [Theory]
    [InlineData("enabled", Verdict.Excess, "only setup needed it, and it is not disabled")]
    [InlineData("disabled", Verdict.Done, "only setup needed it; disabled")]
    [InlineData("gone", Verdict.Done, "only setup needed it, and it is not there")]
    [InlineData("needed for good", Verdict.Met, "")]
    [InlineData("still to be set up", Verdict.Met, "")]
    [InlineData("there before us", Verdict.Met, "")]
    [InlineData("used by another install", Verdict.Met, "")]
    [InlineData("somebody's own", Verdict.Met, "")]
    public void A_row(string what, Verdict verdict, string reason)
    {
        var (fit, worklist) = Scene(what).Run();
        var exists = fit.Accounts.ShouldHaveSingleItem().Judgements
            .First(j => j.Right.OfAccount == AccountAspect.Exists);
        exists.Verdict.ShouldBe(verdict, exists.Reason);
        if (reason.Length > 0) exists.Reason.ShouldBe(reason);
        worklist.Remove.Select(s => s.Change).OfType<DisableAccount>().Count().ShouldBe(verdict == Verdict.Excess ? 1 : 0);
        worklist.Give.Select(s => s.Change).OfType<CreateAccount>().ShouldBeEmpty();
    }

    [Fact]
    public void It_is_disabled_before_anything_is_taken_from_it()
    {
        var (_, worklist) = Scene("enabled", "svc-poller").Run();
        worklist.Remove.Select(s => s.Change.GetType()).ShouldBe([typeof(DisableAccount), typeof(RemoveLocalGroupMember)]);
        worklist.Remove.ShouldAllBe(s => s.Blocked == null);
    }

    [Fact]
    public void It_is_not_disabled_while_a_service_runs_as_it()
    {
        var scene = Scene("enabled");
        scene.Of("fm-temp01", h => h with
        {
            Services = [new HostService("Labels", @"FENNMOOR\svc-poller", ServiceStart.Automatic, true, [])],
        });
        scene.Run().Worklist.Remove.ShouldHaveSingleItem().Blocked.ShouldNotBeNull()
            .ShouldStartWith("Labels on fm-temp01 is still");
    }

    private static FitScene Scene(string what, params string[] admins)
    {
        var scene = new FitScene { Stage = what == "still to be set up" ? Stage.Planned : Stage.Installed };
        scene.Account(
            exists: what != "gone", state: what == "disabled" ? AccountState.Disabled : AccountState.None,
            worksAs: what == "somebody's own" ? WorksAs.Person : WorksAs.Setup).Host("fm-temp01", admins);
        if (what != "there before us") scene.Made("svc-poller", what != "gone");
        scene.Need(R.Admin(), until: Until.Installed);
        if (what == "needed for good") scene.Need(R.Batch());
        if (what == "used by another install") scene.OtherInstall("depot", R.Batch());
        return scene;
    }
}
