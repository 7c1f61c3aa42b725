using JustRight.Core.Directory.Descriptors;

namespace JustRight.Core.Tests;

/// <summary>Ends that come near, accounts nobody uses, names that two accounts claim.</summary>
public sealed class AccountFindingsTests
{
    public static TheoryData<int?, int?, int?, string?> Times => new()
    {
        { 12, null, null, "Its password expires in 12 days, at 2026-12-07 12:00 UTC, under its password policy." },
        { 1, null, null, "Its password expires in 24 hours, at 2026-11-26 12:00 UTC, under its password policy." },
        { 31, null, null, null },
        { -1, null, null, null }, // has expired: its own verdict says so
        { null, 29, null, "The account expires in 29 days, at 2026-12-24 12:00 UTC." },
        { null, null, -181, "It has not signed in for 181 days: is it still used?" },
        { null, null, -30, null },
        { null, null, null, null },
    };

    [Theory]
    [MemberData(nameof(Times))]
    public void What_will_matter_is_said_in_time(int? password, int? end, int? seen, string? expected)
    {
        var scene = new FitScene().Account()
            .Replace("svc-poller", p => p with { PasswordExpiresAt = Day(password), EndsAt = Day(end), LastSeenAt = Day(seen) });
        scene.Judge().Findings.Select(f => f.Text).SingleOrDefault().ShouldBe(expected);

        static DateTimeOffset? Day(int? days) => days is { } d ? FitScene.Now.AddDays(d) : null;
    }

    [Fact]
    public void A_service_name_that_another_account_claims_is_named_in_any_case()
    {
        var scene = new FitScene().Account().Account("svc-other", planned: false)
            .Replace("svc-poller", p => p with { ServicePrincipalNames = ["HTTP/fm-temp01", "HTTP/only-mine"] })
            .Replace("svc-other", p => p with { ServicePrincipalNames = ["http/FM-TEMP01"] });
        var finding = scene.Judge().Findings.ShouldHaveSingleItem();
        (finding.Place, finding.IsExcess).ShouldBe(("svc-poller", false));
        finding.Text.ShouldBe(
            "svc-other has the service principal name (SPN) HTTP/fm-temp01 too: Kerberos sign-in to both services fails.");
    }

    [Theory]
    [InlineData("D:(A;;RP;;;HOSTS)", -20, new[] { @"It is a gMSA; its password may be fetched by FENNMOOR\hosts." })]
    [InlineData(
        "D:(A;;RP;;;OTHER)", -20,
        new[] { @"It is a gMSA; its password may be fetched by FENNMOOR\svc-other.", "fm-temp01 may not fetch its password: the service will not start there." })]
    [InlineData(
        "D:", -20,
        new[] { "It is a gMSA, and nobody may fetch its password.", "fm-temp01 may not fetch its password: the service will not start there." })]
    [InlineData("", -20, new[] { "It is a gMSA, and the list of who may fetch its password may not be read." })]
    [InlineData(
        "D:(A;;RP;;;HOSTS)", 3,
        new[] { "It is a gMSA, and the root key can be used from 2026-11-25 15:00 UTC only: before that no host can fetch the password.", @"It is a gMSA; its password may be fetched by FENNMOOR\hosts." })]
    [InlineData(
        "D:(A;;RP;;;HOSTS)", null,
        new[] { "It is a gMSA, and no root key for gMSA passwords was found: none exists, or the reader may not see it. Without one no host can fetch the password.", @"It is a gMSA; its password may be fetched by FENNMOOR\hosts." })]
    public void Who_may_fetch_a_group_managed_password_and_from_when_on(string list, int? keyInHours, string[] expected)
    {
        var scene = new FitScene().Account().Account("svc-other", planned: false).Account("fm-temp01$", planned: false)
            .Group("hosts", "fm-temp01$").Host("fm-temp01", []).Need(R.Service());
        var text = list.Length == 0
            ? ""
            : DescriptorText.Write(
                Sddl.Read(list.Replace("HOSTS", scene.SidOf("hosts").ToString(), StringComparison.Ordinal).Replace(
                    "OTHER", scene.SidOf("svc-other").ToString(), StringComparison.Ordinal)));
        scene.Replace("svc-poller", p => p with { PasswordFetchers = text })
            .Directory(d => d with { RootKeysUsableFrom = keyInHours is { } hours ? [FitScene.Now.AddHours(hours)] : [] });
        scene.Judge().Findings.Select(f => f.Text).ShouldBe(expected);
    }

    [Fact]
    public void A_host_whose_computer_account_was_not_found_is_said()
    {
        var scene = new FitScene().Account().Host("fm-temp01", []).Need(R.Service());
        scene.Replace("svc-poller", p => p with { PasswordFetchers = DescriptorText.Write(Sddl.Read("D:(A;;RP;;;WD)")) })
            .Directory(d => d with { RootKeysUsableFrom = [FitScene.Now.AddDays(-1)] });
        scene.Judge().Findings[^1].Text.ShouldBe(
            "fm-temp01$ was not found in the directory: whether fm-temp01 may fetch its password is not known.");
    }
}
