using JustRight.Core.Changes;
using JustRight.Core.Fit;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;

namespace JustRight.Core.Tests.Hosts;

/// <summary>
/// Taking away what a policy gives: off the policy's list first, or it comes back; and only where nobody needs it.
/// </summary>
public sealed class GovernedRemovalTests
{
    private const string Batch = "SeBatchLogonRight", Poller = @"FENNMOOR\svc-poller", Portal = @"FENNMOOR\svc-portal";

    [Fact]
    public void It_goes_off_the_policys_list_and_then_off_the_hosts_that_have_it()
    {
        var remove = Scene().Run().Worklist.Remove;
        var list = remove[0].Change.ShouldBeOfType<ChangePolicyList>();
        (string.Join(' ', list.Entries), list.OldEntries.Count, string.Join(' ', list.Hosts))
            .ShouldBe(("*S-1-5-32-544", 2, "fm-temp01 fm-temp02"));
        remove.Skip(1).Select(s => s.Change).ShouldBe(
            [new RevokeLogonRight("fm-temp01", "batch", Poller), new RevokeLogonRight("fm-temp02", "batch", Poller)]);
        remove[0].For.Count.ShouldBe(2);
    }

    [Fact]
    public void Of_two_accounts_on_one_list_one_step_takes_both()
    {
        var remove = Scene("svc-portal").Run().Worklist.Remove;
        var list = remove.Select(s => s.Change).OfType<ChangePolicyList>().ShouldHaveSingleItem();
        (string.Join(' ', list.Entries), list.Words.Contains($"{Poller} and {Portal}", StringComparison.Ordinal))
            .ShouldBe(("*S-1-5-32-544", true));
        remove.Select(s => s.Change).OfType<RevokeLogonRight>().Count().ShouldBe(4);
    }

    [Fact]
    public void What_another_install_needs_on_another_host_of_that_policy_keeps_it_on_the_list()
    {
        var (_, worklist) = Scene().OtherInstall("wheyline", R.Batch("fm-temp02")).Run();
        worklist.Remove.ShouldBeEmpty();
        worklist.NotOffered.Select(n => n.Reason)
            .ShouldContain(r => r.EndsWith("which wheyline needs", StringComparison.Ordinal));
    }

    [Fact]
    public void Where_the_owners_of_the_policy_change_it_nothing_else_is_offered_for_it_would_come_back()
    {
        var scene = Scene();
        var view = scene.View() is var seen ? Core.Engines.AllEngines.View(seen.Survey with { Simulated = false }) : null!;
        var fit = new FitJudge(view, scene.Needs(), scene.Rules, new Present(FitScene.Now)).Judge(scene.Plan());
        var step = WorklistMaker.Make(fit, view, scene.Needs()).Remove.ShouldHaveSingleItem();
        step.Change.ShouldBeOfType<ChangePolicyList>();
        step.Blocked.ShouldNotBeNull().ShouldStartWith("the owners of the policy change it");
    }

    [Fact]
    public void What_stands_on_the_host_alone_goes_there_alone() =>
        new FitScene().Account().Computer("fm-temp01").Host("fm-temp01", [], (Batch, ["S-1-5-32-544", "svc-poller"]))
            .Policy("Servers", Batch, "*S-1-5-32-544").Run().Worklist.Remove
            .ShouldHaveSingleItem().Change.ShouldBe(new RevokeLogonRight("fm-temp01", "batch", Poller));

    [Fact]
    public void No_refresh_is_offered_that_takes_what_another_install_holds_there_only_until_then()
    {
        var (_, worklist) = new FitScene().Account().Account("svc-portal", "portal").Computer("fm-temp01")
            .Host("fm-temp01", [], (Batch, ["S-1-5-32-544", "svc-poller"])).Policy("Servers", Batch, "*S-1-5-32-544")
            .Need(R.Batch(), account: "portal").OtherInstall("wheyline", R.Batch()).Run();
        worklist.Give.Single(s => s.Change is RefreshPolicy).Blocked.ShouldBe(
            "the refresh would take log on as a batch job on fm-temp01 from svc-poller, which wheyline needs: "
            + "first put it on the policy's list (justright grant wheyline)");
        worklist.Give.Single(s => s.Change is ChangePolicyList).Blocked.ShouldBeNull();
    }

    private static FitScene Scene(params string[] more) =>
        more.Aggregate(new FitScene().Account(), (scene, name) => scene.Account(name, "portal")).Computer("fm-temp01")
            .Computer("fm-temp02")
            .Host("fm-temp01", [], (Batch, ["S-1-5-32-544", "svc-poller", .. more]))
            .Host("fm-temp02", [], (Batch, ["S-1-5-32-544", "svc-poller", .. more]))
            .Policy("Servers", Batch, ["*S-1-5-32-544", "svc-poller", .. more]);
}
