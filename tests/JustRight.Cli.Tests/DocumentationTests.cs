using System.Globalization;
using System.Text.RegularExpressions;

namespace JustRight.Cli.Tests;

/// <summary>The commands of a story in the documentation are run as they stand.</summary>
public sealed partial class DocumentationTests() : ClientScene(() => PreparedData.Demo.StartAsync())
{
    /// <summary>
    /// The commands of a page's blocks one after another, each as it stands, in a terminal in which a person answers yes. What a
    /// comment says of the exit code holds; otherwise it is 0.
    /// </summary>
    [Theory]
    [InlineData("README.md", "")]
    [InlineData("docs/retiring.md", "verify tallystick-dataroom")]
    [InlineData("docs/handing-over.md", "verify wheyline-lines")]
    public async Task The_story_of_a_page_can_be_typed(string page, string before)
    {
        var folder = Directory.CreateDirectory(Path.Combine(Service.Data, "typed")).FullName;
        File.CreateSymbolicLink(Path.Combine(folder, "demo-data"), Path.Combine(Checkout.Top, "demo-data"));
        File.Copy(Path.Combine(Checkout.Top, ".build", "client", "justright"), Path.Combine(folder, "justright"));
        if (before.Length > 0) await RunAsync(before.Split(' '));
        foreach (var command in DocumentedCommands.Of(page).Where(c => c.IsWhole && !NeedsAFile(c)))
        {
            var line = $"./justright {string.Join(' ', command.Words.Select(w => $"'{w}'"))}";
            var end = await Programs.RunAsync(
                "script", ["-qec", line, "/dev/null"], "yes\n", folder: folder,
                environment: [("JUSTRIGHT_ADDRESS", Service.Address), ("JUSTRIGHT_SETTINGS", Settings)]);
            var expected = ExitCode().Match(command.Comment) is { Success: true } said
                ? int.Parse(said.Groups[1].Value, CultureInfo.InvariantCulture)
                : 0;
            end.Code.ShouldBe(expected, $"{page}:{command.Line}: {line}\n{end.Output}{end.Error}");
        }
    }

    /// <summary>Facts that came back from a host are a file of the reader's own.</summary>
    private static bool NeedsAFile(DocumentedCommand command) => command.Words.Contains("--facts");

    [GeneratedRegex("exit code ([0-9])")]
    private static partial Regex ExitCode();
}
