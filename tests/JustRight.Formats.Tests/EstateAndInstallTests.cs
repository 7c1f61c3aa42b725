using System.Text;
using JustRight.Formats.Installs;

namespace JustRight.Formats.Tests;

public sealed class EstateAndInstallTests
{
    [Theory]
    [InlineData("accounts-in: service-accounts", "accounts-in: servce-accounts", "unknown-branch", 20)]
    [InlineData("accounts-in: service-accounts", "accounts-in: 'OU={product},DC=other,DC=example'", "branch-outside", 20)]
    [InlineData("accounts-in: service-accounts", "accounts-in: 'OU={produkt},DC=fennmoor,DC=example'", "unknown-placeholder", 20)]
    [InlineData("accounts-in: service-accounts", "accounts-in: 'CN={product},DC=fennmoor,DC=example'", "pattern", 20)]
    [InlineData("accounts-in: service-accounts", "accounts-in: 'OU=Services,DC=fennmoor,DC=example'", "pattern", 20)]
    [InlineData("accounts-in: service-accounts", "accounts-in: 'OU={product},,DC=example'", "not-a-dn", 20)]
    [InlineData("groups-in: application-groups", "groups-in: 'OU={group},DC=fennmoor,DC=example'", "unknown-placeholder", 22)]
    [InlineData("accounts: svc-{product}-{account}", "accounts: svc-{product}-{acount}", "unknown-placeholder", 17)]
    [InlineData("accounts: svc-{product}-{account}", "accounts: svc-{product}", "pattern", 17)]
    [InlineData("host: fm-sql01,", "host: fm-sql09,", "unknown-host", 47)]
    [InlineData("partner: fm-sql04", "partner: fm-sql05", "unknown-instance", 49)]
    [InlineData("partner: fm-sql04", "partner: fm-sql03", "own-partner", 49)]
    [InlineData("release: \"16.0\" }", "release: \"16.0\", other-names: [FM-SQL01] }", "same-name", 48)]
    [InlineData("release: \"16.0\" }", "release: \"16.0\", other-names: [\"a b\"] }", "wrong-value", 48)]
    [InlineData(
        "fm-sql04: { host: fm-sql04, engine: sqlserver", "fm-sql04: { host: fm-sql04, engine: postgresql", "needless-key", 49)]
    [InlineData("OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example", "Service Accounts", "not-a-dn", 10)]
    [InlineData(
        "OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example", "OU=Service Accounts,DC=elsewhere,DC=example", "branch-outside",
        10)]
    [InlineData("directory: { reach: simulation }", "directory: { reach: ldaps }", "missing-key", 7)]
    [InlineData("directory: { reach: simulation }", "directory: { reach: simulation, controller: fm-dc01 }", "needless-key", 7)]
    [InlineData("survey-no-older-than-hours: 72", "survey-no-older-than-hours: soon", "wrong-value", 75)]
    public void A_broken_estate_gives_a_fault_with_its_place(string part, string instead, string code, int line)
    {
        var (estate, faults) = DemoFiles.Estate(DemoFiles.With("estates/fennmoor.yaml", part, instead));
        estate.ShouldBeNull();
        faults.ShouldContain(f => f.Code == code, string.Join("\n", faults));
        faults.First(f => f.Code == code).At.Line.ShouldBe(line, string.Join("\n", faults));
    }

    [Fact]
    public void A_real_directory_has_no_simulated_hosts()
    {
        var text = DemoFiles.With(
            "estates/fennmoor.yaml", "directory: { reach: simulation }",
            "directory: { reach: ldaps, controller: fm-dc01, ca-folder: /ca, sign-in-as: x, secret: s }")
            .Replace("fm-temp01: {}", "fm-temp01: { reach: simulation }", StringComparison.Ordinal);
        DemoFiles.Estate(text).Faults.ShouldHaveSingleItem().Code.ShouldBe("mixed-reach");
    }

    [Theory]
    [InlineData("console-server: [fm-temp01, fm-temp02]", "console-server: []", "place-count")]
    [InlineData("console-server: [fm-temp01, fm-temp02]", "console-server: [fm-temp1]", "unknown-host")]
    [InlineData("console-server: [fm-temp01, fm-temp02]", "consol-server: [fm-temp01]", "unknown-place")]
    [InlineData("reporting-store: fm-sql01\n", "reporting-store: fm-sql09\n", "unknown-instance")]
    [InlineData("archivist: { existing: svc-archive }", "archivst: { existing: svc-archive }", "unknown-account")]
    [InlineData("archivist: { existing: svc-archive }", "archivist: { name: svc-a-name-that-is-too-long }", "name")]
    [InlineData("stage: planned", "stage: planned\nanswers: { nightly-jobs: maybe }", "answer-type")]
    [InlineData("stage: planned", "stage: planned\nanswers: { nightly: yes }", "unknown-question")]
    [InlineData(
        "stage: planned", "stage: planned\nchoices: { archivist.nightly-jobs: { take: all, why: x, by: y } }",
        "unknown-alternative")]
    [InlineData(
        "stage: planned", "stage: planned\nchoices: { archivist.night-jobs: { take: all, why: x, by: y } }", "unknown-decision")]
    public void An_install_that_does_not_fit_is_refused_with_its_place(string part, string instead, string code)
    {
        var (plan, faults) = DemoFiles.Plan(
            "thermograph", install: DemoFiles.With("installs/thermograph-dataroom.yaml", part, instead));
        plan.ShouldBeNull();
        faults.ShouldContain(f => f.Code == code && f.At.File == "install.yaml" && f.At.Line > 0, string.Join("\n", faults));
    }

    [Theory]
    [InlineData("archivist: { existing: svc-archive }", "archivist: { name: svc-archive$ }", "accounts.archivist")]
    [InlineData("stage: planned", "stage: planned\ngroups: { operators: { existing: operators$ } }", "groups.operators")]
    public void A_new_install_makes_no_account_and_uses_no_group_with_the_name_of_a_managed_account(
        string part, string instead, string field)
    {
        var text = DemoFiles.With("installs/thermograph-dataroom.yaml", part, instead);
        var (install, faults) = DemoFiles.Install(text);
        install.ShouldBeNull();
        var fault = faults.ShouldHaveSingleItem();
        (fault.Code, fault.Field).ShouldBe(("name", field));
        fault.At.Line.ShouldBeGreaterThan(1);

        // Of one that is there already an install may speak, and what is stored is read on.
        DemoFiles.Install(text.Replace("name: svc-archive$", "existing: svc-archive$", StringComparison.Ordinal)).Faults
            .Count(f => f.Field == "accounts.archivist").ShouldBe(0);
        InstallReader.Read(Encoding.UTF8.GetBytes(text), "install.yaml", stored: true).Install.ShouldNotBeNull();
    }
}
