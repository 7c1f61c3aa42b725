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
        var remove = new Option<bool>("--remove") { Description = "What is to be taken away, instead of what is to be given" };
        return CommandKit.Make(
            "ldif", "Prints the directory part of the worklist as LDIF, for whoever may not let anything connect.\nFrom the latest survey: verify first. It holds no password; what it cannot say is a comment",
            ["justright ldif roundsman-dataroom > roundsman.ldif", "justright ldif roundsman-dataroom --remove"], [install, remove],
            c => PrintAsync(c, $"installs/{Names.Part(c.Parsed.GetValue(install)!)}/ldif?remove={(c.Parsed.GetValue(remove) ? "true" : "false")}"));
    }

    /// <summary>Prints a file of LDIF that the service makes.</summary>
    public static async Task<int> PrintAsync(Call call, string path)
    {
        var file = await call.Api.GetAsync(path, ContractsJson.Default.LdifView, call.Cancel);
        if (call.Screen.IsJson) Screen.Json(file, ContractsJson.Default.LdifView);
        else await Console.Out.WriteAsync(file.Text.AsMemory(), call.Cancel);
        return ExitCode.Fine;
    }
}
