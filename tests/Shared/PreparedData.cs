namespace JustRight.Tests.Shared;

/// <summary>
/// A data folder that a service filled and left in good order, made once in a program of tests: each test that begins there
/// starts
/// a service on a copy, instead of doing the same again first.
/// </summary>
/// <param name="fill">What the service is made to do.</param>
public sealed class PreparedData(Func<ServiceProcess, Task> fill)
{
    private readonly Lazy<Task<(string Folder, string Token)>> _made = new(() => MakeAsync(fill));

    /// <summary>The whole demo added, and nothing else done.</summary>
    public static PreparedData Demo { get; } = new(service => service.AddDemoAsync());

    /// <summary>Starts a service on a copy, with settings of its own.</summary>
    public async Task<ServiceProcess> StartAsync(params string[] settings)
    {
        var (folder, token) = await _made.Value;
        return await ServiceProcess.StartOnCopyAsync(folder, token, settings);
    }

    private static async Task<(string Folder, string Token)> MakeAsync(Func<ServiceProcess, Task> fill)
    {
        await using var service = await ServiceProcess.StartAsync();
        await fill(service);
        await service.StopAsync();
        var folder = Directory.CreateTempSubdirectory("justright-prepared-").FullName;
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(folder, true);
        await Programs.MustRunAsync("cp", "-r", $"{service.Data}/.", folder);
        return (folder, service.Token);
    }
}
