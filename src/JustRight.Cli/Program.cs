using System.CommandLine;
using System.Text;
using JustRight.Cli.Api;
using JustRight.Cli.Commands;
using JustRight.Cli.Output;

Console.OutputEncoding = new UTF8Encoding(false);
var root = new RootCommand("Just Right: service accounts that hold just what they need.\n\nExit codes: 0 just right or done, 1 misfit, 2 usage or bad input, 3 could not reach or read.")
{
    SheetCommands.Make(),
    EstateCommands.Make(),
    InstallCommands.Make(),
    InstallCommands.MakePlan(),
    EstateCommands.MakeSurvey(),
    FitCommands.MakeVerify(),
    GrantCommand.Make(),
    FitCommands.MakeWhy(),
    HistoryCommands.MakeHistory(),
    HistoryCommands.MakeDrift(),
    ProposalCommands.Make(),
    ReviewCommands.Make(),
    AdoptCommands.Make(),
    ExceptionCommands.Make(),
    CalendarCommands.MakeCalendar(),
    CalendarCommands.MakeNotifications(),
    CalendarCommands.MakeSchedule(),
    ReportCommands.MakeReport(),
    ReportCommands.MakeEvidence(),
    ConfirmCommand.Make(),
    InstanceCommand.Make(),
    SignInCommands.Make(),
    TraceCommands.MakeTrace(),
    TraceCommands.MakeFix(),
    TraceCommands.MakeUndo(),
    CompareCommand.Make(),
    HandoverCommand.Make(),
    LdifCommand.Make(),
    ProtectCommand.Make(),
    LogCommands.Make(),
    TokenCommands.Make(),
    SecretCommands.Make(),
    PasswordCommands.Make(),
    CompletionCommand.Make(),
};
root.Options.Add(CommandKit.Json);
root.Options.Add(CommandKit.Address);

var parsed = root.Parse(args);
(parsed.CommandResult.Command as LeafCommand)?.TellAll();
if (parsed.Errors.Count == 0) return await parsed.InvokeAsync();
new Screen(args.Contains("--json")).Failure(string.Join(" ", parsed.Errors.Select(e => e.Message)), $"See: justright {string.Join(' ', NamesOf(parsed.CommandResult.Command))} --help".Replace("  ", " ", StringComparison.Ordinal), []);
return ExitCode.BadInput;

static IEnumerable<string> NamesOf(Command command)
{
    var names = new Stack<string>();
    for (Symbol? at = command; at is Command and not RootCommand; at = at.Parents.FirstOrDefault()) names.Push(at.Name);
    return names;
}
