using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Worklists.Retirement;

namespace JustRight.Core.Tests;

/// <summary>
/// An install that cannot be planned: nothing that it may need is called excess, and nothing of it is taken away.
/// </summary>
public sealed class UnplannedInstallTests
{
    private const string Broken = "thermograph-depot";

    [Theory]
    [InlineData("svc-poller", "", Verdict.Unseen)]
    [InlineData("svc-other", "fm-temp01", Verdict.Unseen)]
    [InlineData("svc-other", "fm-temp02", Verdict.Excess)]
    [InlineData(null, null, Verdict.Unseen)]
    public void What_it_may_need_is_unseen_and_offered_to_nobody(string? account, string? place, Verdict verdict)
    {
        var (fit, worklist) = Scene(account, place).Run();
        var judged = fit.Accounts.ShouldHaveSingleItem().Judgements.Single(j => j.Right == R.Admin());
        judged.Verdict.ShouldBe(verdict);
        if (verdict == Verdict.Excess)
        {
            worklist.Remove.ShouldHaveSingleItem();
            return;
        }

        judged.Reason.ShouldBe($"whether {Broken} needs it is not known, because it cannot be planned: its sheet does not read");
        worklist.Remove.ShouldBeEmpty();
    }

    [Fact]
    public void What_is_forbidden_stays_forbidden_and_is_taken_from_nobody_who_may_need_it()
    {
        var scene = Scene("svc-poller", "").Group("Backup Operators", "svc-poller").Forbid("Backup Operators");
        var (fit, worklist) = scene.Run();
        fit.Counts.Forbidden.ShouldBe(1);
        worklist.Remove.ShouldBeEmpty();
        worklist.NotOffered.ShouldContain(
            n => n.Reason == $"taking svc-poller out of Backup Operators would break what {Broken} may need: "
                + "it cannot be planned");
    }

    [Fact]
    public void An_account_that_it_may_use_is_not_retired()
    {
        var scene = Scene("svc-poller", "").Made("svc-poller");
        scene.Stage = Stage.Retiring;
        scene.Past = new RetirementPast(
            FitScene.Now.AddDays(-100), new Dictionary<string, DateTimeOffset>(), TimeSpan.FromDays(30),
                new Present(FitScene.Now));
        var (fit, worklist) = scene.Run();
        fit.Accounts.ShouldHaveSingleItem().Judgements.ShouldContain(
            j => j.Id == "poller/account:exists" && j.Verdict == Verdict.Unseen);
        worklist.Remove.ShouldBeEmpty();
        worklist.NotOffered.ShouldContain(n => n.Reason == $"kept: {Broken} (which cannot be planned) uses it");
    }

    private static FitScene Scene(string? account, string? place)
    {
        var scene = new FitScene().Account().Host("fm-temp01", ["svc-poller"]);
        scene.Unplanned = [new UnplannedInstall(Broken, "its sheet does not read", Set(account), Set(place))];
        return scene;
    }

    private static HashSet<string>? Set(string? one) => one is null ? null : one.Length == 0 ? [] : [one];
}
