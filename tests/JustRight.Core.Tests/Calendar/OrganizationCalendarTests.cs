using CsCheck;
using JustRight.Core.Calendar;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Fit.Exceptions;
using JustRight.Core.Passwords;
using JustRight.Core.Sheets;

namespace JustRight.Core.Tests.Calendar;

/// <summary>What is due when, and when it is spoken of: by a clock that is given, in a zone that jumps.</summary>
public sealed class OrganizationCalendarTests
{
    private static readonly DateTimeOffset Now = new(2026, 11, 26, 12, 0, 0, TimeSpan.Zero);
    private static readonly TimeZoneInfo London = TimeZoneInfo.FindSystemTimeZoneById("Europe/London");
    private static readonly OrganizationRules Organization = new([], null, [])
    {
        TimeZone = London,
        Reviews = new ReviewRules(TimeSpan.FromDays(180), TimeSpan.FromDays(21)),
        Passwords = new PasswordRules(null, TimeSpan.FromDays(30), 32),
    };

    [Fact]
    public void Everything_that_ends_comes_in_the_order_of_its_end()
    {
        var entries = OrganizationCalendar.Of(
            "fennmoor",
            [
                Password("svc-a", Now.AddDays(40), null), Password("svc-b", Now.AddDays(2), Now.AddDays(50)),
                Password("svc-c", null, null)],
            [
                new ReviewState("alpha", Now.AddDays(-200), null, null),
                new ReviewState("beta", Now.AddDays(-200), Now.AddDays(-30), null),
                new ReviewState("gamma", Now.AddDays(-200), Now.AddDays(-30), new DateOnly(2027, 7, 1))],
            [(Exception(1, 10), "svc-a: excess"), (Exception(2, -3), "svc-b: excess"), (Exception(3, -60), "svc-c: excess")],
            [
                new Confirmation("alpha", "g1", "svc-a", null, [], true, "Jory Lind", Now, Now.AddDays(5)),
                new Confirmation("alpha", "g2", "svc-a", null, [], false, "Jory Lind", Now, Now.AddDays(5))],
            Organization, Now, [("delta", Now.AddDays(1))]);
        entries.Select(e => (e.Id, e.StandingAt(Now))).ShouldBe([
            ("review/alpha", EntryStanding.Overdue), // never reviewed, in Just Right for longer than the organization allows
            ("exception/2", EntryStanding.Overdue), // ended three days ago; the one that ended long ago is no news
            ("removal/delta", EntryStanding.Later), // spoken of when it is due, and not before
            ("password/svc-b", EntryStanding.Soon), ("confirmation/alpha/g1", EntryStanding.Soon), (
                "exception/1", EntryStanding.Soon),
            ("password/svc-a", EntryStanding.Later), ("expiry/svc-b", EntryStanding.Later), (
                "review/beta", EntryStanding.Later), (
                "review/gamma", EntryStanding.Later)]);
        // noon, in summer time
        entries.Single(e => e.Id == "review/gamma").At.ShouldBe(new DateTimeOffset(2027, 7, 1, 12, 0, 0, TimeSpan.FromHours(1)));
    }

    [Theory]
    [InlineData("Europe/London", "2027-03-27", "2027-03-28T00:00:00Z")] // the hour is left out an hour after this midnight
    [InlineData("Europe/London", "2027-03-28", "2027-03-28T23:00:00Z")] // a day of 23 hours
    [InlineData("Europe/London", "2027-10-31", "2027-11-01T00:00:00Z")] // a day of 25
    [InlineData("Europe/London", "2028-02-28", "2028-02-29T00:00:00Z")]
    [InlineData("Europe/London", "2028-02-29", "2028-03-01T00:00:00Z")]
    [InlineData("America/Santiago", "2027-09-04", "2027-09-05T04:00:00Z")] // the clock jumps at this very midnight
    public void A_day_ends_when_the_organization_turns_its_page(string zone, string day, string end) =>
        (Organization with { TimeZone = TimeZoneInfo.FindSystemTimeZoneById(zone) })
            .EndOf(DateOnly.Parse(day, System.Globalization.CultureInfo.InvariantCulture)).UtcDateTime
            .ShouldBe(DateTimeOffset.Parse(end, System.Globalization.CultureInfo.InvariantCulture).UtcDateTime);

    [Fact]
    public void One_reminder_goes_out_before_and_one_after_however_the_clock_walks()
    {
        var entry = new CalendarEntry("review/alpha", EntryKind.Review, Now, "alpha", "", TimeSpan.FromDays(21), "");
        var sent = new List<string>();
        Gen.Int[-60 * 24, 60 * 24].Array[200].Sample(
            hours =>
            {
                var keys = new HashSet<string>(hours.Select(h => entry.ReminderAt(Now.AddHours(h))).OfType<string>());
                lock (sent) sent.AddRange(keys);
                return keys.Count <= 2
                    && hours.Any(h => h >= 0) == keys.Any(k => k.EndsWith("overdue", StringComparison.Ordinal))
                    && hours.Any(h => h is < 0 and >= -21 * 24) == keys.Any(k => k.EndsWith("soon", StringComparison.Ordinal));
            },
            iter: 200);
        sent.Distinct().Count().ShouldBe(2);
        (entry with { At = Now.AddDays(1) }).ReminderAt(Now)
            .ShouldNotBe(entry.ReminderAt(Now.AddDays(-1)), "another date is another reminder");
    }

    [Fact]
    public void Looks_are_as_far_apart_as_the_organization_says_and_a_restart_shifts_none() =>
        Gen.Select(
            Gen.String[Gen.Char['a', 'z'], 1, 12], Gen.Int[1, 744], Gen.Long[0, DateTimeOffset.UnixEpoch.AddYears(100).UtcTicks])
            .Sample((estate, hours, ticks) =>
        {
            var (watch, now) = (new ScheduleRules(TimeSpan.FromHours(hours)), new DateTimeOffset(ticks, TimeSpan.Zero));
            var next = watch.Next(estate, now, TimeZoneInfo.Utc);
            return next > now && next - now <= watch.Every && watch.Next(estate, next, TimeZoneInfo.Utc) == next + watch.Every
                && watch.Next(estate, next.AddTicks(-1), TimeZoneInfo.Utc) == next;
        });

    [Fact]
    public void Estates_that_are_watched_equally_often_are_not_read_at_once()
    {
        var day = new ScheduleRules(TimeSpan.FromHours(24));
        var times = Enumerable.Range(0, 24).Select(i => day.Next($"site-{i}", Now, TimeZoneInfo.Utc)).Order().ToList();
        times.Distinct().Count().ShouldBe(24);
        (times[^1] - times[0]).ShouldBeGreaterThan(TimeSpan.FromHours(12)); // spread over the day
    }

    [Fact]
    public void A_daily_look_comes_once_on_each_day_at_the_same_time_by_the_clock_on_the_wall() =>
        Gen.Select(
            Gen.String[Gen.Char['a', 'z'], 1, 12],
                Gen.OneOfConst("Europe/London", "America/Sao_Paulo", "Australia/Lord_Howe", "Asia/Beirut", "UTC"),
            Gen.Int[1, 7], Gen.Int[0, 365 * 4])
            .Sample((estate, id, days, start) =>
        {
            var (zone, watch) = (TimeZoneInfo.FindSystemTimeZoneById(id), new ScheduleRules(TimeSpan.FromDays(days)));
            var look = watch.Next(estate, new DateTimeOffset(2016, 1, 1, 0, 0, 0, TimeSpan.Zero).AddDays(start), zone);
            for (var i = 0; i < 400 / days; i++)
            {
                var next = watch.Next(estate, look, zone);
                var (wall, before) = (TimeZoneInfo.ConvertTime(next, zone), TimeZoneInfo.ConvertTime(look, zone));
                if ((wall.Date - before.Date).TotalDays != days) return false;
                if (wall.TimeOfDay != before.TimeOfDay && !Jumped(before, zone) && !Jumped(wall, zone)) return false;
                if (watch.Next(estate, next.AddTicks(-1), zone) != next) return false;
                look = next;
            }

            return true;
        }, iter: 300);

    /// <summary>Whether the clock jumped over a time within the two hours before.</summary>
    private static bool Jumped(DateTimeOffset wall, TimeZoneInfo zone) =>
        Enumerable.Range(0, 9).Any(i => zone.IsInvalidTime(wall.DateTime.AddMinutes(-15 * i)));

    private static AccountPassword Password(string name, DateTimeOffset? due, DateTimeOffset? expires) =>
        new(name, PasswordKeeper.Us, "us", ["alpha"], PasswordStanding.Later, due, "due")
        {
            ExpiresAt = expires,
        };

    private static AcceptedException Exception(int id, int days) =>
        new(id, "alpha", $"t{id}", Verdict.Excess, "why", "Maud Ferris", Now.AddDays(-90), Now.AddDays(days));
}
