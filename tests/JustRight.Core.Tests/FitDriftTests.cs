using JustRight.Core.Fit;
using JustRight.Core.Fit.Drift;

namespace JustRight.Core.Tests;

/// <summary>What is said of two fits of one install, rule by rule.</summary>
public sealed class FitDriftTests
{
    private const string Path = @"svc-poller → fm-temp01\Operators";
    private const string OtherPath = @"svc-poller → app-thermo-pollers → fm-temp01\Operators";
    private const string Where = "Operators on fm-temp01";

    /// <summary>Every verdict after every other: which way it goes, and in which words.</summary>
    public static TheoryData<Verdict, Verdict, DriftWay, string> Pairs => new()
    {
        { Verdict.Met, Verdict.Missing, DriftWay.Worse, "no longer so: because" },
        { Verdict.Met, Verdict.Pending, DriftWay.Worse, "no longer so: because" },
        { Verdict.Met, Verdict.Unseen, DriftWay.Other, "can no longer be seen: because" },
        { Verdict.Met, Verdict.Excess, DriftWay.Worse, $"no longer needed: {Path}" },
        { Verdict.Met, Verdict.Forbidden, DriftWay.Worse, $"forbidden now: {Path}" },
        { Verdict.Met, Verdict.Done, DriftWay.Better, "gone: because" },
        { Verdict.Missing, Verdict.Met, DriftWay.Better, $"as needed now: {Path}" },
        { Verdict.Missing, Verdict.Pending, DriftWay.Other, "because" },
        { Verdict.Missing, Verdict.Unseen, DriftWay.Other, "can no longer be seen: because" },
        { Verdict.Missing, Verdict.Excess, DriftWay.Worse, $"no longer needed: {Path}" },
        { Verdict.Missing, Verdict.Forbidden, DriftWay.Worse, $"forbidden now: {Path}" },
        { Verdict.Missing, Verdict.Done, DriftWay.Other, "because" },
        { Verdict.Pending, Verdict.Met, DriftWay.Better, $"as needed now: {Path}" },
        { Verdict.Pending, Verdict.Missing, DriftWay.Worse, "missing: because" },
        { Verdict.Pending, Verdict.Unseen, DriftWay.Other, "can no longer be seen: because" },
        { Verdict.Pending, Verdict.Excess, DriftWay.Worse, $"no longer needed: {Path}" },
        { Verdict.Pending, Verdict.Forbidden, DriftWay.Worse, $"forbidden now: {Path}" },
        { Verdict.Pending, Verdict.Done, DriftWay.Other, "because" },
        { Verdict.Unseen, Verdict.Met, DriftWay.Other, "seen again: because" },
        { Verdict.Unseen, Verdict.Missing, DriftWay.Worse, "missing: because" },
        { Verdict.Unseen, Verdict.Pending, DriftWay.Other, "seen again: because" },
        { Verdict.Unseen, Verdict.Excess, DriftWay.Worse, $"no longer needed: {Path}" },
        { Verdict.Unseen, Verdict.Forbidden, DriftWay.Worse, $"forbidden now: {Path}" },
        { Verdict.Unseen, Verdict.Done, DriftWay.Other, "seen again: because" },
        { Verdict.Excess, Verdict.Met, DriftWay.Better, $"as needed now: {Path}" },
        { Verdict.Excess, Verdict.Missing, DriftWay.Worse, "missing: because" },
        { Verdict.Excess, Verdict.Pending, DriftWay.Other, "because" },
        { Verdict.Excess, Verdict.Unseen, DriftWay.Other, "can no longer be seen: because" },
        { Verdict.Excess, Verdict.Forbidden, DriftWay.Worse, $"forbidden now: {Path}" },
        { Verdict.Excess, Verdict.Done, DriftWay.Better, "gone: because" },
        { Verdict.Forbidden, Verdict.Met, DriftWay.Better, $"as needed now: {Path}" },
        { Verdict.Forbidden, Verdict.Missing, DriftWay.Worse, "missing: because" },
        { Verdict.Forbidden, Verdict.Pending, DriftWay.Other, "because" },
        { Verdict.Forbidden, Verdict.Unseen, DriftWay.Other, "can no longer be seen: because" },
        { Verdict.Forbidden, Verdict.Excess, DriftWay.Other, $"no longer forbidden, and still not needed: {Path}" },
        { Verdict.Forbidden, Verdict.Done, DriftWay.Better, "gone: because" },
        { Verdict.Done, Verdict.Met, DriftWay.Other, $"needed again, and so: {Path}" },
        { Verdict.Done, Verdict.Missing, DriftWay.Worse, "missing: because" },
        { Verdict.Done, Verdict.Pending, DriftWay.Other, "because" },
        { Verdict.Done, Verdict.Unseen, DriftWay.Other, "can no longer be seen: because" },
        { Verdict.Done, Verdict.Excess, DriftWay.Worse, $"no longer needed: {Path}" },
        { Verdict.Done, Verdict.Forbidden, DriftWay.Worse, $"forbidden now: {Path}" },
    };

    [Theory]
    [MemberData(nameof(Pairs))]
    public void Another_verdict(Verdict was, Verdict now, DriftWay way, string says) =>
        Between([Right(was)], [Right(now)]).ShouldBe([Line(way, Of(says))]);

    [Fact]
    public void Every_pair_is_a_row() =>
        Pairs.Count.ShouldBe(Enum.GetValues<Verdict>().Length * (Enum.GetValues<Verdict>().Length - 1));

    [Fact]
    public void The_same_is_no_difference_whatever_its_reason() =>
        Enum.GetValues<Verdict>().SelectMany(v => Between([Right(v)], [Right(v) with { Reason = "in other words" }]))
            .ShouldBeEmpty();

    [Fact]
    public void What_is_no_longer_needed_and_still_held_is_not_better()
    {
        var done = Right(Verdict.Done) with { Paths = [Path] };
        Between([Right(Verdict.Met)], [done]).ShouldHaveSingleItem().Way.ShouldBe(DriftWay.Other);

        // A fit that was kept earlier names no path there; what is excess beside it does.
        var excess = Right(Verdict.Excess) with { Id = "excess" };
        Between([Right(Verdict.Met), excess], [Right(Verdict.Done), excess]).ShouldHaveSingleItem().Way.ShouldBe(DriftWay.Other);
        var ofAnother = excess with { Account = "svc-other" };
        Between([Right(Verdict.Met), ofAnother], [Right(Verdict.Done), ofAnother]).ShouldHaveSingleItem()
            .Way.ShouldBe(DriftWay.Better);
    }

    [Fact]
    public void What_is_needed_no_longer_and_had_no_path_when_it_was_kept_is_no_difference() =>
        Between([Right(Verdict.Done)], [Right(Verdict.Done) with { Paths = [Path] }]).ShouldBeEmpty();

    [Fact]
    public void Another_path()
    {
        var two = Right(Verdict.Met) with { Paths = [OtherPath, Path] };
        Between([Right(Verdict.Met)], [two])
            .ShouldBe([Line(DriftWay.Other, Of($"held by another path too: {OtherPath}"))]);
        Between([two], [Right(Verdict.Met)]).ShouldHaveSingleItem()
            .Words.ShouldBe(Of($"no longer held by {OtherPath}, and still held"));
    }

    [Theory]
    [InlineData(Verdict.Missing, DriftWay.Worse, "needed now, and missing: because")]
    [InlineData(Verdict.Met, DriftWay.Other, "needed now, and so")]
    [InlineData(Verdict.Pending, DriftWay.Other, "needed now: because")]
    [InlineData(Verdict.Unseen, DriftWay.Other, "needed now: because")]
    [InlineData(Verdict.Excess, DriftWay.Worse, $"new, and nothing asks for it: {Path}")]
    [InlineData(Verdict.Forbidden, DriftWay.Worse, $"new, and forbidden: {Path}")]
    public void What_was_not_there_before(Verdict now, DriftWay way, string says) =>
        Between([], [Right(now)]).ShouldBe([Line(way, Of(says))]);

    [Theory]
    [InlineData(Verdict.Met, DriftWay.Other, "no longer needed")]
    [InlineData(Verdict.Missing, DriftWay.Other, "no longer needed")]
    [InlineData(Verdict.Excess, DriftWay.Better, "gone; nothing needed it")]
    [InlineData(Verdict.Forbidden, DriftWay.Better, "gone; it was forbidden")]
    public void What_is_not_there_any_more(Verdict was, DriftWay way, string says) =>
        Between([Right(was)], []).ShouldBe([Line(way, Of(says))]);

    [Fact]
    public void An_exception_that_is_made_or_ends()
    {
        var (open, accepted) = (Right(Verdict.Excess), Right(Verdict.Excess) with { Accepted = true });
        Between([open], [accepted])
            .ShouldBe([Line(DriftWay.Better, Of("excess, and accepted now"))]);
        Between([accepted], [open]).ShouldBe(
            [Line(DriftWay.Worse, Of($"still excess, and no longer accepted: {Path}"))]);
    }

    [Fact]
    public void What_is_worse_comes_first_and_places_and_parts_are_told()
    {
        var (missing, met) = (Right(Verdict.Missing), Right(Verdict.Met));
        var before = Fit([missing, met with { Id = "2" }]) with { UnexpectedMembers = ["a"], Unread = ["fm-sql04"] };
        var after = Fit([met, missing with { Id = "2" }]) with { UnexpectedMembers = ["b"], Unread = ["fm-temp02"] };
        FitDrift.Between(before, after).Select(l => (l.Way, l.Words)).ShouldBe(
        [
            (DriftWay.Worse, Of("no longer so: because")),
            (DriftWay.Worse, "new: b"),
            (DriftWay.Other, "fm-temp02 can no longer be read"),
            (DriftWay.Other, "fm-sql04 can be read again"),
            (DriftWay.Better, Of($"as needed now: {Path}")),
            (DriftWay.Better, "no longer: a"),
        ]);
    }

    [Fact]
    public void A_place_that_does_not_answer_is_no_change()
    {
        const string host = "fm-temp01";
        var (met, excess) = (Right(Verdict.Met) with { At = host }, Right(Verdict.Excess) with { Id = "2", At = host });
        var elsewhere = Right(Verdict.Excess) with { Id = "3", At = "fm-book01" };
        var before = Seen(met, excess, elsewhere);
        var away = Away(Right(Verdict.Unseen) with { At = host }, elsewhere).After(before);
        FitDrift.Between(before, away).ShouldAllBe(l => l.Way == DriftWay.Other);
        FitDrift.Between(before, away).Select(l => l.Words).ShouldBe(
        [
            Of("can no longer be seen: because"), Of("can no longer be seen: its place could not be read"),
            $"{host} can no longer be read",
        ]);
        var still = Away(Right(Verdict.Unseen) with { At = host }, elsewhere).After(away);
        FitDrift.Between(away, still).ShouldBeEmpty();

        var back = Seen(met, excess, elsewhere).After(still);
        FitDrift.Between(still, back).Select(l => (l.Way, l.Words)).ShouldBe(
        [
            (DriftWay.Other, Of("seen again, as before")), (DriftWay.Other, Of("seen again, as before")),
            (DriftWay.Other, $"{host} can be read again"),
        ]);
        FitDrift.Between(before, back).ShouldBeEmpty();

        var other = Seen(Right(Verdict.Missing) with { At = host }, Right(Verdict.Excess) with { Id = "4", At = host }, elsewhere)
            .After(still);
        FitDrift.Between(still, other).Select(l => (l.Way, l.Words)).ShouldBe(
        [
            (DriftWay.Worse, Of("no longer so: because")), (DriftWay.Worse, Of($"new, and nothing asks for it: {Path}")),
            (DriftWay.Other, $"{host} can be read again"), (DriftWay.Better, Of("gone; nothing needed it")),
        ]);

        KeptFit Seen(params KeptRight[] rights) => Fit(rights) with { Parts = [] };
        KeptFit Away(params KeptRight[] rights) => Fit(rights) with { Unread = [host], Parts = [new KeptPart(host, host)] };
    }

    [Fact]
    public void A_place_that_was_never_readable_hides_nothing_that_goes()
    {
        var part = new KeptPart("the policies on fm-temp01", "fm-temp01");
        var before = Fit([Right(Verdict.Excess) with { At = "fm-temp01" }]) with { Unread = [part.Place], Parts = [part] };
        var after = (Fit([]) with { Unread = [part.Place], Parts = [part] }).After(before);
        FitDrift.Between(before, after).ShouldHaveSingleItem().Words.ShouldBe(Of("gone; nothing needed it"));
    }

    [Fact]
    public void A_place_that_it_has_nothing_to_do_with_is_no_part_of_a_fit()
    {
        var before = Fit([Right(Verdict.Met) with { At = "fm-temp01" }]) with { Parts = [] };
        var after = before with { Unread = ["fm-sql04"], Parts = [new KeptPart("fm-sql04", "fm-sql04")] };
        FitDrift.Between(before, after.After(before)).ShouldBeEmpty();
        var directory = before with { Unread = ["the directory"], Parts = [new KeptPart("the directory", "")] };
        FitDrift.Between(before, directory.After(before)).ShouldHaveSingleItem();
    }

    [Fact]
    public void A_fit_of_an_earlier_release_that_knows_no_places_is_no_difference_by_that()
    {
        var before = Fit([Right(Verdict.Met)]) with { Unread = ["fm-sql04"] };
        var after = Fit([Right(Verdict.Met) with { At = "fm-temp01" }]) with
        {
            Unread = ["fm-sql04"],
            Parts = [new KeptPart("fm-sql04", "fm-sql04")],
        };
        FitDrift.Between(before, after.After(before)).ShouldBeEmpty();
    }

    [Fact]
    public void Members_that_were_not_expected_stay_while_the_directory_does_not_answer()
    {
        var before = Fit([]) with { UnexpectedMembers = ["app-x: somebody"], Parts = [] };
        var away = (Fit([]) with { Unread = ["the directory"], Parts = [new KeptPart("the directory", "")] }).After(before);
        FitDrift.Between(before, away).Select(l => l.Words).ShouldBe(["the directory can no longer be read"]);
        FitDrift.Between(away, before.After(away)).Select(l => l.Words).ShouldBe(["the directory can be read again"]);
        FitDrift.Between(away, (Fit([]) with { Parts = [] }).After(away))
            .ShouldContain(l => l.Words == "no longer: app-x: somebody");
    }

    /// <summary>The differences, without the ids and paths that other tests hold.</summary>
    private static IReadOnlyList<DriftLine> Between(IReadOnlyList<KeptRight> before, IReadOnlyList<KeptRight> after) =>
        [.. FitDrift.Between(Fit(before), Fit(after)).Select(l => new DriftLine(l.Way, l.Account, l.Right, l.Words))];

    private static KeptFit Fit(IReadOnlyList<KeptRight> rights) =>
        new("thermograph-dataroom", DateTimeOffset.UnixEpoch, default!, "", rights, [], []);

    /// <summary>A right as a fit says it: by a path where it is held.</summary>
    private static KeptRight Right(Verdict verdict)
    {
        var (needed, held) = verdict switch
        {
            Verdict.Met => (true, true),
            Verdict.Missing or Verdict.Pending or Verdict.Unseen or Verdict.Done => (true, false),
            Verdict.Excess or Verdict.Forbidden => (false, true),
            _ => throw new ArgumentOutOfRangeException(nameof(verdict), verdict, null),
        };
        return new KeptRight("1", "svc-poller", Where, needed, verdict, "because", held ? [Path] : []);
    }

    private static string Of(string says) => $"svc-poller: {Where}: {says}";

    private static DriftLine Line(DriftWay way, string words) => new(way, "svc-poller", Where, words);
}
