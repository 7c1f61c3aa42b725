using JustRight.Core.Estates;

namespace JustRight.Formats.Tests.Estates;

/// <summary>What an estate says of reviews, of the watch, and of who is told.</summary>
public sealed class OrganizationRulesTests
{
    private const string Notifications = "notices: { mail: service-accounts@fennmoor.example }";

    [Fact]
    public void An_estate_says_how_often_it_is_surveyed_and_who_is_notified()
    {
        var (estate, faults) = DemoFiles.Estate(
            DemoFiles.With(
                "estates/fennmoor.yaml", Notifications,
                "notices: { mail: [service-accounts@fennmoor.example, night@fennmoor.example], webhook: \"https://notifications.fennmoor.example/just-right\", webhook-secret: notices }\n  watch: { every-hours: 6 }\n  two-person-approval: yes"));
        faults.ShouldBeEmpty();
        estate!.Rules.TwoPersonApproval.ShouldBeTrue();
        estate.Rules.Schedule.ShouldBe(new ScheduleRules(TimeSpan.FromHours(6)));
        estate.Rules.Reviews.ShouldBe(new ReviewRules(TimeSpan.FromDays(180), TimeSpan.FromDays(30)));
        estate.Rules.Notifications.ShouldSatisfyAllConditions(
            n => n.Mail.Count.ShouldBe(2), n => n.Webhook!.Host.ShouldBe("notifications.fennmoor.example"),
            n => n.WebhookSecret.ShouldBe("notices"));
        var plain = DemoFiles.Estate(DemoFiles.With("estates/fennmoor.yaml", $"  {Notifications}\n", "")).Estate!.Rules;
        (plain.Schedule, plain.Notifications.Mail.Count).ShouldBe((null, 0));
    }

    [Fact]
    public void An_estate_says_who_owns_databases_next_and_when_mail_goes_out()
    {
        var (estate, faults) = DemoFiles.Estate(
            DemoFiles.With(
                "estates/fennmoor.yaml", Notifications,
                "notices: { mail: a@fennmoor.example, digest: \"07:00\" }\n"
                + "  new-owners: { fm-sql01: sa, fm-sql02: 'FENNMOOR\\svc-dba' }"));
        faults.ShouldBeEmpty();
        estate!.Rules.NewOwners.ShouldBe(
            new Dictionary<string, string> { ["fm-sql01"] = "sa", ["fm-sql02"] = @"FENNMOOR\svc-dba" }, ignoreOrder: true);
        var rules = estate.Rules.Notifications;
        rules.Digest.ShouldBe(new TimeOnly(7, 0));
        var evening = new DateTimeOffset(2027, 3, 27, 22, 0, 0, TimeSpan.Zero); // that night the clock goes forward
        rules.MailAt(evening, estate.Rules.TimeZone).ShouldBe(new DateTimeOffset(2027, 3, 28, 6, 0, 0, TimeSpan.Zero));
        rules.CallAt(evening, estate.Rules.TimeZone).ShouldBe(evening);
    }

    [Theory]
    [InlineData(Notifications, "new-owners: { fm-sql1: sa }", "unknown-instance", "rules.new-owners.fm-sql1")]
    [InlineData(Notifications, "notices: { mail: a@fennmoor.example, digest: \"7\" }", "wrong-value", "rules.notices.digest")]
    [InlineData(Notifications, "notices: { mail: nobody }", "wrong-value", "rules.notices.mail")]
    [InlineData(
        Notifications, "notices: { mail: \"a@fennmoor.example, b@fennmoor.example\" }", "wrong-value", "rules.notices.mail")]
    // in the clear, past this machine
    [InlineData(
        Notifications, "notices: { webhook: \"http://notifications.fennmoor.example/\", webhook-secret: notices }", "wrong-value",
        "rules.notices.webhook")]
    [InlineData(
        Notifications, "notices: { webhook: \"https://u:p@notices.fennmoor.example/\", webhook-secret: notices }", "wrong-value",
        "rules.notices.webhook")]
    [InlineData(
        Notifications, "notices: { webhook: \"https://notifications.fennmoor.example/\" }", "missing-key",
        "rules.notices.webhook-secret")]
    [InlineData("every-days: 180", "every-days: 0", "wrong-value", "rules.reviews.every-days")]
    [InlineData(Notifications, "watch: { hours: 6 }", "missing-key", "rules.watch.every-hours")]
    public void A_slip_is_said_with_its_line(string part, string instead, string code, string field)
    {
        var (_, faults) = DemoFiles.Estate(DemoFiles.With("estates/fennmoor.yaml", part, instead));
        faults[0]
            .ShouldSatisfyAllConditions(
                f => f.Code.ShouldBe(code), f => f.Field.ShouldStartWith(field), f => f.At.Line.ShouldBeGreaterThan(70));
    }

    [Fact]
    public void A_webhook_on_this_machine_may_be_plain() =>
        DemoFiles.Estate(DemoFiles.With(
            "estates/fennmoor.yaml", Notifications,
            "notices: { webhook: \"http://127.0.0.1:9/\", webhook-secret: notices }")).Faults.ShouldBeEmpty();
}
