using System.Text.RegularExpressions;

namespace JustRight.Structure.Tests;

/// <summary>Words that were given up stay away: keys, commands, names in the code, labels of pages.</summary>
public sealed class FormerWordsTests
{
    /// <summary>Where former words must stand: what earlier releases stored, and how it is read.</summary>
    private static readonly string[] Excepted =
    [
        "tests/golden/", "src/JustRight.Formats/Shapes/FormerWords.cs", "src/JustRight.Service/Data/Storage/Upgrades/",
        "src/JustRight.Service/Data/Storage/Migrations/", "tests/JustRight.Structure.Tests/",
        "tests/JustRight.Formats.Tests/FormerWordsTests.cs", "console/package-lock.json",
    ];

    private static readonly string[] Texts =
        [".cs", ".razor", ".ts", ".tsx", ".css", ".md", ".yaml", ".json", ".sh", ".ps1", ".txt", ""];

    private static readonly string List = Path.Combine(Checkout.Top, "tests", "JustRight.Structure.Tests", "former-words.txt");

    private static readonly Regex Former = new(
        string.Join('|', File.ReadAllLines(List).Where(l => l.Length > 0 && l[0] != '#').Select(l => $"(?:{l})")),
        RegexOptions.CultureInvariant);

    [Fact]
    public async Task No_former_word_stands_anywhere()
    {
        var files = await Programs.MustRunAsync("git", "-C", Checkout.Top, "ls-files");
        var listed = files.Split('\n', StringSplitOptions.RemoveEmptyEntries);
        var found = listed
            .Where(f => Texts.Contains(Path.GetExtension(f)) && !Excepted.Any(e => f.StartsWith(e, StringComparison.Ordinal)))
            .Where(f => File.Exists(Path.Combine(Checkout.Top, f)))
            .SelectMany(f => File.ReadLines(Path.Combine(Checkout.Top, f)).Select((line, i) => ($"{f}:{i + 1}", line)))
            .Select(l => (Place: l.Item1, Match: Former.Match(l.line)))
            .Where(l => l.Match.Success)
            .Select(l => $"{l.Place}: {l.Match.Value}");
        found.ShouldBeEmpty();
    }

    [Fact]
    public void Words_are_found_where_they_stand() =>
        new[] { "barred: [ x ]", "Verdict.Spare", "justright mend 0 1", "in the books" }.ShouldAllBe(t => Former.IsMatch(t));
}
