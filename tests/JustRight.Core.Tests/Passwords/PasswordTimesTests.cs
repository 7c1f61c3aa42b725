using JustRight.Core.Calendar;
using JustRight.Core.Directory;
using JustRight.Core.Engines;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Passwords;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Passwords;

/// <summary>When a password is due, when a host may be restarted, when one may be tried: each by a clock that is given.</summary>
public sealed class PasswordTimesTests
{
    private static readonly DateTimeOffset Now = new(2026, 11, 26, 12, 0, 0, TimeSpan.Zero);
    private static readonly Origin Line = new("sheet.yaml", 1, 1);
    private static readonly TimeZoneInfo London = TimeZoneInfo.FindSystemTimeZoneById("Europe/London");
    private static readonly OrganizationRules Organization = new([], null, [])
    {
        Passwords = new PasswordRules(TimeSpan.FromDays(365), TimeSpan.FromDays(45), 32),
        TimeZone = London,
    };

    public static TheoryData<string, string, AccountState, int?, int?, string?, PasswordStanding, string?> Dues => new()
    {
        // account, keeper, state, set days ago, expires in days, review by, standing, due
        { "svc-a", "us", AccountState.None, 100, 20, null, PasswordStanding.Soon, "2026-12-16" },
        // its policy comes before the organization's year
        { "svc-a", "us", AccountState.None, 100, 200, null, PasswordStanding.Later, "2027-06-14" },
        // the organization's year was over first
        { "svc-a", "us", AccountState.None, 400, 20, null, PasswordStanding.Overdue, "2026-10-22" },
        { "svc-a", "us", AccountState.PasswordExpired, 400, -3, null, PasswordStanding.Overdue, "2026-11-23" },
        { "svc-a", "us", AccountState.PasswordNeverExpires, 10, null, null, PasswordStanding.Unreasoned, "2027-11-16" },
        { "svc-a", "us", AccountState.PasswordNeverExpires, 10, null, "2027-03-01", PasswordStanding.Later, "2027-03-01" },
        { "svc-a", "us", AccountState.PasswordNeverExpires, 10, null, "2028-02-29", PasswordStanding.Later, "2027-11-16" },
        { "svc-a", "us", AccountState.PasswordNeverExpires, 10, null, "2026-11-26", PasswordStanding.Overdue, "2026-11-26" },
        // the organization's year is for those that we change
        { "svc-a", "product", AccountState.PasswordNeverExpires, 900, null, "2027-03-01", PasswordStanding.Later, "2027-03-01" },
        { "svc-a", "product", AccountState.None, 900, null, null, PasswordStanding.Undated, null },
        { "svc-a$", "us", AccountState.None, 10, null, null, PasswordStanding.Managed, null },
        { "svc-gone", "us", AccountState.None, null, null, null, PasswordStanding.NotMade, null },
    };

    [Theory]
    [MemberData(nameof(Dues))]
    public void An_account_is_due_when_the_first_of_its_dates_comes(
        string name, string keeper, AccountState state, int? set, int? expires, string? review, PasswordStanding standing,
        string? due)
    {
        var view = View(name == "svc-gone" ? [] : [new DirectoryPrincipal(
            Sid.Parse("S-1-5-21-1-2-3-1000"), PrincipalKind.User, name,
            $"CN={name}")
        {
            State = state,
            PasswordSetAt = set is { } s ? Now.AddDays(-s) : null,
            PasswordExpiresAt = expires is { } e ? Now.AddDays(e) : null,
        }]);
        var account = PasswordCalendar.Of([Plan("Alpha", name, keeper, review)], view, Organization, Now).ShouldHaveSingleItem();
        (account.Standing, account.Due?.UtcDateTime.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture))
            .ShouldBe((standing, due), account.Words);
        account.Keeper.ShouldBe(
            name.EndsWith('$') ? PasswordKeeper.Directory : keeper == "product" ? PasswordKeeper.Product : PasswordKeeper.Us);
    }

    [Fact]
    public void A_product_that_changes_an_account_which_another_uses_is_said()
    {
        var view = View([new DirectoryPrincipal(Sid.Parse("S-1-5-21-1-2-3-1000"), PrincipalKind.User, "svc-a", "CN=svc-a")]);
        PasswordCalendar.Of([Plan("Alpha", "svc-a", "product", null), Plan("Beta", "svc-a", "us", null)], view, Organization, Now)
            .ShouldHaveSingleItem().Quarrel.ShouldBe("Alpha changes it, and Beta is not told: a separate account would be safer");
        PasswordCalendar.Of([Plan("Alpha", "svc-a", "us", null)], null, Organization, Now)
            .ShouldHaveSingleItem().Standing.ShouldBe(PasswordStanding.Unseen);
    }

    [Theory]
    [InlineData("22:00-04:30", "2026-11-26T21:59:00Z", "2026-11-26T22:00:00Z")]
    [InlineData("22:00-04:30", "2026-11-27T04:29:59Z", "2026-11-27T04:29:59Z")] // open past midnight
    [InlineData("22:00-04:30", "2026-11-27T04:30:00Z", "2026-11-27T22:00:00Z")]
    [InlineData("00:00-00:00", "2026-11-27T04:30:00Z", "2026-11-27T04:30:00Z")] // the whole day
    [InlineData("22:00-23:00", "2026-07-01T20:30:00Z", "2026-07-01T21:00:00Z")] // in summer the organization is an hour ahead
    [InlineData("01:15-01:45", "2027-03-28T00:59:00Z", "2027-03-29T00:15:00Z")] // the hour that is left out in spring
    [InlineData("00:30-01:15", "2027-03-28T00:45:00Z", "2027-03-28T00:45:00Z")] // and one that it cuts short
    // the hour that comes twice in autumn is open twice
    [InlineData("01:15-01:45", "2026-10-25T00:46:00Z", "2026-10-25T01:15:00Z")]
    [InlineData("23:00-23:30", "2028-02-28T23:40:00Z", "2028-02-29T23:00:00Z")] // a leap day
    public void A_host_is_restarted_by_the_clock_on_the_wall(string window, string now, string opens)
    {
        var parsed = DailyWindow.Parse(window);
        parsed.ToString().ShouldBe(window);
        var at = parsed.NextOpen(At(now), London);
        at.ShouldBe(At(opens));
        parsed.IsOpen(at, London).ShouldBeTrue();
        parsed.IsOpen(At(now), London).ShouldBe(now == opens);
    }

    [Theory]
    [InlineData(0, 5, 5, false, null)]
    [InlineData(3, 5, 5, false, null)]
    [InlineData(4, 5, 5, false, "would lock it")]
    [InlineData(4, 5, 45, false, null)] // those are over
    [InlineData(9, 0, 5, false, null)] // nothing is ever locked
    [InlineData(null, 5, 5, false, "may not be read")]
    [InlineData(0, null, 5, false, "may not be read")]
    [InlineData(0, 5, 5, true, "is locked")]
    public void The_last_wrong_password_before_an_account_is_locked_is_never_spent(
        int? counted, int? lockedAfter, int minutesAgo, bool locked, string? refused)
    {
        var facts = new PasswordFacts(
            "svc-a", "fm-dc01", null, counted, Now.AddMinutes(-minutesAgo), lockedAfter, TimeSpan.FromMinutes(30), 14, locked,
            false);
        if (refused is null) facts.WhyNotTried(Now).ShouldBeNull();
        else facts.WhyNotTried(Now).ShouldNotBeNull().ShouldContain(refused);
        facts.CountNow(Now.AddHours(-3)).ShouldBe(counted); // a clock that was set back makes nothing over sooner
        // nor does ours being far ahead: the controller counts by its own
        (facts with { ControllerTime = facts.LastWrongAt }).CountNow(Now.AddYears(1)).ShouldBe(counted);
    }

    [Theory]
    [InlineData(WorksAs.Service, true, "Windows Server 2019 Standard", null)]
    [InlineData(WorksAs.Service, true, "Windows Server 2008 R2", "fm-0 does not support gMSAs")]
    [InlineData(WorksAs.Service, false, "Windows Server 2019 Standard", "Alpha does not support gMSAs")]
    [InlineData(WorksAs.Service, null, "Windows Server 2019 Standard", "does not say whether Alpha supports gMSAs")]
    [InlineData(WorksAs.Bind, null, "Windows Server 2019 Standard", "needs a password that somebody knows")]
    public void What_stands_in_the_way_of_the_directory_keeping_it_is_said(
        WorksAs worksAs, bool? can, string system, string? says)
    {
        var plan = Plan("Alpha", "svc-a", "us", null);
        plan = plan with
        {
            Accounts = [plan.Accounts[0] with { WorksAs = worksAs, Password = plan.Accounts[0].Password with { CanBeManaged = can } }],
        };
        var survey = new Survey(
            "fennmoor", Now, true, Directory([]), [new HostSnapshot("fm-0", Now, null, [], [], []) { System = system }], []);
        var found = ManagedCandidate.Obstacles(
            "svc-a", [plan], [new PasswordPlace("svc-a", PasswordPlaceKind.Service, "fm-0", "service", "S", "stops")],
            AllEngines.View(survey));
        if (says is null) found.ShouldBeEmpty();
        else found.ShouldHaveSingleItem().ShouldContain(says);
    }

    [Fact]
    public void Of_two_reasons_the_nearer_day_counts_and_what_is_due_is_to_look_at_it()
    {
        var view = View([new DirectoryPrincipal(Sid.Parse("S-1-5-21-1-2-3-1000"), PrincipalKind.User, "svc-a", "CN=svc-a")
        {
            State = AccountState.PasswordNeverExpires,
            PasswordSetAt = Now.AddDays(-10),
        }]);
        Plan[] plans = [Plan("Alpha", "svc-a", "us", "2027-09-01"), Plan("Beta", "svc-a", "us", "2026-11-01")];
        var account = PasswordCalendar.Of(plans, view, Organization, Now).ShouldHaveSingleItem();
        (account.ReasonIn, account.IsToLookAt, account.Standing).ShouldBe(("beta", true, PasswordStanding.Overdue));
        account.Words.ShouldEndWith("look at that reason again by 2026-11-01");
        var entry = OrganizationCalendar.Of("fennmoor", [account], [], [], [], Organization, Now).ShouldHaveSingleItem();
        entry.Next.ShouldBe("justright install show beta");

        // the organization's year is over first: that is a renewal
        var late = PasswordCalendar.Of([Plan("Alpha", "svc-a", "us", "2028-02-29")], view, Organization, Now)
            .ShouldHaveSingleItem();
        late.IsToLookAt.ShouldBeFalse();
        OrganizationCalendar.Of("fennmoor", [late], [], [], [], Organization, Now).ShouldHaveSingleItem().Next
            .ShouldStartWith("justright password renew");
    }

    private static DateTimeOffset At(string text) =>
        DateTimeOffset.Parse(text, System.Globalization.CultureInfo.InvariantCulture);

    private static SurveyView View(IReadOnlyList<DirectoryPrincipal> principals) =>
        AllEngines.View(new Survey("fennmoor", Now, true, Directory(principals), [], []));

    private static DirectorySnapshot Directory(IReadOnlyList<DirectoryPrincipal> principals) =>
        new("FENNMOOR", Sid.Parse("S-1-5-21-1-2-3"), "the simulation", Now, principals, [], null);

    private static Plan Plan(string title, string account, string keeper, string? review) => new(
        title.ToLowerInvariant(), $"{title}@1".ToLowerInvariant(), title, "fennmoor", "FENNMOOR", "fennmoor.example",
        Stage.Installed, [], [],
        [
            new PlannedAccount("a", account, null, "", "works", WorksAs.Service, false, true, Line)
            {
                Password = new SheetPassword(keeper == "product" ? PasswordKeeper.Product : PasswordKeeper.Us, null, [], Line),
                NeverExpires = review is null
                    ? null
                    : new NeverExpires(
                        "a reason", "Maud Ferris",
                        DateOnly.ParseExact(review, "yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture), Line),
            },
        ],
        [], [], [], []);
}
