using JustRight.Cli.Commands;

namespace JustRight.Cli.Tests;

/// <summary>The documentation shows commands, arguments and options as the client has them.</summary>
public sealed class DocumentedCommandTests
{
    public static TheoryData<string> Pages => [.. DocumentedCommands.Pages];

    [Theory]
    [MemberData(nameof(Pages))]
    public void Every_command_of_a_page_is_one(string page)
    {
        foreach (var command in DocumentedCommands.Of(page))
        {
            var parsed = CommandTree.Make().Parse([.. command.Words]);
            var said = $"{page}:{command.Line}: justright {string.Join(' ', command.Words)}";
            parsed.UnmatchedTokens.ShouldBeEmpty(said);
            parsed.CommandResult.Command.ShouldNotBeOfType<System.CommandLine.RootCommand>(said);
            if (command.IsWhole) parsed.Errors.Select(e => e.Message).ShouldBeEmpty(said);
        }
    }

    [Fact]
    public void The_pages_are_read()
    {
        var all = DocumentedCommands.Pages.SelectMany(DocumentedCommands.Of).ToList();
        all.Count(c => c.IsWhole).ShouldBeGreaterThan(30);
        all.Count(c => !c.IsWhole).ShouldBeGreaterThan(30);
        all.ShouldContain(c => c.Comment.StartsWith("exit code 1", StringComparison.Ordinal));
    }
}
