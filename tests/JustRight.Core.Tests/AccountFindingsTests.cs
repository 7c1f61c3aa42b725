using JustRight.Core.Surveys;

namespace JustRight.Core.Tests;

/// <summary>Ends that come near, accounts nobody uses, names that two accounts claim.</summary>
public sealed class AccountFindingsTests
{
    public static TheoryData<int?, int?, int?, string?> Times => new()
    {
        { 12, null, null, "Its password expires in 12 days, at 2026-12-07 12:00 UTC, by the policy that counts for it." },
        { 1, null, null, "Its password expires in 24 hours, at 2026-11-26 12:00 UTC, by the policy that counts for it." },
        { 31, null, null, null },
        { -1, null, null, null }, // has expired: its own verdict says so
        { null, 29, null, "The account ends in 29 days, at 2026-12-24 12:00 UTC." },
        { null, null, -181, "It has not signed in for 181 days: is it still used?" },
        { null, null, -30, null },
        { null, null, null, null },
    };

    [Theory]
    [MemberData(nameof(Times))]
    public void What_will_matter_is_said_in_time(int? password, int? end, int? seen, string? expected)
    {
        var scene = new FitScene().Account().Replace("svc-poller", p => p with { PasswordExpiresAt = Day(password), EndsAt = Day(end), LastSeenAt = Day(seen) });
        scene.Judge().Findings.Select(f => f.Text).SingleOrDefault().ShouldBe(expected);

        static DateTimeOffset? Day(int? days) => days is { } d ? FitScene.Now.AddDays(d) : null;
    }

    [Fact]
    public void A_service_name_that_another_account_claims_is_named_in_any_case()
    {
        var scene = new FitScene().Account().Account("svc-other", planned: false)
            .Replace("svc-poller", p => p with { ServicePrincipalNames = ["HTTP/fm-temp01", "HTTP/only-mine"] }).Replace("svc-other", p => p with { ServicePrincipalNames = ["http/FM-TEMP01"] });
        var finding = scene.Judge().Findings.ShouldHaveSingleItem();
        (finding.Place, finding.TooMuch).ShouldBe(("svc-poller", false));
        finding.Text.ShouldBe("svc-other claims the service principal name HTTP/fm-temp01 as well: nobody can sign in to either service with it.");
    }
}
