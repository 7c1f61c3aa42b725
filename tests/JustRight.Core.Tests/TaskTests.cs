using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Engines.Person;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Worklists;
using JustRight.Core.Worklists.Retirement;

namespace JustRight.Core.Tests;

/// <summary>Tasks rest on people's words; what one waits for is told instead of asked for.</summary>
public sealed class TaskTests
{
    private const string Done = "confirmed by a person until 2027-03-04: Maud Ferris, 2026-11-24 12:00 UTC";

    private const string Again = "(Maud Ferris, 2026-11-24 12:00 UTC): look again and confirm it";

    private static readonly TaskRight Locks = Task("locks"), Alarm = Task("alarm", "locks"), Keys = Task("keys", "installed"),
        Badge = Task("badge", "account");

    private static TaskRight Task(string name, params string[] waitsFor) => new(
        new TaskAsked("Thermograph", name, $"Do {name}", $"{name} is seen", TimeSpan.FromDays(100), Team.Product, waitsFor),
        "fm-temp01");

    private static Confirmation Word(TaskRight task, bool done = true) => new(
        "install", $"poller/{task.Key}", "svc-poller", null, task.Confirmable.Details, done, "Maud Ferris",
        FitScene.Now.AddDays(-1), FitScene.Now.AddDays(99));

    private static readonly Confirmation Said = Word(Locks);

    public static TheoryData<string, Confirmation?, Stage, GivenBy, Until, Verdict, string> Cases
    {
        get
        {
            var cases = new TheoryData<string, Confirmation?, Stage, GivenBy, Until, Verdict, string>();
            Us("nobody said so", null, Verdict.Unseen, "nobody has confirmed yet that it is done");
            Us("done", Said, Verdict.Met, Done);
            Us("seen not to be done", Word(Locks, false), Verdict.Missing, $"not done; {Done}");
            Us(
                "lapsed", Said with { Until = FitScene.Now }, Verdict.Unseen,
                $"a person's confirmation expired on 2026-11-25 {Again}");
            Us(
                "the sheet asks for something else now", Said with { Details = ["Do locks", "seen otherwise"] }, Verdict.Unseen,
                $"a person confirmed it when the sheet asked for something else {Again}");
            Us(
                "the account was made anew", Said with { Sid = Sid.Parse("S-1-5-21-9-9-9-9") }, Verdict.Unseen,
                $"a person confirmed it for another svc-poller, which has been made anew since {Again}");
            cases.Add("setup does it", null, Stage.Planned, GivenBy.Setup, Until.Always, Verdict.Pending, "setup gives it");
            cases.Add(
                "needed for setup, which has run", Said, Stage.Installed, GivenBy.Us, Until.Installed, Verdict.Done,
                "needed for setup only");
            foreach (var (when, word) in new[] { ("not done, of a product that goes", null), ("done, of one that goes", Said) })
                cases.Add(when, word, Stage.Retiring, GivenBy.Us, Until.Always, Verdict.Done, "no longer needed");
            return cases;

            void Us(string when, Confirmation? word, Verdict verdict, string reason) =>
                cases.Add(when, word, Stage.Planned, GivenBy.Us, Until.Always, verdict, reason);
        }
    }

    [Theory]
    [MemberData(nameof(Cases))]
    public void A_persons_word_decides(
        string when, Confirmation? word, Stage stage, GivenBy by, Until until, Verdict verdict, string reason)
    {
        var scene = new FitScene { Stage = stage }.Account().Need(Locks, by, until);
        if (stage == Stage.Retiring)
            scene.Past = new RetirementPast(
                FitScene.Now, new Dictionary<string, DateTimeOffset>(), TimeSpan.FromDays(30), new Present(FitScene.Now));
        if (word is not null) scene.Confirmed(word);
        var judged = Of(scene, Locks).Judgement;
        (judged.Verdict, judged.Reason).ShouldBe((verdict, reason), when);
    }

    [Fact]
    public void What_waits_is_pending_and_no_step_until_it_can_be_done()
    {
        var scene = new FitScene().Account().Need(Locks).Need(Alarm).Need(Keys).Need(Badge);
        Of(scene, Alarm).ShouldSatisfyAllConditions(
            a => (a.Judgement.Verdict, a.Judgement.Reason).ShouldBe((Verdict.Pending, "it waits until the task 'locks' is done")),
            a => a.Steps.ShouldBe(["locks", "badge"]),
            a => a.Worklist.LeftToSetup.ShouldBeEmpty());
        (Of(scene, Keys).Judgement.Verdict, Of(scene, Keys).Judgement.Reason)
            .ShouldBe((Verdict.Pending, "it waits until the product is installed"));
        Of(scene.Confirmed(Word(Locks)), Alarm).Steps.ShouldBe(["alarm", "badge"]);
        Of(scene.Confirmed(Word(Alarm)), Alarm).Judgement.Verdict.ShouldBe(Verdict.Met);
    }

    [Fact]
    public void What_was_seen_not_to_be_done_waits_all_the_same()
    {
        var scene = new FitScene().Account().Need(Locks).Need(Alarm).Confirmed(Word(Alarm, false));
        Of(scene, Alarm).Judgement.Verdict.ShouldBe(Verdict.Pending);
        Of(scene.Confirmed(Word(Locks)), Alarm).Judgement.Verdict.ShouldBe(Verdict.Missing);
    }

    [Fact]
    public void What_waits_for_setup_can_be_done_once_it_has_run() =>
        Of(new FitScene { Stage = Stage.Installed }.Account().Need(Keys), Keys).Judgement.Verdict.ShouldBe(Verdict.Unseen);

    [Fact]
    public void It_does_not_rest_on_its_account_unless_it_says_so()
    {
        var scene = new FitScene().Account(exists: false).Need(Locks).Need(Badge);
        Of(scene, Locks).Judgement.Verdict.ShouldBe(Verdict.Unseen);
        (Of(scene, Badge).Judgement.Verdict, Of(scene, Badge).Judgement.Reason)
            .ShouldBe((Verdict.Pending, "it waits until svc-poller is there"));
    }

    [Fact]
    public void Its_step_is_a_persons_and_known_by_its_task_and_not_by_its_words()
    {
        var step = new FitScene().Account().Need(Locks).Run().Worklist.Give.ShouldHaveSingleItem();
        step.Change.Words.ShouldBe("task 'locks' at fm-temp01: Do locks");
        step.Change.Key.ShouldBe("do the task locks at fm-temp01");
        step.Blocked.ShouldBe(
            "a person does it and confirms it: justright confirm install poller locks --proof \"how you saw it\"");
    }

    private static (Judgement Judgement, IReadOnlyList<string> Steps, Worklist Worklist) Of(FitScene scene, TaskRight task)
    {
        var (fit, worklist) = scene.Run();
        return (
            fit.Accounts[0].Judgements.Single(j => j.Right == task),
            [.. worklist.Give.Select(s => s.Change).OfType<DoTask>().Select(t => t.Task)], worklist);
    }
}
