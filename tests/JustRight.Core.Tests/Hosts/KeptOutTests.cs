using JustRight.Core.Changes;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;
using JustRight.Core.Worklists.Retirement;

namespace JustRight.Core.Tests.Hosts;

/// <summary>
/// An account is kept from a log-on when it is denied it, by whatever path; and nobody is kept from what somebody needs.
/// </summary>
public sealed class KeptOutTests
{
    private const string Deny = "SeDenyInteractiveLogonRight", Poller = @"FENNMOOR\svc-poller";
    private static readonly string[] Us = ["S-1-5-32-545"];

    private static KeptOutRight KeptOut(string type = "interactive") => new("fm-temp01", type);

    private static readonly LogonRight Locally = new("fm-temp01", "interactive");

    public static TheoryData<string[], string[], Verdict, string> Held => new()
    {
        { ["svc-poller"], [], Verdict.Met, "denied" },
        { ["no-desk"], [], Verdict.Met, "denied" },
        { ["S-1-5-32-545"], [], Verdict.Met, "denied" },
        { [], [], Verdict.Missing, "svc-poller is not denied it; nothing lets it log on locally today" },
        { [], ["svc-poller"], Verdict.Missing, "svc-poller is not denied it, and may log on locally" },
        { ["others"], Us, Verdict.Missing, @"svc-poller is not denied it, and may log on locally through fm-temp01\Users" },
    };

    [Theory]
    [MemberData(nameof(Held))]
    public void It_is_met_when_the_account_is_denied_the_log_on(
        string[] denied, string[] allowed, Verdict verdict, string reason)
    {
        var (fit, worklist) = Scene(denied, allowed).Need(KeptOut()).Run();
        var need = Of(fit);
        (need.Verdict, need.Reason).ShouldBe((verdict, reason));
        fit.Accounts[0].Judgements.Where(j => j.Verdict == Verdict.Excess && j.Right is KeptOutRight).ShouldBeEmpty();
        var steps = worklist.Give.Select(s => s.Change).OfType<HostChange>().ToList();
        if (verdict == Verdict.Met) steps.ShouldBeEmpty();
        else steps.ShouldBe([new DenyLogon("fm-temp01", "interactive", Poller)]);
    }

    [Fact]
    public void A_list_that_was_not_read_leaves_it_unseen()
    {
        Of(Scene([], []).UnreadPart("fm-temp01", Deny).Need(KeptOut()).Judge()).Verdict.ShouldBe(Verdict.Unseen);
        Of(Scene(["svc-poller"], []).UnreadPart("fm-temp01", Deny).Need(KeptOut()).Judge()).Verdict.ShouldBe(Verdict.Met);
    }

    [Fact]
    public void The_group_of_the_plan_is_denied_and_not_the_account()
    {
        var (fit, worklist) = Scene(["svc-poller"], []).PlannedGroup("desk", "no-desk", false, "poller")
            .Need(KeptOut(), through: "desk").Run();
        Of(fit).ShouldSatisfyAllConditions(
            j => j.Reason.ShouldBe("denied another way"), j => j.Notes.ShouldContain("denied another way than through no-desk"));
        worklist.Give.ShouldHaveSingleItem().Change.ShouldBe(new DenyLogon("fm-temp01", "interactive", @"FENNMOOR\no-desk"));
    }

    [Fact]
    public void Where_a_policy_governs_it_the_list_of_the_policy_is_changed()
    {
        var (fit, worklist) = Scene([], []).Computer("fm-temp01").Policy("Desks", Deny, "others").Need(KeptOut()).Run();
        Of(fit).Reason.ShouldBe(
            "svc-poller is not denied it; nothing lets it log on locally today; policy Desks governs it, "
            + "and its list lacks svc-poller");
        worklist.Give.Select(s => s.Change).ShouldSatisfyAllConditions(
            c => c.OfType<ChangePolicyList>().ShouldHaveSingleItem().Constant.ShouldBe(Deny),
            c => c.OfType<RefreshPolicy>().ShouldHaveSingleItem(), c => c.OfType<DenyLogon>().ShouldBeEmpty());
        (fit, _) = Scene(["svc-poller"], []).Computer("fm-temp01").Policy("Desks", Deny, "others").Need(KeptOut()).Run();
        Of(fit).Reason.ShouldBe("denied, until the next policy refresh");
    }

    public static TheoryData<string, Right, string> Stopped => new()
    {
        { "interactive", Locally, "it would keep svc-poller from log on locally on fm-temp01, which labels needs" },
        {
            "service", new ServiceRight(new ServiceAsked("fm-temp01", "Poll", ServiceAspect.Identity), "Poll runs as it"),
            "it would keep svc-poller from Poll runs as it on fm-temp01, which labels needs"
        },
        { "network", R.Role("dbcreator"), "it would keep svc-poller from dbcreator on fm-sql01, which labels needs" },
    };

    [Theory]
    [MemberData(nameof(Stopped))]
    public void What_another_install_needs_is_not_denied(string type, Right needed, string why)
    {
        var (fit, worklist) = Scene([], []).Instance("fm-sql01", []).OfInstance("fm-sql01", i => i with { Host = "fm-temp01" })
            .Need(KeptOut(type)).OtherInstall("labels", needed).Run();
        worklist.Give.Select(s => s.Change).OfType<DenyLogon>().ShouldBeEmpty();
        worklist.NotOffered.Single(n => n.For == Of(fit, KeptOut(type)).Id).Reason.ShouldBe(why);
    }

    [Fact]
    public void A_group_with_a_person_in_it_is_not_denied_and_unknown_members_are_named()
    {
        var scene = Scene([], []).Account("maud", "maud", worksAs: WorksAs.Person).Account("stray", planned: false)
            .Group("desk-less", "svc-poller", "stray").PlannedGroup("desk", "desk-less", false, "poller")
            .Need(KeptOut(), through: "desk");
        scene.Run().Worklist.Give.ShouldHaveSingleItem().Why.ShouldBe(
            "because; keeps out stray too, who is in desk-less and in no install");
        scene.Replace("desk-less", g => g with { Members = [.. g.Members, scene.SidOf("maud")] });
        scene.Run().Worklist.NotOffered.ShouldContain(n => n.Reason == "it would keep out maud, who is a person");
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void A_group_that_is_not_there_and_not_ours_to_make_blocks_what_goes_through_it(bool governed)
    {
        var scene = Scene([], []).Computer("fm-temp01").ExistingGroup("desk", "no-dsk", "poller")
            .Need(R.InGroup("no-dsk")).Need(KeptOut(), through: "desk");
        if (governed) scene.Policy("Desks", Deny, "others");
        var (fit, worklist) = scene.Run();
        Of(fit, R.InGroup("no-dsk")).Reason.ShouldBe("there is no group no-dsk in FENNMOOR; did you mean 'no-desk'?");
        foreach (var step in worklist.Give.Where(s => s.Change is AddMember or DenyLogon or ChangePolicyList))
            step.Blocked.ShouldStartWith("there is no group no-dsk in FENNMOOR");
        worklist.Give.Count(s => s.Change is DenyLogon or ChangePolicyList).ShouldBe(1);
    }

    [Fact]
    public void A_group_that_everybody_is_in_is_not_denied() =>
        Scene([], []).PlannedGroup("all", "Domain Users", false, "poller").Need(KeptOut(), through: "all").Run().Worklist
            .NotOffered.ShouldContain(n =>
                n.Reason == "everybody in the domain is in Domain Users: nobody could log on any more");

    [Fact]
    public void Nobody_is_put_into_a_group_that_is_denied_what_they_need()
    {
        var scene = Scene(["others"], []).PlannedGroup("b", "others", false, "poller")
            .Need(R.InGroup("others"));
        var step = scene.OtherInstall("labels", Locally).Run().Worklist.Give.Single(s => s.Change is AddMember);
        step.Blocked.ShouldBe(
            @"it would deny log on locally on fm-temp01 to svc-poller, which labels needs: FENNMOOR\others is denied it there");
    }

    [Fact]
    public void An_entry_of_its_own_is_taken_off_when_the_install_goes()
    {
        var scene = Scene(["svc-poller"], []).Need(KeptOut());
        scene.Stage = Stage.Retiring;
        scene.Past = new RetirementPast(
            FitScene.Now, new Dictionary<string, DateTimeOffset>(), TimeSpan.FromDays(30), new Present(FitScene.Now));
        var (fit, worklist) = scene.Run();
        fit.Accounts[0].Judgements.Single(j => j.Verdict == Verdict.Excess && j.Right is KeptOutRight).Reason
            .ShouldBe("nothing needs it after install is retired");
        worklist.Remove.Select(s => s.Change).ShouldContain(new LiftLogonDenial("fm-temp01", "interactive", Poller));
    }

    private static FitScene Scene(string[] denied, string[] allowed) => new FitScene().Account().Group("others")
        .Group("no-desk", "svc-poller").Host("fm-temp01", [], ("SeInteractiveLogonRight", allowed), (Deny, denied));

    private static Judgement Of(InstallFit fit, Right? right = null) =>
        fit.Accounts[0].Judgements.Single(j => j.Grant is not null && j.Right == (right ?? KeptOut()));
}
