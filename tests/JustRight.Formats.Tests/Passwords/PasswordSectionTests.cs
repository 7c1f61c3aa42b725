using JustRight.Core.Changes;
using JustRight.Core.Passwords;
using JustRight.Core.Sheets;

namespace JustRight.Formats.Tests.Passwords;

/// <summary>What sheets, installs and estates say of passwords, and run-books as they are kept.</summary>
public sealed class PasswordSectionTests
{
    [Fact]
    public void Curdhouse_changes_two_the_directory_one_and_one_is_typed_in_three_places()
    {
        var (plan, faults) = DemoFiles.Plan("curdhouse", install: DemoFiles.Text("installs/curdhouse-books.yaml"));
        faults.ShouldBeEmpty();
        PasswordCalendar.Of([plan!], null, new([], null, []), DateTimeOffset.UnixEpoch).Select(a => (a.Account, a.Keeper))
            .ShouldBe([
            ("svc-curd-book", PasswordKeeper.Product), ("svc-curd-cards", PasswordKeeper.Us), (
                "svc-curd-fitter", PasswordKeeper.Us), (
                "svc-curd-labeller", PasswordKeeper.Product), (
                "svc-curd-lookup$", PasswordKeeper.Directory)]);
        PasswordPlaces.Of([plan!], null, []).Where(p => p.Account == "svc-curd-cards").Select(p => p.Words).ShouldBe([
            "the service CurdCards on fm-book01", "the service CurdCards on fm-book02",
            "Account for the scanner in Card sources"]);
        plan!.Accounts.Single(a => a.Key == "book").NeverExpires!.ReviewBy.ShouldBe(new DateOnly(2027, 6, 1));
    }

    [Theory]
    [InlineData(
        "password: { group-managed: can }",
        "password: { group-managed: can, typed-in: [ { in: a, setting: b, breaks: c, on: portal-serve } ] }", "unknown-place",
        "typed-in[0].on")]
    [InlineData(
        "password: { group-managed: can }",
        "password: { group-managed: can, typed-in: [ { in: a, setting: b, breaks: c, on: recipe-store } ] }", "wrong-place",
        "typed-in[0].on")]
    [InlineData(
        "password: { group-managed: can }",
        "password: { group-managed: can, typed-in: [ { in: a, setting: b, breaks: c, on: book-server, read-by: CurdIdex } ] }",
        "unknown-service", "typed-in[0].read-by")]
    [InlineData(
        "password: { group-managed: can }",
        "password: { group-managed: can, typed-in: [ { in: a, setting: b, breaks: c, read-by: CurdLookup } ] }", "missing-key",
        "typed-in[0].on")]
    [InlineData("works-as: setup\n", "works-as: setup\n    password: { changed-by: product }\n", "wrong-value", "changed-by")]
    [InlineData("password: { group-managed: can }", "password: { group-managed: perhaps }", "wrong-value", "group-managed")]
    public void A_slip_in_a_sheet_is_said_with_its_line(string part, string instead, string code, string field)
    {
        var (_, faults) = DemoFiles.Sheet(DemoFiles.With("sheets/curdhouse.yaml", part, instead));
        faults.ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(
                f => f.Code.ShouldBe(code), f => f.Field.ShouldEndWith(field), f => f.At.Line.ShouldBeGreaterThan(10));
    }

    [Theory]
    [InlineData("review-by: 2027-06-01 }", "review-by: 2027-02-29 }", "wrong-value", "never-expires.book.review-by")]
    [InlineData("  book: { why", "  bok: { why", "unknown-account", "never-expires.bok")]
    public void A_slip_in_an_install_is_said_with_its_line(string part, string instead, string code, string field)
    {
        var text = DemoFiles.With("installs/curdhouse-books.yaml", part, instead);
        var (_, faults) = DemoFiles.Install(text);
        if (faults.Count == 0) faults = DemoFiles.Plan("curdhouse", install: text).Faults;
        faults[0]
            .ShouldSatisfyAllConditions(
                f => f.Code.ShouldBe(code), f => f.Field.ShouldBe(field), f => f.At.Line.ShouldBeGreaterThan(15));
    }

    [Fact]
    public void An_estate_says_when_its_hosts_may_be_restarted_by_its_own_clock()
    {
        var (estate, faults) = DemoFiles.Estate(
            DemoFiles.With("estates/fennmoor.yaml", "fm-book02: {}", "fm-book02: { restarts: 22:00-04:30 }"));
        faults.ShouldBeEmpty();
        estate!.Host("fm-book02")!.Restarts!.ToString().ShouldBe("22:00-04:30");
        estate.Rules.TimeZone.Id.ShouldBe("Europe/London");
        estate.Rules.Passwords.RenewEvery.ShouldBe(TimeSpan.FromDays(365));
        DemoFiles.Estate(DemoFiles.With(
            "estates/fennmoor.yaml", "time-zone: Europe/London",
            "time-zone: Europe/Lundon")).Faults.ShouldHaveSingleItem().Nearest.ShouldBe("Europe/London");
        DemoFiles.Estate(DemoFiles.With(
            "estates/fennmoor.yaml", "fm-book02: {}",
            "fm-book02: { restarts: 22:00-24:30 }")).Faults.ShouldHaveSingleItem().Field.ShouldEndWith("restarts");
    }
}
