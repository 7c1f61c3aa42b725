using JustRight.Core.Plans;
using JustRight.Core.Sheets;

namespace JustRight.Formats.Tests;

/// <summary>What keeps accounts out becomes grants on every host of the install; needs go before.</summary>
public sealed class KeptOutPlanTests
{
    private const string Batch = "      - { logon: batch, on: runner";
    private const string Rules = "  survey-no-older-than-hours: 72\n";

    [Fact]
    public void What_a_sheet_keeps_an_account_from_holds_on_every_host()
    {
        var plan = Plan("tallystick", null, ("    works-as: service\n", "    works-as: service\n    kept-out: remote\n"));
        Kept(plan).ShouldBe([
            ("counter/kept-out:remote@fm-tally01", null), ("counter/kept-out:remote@fm-sql02", null)], ignoreOrder: true);
        plan.Grants.First(g => g.Right.OnlyRestrains).ShouldSatisfyAllConditions(
            g => g.Team.ShouldBe(Team.Host), g => g.Why.ShouldBe("its work does not need it to log on through remote desktop"));
    }

    [Fact]
    public void A_rule_holds_for_accounts_of_its_kind_through_one_group_for_all_installs()
    {
        var plan = Plan("nightchurn", "{ from: [network, remote], works-as: [job, service], through: gg-no-desk, why: rule 9 }");
        var group = plan.Groups.Single(g => g.IsShared);
        (group.Key, group.Name, group.Existing, group.Dn).ShouldBe(("gg-no-desk", "gg-no-desk", true, null));
        group.Members.ShouldBe(["engine", "jobs"]);
        Kept(plan).ShouldBe(
        [
            ("engine/kept-out:network@fm-night01", group.Key), ("engine/kept-out:remote@fm-night01", group.Key),
            ("jobs/kept-out:interactive@fm-night01", null), ("jobs/kept-out:remote@fm-night01", group.Key),
            ("jobs/kept-out:network@fm-night01", group.Key),
        ], ignoreOrder: true);
        plan.Grants.Where(g => g.Right.DomainGroup == "gg-no-desk").Select(g => g.Account).ShouldBe(["engine", "jobs"]);
    }

    [Fact]
    public void A_group_that_the_sheet_calls_otherwise_has_another_key() =>
        Plan("nightchurn", "{ from: network, works-as: job, through: runners, why: rule 9 }").Groups.Select(g => (g.Key, g.Name))
            .ShouldBe([("runners", "app-night-runners"), ("rule:runners", "runners")]);

    [Fact]
    public void What_an_account_needs_goes_before_and_the_plan_says_so()
    {
        var plan = Plan(
            "nightchurn", "{ from: [remote], through: gg-no-desk, why: rule 9 }",
            (Batch, $"      - {{ logon: remote, on: runner, when: runner.host in runner }}\n{Batch}"));
        Kept(plan).ShouldBe([
            ("engine/kept-out:remote@fm-night01", "gg-no-desk"), ("jobs/kept-out:interactive@fm-night01", null)],
                ignoreOrder: true);
        plan.Groups.Single(g => g.IsShared).Members.ShouldBe(["engine"]);
        plan.Notes.ShouldContain(n => n.StartsWith("jobs is not kept from 'remote' on fm-night01 (sheet.yaml:",
            StringComparison.Ordinal));
        plan.Notes.ShouldContain(n => n.StartsWith("The rule that keeps accounts from remote (estate.yaml:",
            StringComparison.Ordinal)
            && n.Contains("does not hold for jobs: it needs log on through remote desktop on fm-night01",
                StringComparison.Ordinal));
    }

    [Fact]
    public void A_group_that_rules_the_domain_is_no_way_of_keeping_out()
    {
        var (plan, faults) = DemoFiles.Plan("nightchurn", null, With("{ from: remote, through: Account Operators, why: w }"));
        plan.ShouldBeNull();
        faults.ShouldHaveSingleItem().ShouldSatisfyAllConditions(
            f => f.Code.ShouldBe("strong-group"),
            f => f.Message.ShouldBe(
                "Accounts would be put into Account Operators to be kept out: Account Operators controls the whole domain."));
    }

    private static IEnumerable<(string Id, string? Through)> Kept(Plan plan) =>
        plan.Grants.Where(g => g.Right.OnlyRestrains).Select(g => (g.Id, g.Through));

    private static Plan Plan(string product, string? rule, params (string Part, string Instead)[] edits)
    {
        var sheet = edits.Aggregate(
            DemoFiles.Text($"sheets/{product}.yaml"), (t, e) => t.Replace(e.Part, e.Instead, StringComparison.Ordinal));
        var install = System.IO.Path.Combine(Checkout.Top, "demo-data", "installs");
        var name = System.IO.Directory.GetFiles(install, $"{product}-*.yaml").Single();
        var (plan, faults) = DemoFiles.Plan(
            product, sheet, rule is null ? null : With(rule), System.IO.File.ReadAllText(name));
        faults.ShouldBeEmpty();
        return plan!;
    }

    private static string With(string rule) =>
        DemoFiles.With("estates/fennmoor.yaml", Rules, $"  kept-out:\n    - {rule}\n{Rules}");
}
