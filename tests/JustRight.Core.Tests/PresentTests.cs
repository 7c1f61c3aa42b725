using JustRight.Core.Engines.Person;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Fit.Exceptions;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;
using JustRight.Core.Worklists.Retirement;

namespace JustRight.Core.Tests;

/// <summary>How long an answer holds, if nothing changes but the time.</summary>
public sealed class PresentTests
{
    private static readonly DateTimeOffset Now = FitScene.Now;
    private static readonly ProductRoleRight Role = new(
        new InsideProduct("Thermograph", "Tanker clerk", ["hand in weighings"], TimeSpan.FromDays(100)));

    [Fact]
    public void A_present_that_was_asked_nothing_holds_for_ever() => new Present(Now).HoldsUntil.ShouldBeNull();

    [Fact]
    public void The_nearest_moment_at_which_an_answer_would_be_another_counts()
    {
        var present = new Present(Now);
        present.HasReached(Now.AddDays(-1)).ShouldBeTrue();
        present.HoldsUntil.ShouldBeNull();
        present.HasReached(Now.AddDays(3)).ShouldBeFalse();
        present.IsPast(Now).ShouldBeFalse();
        present.HoldsUntil.ShouldBe(Now.AddTicks(1));
    }

    [Theory]
    [InlineData(0, 0, 60)]
    [InlineData(59, 0, 1)]
    [InlineData(60, 1, 60)]
    [InlineData(150, 2, 30)]
    public void Whole_units_gone_by(int minutes, int whole, int until)
    {
        var present = new Present(Now);
        present.WholeSince(Now.AddMinutes(-minutes), TimeSpan.FromHours(1)).ShouldBe(whole);
        present.HoldsUntil.ShouldBe(Now.AddMinutes(until));
    }

    [Theory]
    [InlineData(60, 1, 60)]
    [InlineData(61, 2, 1)]
    [InlineData(150, 3, 30)]
    public void Units_to_come(int minutes, int begun, int until)
    {
        var present = new Present(Now);
        present.UnitsUntil(Now.AddMinutes(minutes), TimeSpan.FromHours(1)).ShouldBe(begun);
        present.HoldsUntil.ShouldBe(Now.AddMinutes(until));
    }

    /// <summary>
    /// Surveys and host facts that grow too old, words of people and exceptions that end, waiting periods that are over: until
    /// the moment that is told, the same fit and the same steps; and at that moment, mostly, others.
    /// </summary>
    [Fact]
    public void What_was_judged_stays_so_until_the_moment_that_is_told()
    {
        var random = new Random(28);
        var (told, others) = (0, 0);
        for (var round = 0; round < 3000; round++)
        {
            var make = Scene(random);
            var start = Moment(random);
            var present = new Present(start);
            var (judged, holds) = (Said(make, present), present.HoldsUntil);
            if (holds is not { } until)
            {
                Said(make, new Present(start.AddYears(3))).ShouldBe(judged);
                continue;
            }

            told++;
            until.ShouldBeGreaterThan(start);
            Said(make, new Present(until.AddTicks(-1))).ShouldBe(judged, $"round {round}, a moment before {until:O}");
            var between = start.AddTicks(random.NextInt64((until - start).Ticks));
            Said(make, new Present(between)).ShouldBe(judged, $"round {round}, at {between:O}");
            if (Said(make, new Present(until)) != judged) others++;
        }

        told.ShouldBeGreaterThan(2000);
        others.ShouldBeGreaterThan(told / 2);
    }

    private static DateTimeOffset Moment(Random random) => Now.AddMinutes(random.Next(60 * 24 * 60));

    private static Func<Present, FitScene> Scene(Random random)
    {
        var stage = (Stage)random.Next(3);
        var surveyed = Moment(random).AddDays(-random.Next(3));
        var rules = new FitScene().Rules with
        {
            SurveyNoOlderThan = random.Next(2) == 0 ? null : TimeSpan.FromHours(random.Next(1, 900)),
            HostFactsNoOlderThan = random.Next(2) == 0 ? null : TimeSpan.FromHours(random.Next(1, 900)),
        };
        var word = random.Next(3) == 0 ? null : new Confirmation(
            "install", $"poller/{Role.Key}", "svc-poller", null, Role.Confirmable.Lets, random.Next(4) > 0, "Maud Ferris",
            Now.AddDays(-1), Moment(random).AddDays(random.Next(40)));
        var ends = Enumerable.Range(0, 3).Select(_ => Moment(random)).ToList();
        var disabled = Moment(random);
        var isDisabled = random.Next(2) == 0;
        return present =>
        {
            var scene = new FitScene { Stage = stage, SurveyedAt = surveyed, Rules = rules, Present = present };
            scene.Account(state: isDisabled ? AccountState.Disabled : AccountState.None).Made("svc-poller")
                .Group("old-ops", "svc-poller").Host("fm-temp01", [], ("SeServiceLogonRight", [])).Need(R.Service()).Need(Role);
            if (word is not null) scene.Confirmed(word);
            scene.Exceptions = [.. Targets.Select((t, i) => new AcceptedException(
                i, "install", t.Target, t.Verdict, "until the release", "Maud Ferris", Now, ends[i]))];
            if (stage == Stage.Retiring)
                scene.Past = new RetirementPast(
                    Now, new Dictionary<string, DateTimeOffset> { ["svc-poller"] = disabled }, TimeSpan.FromDays(20), present);
            return scene;
        };
    }

    /// <summary>What is off in the scene, whatever the time.</summary>
    private static IReadOnlyList<(string Target, Verdict Verdict)> Targets { get; } = [.. new FitScene()
        .Account().Made("svc-poller").Group("old-ops", "svc-poller").Host("fm-temp01", [], ("SeServiceLogonRight", []))
        .Need(R.Service()).Need(Role).Run().Fit.Accounts.SelectMany(a => a.Judgements)
        .Where(j => ExceptionIndex.IsOff(j.Verdict)).Select(j => (j.Id, j.Verdict)).Take(3)];

    private static string Said(Func<Present, FitScene> make, Present present)
    {
        var (fit, worklist) = make(present).Run();
        return string.Join('\n', fit.Accounts.SelectMany(a => a.Judgements).Select(j =>
                $"{j.Id} {j.Verdict} {j.Reason} {j.Accepted?.Id} {string.Join(' ', j.Notes)}")
            .Concat(worklist.Give.Concat(worklist.Remove).Select((Step s) => $"{s.Change} {s.Blocked}")));
    }
}
