using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Drift;
using JustRight.Core.Fit.Exceptions;
using JustRight.Core.Sheets;

namespace JustRight.Core.Tests;

/// <summary>What was accepted: beside its verdict, never in place of it, for just what it covered, until its end.</summary>
public sealed class ExceptionTests
{
    private static readonly DateTimeOffset Now = FitScene.Now;

    [Fact]
    public void What_is_accepted_keeps_its_verdict_and_is_left_alone_by_the_worklist()
    {
        var plain = Scene().Run();
        plain.Fit.Words.ShouldBe("1 missing, 1 excess");
        plain.Worklist.Remove.ShouldHaveSingleItem();
        var excess = Off(plain.Fit, Verdict.Excess);

        var (fit, worklist) = Scene(Accept(excess, Verdict.Excess, Now.AddDays(1))).Run();
        fit.Words.ShouldBe("1 missing, 1 excess, 1 of them accepted");
        fit.Counts.JustRight.ShouldBeFalse();
        Off(fit, Verdict.Excess).Accepted!.By.ShouldBe("Maud Ferris");
        worklist.Remove.ShouldBeEmpty();
        worklist.NotOffered.ShouldContain(n =>
            n.For == excess.Id && n.Reason.Contains("Maud Ferris accepted it until 2026-11-26", StringComparison.Ordinal));
        worklist.Give.ShouldHaveSingleItem();

        var missing = Off(plain.Fit, Verdict.Missing);
        var (both, nothing) = Scene(
            Accept(excess, Verdict.Excess, Now.AddDays(1)), Accept(missing, Verdict.Missing, Now.AddDays(1)))
            .Run();
        both.Words.ShouldBe("1 missing, 1 excess, all accepted");
        (nothing.Give.Count, nothing.Remove.Count).ShouldBe((0, 0));
    }

    [Theory]
    [InlineData("2026-12-10T00:00:00+01:00", "2026-12-09")]
    [InlineData("2026-12-10T00:00:00Z", "2026-12-09")]
    [InlineData("2027-01-01T00:00:00-08:00", "2026-12-31")]
    [InlineData("2026-12-10T15:30:00+01:00", "2026-12-10 15:30 +01:00")] // somebody ended it
    public void Its_end_is_told_as_the_day_that_was_named(string end, string words)
    {
        var until = DateTimeOffset.Parse(end, System.Globalization.CultureInfo.InvariantCulture);
        new AcceptedException(1, "install", "x", null, "why", "Maud Ferris", Now, until).UntilWords.ShouldBe(words);
    }

    [Fact]
    public void Whatever_the_zone_the_day_that_was_named_is_told()
    {
        foreach (var zone in new[] { "Europe/Berlin", "America/Los_Angeles", "Asia/Kolkata", "Pacific/Auckland", "UTC" })
        {
            var rules = new OrganizationRules([], null, []) { TimeZone = TimeZoneInfo.FindSystemTimeZoneById(zone) };
            for (var day = new DateOnly(2026, 1, 1); day.Year == 2026; day = day.AddDays(1))
                new AcceptedException(1, "install", "x", null, "why", "Maud Ferris", Now, rules.EndOf(day)).LastDay.ShouldBe(day);
        }
    }

    [Theory]
    [InlineData(1, true)] // a tick before its end
    [InlineData(0, false)] // at its end
    [InlineData(-1, false)]
    public void An_exception_ends_by_itself(long ticksLeft, bool stands)
    {
        var excess = Off(Scene().Run().Fit, Verdict.Excess);
        var judged = Off(Scene(Accept(excess, Verdict.Excess, Now.AddTicks(ticksLeft))).Run().Fit, Verdict.Excess);
        (judged.Accepted is not null).ShouldBe(stands);
        judged.Notes.Any(n => n.Contains("the exception has expired", StringComparison.Ordinal)).ShouldBe(!stands);
    }

    [Fact]
    public void A_clock_set_back_takes_nothing_away_that_was_accepted()
    {
        var excess = Off(Scene().Run().Fit, Verdict.Excess);
        Off(
            Scene(Accept(excess, Verdict.Excess, Now.AddDays(3)) with { At = Now.AddDays(1) }).Run().Fit,
            Verdict.Excess).Accepted.ShouldNotBeNull();
    }

    [Fact]
    public void What_is_worse_than_what_was_accepted_is_not_covered()
    {
        var forbidden = Off(Scene().Forbid("old-ops").Run().Fit, Verdict.Forbidden);
        Off(
            Scene(Accept(forbidden, Verdict.Forbidden, Now.AddDays(1))).Forbid("old-ops").Run().Fit,
            Verdict.Forbidden).Accepted.ShouldNotBeNull();
        Off(
            Scene(Accept(forbidden, Verdict.Excess, Now.AddDays(1))).Forbid("old-ops").Run().Fit,
            Verdict.Forbidden).Accepted.ShouldBeNull(
            "it was excess when it was accepted, and is forbidden since");
    }

    [Fact]
    public void The_latest_word_on_a_right_counts()
    {
        var excess = Off(Scene().Run().Fit, Verdict.Excess);
        var ended = Accept(excess, Verdict.Excess, Now.AddDays(-1)) with { Id = 2 };
        // it was ended before its time
        Off(Scene(Accept(excess, Verdict.Excess, Now.AddDays(9)), ended).Run().Fit, Verdict.Excess).Accepted.ShouldBeNull();
    }

    [Fact]
    public void Making_one_and_its_end_are_differences_and_the_end_is_for_the_worse()
    {
        var excess = Off(Scene().Run().Fit, Verdict.Excess);
        var (without, with) = (
            KeptFit.Of(Scene().Run().Fit), KeptFit.Of(Scene(Accept(excess, Verdict.Excess, Now.AddDays(1))).Run().Fit));
        FitDrift.Between(without, with).ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(
                l => l.Way.ShouldBe(DriftWay.Better), l => l.Words.ShouldEndWith("excess, and accepted now"));
        FitDrift.Between(with, without).ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(
                l => l.Way.ShouldBe(DriftWay.Worse), l => l.Words.ShouldContain("still excess, and no longer accepted"));
        FitDrift.Between(with, with).ShouldBeEmpty();
    }

    /// <summary>An account that lacks a right, and is in a group that nothing asks for.</summary>
    private static FitScene Scene(params AcceptedException[] exceptions) =>
        new FitScene { Exceptions = exceptions }.Account().Group("old-ops", "svc-poller")
            .Host("fm-temp01", [], ("SeServiceLogonRight", [])).Need(R.Service());

    private static Judgement Off(InstallFit fit, Verdict verdict) =>
        fit.Accounts.SelectMany(a => a.Judgements).Single(j => j.Verdict == verdict);

    private static AcceptedException Accept(Judgement judgement, Verdict verdict, DateTimeOffset until) =>
        new(1, "install", judgement.Id, verdict, "until the release", "Maud Ferris", Now.AddDays(-9), until);
}
