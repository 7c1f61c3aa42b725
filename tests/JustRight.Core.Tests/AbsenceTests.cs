using JustRight.Core.Changes;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Tests;

/// <summary>
/// A right in something that is not there: who makes it decides the verdict, and no step is offered that must fail.
/// </summary>
public sealed class AbsenceTests
{
    private static readonly Right Select = DatabasePermissionRight.Parse("fm-sql01", "Stroe", "SELECT");
    private static readonly Right Misspelt = new LocalGroupRight("fm-temp01", "Admnistrators");

    /// <summary>What is not there, and what is there that is called nearly the same.</summary>
    private static readonly (string Name, Right Right, string What, string Nearest)[] Things =
    [
        ("a role in a database", R.Db("db_owner", "Stroe"), "database fm-sql01/Stroe", "Store"),
        ("a permission in a database", Select, "database fm-sql01/Stroe", "Store"),
        ("ownership of a database", new DatabaseOwnerRight("fm-sql01", "Stroe"), "database fm-sql01/Stroe", "Store"),
        ("a local group", Misspelt, "local group Admnistrators on fm-temp01", "Administrators"),
        ("a domain group", R.InGroup("app-stoff"), "group app-stoff in FENNMOOR", "app-staff"),
    ];

    public static TheoryData<string, Stage, GivenBy, bool, bool, Verdict, string> Rows
    {
        get
        {
            var rows = new TheoryData<string, Stage, GivenBy, bool, bool, Verdict, string>();
            foreach (var (name, _, what, nearest) in Things)
            {
                foreach (var exists in new[] { true, false })
                {
                    var waiting = exists ? "" : "waiting for the account svc-poller; ";
                    var no = $"{waiting}there is no {what}; did you mean '{nearest}'?";
                    var late = $"{waiting}waiting for the {what}, which setup should have made";
                    var ours = $"setup makes the {what}, and then it is ours to give";
                    rows.Add(name, Stage.Planned, GivenBy.Us, true, exists, Verdict.Pending, ours);
                    rows.Add(name, Stage.Planned, GivenBy.Setup, true, exists, Verdict.Pending, "setup gives it");
                    rows.Add(name, Stage.Planned, GivenBy.Setup, false, exists, Verdict.Pending, "setup gives it");
                    foreach (var by in new[] { GivenBy.Us, GivenBy.Setup })
                    {
                        rows.Add(name, Stage.Installed, by, true, exists, Verdict.Missing, late);
                        rows.Add(name, Stage.Installed, by, false, exists, Verdict.Missing, no);
                    }

                    rows.Add(name, Stage.Planned, GivenBy.Us, false, exists, Verdict.Missing, no);
                }
            }

            return rows;
        }
    }

    [Theory]
    [MemberData(nameof(Rows))]
    public void A_row(string thing, Stage stage, GivenBy by, bool bySetup, bool accountExists, Verdict verdict, string reason)
    {
        var right = Things.First(t => t.Name == thing).Right;
        var (fit, worklist) = Scene(stage, accountExists).Need(right, by, madeBySetup: bySetup).Run();
        var need = FitCaseTests.Of(fit, right);
        (need.Verdict, need.Reason).ShouldBe((verdict, reason));
        worklist.Give.Where(s => s.Change is not CreateLogin) // which hangs on no database
            .ShouldAllBe(s => s.Blocked != null || !s.For.Contains(need.Id), "a step that must fail");
    }

    [Theory]
    [InlineData("Store", "store")]
    [InlineData("Administrators", "administrators")]
    [InlineData("app-staff", "APP-STAFF")]
    public void What_is_there_in_another_case_is_there(string name, string asked)
    {
        var right = name switch
        {
            "Store" => R.Db("db_owner", asked),
            "app-staff" => R.InGroup(asked),
            _ => new LocalGroupRight("fm-temp01", asked),
        };
        FitCaseTests.Of(Scene(Stage.Planned, true).Need(right), right).Reason.ShouldBe("svc-poller does not hold it");
    }

    [Fact]
    public void A_group_that_the_plan_makes_is_not_absent()
    {
        var (fit, worklist) = Scene(Stage.Planned, true).PlannedGroup("ops", "app-ops", false, "poller")
            .Need(R.InGroup("app-ops")).Run();
        FitCaseTests.Of(fit, R.InGroup("app-ops")).Absent.ShouldBeNull();
        worklist.Give.ShouldAllBe(s => s.Blocked == null);
    }

    [Fact]
    public void A_group_that_nobody_looked_for_is_not_absent()
    {
        var scene = Scene(Stage.Planned, true).Directory(d => d with { AskedFor = [] }).Need(R.InGroup("app-stoff"));
        var (fit, worklist) = scene.Run();
        FitCaseTests.Of(fit, R.InGroup("app-stoff")).Reason.ShouldBe("svc-poller does not hold it");
        worklist.Give.ShouldAllBe(s => s.Blocked == null);
    }

    [Fact]
    public void What_was_not_read_is_unseen_and_not_absent()
    {
        var right = new LocalGroupRight("fm-temp02", "Nobody");
        FitCaseTests.Of(Scene(Stage.Planned, true).UnreadHost("fm-temp02").Need(right), right).Verdict.ShouldBe(Verdict.Unseen);
    }

    private static FitScene Scene(Stage stage, bool accountExists) =>
        new FitScene { Stage = stage }.Account(exists: accountExists).Group("app-staff").Host("fm-temp01", [])
            .Instance("fm-sql01", []);
}
