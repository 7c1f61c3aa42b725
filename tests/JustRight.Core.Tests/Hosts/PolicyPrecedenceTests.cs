using CsCheck;
using JustRight.Core.Rights.Policies;

namespace JustRight.Core.Tests.Hosts;

/// <summary>Which policy's list wins, situation by situation [MS-GPOL], and random situations against a second, simpler model.</summary>
public sealed class PolicyPrecedenceTests
{
    private const string Search = "MS-GPOL 3.2.5.1.5";
    private const string Filtering = "MS-GPOL 3.2.5.1.6";
    private const string Links = "MS-GPOL 2.2.2";

    [Theory]
    // Nothing, or one policy.
    [InlineData(Search, "domain:", "host")]
    [InlineData(Search, "domain: A", "A")]
    [InlineData(Search, "site: A | domain:", "A")]
    [InlineData(Search, "domain: | servers: A", "A")]
    [InlineData(Search, "domain: N", "host")]
    [InlineData(Search, "domain: N | servers: N", "host")]
    // Lower containers win over higher ones.
    [InlineData(Search, "site: A | domain: B", "B")]
    [InlineData(Search, "domain: A | servers: B", "B")]
    [InlineData(Search, "site: A | domain: B | servers: C", "C")]
    [InlineData(Search, "site: A | domain: B | servers: C | jobs: D", "D")]
    [InlineData(Search, "domain: A | servers: | jobs: B", "B")]
    [InlineData(Search, "domain: A | servers: B | jobs:", "B")]
    [InlineData(Search, "domain: A | servers: N | jobs: N", "A")]
    [InlineData(Search, "site: A | domain: N | servers: N", "A")]
    // Link numbers: the lowest wins.
    [InlineData(Links, "domain: A B", "A")]
    [InlineData(Links, "domain: B A", "B")]
    [InlineData(Links, "domain: N B A", "B")]
    [InlineData(Links, "domain: A | servers: B C D", "B")]
    [InlineData(Links, "domain: A | servers: N C D", "C")]
    [InlineData(Links, "domain: A | servers: N N", "A")]
    // Enforced links win over all below, the highest first.
    [InlineData(Search, "domain: A! | servers: B", "A")]
    [InlineData(Search, "site: A! | domain: B! | servers: C!", "A")]
    [InlineData(Search, "domain: A | servers: B! | jobs: C", "B")]
    [InlineData(Search, "domain: A! | servers: B! | jobs: C", "A")]
    [InlineData(Search, "domain: N! | servers: B! | jobs: C", "B")]
    [InlineData(Search, "domain: N! | servers: N! | jobs: C", "C")]
    [InlineData(Search, "site: A! | domain: B", "A")]
    [InlineData(Search, "domain: | servers: A! B", "A")]
    [InlineData(Search, "domain: | servers: B A!", "A")]
    [InlineData(Search, "domain: | servers: A! B!", "A")]
    [InlineData(Search, "domain: | servers: B! A!", "B")]
    [InlineData(Search, "domain: A! B! | servers: C!", "A")]
    // Blocking drops what stands above and is not enforced.
    [InlineData(Links, "domain: A | servers#: B", "B")]
    [InlineData(Links, "domain: A | servers#:", "host")]
    [InlineData(Links, "domain: A! | servers#:", "A")]
    [InlineData(Links, "domain: A! | servers#: B", "A")]
    [InlineData(Links, "site: A | domain#: N", "host")]
    [InlineData(Links, "site: A! | domain#: N", "A")]
    [InlineData(Links, "domain: A | servers: B | jobs#: N", "host")]
    [InlineData(Links, "domain: A | servers#: B | jobs: N", "B")]
    [InlineData(Links, "domain: A! | servers#: B | jobs#: C", "A")]
    [InlineData(Links, "domain: A | servers: B! | jobs#: N", "B")]
    [InlineData(Links, "site#: A | domain: N", "A")]
    [InlineData(Links, "domain: A | servers#: N N | jobs: N", "host")]
    // A disabled link counts for nothing, enforced or not.
    [InlineData(Links, "domain: -A", "host")]
    [InlineData(Links, "domain: -A B", "B")]
    [InlineData(Links, "domain: A | servers: -B", "A")]
    [InlineData(Links, "domain: -A! | servers: B", "B")]
    [InlineData(Links, "domain: -A! B! | servers: C", "B")]
    [InlineData(Links, "domain: A | servers: -A", "A")]
    // The same policy linked twice counts where it stands highest in precedence.
    [InlineData(Search, "domain: A! | servers: B A", "A")]
    [InlineData(Search, "domain: A | servers: B | jobs: A", "A")]
    [InlineData(Search, "domain: A B | servers: B", "B")]
    // A policy that no longer exists, or whose computer half is off, is as if it were not linked.
    [InlineData(Search, "domain: A | servers: X", "A")]
    [InlineData(Search, "domain: X! | servers: B", "B")]
    [InlineData(Search, "domain: X", "host")]
    [InlineData(Filtering, "domain: A | servers: H", "A")]
    [InlineData(Filtering, "domain: H! | servers: B", "B")]
    [InlineData(Filtering, "domain: H", "host")]
    // Filtered ones likewise.
    [InlineData(Filtering, "domain: A | servers: F", "A")]
    [InlineData(Filtering, "domain: F! | servers: B", "B")]
    [InlineData(Filtering, "domain: F | servers#:", "host")]
    [InlineData(Filtering, "domain: A | servers: F N", "A")]
    // What is not known matters only where it could win.
    [InlineData(Filtering, "domain: A | servers: U", "?")]
    [InlineData(Filtering, "domain: U | servers: A", "A")]
    [InlineData(Filtering, "domain: U! | servers: A", "?")]
    [InlineData(Filtering, "domain: A! | servers: U", "A")]
    [InlineData(Filtering, "domain: -U | servers:", "host")]
    [InlineData(Filtering, "domain: U | servers#: N", "host")]
    [InlineData("MS-GPSB 2.2.6", "domain: A | servers: T", "?")]
    [InlineData("MS-GPSB 2.2.6", "domain: T | servers: A", "A")]
    [InlineData("MS-GPSB 2.2.6", "domain: A! | servers: T", "A")]
    public void The_winner_is(string section, string situation, string winner)
    {
        section.ShouldStartWith("MS-GP");
        PolicyScene.Winner(situation).ShouldBe(winner);
    }

    private static readonly Gen<string> Situation =
        Gen.Select(
            Gen.Bool,
            Gen.Select(
                Gen.OneOfConst("A", "B", "C", "D", "E", "N", "X", "H", "F"), Gen.OneOfConst("", "", "!"),
                Gen.OneOfConst("", "", "-"), (name, enforced, disabled) => disabled + name + enforced).List[0, 4],
            (blocks, links) => (blocks, links))
            .Array[1, 6]
            .Select(levels =>
                    string.Join(" | ", levels.Select((l, i) => $"level{i}{(l.blocks ? "#" : "")}: {string.Join(' ', l.links)}")));

    [Fact]
    public void Random_situations_come_out_as_in_a_model_that_lets_one_list_overwrite_the_other() =>
        Situation.Sample(situation => PolicyScene.Winner(situation).ShouldBe(Overwriting(situation), situation), iter: 20_000);

    /// <summary>The simpler model: lists are written over one another in the order in which a host applies policies; the last one stands.</summary>
    private static string Overwriting(string situation)
    {
        var levels = situation.Split('|')
            .Select(l =>
                (
                    Blocks: l.Split(':')[0].Trim().EndsWith('#'),
                    Links: l.Split(':')[1].Split(' ', StringSplitOptions.RemoveEmptyEntries)))
            .ToList();
        var list = "host";
        var open = levels.ToList();
        for (var i = 0; i < levels.Count; i++)
            if (levels[i].Blocks)
                for (var above = 0; above < i; above++)
                    open[above] = (false, [.. levels[above].Links.Where(l => l.Contains('!', StringComparison.Ordinal))]);
        foreach (var level in open) Apply(level.Links.Where(l => !l.Contains('!', StringComparison.Ordinal)));
        foreach (var level in Enumerable.Reverse(levels))
            Apply(level.Links.Where(l => l.Contains('!', StringComparison.Ordinal)));
        return list;

        void Apply(IEnumerable<string> links)
        {
            foreach (var link in links.Reverse())
                if (!link.StartsWith('-') && "ABCDE".Contains(link.Trim('!'), StringComparison.Ordinal)) list = link.Trim('!');
        }
    }

    [Fact]
    public void Links_are_read_with_the_last_one_first_and_survive_being_written()
    {
        var links = PolicyLink.Read(
            "[LDAP://cn={31B2F340-016D-11D2-945F-00C04FB984F9},cn=policies,cn=system,DC=fennmoor,DC=example;0] [LDAP://CN={6ac1786c-016f-11d2-945f-00c04fb984f9},CN=Policies,CN=System,DC=fennmoor,DC=example;2][LDAP://cn={7C2E5A10-5B0D-4C0B-8E52-1D2F6A9B3C01},cn=p;3]",
            out var broken);
        broken.ShouldBeEmpty();
        links.ShouldBe([
            new PolicyLink("{7C2E5A10-5B0D-4C0B-8E52-1D2F6A9B3C01}", true, true), new PolicyLink(
                "{6AC1786C-016F-11D2-945F-00C04FB984F9}", false, true), new PolicyLink(
                "{31B2F340-016D-11D2-945F-00C04FB984F9}", false, false),
        ]);
        PolicyLink.Read(PolicyLink.Write(links, "DC=fennmoor,DC=example"), out _).ShouldBe(links);
    }

    [Theory]
    [InlineData("[LDAP://cn={31B2F340-016D-11D2-945F-00C04FB984F9},cn=p;0")]
    [InlineData("nonsense")]
    [InlineData("[LDAP://cn=no-guid,cn=p;0]")]
    [InlineData("[LDAP://cn={31B2F340-016D-11D2-945F-00C04FB984F9},cn=p;many]")]
    [InlineData("[]")]
    public void A_link_that_is_not_understood_is_not_passed_over_in_silence(string text)
    {
        PolicyLink.Read(text, out var broken);
        broken.ShouldHaveSingleItem();
    }
}
