namespace JustRight.Tests.ServiceUnderTest;

/// <summary>
/// A data folder that a service filled and left in good order, made once in a program of tests: each test that begins there
/// starts
/// a service on a copy, instead of doing the same again first.
/// </summary>
/// <param name="fill">What the service is made to do.</param>
public sealed class PreparedData(Func<TestedService, Task> fill)
{
    private readonly Lazy<Task<(string Folder, string Token)>> _made = new(() => MakeAsync(fill));

    /// <summary>The whole demo added, and nothing else done.</summary>
    public static PreparedData Demo { get; } = new(service => service.AddDemoAsync());

    /// <summary>Starts a service on a copy, with settings of its own.</summary>
    public Task<TestedService> StartAsync(params string[] settings) => StartAsync(false, settings);

    /// <summary>Starts a service on a copy as a process of its own.</summary>
    public Task<TestedService> StartProcessAsync(params string[] settings) => StartAsync(true, settings);

    private async Task<TestedService> StartAsync(bool asProcess, string[] settings)
    {
        var (folder, token) = await _made.Value;
        return await TestedService.StartOnCopyAsync(folder, token, asProcess, settings);
    }

    private static async Task<(string Folder, string Token)> MakeAsync(Func<TestedService, Task> fill)
    {
        await using var service = await TestedService.StartAsync();
        await fill(service);
        await service.StopAsync();
        var folder = Directory.CreateTempSubdirectory("justright-prepared-").FullName;
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(folder, true);
        await Programs.MustRunAsync("cp", "-r", $"{service.Data}/.", folder);
        return (folder, service.Token);
    }
}
