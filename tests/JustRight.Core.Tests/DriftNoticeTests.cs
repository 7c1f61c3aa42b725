using JustRight.Core.Estates;
using JustRight.Core.Fit.Drift;

namespace JustRight.Core.Tests;

/// <summary>What people get to read when much got worse at once.</summary>
public sealed class DriftNoticeTests
{
    [Fact]
    public void A_subject_is_one_line_however_many_installs_there_are()
    {
        DriftNotice.Subject("Fennmoor Dairy", [Line("one", 1), Line("one", 2)]).ShouldBe("Fennmoor Dairy: 2 got worse at one");
        DriftNotice.Subject("Fennmoor Dairy", [.. Enumerable.Range(0, 190).Select(i => Line($"install-{i}", i))])
            .ShouldBe("Fennmoor Dairy: 190 installs got worse");
    }

    [Fact]
    public void The_worst_comes_first_and_the_rest_is_where_it_can_be_seen()
    {
        var lines = Enumerable.Range(0, 190).Select(i => Line($"install-{i}", i))
            .Append(Line("late", 900, DriftSeverity.Forbidden)).Append(Line("later", 901, DriftSeverity.Missing)).ToList();
        const string site = "https://justright.fennmoor.example/";
        var text = DriftNotice.Text(lines, i => $"{site}installs/{i}", site);
        var rows = text.Split('\n');
        rows[0].ShouldBe("late");
        rows[1].ShouldBe("  - right 900");
        rows[2].ShouldBe("  See: https://justright.fennmoor.example/installs/late");
        rows[4].ShouldBe("later");
        rows.Count(r => r.StartsWith("  - ", StringComparison.Ordinal)).ShouldBe(30);
        text.ShouldEndWith(
            "And 162 more, at 162 installs.\n  See: https://justright.fennmoor.example/\n\n"
            + "No step made here is known to have done it.\n");
    }

    [Fact]
    public void Whether_it_was_made_from_here_is_said_in_the_same_words_whoever_did_it()
    {
        var ours = Line("one", 1) with { MadeHere = "remove svc from g (Jory Lind, 2027-01-01 10:00:00Z)" };
        Text([ours]).ShouldBe("one|  - right 1|    made here: remove svc from g (Jory Lind, 2027-01-01 10:00:00Z)|  See: s||"
            + "All of it was made here.|");
        Text([ours, Line("one", 2)]).ShouldEndWith(
            "|  - right 2|  See: s||Where 'made here' is not said, no step made here is known to have done it.|");
        Text([Line("one", 2)]).ShouldBe("one|  - right 2|  See: s||No step made here is known to have done it.|");

        static string Text(IReadOnlyList<WorseLine> worse) =>
            DriftNotice.Text(worse, _ => "s", "a").Replace('\n', '|');
    }

    private static WorseLine Line(string install, int number, DriftSeverity severity = DriftSeverity.Excess) =>
        new(install, new DriftLine(DriftWay.Worse, "svc", "a right", $"right {number}") { Severity = severity }, null);
}
