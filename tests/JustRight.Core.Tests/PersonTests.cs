using JustRight.Core.Changes;
using JustRight.Core.Fit;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;

namespace JustRight.Core.Tests;

/// <summary>A person who uses a product is judged for what it needs of them, and for nothing else that they may do.</summary>
public sealed class PersonTests
{
    [Fact]
    public void What_else_a_person_may_do_is_not_excess()
    {
        var (fit, worklist) = Person().Group("bowlers", "a.brandt")
            .Host("fm-temp01", ["a.brandt"]).Host("fm-temp02", ["a.brandt"]).Need(R.Admin(), account: "operator").Run();
        fit.Words.ShouldBe("just right");
        worklist.Remove.ShouldBeEmpty();
    }

    [Fact]
    public void What_the_plan_names_and_is_not_there_is_missing() =>
        FitCaseTests.Of(Person().Host("fm-temp01", []).Need(R.Admin(), account: "operator"), R.Admin())
            .Verdict.ShouldBe(Verdict.Missing);

    [Fact]
    public void What_is_forbidden_is_told_of_a_person_too()
    {
        var scene = Person();
        scene.Replace("Domain Admins", g => g with { Members = [scene.SidOf("a.brandt")] });
        FitCaseTests.Of(scene.Forbid("Domain Admins"), R.InGroup("Domain Admins")).Verdict.ShouldBe(Verdict.Forbidden);
    }

    [Theory]
    [InlineData("fm-temp01")]
    [InlineData("fm-elsewhere")]
    public void A_service_that_runs_as_a_person_is_found_on_whatever_host(string host)
    {
        var scene = Person().Host("fm-temp01", []).Host("fm-elsewhere", []).Need(R.Batch(), account: "operator");
        scene.Of(host, h => h with
        {
            Services = [new HostService("Labels", @"FENNMOOR\a.brandt", ServiceStart.Automatic, true, [])],
        });
        var finding = scene.Judge().Findings.ShouldHaveSingleItem();
        finding.Place.ShouldBe(host);
        finding.Text.ShouldStartWith("Labels runs as a.brandt, who is a person");
    }

    [Theory]
    [InlineData(new string[0], true)]
    [InlineData(new[] { "svc-poller" }, false)]
    [InlineData(new[] { "somebody-else" }, true)]
    public void Nobody_is_taken_out_of_a_group_that_another_sign_in_rests_on(string[] expected, bool offered)
    {
        var (_, worklist) = new FitScene().Account().Account("somebody-else", planned: false).Group("app-staff", "svc-poller")
            .Host("fm-temp01", ["app-staff"]).Need(R.Batch()).OtherSignIn("rennet", "app-staff", expected).Run();
        worklist.Remove.Any(s => s.Change == new RemoveMember("FENNMOOR", "app-staff", "svc-poller")).ShouldBe(offered);
        if (!offered)
            worklist.NotOffered.ShouldContain(n => n.Reason.Contains("app-staff on FENNMOOR for svc-poller, which rennet needs"));
    }

    private static FitScene Person() => new FitScene().Account("a.brandt", "operator", worksAs: WorksAs.Person);
}
