using System.CommandLine;
using System.Text;
using JustRight.Cli.Api;
using JustRight.Cli.Commands;
using JustRight.Cli.Output;

Console.OutputEncoding = new UTF8Encoding(false);
var parsed = CommandTree.Make().Parse(args);
(parsed.CommandResult.Command as LeafCommand)?.TellAll();
if (parsed.Errors.Count == 0) return await parsed.InvokeAsync();
new Screen(args.Contains("--json"), () => []).Failure(
    string.Join(" ", parsed.Errors.Select(e => e.Message)),
    $"See: justright {string.Join(' ', NamesOf(parsed.CommandResult.Command))} --help".Replace(
        "  ", " ", StringComparison.Ordinal), []);
return ExitCode.BadInput;

static IEnumerable<string> NamesOf(Command command)
{
    var names = new Stack<string>();
    for (Symbol? at = command; at is Command and not RootCommand; at = at.Parents.FirstOrDefault()) names.Push(at.Name);
    return names;
}
