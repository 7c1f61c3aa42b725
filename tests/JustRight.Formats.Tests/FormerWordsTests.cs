using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Formats.Estates;
using JustRight.Formats.Installs;
using JustRight.Formats.Sheets;

namespace JustRight.Formats.Tests;

/// <summary>
/// What keys and values were called in earlier releases: refused in a new file, with the word of today; read on where stored.
/// </summary>
public sealed class FormerWordsTests
{
    [Theory]
    [InlineData("sheets/thermograph.yaml", "    forbidden:", "    barred:", "former-key", "forbidden")]
    [InlineData("sheets/tallystick.yaml", "until: installed", "until: set-up", "former-value", "installed")]
    [InlineData("estates/fennmoor.yaml", "  forbidden:", "  barred:", "former-key", "forbidden")]
    [InlineData("estates/fennmoor.yaml", "rules:", "rules:\n  four-eyes: yes", "former-key", "two-person-approval")]
    [InlineData("estates/fennmoor.yaml", "reach: simulation", "reach: lab", "former-value", "simulation")]
    [InlineData("installs/curdhouse-books.yaml", "stage: installed", "stage: set-up", "former-value", "installed")]
    public void A_file_with_a_former_word_is_refused_with_the_word_of_today(
        string file, string today, string former, string code, string says)
    {
        var text = DemoFiles.With(file, today, former);
        var faults = file[0] switch
        {
            's' => DemoFiles.Sheet(text).Faults,
            'e' => DemoFiles.Estate(text).Faults,
            _ => DemoFiles.Install(text).Faults,
        };
        faults.ShouldNotBeEmpty();
        faults.ShouldAllBe(f => f.Code == code && f.Expected == says && f.At.Line > 1);
        faults[0].Message.ShouldEndWith($"is called '{says}' now.");
    }

    [Fact]
    public void What_an_earlier_release_stored_means_the_same_as_today()
    {
        var sheet = DemoFiles.Text("sheets/tallystick.yaml");
        var formerSheet = sheet.Replace("until: installed", "until: set-up", StringComparison.Ordinal);
        var (stored, faults) = SheetReader.Read(Bytes(formerSheet), "s.yaml", stored: true);
        faults.ShouldBeEmpty();
        NeedsOf(stored!).ShouldBe(NeedsOf(DemoFiles.Sheet(sheet).Sheet!));

        var estate = DemoFiles.Text("estates/fennmoor.yaml");
        var former = estate.Replace("  forbidden:", "  barred:", StringComparison.Ordinal)
            .Replace("reach: simulation", "reach: lab", StringComparison.Ordinal);
        EstateReader.Read(Bytes(former), "e.yaml", stored: true).Estate!.ShouldSatisfyAllConditions(
            e => e.IsSimulated.ShouldBeTrue(), e => e.Rules.Forbidden.Count.ShouldBe(2));

        var install = DemoFiles.With("installs/curdhouse-books.yaml", "stage: installed", "stage: set-up");
        InstallReader.Read(Bytes(install), "i.yaml", stored: true).Install!.Stage.ShouldBe(Stage.Installed);
    }

    [Fact]
    public void A_key_of_ones_own_may_be_called_as_one_of_ours_was()
    {
        var text = DemoFiles.With("estates/fennmoor.yaml", "  teams: OU=Teams", "  barred: OU=Teams");
        var (estate, faults) = EstateReader.Read(Bytes(text), "e.yaml", stored: true);
        faults.ShouldBeEmpty();
        estate!.Branches.ShouldContain(b => b.Key == "barred");
    }

    private static byte[] Bytes(string text) => System.Text.Encoding.UTF8.GetBytes(text);

    private static IEnumerable<string> NeedsOf(Sheet sheet) =>
        sheet.Accounts.SelectMany(a => a.Needs).OfType<Need>().Select(n => $"{n.Kind} {n.Value} {n.Until}");
}
