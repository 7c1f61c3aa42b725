using System.Diagnostics;

namespace JustRight.Tests.ServiceUnderTest;

/// <summary>Runs the built client against a service, as a person or a script would.</summary>
public static class ClientRun
{
    /// <summary>The built client.</summary>
    public static string Program { get; } = Path.Combine(Checkout.Top, ".build", "client", "justright");

    /// <summary>Runs a command to its end.</summary>
    public static Task<(int Code, string Out, string Error)> RunAsync(this TestedService service, params string[] arguments) =>
        service.RunAsync(arguments, "", _ => { });

    /// <summary>Runs a command with something on its standard input.</summary>
    /// <param name="running">Called once it runs.</param>
    public static async Task<(int Code, string Out, string Error)> RunAsync(
        this TestedService service, string[] arguments, string input, Action<Process> running)
    {
        var end = await Programs.RunAsync(Program, arguments, input, running: running, environment: [
            ("JUSTRIGHT_ADDRESS", service.Address), ("JUSTRIGHT_SETTINGS", SettingsOf(service)), ("COLUMNS", "220"),
        ]);
        return (end.Code, end.Output, end.Error);
    }

    /// <summary>Where the client of a service keeps its token.</summary>
    public static string SettingsOf(TestedService service) => Path.Combine(service.Data, "client.json");
}
