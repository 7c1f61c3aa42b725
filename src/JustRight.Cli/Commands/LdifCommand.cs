using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;

namespace JustRight.Cli.Commands;

/// <summary><c>ldif</c>: the directory part of the worklist as a file.</summary>
internal static class LdifCommand
{
    public static Command Make()
    {
        var install = Names.Install();
        var remove = new Option<bool>("--remove") { Description = "What is to be removed, instead of what is to be granted" };
        return CommandKit.Make(
            "ldif",
            "Prints the directory changes as LDIF, for use where no connection is allowed.\nUses the latest survey: verify first. It holds no password; what LDIF cannot express is a comment",
            [
                "justright ldif roundsman-dataroom > roundsman.ldif",
                "justright ldif roundsman-dataroom --remove"], [install, remove],
            c => PrintAsync(
                c,
                $"installs/{Names.Part(c.Parsed.GetValue(install)!)}/ldif?remove={(c.Parsed.GetValue(remove) ? "true" : "false")}"))
            .Answers(j => j.LdifView);
    }

    /// <summary>Prints a file of LDIF that the service makes.</summary>
    public static async Task<int> PrintAsync(Call call, string path)
    {
        var file = await call.Api.GetAsync(path, ContractsJson.Default.LdifView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(file, ContractsJson.Default.LdifView);
        else Screen.Text(file.Text);
        return ExitCode.Fine;
    }
}
