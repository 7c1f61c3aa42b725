using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Engines.Person;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Worklists;

namespace JustRight.Core.Tests;

/// <summary>Identities inside a product rest on people's words, and on nothing else.</summary>
public sealed class ProductRoleTests
{
    private static readonly ProductRoleRight Right = new(
        new InsideProduct("Thermograph", "Tanker clerk", ["hand in weighings", "read its settings"], TimeSpan.FromDays(100)));
    private static readonly Confirmation Word = new(
        "install", $"poller/{Right.Key}", "svc-poller", null, Right.Confirmable.Lets, true, "Maud Ferris", FitScene.Now.AddDays(-1),
        FitScene.Now.AddDays(99));

    public static TheoryData<string, Confirmation?, Stage, GivenBy, Until, Verdict, string> Cases => new()
    {
        { "nobody looked", null, Stage.Planned, GivenBy.Us, Until.Always, Verdict.Unseen, "a person must look it up inside the product; nobody has confirmed it yet" },
        { "setup will give it", null, Stage.Planned, GivenBy.Setup, Until.Always, Verdict.Pending, "setup gives it" },
        { "setup has run, nobody looked", null, Stage.Installed, GivenBy.Setup, Until.Always, Verdict.Unseen, "a person must look it up inside the product; nobody has confirmed it yet" },
        { "there", Word, Stage.Planned, GivenBy.Us, Until.Always, Verdict.Met, "confirmed by a person until 2027-03-04: Maud Ferris, 2026-11-24 12:00 UTC" },
        { "there, by setup", Word, Stage.Installed, GivenBy.Setup, Until.Always, Verdict.Met, "confirmed by a person until 2027-03-04: Maud Ferris, 2026-11-24 12:00 UTC" },
        { "not there", Word with { Held = false }, Stage.Planned, GivenBy.Us, Until.Always, Verdict.Missing, "not there; confirmed by a person until 2027-03-04: Maud Ferris, 2026-11-24 12:00 UTC" },
        { "not there, and setup will give it", Word with { Held = false }, Stage.Planned, GivenBy.Setup, Until.Always, Verdict.Pending, "setup gives it" },
        { "lapsed this very moment", Word with { Until = FitScene.Now }, Stage.Planned, GivenBy.Us, Until.Always, Verdict.Unseen, "a person's confirmation expired on 2026-11-25 (Maud Ferris, 2026-11-24 12:00 UTC): look it up and confirm it again" },
        { "absence lapses too", Word with { Held = false, Until = FitScene.Now.AddDays(-1) }, Stage.Installed, GivenBy.Us, Until.Installed, Verdict.Unseen, "a person's confirmation expired on 2026-11-24 (Maud Ferris, 2026-11-24 12:00 UTC): look it up and confirm it again" },
        { "another account", Word with { Principal = "svc-old" }, Stage.Planned, GivenBy.Us, Until.Always, Verdict.Unseen, "a person confirmed it for svc-old, not for svc-poller (Maud Ferris, 2026-11-24 12:00 UTC): look it up and confirm it again" },
        { "another account of that name", Word with { Sid = Sid.Parse("S-1-5-21-9-9-9-9") }, Stage.Planned, GivenBy.Us, Until.Always, Verdict.Unseen, "a person confirmed it for another svc-poller, which has been made anew since (Maud Ferris, 2026-11-24 12:00 UTC): look it up and confirm it again" },
        { "other operations", Word with { Details = ["hand in weighings"] }, Stage.Planned, GivenBy.Us, Until.Always, Verdict.Unseen, "a person confirmed it for other operations: hand in weighings (Maud Ferris, 2026-11-24 12:00 UTC): look it up and confirm it again" },
        { "the same operations in another order and case", Word with { Details = [
            "READ its settings",
            "hand in weighings"] }, Stage.Planned, GivenBy.Us, Until.Always, Verdict.Met, "confirmed by a person until 2027-03-04: Maud Ferris, 2026-11-24 12:00 UTC" },
        { "left over from setup", Word, Stage.Installed, GivenBy.Us, Until.Installed, Verdict.Excess, "left over from setup; confirmed by a person until 2027-03-04: Maud Ferris, 2026-11-24 12:00 UTC" },
        { "gone after setup", Word with { Held = false }, Stage.Installed, GivenBy.Us, Until.Installed, Verdict.Done, "needed for setup only, and not there; confirmed by a person until 2027-03-04: Maud Ferris, 2026-11-24 12:00 UTC" },
        { "after setup nobody looked", null, Stage.Installed, GivenBy.Us, Until.Installed, Verdict.Unseen, "needed for setup only, and nobody has confirmed that it is not there" },
        { "the word on another install", Word with { Install = "nightchurn" }, Stage.Planned, GivenBy.Us, Until.Always, Verdict.Unseen, "a person must look it up inside the product; nobody has confirmed it yet" },
    };

    [Theory]
    [MemberData(nameof(Cases))]
    public void A_persons_word_decides(
        string when, Confirmation? word, Stage stage, GivenBy by, Until until, Verdict verdict, string reason)
    {
        var judged = Judged(word, stage, by, until, out _);
        (judged.Verdict, judged.Reason).ShouldBe((verdict, reason), when);
    }

    [Fact]
    public void The_latest_word_counts_and_says_when_it_ends()
    {
        var scene = new FitScene().Account().Need(Right).Confirmed(Word with { Held = false, At = FitScene.Now.AddDays(-5) })
            .Confirmed(Word with { Until = FitScene.Now.AddDays(20) })
            .Confirmed(Word with { Held = false, At = FitScene.Now.AddDays(-3) });
        var judged = scene.Run().Fit.Accounts[0].Judgements.Single(j => j.Right == Right);
        judged.Verdict.ShouldBe(Verdict.Met);
        judged.Notes.ShouldHaveSingleItem().ShouldBe("that ends in 20 days: look again soon");
    }

    [Fact]
    public void It_does_not_rest_on_the_survey_which_may_be_old()
    {
        var scene = new FitScene
        {
            SurveyedAt = FitScene.Now.AddDays(-9),
            Rules = new OrganizationRules(
            [], TimeSpan.FromHours(24), [])
        }.Account()
            .Need(Right).Confirmed(Word);
        scene.Run().Fit.Accounts[0].Judgements.Single(j => j.Right == Right).Verdict.ShouldBe(Verdict.Met);
    }

    [Fact]
    public void What_is_not_confirmed_is_a_step_for_a_person_and_no_step_of_ours()
    {
        Judged(null, Stage.Planned, GivenBy.Us, Until.Always, out var worklist);
        var step = worklist.Give.ShouldHaveSingleItem();
        step.Change.ShouldBe(new MapToProductRole("Thermograph", "Tanker clerk", @"FENNMOOR\svc-poller", Right.Confirmable.Lets));
        step.Change.Words.ShouldBe(
            @"map FENNMOOR\svc-poller to 'Tanker clerk' inside Thermograph, which lets it hand in weighings, read its settings and nothing more");
        step.Blocked.ShouldBe(
            "a person makes it inside the product and confirms it: justright confirm install poller \"Tanker clerk\"");
        Judged(Word, Stage.Planned, GivenBy.Us, Until.Always, out worklist);
        worklist.Give.ShouldBeEmpty();
    }

    [Fact]
    public void What_setup_left_behind_inside_the_product_is_a_step_for_a_person_too()
    {
        Judged(Word, Stage.Installed, GivenBy.Us, Until.Installed, out var worklist);
        var step = worklist.Remove.ShouldHaveSingleItem();
        step.Change.Words.ShouldBe(@"take 'Tanker clerk' inside Thermograph away from FENNMOOR\svc-poller");
        step.Blocked.ShouldNotBeNull();
    }

    private static Judgement Judged(Confirmation? word, Stage stage, GivenBy by, Until until, out Worklist worklist)
    {
        var scene = new FitScene { Stage = stage }.Account().Need(Right, by, until);
        if (word is not null) scene.Confirmed(word);
        (var fit, worklist) = scene.Run();
        return fit.Accounts[0].Judgements.Single(j => j.Right == Right);
    }
}
