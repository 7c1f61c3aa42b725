namespace JustRight.Core.Tests.Hosts;

/// <summary>The worked situations of <c>host-situations.txt</c>, at the level of the verdict.</summary>
public sealed class HostSituationTests
{
    /// <summary>Facts, question, answer, rule.</summary>
    public static TheoryData<string, string, string, string> Situations
    {
        get
        {
            var rows = new TheoryData<string, string, string, string>();
            foreach (var line in File.ReadLines(Path.Combine(AppContext.BaseDirectory, "Hosts", "host-situations.txt")))
            {
                if (line.Length == 0 || line[0] == '#') continue;
                var row = line.Split('|', StringSplitOptions.TrimEntries);
                row.Length.ShouldBe(4, line);
                rows.Add(row[0], row[1], row[2], row[3]);
            }

            return rows;
        }
    }

    [Theory]
    [MemberData(nameof(Situations))]
    public void A_right_is_judged_as_the_documents_say(string facts, string question, string answer, string rule) =>
        HostSituation.Said(facts, question).ShouldBe(answer, rule);

    [Fact]
    public void The_table_has_its_rows() => Situations.Count.ShouldBeGreaterThanOrEqualTo(200);
}
