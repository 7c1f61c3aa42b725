using JustRight.Core.Fit;
using JustRight.Core.Hosts;
using JustRight.Core.Passwords;
using JustRight.Core.Plans;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists.Retirement;

namespace JustRight.Core.Tests.Hosts;

/// <summary>Scheduled tasks and web application pools that run as an account of a plan.</summary>
public sealed class HostRunnerTests
{
    private const string Account = @"FENNMOOR\svc-poller";
    private static readonly DateTimeOffset Now = new(2026, 11, 30, 8, 0, 0, TimeSpan.Zero);

    private static FitScene Scene(params HostRunner[] runners) => new FitScene().Account().Host(
        "fm-temp01", [], ("SeServiceLogonRight", ["svc-poller"])).Of("fm-temp01", h => h with { Runners = runners })
        .Need(R.Service());

    private static IEnumerable<PasswordPlace> Places(FitScene scene) =>
        PasswordPlaces.Of([scene.Plan()], scene.View(), []).Where(p => p.Account == "svc-poller");

    [Theory]
    [InlineData(RunnerKind.Task, @"\Dairy\Nightly", Account, true, "the scheduled task \\Dairy\\Nightly on fm-temp01")]
    [InlineData(
        RunnerKind.Pool, "DairyPool", "svc-poller@fennmoor.example", true, "the web application pool DairyPool on fm-temp01")]
    [InlineData(RunnerKind.Task, @"\Dairy\Nightly", "svc-poller", true, "the scheduled task \\Dairy\\Nightly on fm-temp01")]
    [InlineData(RunnerKind.Task, @"\Dairy\Nightly", Account, false, null)]
    [InlineData(RunnerKind.Task, @"\Dairy\Nightly", @"FM-TEMP01\svc-poller", true, null)]
    [InlineData(RunnerKind.Task, @"\Dairy\Nightly", @"OTHERS\svc-poller", true, null)]
    [InlineData(RunnerKind.Pool, "DairyPool", @"IIS APPPOOL\svc-poller", false, null)]
    public void What_keeps_the_password_is_a_place_of_it(RunnerKind kind, string name, string account, bool keeps, string? words)
    {
        var places = Places(Scene(new HostRunner(kind, name, account, keeps))).ToList();
        places.Select(p => p.Words).ShouldBe(words is null ? [] : [words]);
        if (words is null) return;
        places[0].BreaksAtOnce.ShouldBeFalse("it goes on until its next start");
        var book = RunBookMaker.Make("FENNMOOR", "svc-poller", null, places, _ => new HostForRenewal(null, false, false));
        book.Steps.Single(s => s.Place == places[0].Id).Words.ShouldBe(
            kind == RunnerKind.Task ? $"type it as {words}" : $"type it as {words}, and recycle it");
        book.Remarks.ShouldContain($"{words} runs as svc-poller, and is in no sheet.");
    }

    [Fact]
    public void A_host_that_tells_the_SID_is_believed_before_the_name()
    {
        var scene = Scene();
        var sid = scene.SidOf("svc-poller");
        scene.Of("fm-temp01", h => h with
        {
            Runners =
            [
                new HostRunner(RunnerKind.Task, "renamed", @"FENNMOOR\svc-former-name", true) { AccountSid = sid },
                new HostRunner(RunnerKind.Task, "another", Account, true) { AccountSid = sid.WithRid(4711) },
            ],
        });
        Places(scene).Select(p => p.Setting).ShouldBe(["renamed"]);
        scene.Judge().Findings.Select(f => f.Text)
            .ShouldContain("The scheduled task renamed runs as svc-poller, and keeps its password.");
    }

    [Theory]
    [InlineData("S-1-5-21-1-2-3-4711", "svc-unread", true)] // of the domain, and not read
    [InlineData("S-1-5-21-7-7-7-1001", "svc-unread", false)] // a user of the host alone, by a name without a domain
    [InlineData("S-1-5-21-1-2-3-4711", "svc-poller", false)] // that name is somebody else's
    public void A_SID_of_another_authority_is_no_account_of_the_domain(string sid, string name, bool isPlace)
    {
        var scene = Scene(
            new HostRunner(RunnerKind.Task, "Nightly", name, true) { AccountSid = Core.Directory.Sid.Parse(sid) });
        PasswordPlaces.Of([scene.Plan()], scene.View(), []).Any(p => p.Kind == PasswordPlaceKind.Task).ShouldBe(isPlace);
    }

    [Theory]
    [InlineData(
        RunnerKind.Task, true, "The scheduled task Nightly (disabled) on fm-temp01",
        "delete the task, or give it another account.")]
    [InlineData(
        RunnerKind.Pool, false, "The web application pool Nightly on fm-temp01", "remove the pool, or give it another identity.")]
    public void Nothing_is_taken_from_an_account_that_still_runs_something(
        RunnerKind kind, bool disabled, string what, string way)
    {
        var told = $"{what} is still set to run as svc-poller: {way}";
        var scene = Scene(new HostRunner(kind, "Nightly", Account, false) { IsDisabled = disabled }).Made("svc-poller");
        scene.Stage = Core.Installs.Stage.Retiring;
        scene.Past = new RetirementPast(Now, new Dictionary<string, DateTimeOffset>(), TimeSpan.FromDays(30), new Present(Now));
        var (fit, list) = scene.Run();
        fit.Findings.ShouldContain(f => f.Text == told);
        list.Remove.ShouldNotBeEmpty();
        list.Remove.ShouldAllBe(s => s.Blocked == told);
    }
}
