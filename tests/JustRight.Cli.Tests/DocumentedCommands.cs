using System.Text.RegularExpressions;

namespace JustRight.Cli.Tests;

/// <summary>A command of the client as a page of the documentation shows it.</summary>
/// <param name="Page">The page, from the top of the checkout.</param>
/// <param name="Line">Where it begins; 1 is the first line.</param>
/// <param name="Words">The command and its arguments, without redirections and comment.</param>
/// <param name="Comment">What the page says beside it; empty when nothing.</param>
/// <param name="IsWhole">Whether it stands in a block, to be typed as it is; otherwise it may be shortened.</param>
public sealed record DocumentedCommand(string Page, int Line, IReadOnlyList<string> Words, string Comment, bool IsWhole);

/// <summary>Reads the commands of the client out of the README and the pages of docs.</summary>
internal static partial class DocumentedCommands
{
    /// <summary>All pages, from the top of the checkout.</summary>
    public static IEnumerable<string> Pages =>
        Directory.GetFiles(Path.Combine(Checkout.Top, "docs"), "*.md")
            .Order(StringComparer.Ordinal).Select(file => Path.GetRelativePath(Checkout.Top, file)).Prepend("README.md");

    /// <summary>The commands of a page, in their order.</summary>
    public static IReadOnlyList<DocumentedCommand> Of(string page)
    {
        var found = new List<DocumentedCommand>();
        var lines = File.ReadAllLines(Path.Combine(Checkout.Top, page));
        for (var at = 0; at < lines.Length; at++)
        {
            var first = at + 1;
            if (WholeLine().Match(lines[at]) is { Success: true } whole)
            {
                var text = whole.Groups["command"].Value;
                while (text.EndsWith('\\')) text = text[..^1] + lines[++at];
                found.Add(Read(page, first, text, isWhole: true));
                continue;
            }

            found.AddRange(Inline().Matches(lines[at]).Select(m => Read(page, first, m.Groups["command"].Value, isWhole: false)));
        }

        return found;
    }

    private static DocumentedCommand Read(string page, int line, string text, bool isWhole)
    {
        var words = new List<string>();
        var comment = "";
        foreach (Match token in Token().Matches(text))
        {
            if (token.Groups["comment"] is { Success: true } said) comment = said.Value.Trim(' ', '#');
            else if (token.Groups["word"] is { Success: true } word)
                words.Add(word.Value.Replace("\"", "", StringComparison.Ordinal));
        }

        return new DocumentedCommand(page, line, words, comment, isWhole);
    }

    /// <summary>A line of a block: indented or not, with a prompt or without one.</summary>
    [GeneratedRegex(@"^\s*(\$ )?(\./)?justright (?<command>[^`]+)$")]
    private static partial Regex WholeLine();

    [GeneratedRegex("`justright (?<command>[^`]+)`")]
    private static partial Regex Inline();

    /// <summary>A comment, a redirection or pipe with all that follows, or a word.</summary>
    [GeneratedRegex("""\s#(?<comment>.*)$|\s*[<>|]\s.*$|(?<word>(?:"[^"]*"|[^\s"])+)""")]
    private static partial Regex Token();
}
