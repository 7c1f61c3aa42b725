using JustRight.Core.Replicas;

namespace JustRight.Core.Tests;

/// <summary>Controllers held against each other.</summary>
public sealed class ReplicaComparisonTests
{
    private static readonly DateTimeOffset Noon = new(2026, 11, 25, 12, 0, 0, TimeSpan.Zero);

    [Fact]
    public void Controllers_with_the_same_values_and_versions_agree()
    {
        var compared = ReplicaComparison.Of([Replica("a", "x", 2, 0), Replica("b", "x", 2, 0)]);
        (compared.Agree, compared.Newest).ShouldBe((true, "a"));
        compared.Others.ShouldHaveSingleItem().Attributes.ShouldBeEmpty();
    }

    [Fact]
    public void The_one_with_the_older_version_is_behind_by_what_differs_and_how_long()
    {
        var compared = ReplicaComparison.Of([Replica("a", "old", 2, 0), Replica("b", "new", 3, 40)]);
        (compared.Agree, compared.Newest).ShouldBe((false, "b"));
        var lag = compared.Others.ShouldHaveSingleItem();
        (lag.Controller, lag.ChangesBehind, lag.Delay).ShouldBe(("a", 1, TimeSpan.FromSeconds(40)));
        lag.Attributes.ShouldBe(["description"]);
    }

    [Fact]
    public void A_higher_version_wins_over_a_later_time() =>
        ReplicaComparison.Of([Replica("a", "x", 3, 0), Replica("b", "y", 2, 900)]).Newest.ShouldBe("a");

    [Fact]
    public void Where_each_has_something_newer_none_is_the_newest()
    {
        var one = Replica("a", "x", 2, 0) with { Stamps = [new ReplicaStamp(1, 2, Noon), new ReplicaStamp(2, 1, Noon)] };
        var other = Replica("b", "y", 2, 0) with { Stamps = [new ReplicaStamp(1, 1, Noon), new ReplicaStamp(2, 2, Noon)] };
        var compared = ReplicaComparison.Of([one, other]);
        (compared.Agree, compared.Newest).ShouldBe((false, null));
    }

    [Fact]
    public void An_object_that_one_does_not_have_yet_and_a_controller_that_does_not_answer_are_said()
    {
        var compared = ReplicaComparison.Of(
            [
                Replica("a", "x", 1, 0), new ReplicaObject("b", null, false, new Dictionary<string, IReadOnlyList<string>>(), []),
                ReplicaObject.NotRead("c", "no answer")]);
        compared.Agree.ShouldBeFalse();
        compared.Others.ShouldHaveSingleItem().Found.ShouldBeFalse();
        compared.Unread.ShouldBe([("c", "no answer")]);
        ReplicaComparison.Of([ReplicaObject.NotRead("c", "no answer")]).Agree.ShouldBeFalse();
    }

    private static ReplicaObject Replica(string controller, string description, uint version, int seconds) => new(
        controller, null, true, new Dictionary<string, IReadOnlyList<string>> { ["description"] = [description] }, [new ReplicaStamp(
            13, version, Noon.AddSeconds(seconds))]);
}
