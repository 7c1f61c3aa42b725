using System.Diagnostics;
using JustRight.Tests.Shared;

namespace JustRight.Cli.Tests;

/// <summary>Runs the built client against a service, as a person or a script would.</summary>
internal static class ClientRun
{
    /// <summary>Runs a command to its end.</summary>
    public static Task<(int Code, string Out, string Error)> RunAsync(this ServiceProcess service, params string[] arguments) => service.RunAsync(arguments, "", _ => { });

    /// <summary>Runs a command with something on its standard input.</summary>
    /// <param name="running">Called once it runs.</param>
    public static async Task<(int Code, string Out, string Error)> RunAsync(this ServiceProcess service, string[] arguments, string input, Action<Process> running)
    {
        var start = new ProcessStartInfo(Path.Combine(Checkout.Top, ".build", "client", "justright"), arguments)
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            RedirectStandardInput = true,
            Environment = { ["JUSTRIGHT_ADDRESS"] = service.Address, ["JUSTRIGHT_SETTINGS"] = SettingsOf(service), ["COLUMNS"] = "220" },
        };
        using var process = Process.Start(start)!;
        running(process);
        await process.StandardInput.WriteAsync(input);
        process.StandardInput.Close();
        var output = process.StandardOutput.ReadToEndAsync();
        var error = process.StandardError.ReadToEndAsync();
        await process.WaitForExitAsync();
        return (process.ExitCode, await output, await error);
    }

    /// <summary>Where the client of a service keeps its token.</summary>
    public static string SettingsOf(ServiceProcess service) => Path.Combine(service.Data, "client.json");
}
