using System.Text.RegularExpressions;

namespace JustRight.Cli.Tests;

/// <summary>
/// The page for the first day, done as it is written: with the files that stand in it, command by command, to an install that is
/// just right.
/// </summary>
public sealed partial class FirstProductTests() : ClientScene(() => TestedService.StartAsync())
{
    private const string Page = "docs/your-first-product.md";
    private const int MostCommands = 10, MostAnswers = 20;

    [Fact]
    public async Task The_page_leads_to_just_right()
    {
        var folder = Directory.CreateDirectory(Path.Combine(Service.Data, "first")).FullName;
        var files = FilesOf(await File.ReadAllTextAsync(Path.Combine(Checkout.Top, Page), TestContext.Current.CancellationToken));
        files.Keys.ShouldBe(["thermograph.csv", "highfield.yaml", "thermograph-plant.yaml"]);
        foreach (var (name, text) in files)
            await File.WriteAllTextAsync(Path.Combine(folder, name), text, TestContext.Current.CancellationToken);

        var commands = DocumentedCommands.Of(Page).Where(c => c.IsWhole).ToList();
        var outputs = new List<string>();
        foreach (var command in commands)
        {
            var ran = await RunAsync([.. command.Words.Select(w =>
                Path.GetExtension(w) is ".csv" or ".yaml" ? Path.Combine(folder, w) : w)]);
            var expected = command.Comment.StartsWith("exit code 1", StringComparison.Ordinal) ? 1 : 0;
            ran.Code.ShouldBe(expected, $"{string.Join(' ', command.Words)}: {ran.Error}\n{ran.Out}");
            outputs.Add(ran.Out);
        }

        // the first verdict, counted: commands to it, and what a person says in the two files beyond names of their own systems
        var first = commands.FindIndex(c => c.Words[0] == "verify");
        (first + 1).ShouldBeLessThanOrEqualTo(MostCommands);
        var install = files["thermograph-plant.yaml"].Split('\n');
        install.Count(l => l.Contains(": ", StringComparison.Ordinal)).ShouldBeLessThanOrEqualTo(MostAnswers);
        outputs[first].ShouldSatisfyAllConditions(o => o.ShouldContain("missing"), o => o.ShouldContain("simulated estate"));
        outputs[^2].ShouldContain("just right");
        outputs[^1].ShouldContain("nothing of it is kept but what the log says");
        (await RunAsync("log", "check")).Out.ShouldContain("The log is sound");
    }

    /// <summary>The files of a page: each a block after a line that ends with its name in code and a colon or a stop.</summary>
    private static Dictionary<string, string> FilesOf(string page) => FileBlock().Matches(page)
        .ToDictionary(m => m.Groups["name"].Value, m => m.Groups["text"].Value);

    [GeneratedRegex(@"`(?<name>[\w-]+\.(csv|yaml))`(?:(?!```|`).)*?```(?:csv|yaml)\r?\n(?<text>.*?)```", RegexOptions.Singleline)]
    private static partial Regex FileBlock();
}
