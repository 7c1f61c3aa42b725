using JustRight.Core.Changes;
using JustRight.Core.Engines;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Drift;
using JustRight.Core.Tests.Engines;

namespace JustRight.Core.Tests;

/// <summary>What we made ourselves is told as ours, also where it stands further up the path; what others made is not.</summary>
public sealed class OwnStepsTests
{
    private const string Principal = @"FENNMOOR\svc-poller";
    private const string Admin = "local-group:administrators@fm-temp01";
    private const string Logon = "logon:service@fm-temp01";
    private static readonly DateTimeOffset At = new(2026, 11, 25, 12, 0, 0, TimeSpan.Zero);

    public static TheoryData<string, Change, string, string[], bool> Steps => new()
    {
        { "the right itself given", new AddLocalGroupMember("fm-temp01", "Administrators", Principal), Admin, [], true },
        { "the right itself taken", new RemoveLocalGroupMember("fm-temp01", "Administrators", Principal), Admin, [], true },
        { "on another host", new AddLocalGroupMember("fm-temp02", "Administrators", Principal), Admin, [], false },
        { "another right there", new GrantLogonRight("fm-temp01", "batch", Principal), Admin, [], false },
        { "to somebody else", new AddLocalGroupMember("fm-temp01", "Administrators", @"FENNMOOR\g-operators"), Admin, [], false },
        {
            "to a group on the way", new AddLocalGroupMember("fm-temp01", "Administrators", @"FENNMOOR\g-operators"), Admin,
            [@"FENNMOOR\svc-poller -> FENNMOOR\g-operators -> fm-temp01\Administrators"], true
        },
        {
            "out of a group on the way", new RemoveMember("FENNMOOR", "g-operators", "svc-poller"), Admin,
            [@"FENNMOOR\svc-poller -> FENNMOOR\g-operators -> fm-temp01\Administrators"], true
        },
        {
            "out of a group that is not on the way", new RemoveMember("FENNMOOR", "g-operators", "svc-poller"), Admin,
            [@"FENNMOOR\svc-poller -> fm-temp01\Administrators"], false
        },
        { "out of a group that is gone since", new RemoveMember("FENNMOOR", "g-gone", "svc-poller"), Admin, [], false },
        { "the account itself", new DisableAccount("FENNMOOR", "svc-poller"), "account:usable", [], true },
        { "another account", new DisableAccount("FENNMOOR", "svc-other"), "account:usable", [], false },
        { "the account, and a right", new DisableAccount("FENNMOOR", "svc-poller"), Admin, [], false },
        {
            "its service", new SetServiceAccount("fm-temp01", "Poll", Principal, "LocalSystem"),
            "service:poll/identity@fm-temp01", [], true
        },
        { "another service", new RestartService("fm-temp01", "Hub", Principal), "service:poll/restarted@fm-temp01", [], false },
        { "a refresh", new RefreshPolicy("fm-temp01"), Logon, [], false },
    };

    [Theory]
    [MemberData(nameof(Steps))]
    public void A_step_of_ours_is_told_where_it_made_the_difference(
        string what, Change change, string key, string[] paths, bool ours)
    {
        var line = new DriftLine(DriftWay.Worse, "svc-poller", "a right", what) { Id = $"poller/{key}", Paths = paths };
        var step = new MadeStep(change, "maud", At);
        new OwnSteps([step], AllEngines.View(KindScene.Nothing)).MadeBy(line).ShouldBe(ours ? step : null);
    }

    [Fact]
    public void Of_several_steps_the_last_is_told_and_a_part_that_was_not_read_is_nobodys()
    {
        MadeStep[] steps =
        [
            new(new AddLocalGroupMember("fm-temp01", "Administrators", Principal), "maud", At),
            new(new RemoveLocalGroupMember("fm-temp01", "Administrators", Principal), "jory", At.AddMinutes(1)),
        ];
        var own = new OwnSteps(steps, AllEngines.View(KindScene.Nothing));
        own.MadeBy(new DriftLine(DriftWay.Worse, "svc-poller", "", "") { Id = $"poller/excess/{Admin}" }).ShouldBe(steps[1]);
        own.MadeBy(new DriftLine(DriftWay.Other, "", "", "fm-temp01 can no longer be read")).ShouldBeNull();
    }

    [Fact]
    public void A_difference_knows_the_paths_of_before_and_of_now()
    {
        KeptFit Of(Verdict verdict, params string[] paths) => new(
            "thermograph", At, default, "",
            [new KeptRight("poller/x", "svc-poller", "x", true, verdict, "a reason", paths)], [], []);

        var line = FitDrift.Between(Of(Verdict.Met, "a -> g -> x"), Of(Verdict.Missing)).ShouldHaveSingleItem();
        line.Id.ShouldBe("poller/x");
        line.Passes("g").ShouldBeTrue();
        line.Passes("h").ShouldBeFalse();
    }
}
