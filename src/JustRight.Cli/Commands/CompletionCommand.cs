using System.CommandLine;
using JustRight.Cli.Api;

namespace JustRight.Cli.Commands;

/// <summary><c>completion</c>: tab completion for bash.</summary>
internal static class CompletionCommand
{
    private const string Script = """
        # Tab completion of justright for bash. Load it with: source <(justright completion bash)
        _justright() {
          local IFS=$'\n'
          COMPREPLY=($(compgen -W "$(justright "[suggest:${COMP_POINT}]" "${COMP_LINE}" 2>/dev/null)" -- "${COMP_WORDS[COMP_CWORD]}"))
        }
        complete -o default -F _justright justright
        """;

    public static Command Make()
    {
        var shell = new Argument<string>("shell") { Description = "bash" };
        shell.AcceptOnlyFromAmong("bash");
        return CommandKit.Make("completion", "Prints the script that completes commands and names with Tab", ["source <(justright completion bash)"], [shell], _ =>
        {
            Console.Out.WriteLine(Script);
            return Task.FromResult(ExitCode.Fine);
        });
    }
}
