using System.CommandLine;
using System.Text.Json.Serialization.Metadata;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;

namespace JustRight.Cli.Commands;

/// <summary>What every command is given: where the service is, how to print, and the parsed line.</summary>
internal sealed record Call(ParseResult Parsed, Screen Screen, ApiClient Api, string Address, CancellationToken Cancel);

/// <summary>A command that does something. In a list it has one line; its own help says all, with examples.</summary>
internal sealed class LeafCommand(string name, string description, string[] examples) : Command(name, description.Split('\n')[0])
{
    private Func<ContractsJson, JsonTypeInfo>[] _shapes = [];

    /// <summary>What it prints as JSON: one of these. Empty for one that prints a file, whatever is asked.</summary>
    public IReadOnlyList<JsonTypeInfo> Shapes => [.. _shapes.Select(shape => shape(ContractsJson.Default))];

    /// <summary>
    /// Declares what it prints as JSON. Each shape is made when it is asked for: to make those of all commands took longer than
    /// all else that a command did.
    /// </summary>
    public Command Answers(params Func<ContractsJson, JsonTypeInfo>[] shapes)
    {
        _shapes = shapes;
        return this;
    }

    /// <summary>Puts the whole description, what comes as JSON and the examples in place of the one line.</summary>
    public void TellAll()
    {
        Description = description;
        if (_shapes.Length > 0) Description += $"\nWith --json: {ShapeWords.Of(Shapes)}";
        if (examples.Length > 0) Description += $"\n\nExamples:\n  {string.Join("\n  ", examples)}";
    }
}

/// <summary>The options all commands share, and how commands are put together.</summary>
internal static class CommandKit
{
    public static readonly Option<bool> Json = new("--json") { Description = "Print JSON instead of text", Recursive = true };

    public static readonly Option<string?> Address = new("--address")
    {
        Description = "The service's address; also set by JUSTRIGHT_ADDRESS",
        Recursive = true,
        HelpName = "URL",
    };

    /// <summary>Makes a command. Errors are caught here, once, and become one message and an exit code.</summary>
    /// <param name="examples">Whole lines, shown by --help.</param>
    public static LeafCommand Make(string name, string description, string[] examples, Symbol[] parts, Func<Call, Task<int>> run)
    {
        var command = new LeafCommand(name, description, examples);
        foreach (var part in parts)
        {
            if (part is Argument argument) command.Arguments.Add(argument);
            else command.Options.Add((Option)part);
        }

        command.SetAction(async (parsed, cancel) =>
        {
            var screen = new Screen(parsed.GetValue(Json), () => command.Shapes);
            try
            {
                var address = parsed.GetValue(Address) ?? Environment.GetEnvironmentVariable("JUSTRIGHT_ADDRESS")
                    ?? ClientSettings.DefaultAddress;
                var token = Environment.GetEnvironmentVariable("JUSTRIGHT_TOKEN")
                    ?? ClientSettings.Load().Tokens.GetValueOrDefault(address);
                using var api = new ApiClient(address, token);
                return await run(new Call(parsed, screen, api, address, cancel));
            }
            catch (ClientException e)
            {
                screen.Failure(e.Message, e.Advice, e.Faults);
                return e.Code;
            }
            catch (Exception e) when (e is IOException or HttpRequestException)
            {
                screen.Failure(
                    $"The connection to the service broke: {e.Message}", "The work continues there; run the same command again.",
                    []);
                return ExitCode.Unread;
            }
        });
        return command;
    }

    /// <summary>A command that only holds others.</summary>
    public static Command Group(string name, string description, params Command[] inner)
    {
        var command = new Command(name, description);
        foreach (var one in inner) command.Subcommands.Add(one);
        return command;
    }

    /// <summary>An argument whose values the service can complete.</summary>
    /// <param name="names">Fetches the names.</param>
    public static Argument<string> Named(string name, string description, Func<ApiClient, Task<IEnumerable<string>>> names)
    {
        var argument = new Argument<string>(name) { Description = description, HelpName = name };
        argument.CompletionSources.Add(_ => Complete(names));
        return argument;
    }

    /// <summary>An option whose value is a name that the service knows.</summary>
    public static Option<string?> NamedOption(
        string option, string description, string help, Func<ApiClient, Task<IEnumerable<string>>> names)
    {
        var made = new Option<string?>(option) { Description = description, HelpName = help };
        made.CompletionSources.Add(_ => Complete(names));
        return made;
    }

    private static IEnumerable<System.CommandLine.Completions.CompletionItem> Complete(
        Func<ApiClient, Task<IEnumerable<string>>> names)
    {
        try
        {
            var address = Environment.GetEnvironmentVariable("JUSTRIGHT_ADDRESS") ?? ClientSettings.DefaultAddress;
            using var api = new ApiClient(
                address,
                Environment.GetEnvironmentVariable("JUSTRIGHT_TOKEN") ?? ClientSettings.Load().Tokens.GetValueOrDefault(address));
            return [.. names(api).WaitAsync(TimeSpan.FromSeconds(2)).GetAwaiter().GetResult().Select(n =>
                new System.CommandLine.Completions.CompletionItem(n))];
        }
        catch (Exception e) when (e is ClientException or TimeoutException or HttpRequestException)
        {
            return []; // completion is a help, never an error
        }
    }
}
