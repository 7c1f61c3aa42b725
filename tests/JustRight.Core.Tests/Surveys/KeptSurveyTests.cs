using CsCheck;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Surveys;

/// <summary>Which surveys stay over the years.</summary>
public sealed class KeptSurveyTests
{
    private static readonly DateTimeOffset Now = new(2029, 11, 28, 9, 0, 0, TimeSpan.Zero);

    /// <summary>Surveys a few hours or days apart, up to <see cref="Now"/>, of three years.</summary>
    private static readonly Gen<IReadOnlyList<KeptSurvey>> Years =
        Gen.Select(Gen.Int[1, 60], Gen.Bool, Gen.Int[0, 19]).Array[0, 900].Select(steps =>
        {
            var at = Now;
            var surveys = new List<KeptSurvey>();
            foreach (var (hours, changed, reviewed) in steps)
            {
                surveys.Add(new KeptSurvey(0, at, changed || reviewed == 0, reviewed == 0));
                at -= TimeSpan.FromHours(hours);
            }

            return (IReadOnlyList<KeptSurvey>)[.. surveys.AsEnumerable().Reverse().Select((s, i) => s with { Id = i + 1 })];
        });

    [Fact]
    public void The_latest_and_what_reviews_rest_on_stay_and_of_the_changes_each_of_a_month_then_of_each_week_then_of_four() =>
        Years.Sample(all =>
        {
            var gone = KeptSurvey.ToLetGo(all, Now).ToHashSet();
            var stay = all.Where(s => !gone.Contains(s.Id)).ToList();
            all.TakeLast(KeptSurvey.Latest).ShouldAllBe(s => !gone.Contains(s.Id));
            all.Where(s => s.Reviewed || (s.Changed && Now - s.TakenAt <= KeptSurvey.EachFor))
                .ShouldAllBe(s => !gone.Contains(s.Id));
            stay.SkipLast(KeptSurvey.Latest).ShouldAllBe(s => s.Changed);
            var older = stay.SkipLast(KeptSurvey.Latest).Where(s => !s.Reviewed && Now - s.TakenAt > KeptSurvey.EachFor).ToList();
            older.Where(s => Now - s.TakenAt <= KeptSurvey.WeeklyFor).GroupBy(s => s.TakenAt.UtcTicks / TimeSpan.TicksPerDay / 7)
                .ShouldAllBe(week => week.Count() == 1);
            older.Where(s => Now - s.TakenAt > KeptSurvey.WeeklyFor).GroupBy(s => s.TakenAt.UtcTicks / TimeSpan.TicksPerDay / 28)
                .ShouldAllBe(span => span.Count() == 1);
            ShouldStandForAll(stay, all);
        });

    [Fact]
    public void Asked_again_it_lets_nothing_more_go_and_asked_often_none_is_further_from_one_that_stays() =>
        Years.Sample(all =>
        {
            var stay = Left(all, Now);
            Left(stay, Now).ShouldBe(stay);
            var asked = all.ToList();
            for (var day = Now.AddDays(-700); day <= Now; day = day.AddDays(5))
            {
                var old = Left([.. asked.Where(s => s.TakenAt <= day)], day);
                asked = [.. old, .. asked.Where(s => s.TakenAt > day)];
            }

            ShouldStandForAll(Left(asked, Now), all);
        }, iter: 30);

    [Fact]
    public void A_clock_that_was_set_back_lets_nothing_go_that_shows_a_change()
    {
        var ahead = Enumerable.Range(1, 40).Select(i => new KeptSurvey(i, Now.AddDays(i), true, false)).ToList();
        KeptSurvey.ToLetGo(ahead, Now).ShouldBeEmpty();
    }

    /// <summary>No change is further from a later one that stays than its week, or its four.</summary>
    private static void ShouldStandForAll(IReadOnlyList<KeptSurvey> stay, IReadOnlyList<KeptSurvey> all)
    {
        foreach (var change in all.Where(s => s.Changed))
            stay.Where(s => s.Id >= change.Id).Min(s => s.TakenAt - change.TakenAt)
                .ShouldBeLessThan(Now - change.TakenAt <= KeptSurvey.WeeklyFor ? TimeSpan.FromDays(7) : TimeSpan.FromDays(28));
    }

    private static List<KeptSurvey> Left(IReadOnlyList<KeptSurvey> all, DateTimeOffset now)
    {
        var gone = KeptSurvey.ToLetGo(all, now).ToHashSet();
        return [.. all.Where(s => !gone.Contains(s.Id))];
    }
}
