using JustRight.Core.Sheets;

namespace JustRight.Formats.Tests;

/// <summary>What an account is kept from, as written; and one clear error for each that cannot be.</summary>
public sealed class KeptOutReaderTests
{
    private const string Sheet =
        "sheet: 1\nproduct: p\nrelease: \"1\"\ntitle: P\nsource: s\nplaces:\n  web: { kind: host }\n  other: { kind: host }\n"
        + "groups:\n  desk: { purpose: keeps out, members: [a] }\n"
        + "accounts:\n  a:\n    purpose: x\n    works-as: WORK\n    KEPT\n    needs:\n      - NEED\n";

    private const string Estate = "  survey-no-older-than-hours: 72\n";

    [Fact]
    public void What_a_sheet_may_say_is_read()
    {
        var (sheet, faults) = DemoFiles.Sheet(Of(
            "service", "kept-out: [interactive, remote]\n    kept-out-through: desk", "{ kept-out: batch, on: web }"));
        faults.ShouldBeEmpty();
        var account = sheet!.Accounts[0];
        (account.KeptOutThrough, account.KeptOutAt.Line).ShouldBe(("desk", 15));
        account.KeptOut.ShouldBe(["interactive", "remote"]);
        account.Needs[0].ShouldBeOfType<Need>().ShouldSatisfyAllConditions(
            n => (n.Kind, n.Value, n.Place).ShouldBe((NeedKind.KeptOut, "batch", "web")));
        DemoFiles.Sheet(Of("job", "kept-out: remote", "{ logon: batch, on: web }")).Sheet!.Accounts[0].KeptOut
            .ShouldBe(["remote"]);
    }

    [Theory]
    [InlineData("wrong-value", 15, "service", "kept-out: [interactiv]", "{ logon: service, on: web }")]
    [InlineData("kept-from-work", 15, "service", "kept-out: [service]", "{ local-group: G, on: web }")]
    [InlineData("kept-from-work", 15, "pool", "kept-out: [batch]", "{ local-group: G, on: web }")]
    [InlineData("kept-from-work", 15, "person", "kept-out: [batch]", "{ local-group: G, on: web }")]
    [InlineData("kept-from-work", 17, "job", "password-never-expires: yes", "{ kept-out: batch, on: web }")]
    [InlineData("kept-from-need", 15, "service", "kept-out: [interactive]", "{ logon: interactive, on: web }")]
    [InlineData("unknown-group", 15, "service", "{ kept-out: remote, kept-out-through: dsk }", "{ logon: service, on: web }")]
    [InlineData("missing-key", 15, "service", "kept-out-through: desk", "{ logon: service, on: web }")]
    [InlineData("wrong-qualifier", 17, "job", "password-never-expires: yes", "{ kept-out: remote, on: web, at: web }")]
    [InlineData("wrong-value", 17, "job", "password-never-expires: yes", "{ kept-out: desk, on: web }")]
    public void What_cannot_be_is_one_error_with_its_line(string code, int line, string work, string kept, string need)
    {
        var text = kept.StartsWith('{')
            ? Of(work, kept.Trim('{', '}', ' ').Replace(", ", "\n    ", StringComparison.Ordinal), need)
            : Of(work, kept, need);
        var (sheet, faults) = DemoFiles.Sheet(text);
        sheet.ShouldBeNull();
        var fault = faults.ShouldHaveSingleItem();
        (fault.Code, fault.At.Line).ShouldBe((code, line));
        (fault.Expected ?? fault.Message).ShouldNotBeEmpty();
    }

    [Fact]
    public void A_need_elsewhere_or_under_a_condition_is_no_contradiction_of_the_sheet()
    {
        DemoFiles.Sheet(Of("service", "password-never-expires: yes",
            "{ kept-out: remote, on: web }\n      - { logon: remote, on: other }"))
            .Faults.ShouldBeEmpty();
        DemoFiles.Sheet(Of("service", "kept-out: remote", "{ logon: remote, on: web, when: web.host in other }")).Faults
            .ShouldBeEmpty();
    }

    [Fact]
    public void An_organizations_rule_is_read()
    {
        var (estate, faults) = DemoFiles.Estate(With(
            "    - { from: [interactive, remote], through: gg-no-desk, why: rule 9 }\n"
            + "    - { from: network, works-as: job, why: rule 10 }\n"));
        faults.ShouldBeEmpty();
        estate!.Rules.KeptOut.Select(r => (string.Join(' ', r.From), string.Join(' ', r.WorksAs), r.Through, r.Why)).ShouldBe([
            ("interactive remote", "Service Job Pool Bind", "gg-no-desk", "rule 9"), ("network", "Job", null, "rule 10")]);
    }

    [Theory]
    [InlineData("kept-from-work", "{ from: service, why: w }")]
    [InlineData("kept-from-work", "{ from: remote, works-as: [job, setup], why: w }")]
    [InlineData("kept-from-work", "{ from: remote, works-as: person, why: w }")]
    [InlineData("forbidden-group", "{ from: remote, through: Domain Admins, why: w }")]
    [InlineData("missing-key", "{ from: remote }")]
    [InlineData("wrong-value", "{ from: desk, why: w }")]
    public void What_no_rule_can_be_is_one_error(string code, string rule)
    {
        var (estate, faults) = DemoFiles.Estate(With($"    - {rule}\n"));
        estate.ShouldBeNull();
        faults.ShouldHaveSingleItem().Code.ShouldBe(code);
    }

    private static string With(string rules) =>
        DemoFiles.With("estates/fennmoor.yaml", Estate, $"  kept-out:\n{rules}{Estate}");

    private static string Of(string work, string kept, string need) => Sheet.Replace("WORK", work, StringComparison.Ordinal)
        .Replace("KEPT", kept, StringComparison.Ordinal).Replace("NEED", need, StringComparison.Ordinal);
}
