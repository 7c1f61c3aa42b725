using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;
using JustRight.Formats.Installs;

namespace JustRight.Formats.Tests;

/// <summary>An install moves on to another release: its texts, and what the other release needs otherwise.</summary>
public sealed class UpgradeTests
{
    private const string Path = "installs/thermograph-dataroom.yaml";
    private static readonly Dictionary<string, IReadOnlyList<string>> Nothing = [];

    private static readonly Dictionary<string, IReadOnlyList<string>> WebServer = new()
    {
        ["places.web-server"] = ["fm-temp02"],
    };

    private static Sheet Later => DemoFiles.Sheet(DemoFiles.Text("later/thermograph-5.0.yaml")).Sheet!;

    private static Sheet Before => DemoFiles.Sheet(DemoFiles.Text("sheets/thermograph.yaml")).Sheet!;

    private static Install Now => DemoFiles.Install(DemoFiles.Text(Path)).Install!;

    [Fact]
    public void What_still_says_something_is_carried_over_and_the_rest_is_named()
    {
        var text = DemoFiles.With(Path, "\naccounts:", "\nanswers:\n  nightly-jobs: \"yes\"\n\nchoices:\n"
            + "  archivist.nightly-jobs: { take: agent-roles, why: least, by: m.fenwick }\n\naccounts:");
        var (moved, leftOut) = UpgradeText.Moved(text, "install.yaml", Later, Nothing);
        leftOut.ShouldBe(["accounts.reports", "answers.nightly-jobs", "choices.archivist.nightly-jobs"]);
        var install = DemoFiles.Install(moved).Install!;
        install.Sheet.ShouldBe("thermograph@5.0");
        install.Places.Keys.ShouldBe(["console-server", "reporting-store"]);
        install.Accounts.Single().Value.ShouldSatisfyAllConditions(n => n.Name.ShouldBe("svc-archive"),
            n => n.Existing.ShouldBeTrue());
        (install.Answers.Count, install.Choices.Count).ShouldBe((0, 0));
    }

    [Fact]
    public void Only_what_is_new_is_asked_and_an_answer_stands_where_it_belongs()
    {
        var (moved, _) = UpgradeText.Moved(DemoFiles.Text(Path), "install.yaml", Later, Nothing);
        var estate = DemoFiles.Estate(DemoFiles.Text("estates/fennmoor.yaml")).Estate!;
        Succession.Asked(DemoFiles.Install(moved).Install!, Before, Later, estate).Single().Field.ShouldBe("places.web-server");
        var (said, _) = UpgradeText.Moved(DemoFiles.Text(Path), "install.yaml", Later, WebServer);
        var install = DemoFiles.Install(said).Install!;
        install.Places["web-server"].Values.ShouldBe(["fm-temp02"]);
        Succession.Asked(install, Before, Later, estate).ShouldBeEmpty();
    }

    [Fact]
    public void A_question_that_was_left_to_its_default_is_left_to_it_again()
    {
        var later = DemoFiles.Sheet(DemoFiles.With("sheets/thermograph.yaml", "\"4.2\"", "\"4.3\"").Replace(
            "\nfacts:", "\n  spare: { ask: Is there a spare?, answer: yes-no, default: \"no\" }\n\nfacts:",
            StringComparison.Ordinal)).Sheet!;
        var (moved, _) = UpgradeText.Moved(DemoFiles.Text(Path), "install.yaml", later, Nothing);
        var estate = DemoFiles.Estate(DemoFiles.Text("estates/fennmoor.yaml")).Estate!;
        Succession.Asked(DemoFiles.Install(moved).Install!, Before, later, estate).Single()
            .ShouldSatisfyAllConditions(q => q.Field.ShouldBe("answers.spare"), q => q.Default.ShouldBe("no"));
    }

    [Fact]
    public void What_the_former_release_needs_is_an_install_that_is_planned_just_so()
    {
        var (before, after) = Plans();
        var installed = Now with { Stage = Stage.Installed };
        var text = UpgradeText.Former(DemoFiles.Text(Path), "install.yaml", installed, before, after);
        var former = DemoFiles.Install(text).Install!;
        former.ShouldSatisfyAllConditions(
            f => f.Name.ShouldBe("thermograph-dataroom-4-2"), f => f.Stage.ShouldBe(Stage.Installed),
            f => f.SucceededBy.ShouldBe("thermograph-dataroom"), f => f.Sheet.ShouldBe("thermograph@4.2"));
        var plan = DemoFiles.Plan("thermograph", install: text).Plan!;
        plan.Grants.Select(g => g.Id).ShouldBe(before.Grants.Select(g => g.Id));
        plan.Accounts.Select(a => a.Name).ShouldBe(before.Accounts.Select(a => a.Name));
        plan.Groups.Where(g => !g.Existing).Select(g => g.Key).ShouldBe(["log-readers"]); // the others are used on
        plan.Groups.Single(g => !g.Existing).Description.ShouldBe(before.Groups.Single(g => g.Key == "log-readers").Description);
        plan.Notes.ShouldNotContain(n => n.Contains("checked against the directory", StringComparison.Ordinal));
    }

    [Fact]
    public void What_is_needed_anew_no_more_and_differently_is_told_with_its_line()
    {
        var (before, after) = Plans();
        var told = PlanDifference.Of(before, after);
        Of(NeedChange.Anew).ShouldBe([
            "svc-thermo-alarms account  44", "svc-thermo-poller Event Log Readers fm-temp01 27",
            "svc-thermo-poller Event Log Readers fm-temp02 27", "svc-thermo-alarms log on as a service fm-temp02 48"]);
        Of(NeedChange.NoMore).Take(3).ShouldBe([
            "svc-reports account  61", "app-thermo-log-readers group  25", "svc-archive app-thermo-log-readers FENNMOOR 25"]);
        told.Where(d => d.Change == NeedChange.Differently).Select(d => d.How).Distinct()
            .ShouldBe(["given by: was setup, is us"]);
        PlanDifference.Of(before, before).ShouldBeEmpty();
        PlanDifference.Of(after, before).Count(d => d.Change == NeedChange.Anew).ShouldBe(Of(NeedChange.NoMore).Count());

        IEnumerable<string> Of(NeedChange change) => told.Where(d => d.Change == change)
            .Select(d => $"{d.Subject} {d.What} {d.Place} {d.At.Line}");
    }

    [Theory]
    [InlineData("thermograph", "4.2", Stage.Installed, null, "already")]
    [InlineData("curdhouse", "7.1", Stage.Installed, null, "another product")]
    [InlineData("thermograph", "5.0", Stage.Retiring, null, "being retired")]
    [InlineData("thermograph", "5.0", Stage.Installed, "plant", "former release of plant")]
    public void What_cannot_move_on_is_told(string product, string release, Stage stage, string? succeededBy, string why) =>
        Succession.WhyNot(Now with { Stage = stage, SucceededBy = succeededBy },
            Later with { Product = product, Release = release })!
            .Message.ShouldContain(why);

    [Fact]
    public void The_name_of_a_former_release_is_a_name_however_long()
    {
        var name = Succession.FormerName(Now with { Name = new string('a', 40), Release = "2026 R2" });
        name.ShouldBe($"{new string('a', 32)}-2026-r2");
        Succession.StageOfFormer(Now).ShouldBe(Stage.Retiring); // it was never installed
    }

    private static (Plan Before, Plan After) Plans()
    {
        var (moved, _) = UpgradeText.Moved(DemoFiles.Text(Path), "install.yaml", Later, WebServer);
        return (
            DemoFiles.Plan("thermograph").Plan!,
            DemoFiles.Plan("thermograph", sheet: DemoFiles.Text("later/thermograph-5.0.yaml"), install: moved).Plan!);
    }
}
