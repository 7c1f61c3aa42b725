using System.Diagnostics;

namespace JustRight.Cli.Tests;

/// <summary>The built client, signed in to a built service that each test has for itself.</summary>
/// <param name="start">Starts the service.</param>
public abstract class ClientScene(Func<Task<TestedService>> start) : IAsyncLifetime
{
    /// <summary>The service.</summary>
    protected TestedService Service { get; private set; } = null!;

    /// <summary>Where the client keeps its token.</summary>
    protected string Settings => ClientRun.SettingsOf(Service);

    /// <inheritdoc/>
    public virtual async ValueTask InitializeAsync()
    {
        Service = await start();
        (await RunAsync("token", "claim", Service.Links[1])).Code.ShouldBe(0);
    }

    /// <inheritdoc/>
    public ValueTask DisposeAsync()
    {
        GC.SuppressFinalize(this);
        return Service.DisposeAsync();
    }

    /// <summary>Runs the client to its end.</summary>
    protected Task<(int Code, string Out, string Error)> RunAsync(params string[] arguments) =>
        ClientRun.RunAsync(Service, arguments);

    /// <summary>Runs the client with something on its standard input.</summary>
    protected Task<(int Code, string Out, string Error)> RunAsync(string[] arguments, string input, Action<Process> running) =>
        ClientRun.RunAsync(Service, arguments, input, running);
}
