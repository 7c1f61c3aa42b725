using JustRight.Core.Fit;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests;

/// <summary>Another alternative meets a need only by what would meet it anywhere: a row each.</summary>
public sealed class OtherAlternativesTests
{
    private const string List = "SeServiceLogonRight";
    private const string Deny = "SeDenyServiceLogonRight";

    [Theory]
    [InlineData("nothing else is held", Verdict.Missing, "does not hold it")]
    [InlineData("the other is held", Verdict.Met, "met by the other alternative: other")]
    [InlineData("half of the other is held", Verdict.Missing, "does not hold it")]
    [InlineData("the other is held and denied", Verdict.Missing, "does not hold it")]
    [InlineData("the other is held, its deny list unread", Verdict.Unseen, "other, is not known: the list of those denied")]
    [InlineData("the other lies on a host that was not read", Verdict.Unseen, "other, is not known: fm-temp02 could not be read")]
    [InlineData("the other is held by a stronger right", Verdict.Met, "met by the other alternative: other")]
    [InlineData("the other has no way in", Verdict.Missing, "does not hold it")]
    [InlineData("the one taken is denied, the other is held", Verdict.Met, "met by the other alternative: other")]
    [InlineData("setup gives the one taken, the other lies on a host that was not read", Verdict.Pending, "setup gives it")]
    public void A_row(string what, Verdict verdict, string reason)
    {
        var by = what.StartsWith("setup gives", StringComparison.Ordinal) ? GivenBy.Setup : GivenBy.Us;
        var taken = what.StartsWith("the one taken is denied", StringComparison.Ordinal) ? R.Batch() : R.Admin();
        var scene = new FitScene().Account().Host("fm-temp01", []);
        var other = Other(scene, what);
        var need = FitCaseTests.Of(
            scene.Need(taken, by, decision: "poller.choice").Decide("one", false, ("one", [taken]), ("other", other)), taken);
        need.Verdict.ShouldBe(verdict, need.Reason);
        need.Reason.ShouldContain(reason);
        if (verdict == Verdict.Met) need.AsPlanned.ShouldBeFalse();
    }

    private static Right[] Other(FitScene scene, string what)
    {
        switch (what)
        {
            case "nothing else is held":
                return [R.Service()];
            case "half of the other is held":
                scene.Of("fm-temp01", h => h with { LogonLists = [Lists(scene, List)] });
                return [R.Service(), R.Batch()];
            case "the other is held":
                scene.Of("fm-temp01", h => h with { LogonLists = [Lists(scene, List)] });
                return [R.Service()];
            case "the other is held and denied":
                scene.Of("fm-temp01", h => h with { LogonLists = [Lists(scene, List), Lists(scene, Deny)] });
                return [R.Service()];
            case "the other is held, its deny list unread":
                scene.Of("fm-temp01", h => h with { LogonLists = [Lists(scene, List)] }).UnreadPart("fm-temp01", Deny);
                return [R.Service()];
            case "the other is held by a stronger right":
                scene.Instance("fm-sql01", [("sysadmin", ["svc-poller"])]);
                return [R.Db("db_datareader")];
            case "the other has no way in":
                scene.Instance("fm-sql01", [("sysadmin", [])], ("db_datareader", ["svc-poller"]));
                scene.OfInstance("fm-sql01", i => i with { Logins = [] });
                return [R.Db("db_datareader")];
            case "the one taken is denied, the other is held":
                scene.Instance("fm-sql01", [], ("db_datareader", ["svc-poller"]));
                scene.Of("fm-temp01", h => h with
                {
                    LogonLists = [Lists(scene, "SeBatchLogonRight"), Lists(scene, "SeDenyBatchLogonRight")],
                });
                return [R.Db("db_datareader")];
            default:
                scene.UnreadHost("fm-temp02");
                return [R.Admin("fm-temp02")];
        }
    }

    private static LogonList Lists(FitScene scene, string constant) => new(constant, [scene.SidOf("svc-poller")]);
}
