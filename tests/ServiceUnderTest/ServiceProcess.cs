using System.Diagnostics;
using System.Globalization;

namespace JustRight.Tests.ServiceUnderTest;

/// <summary>The built service as a process of its own, as it is shipped.</summary>
internal sealed class ServiceProcess : IServiceRun
{
    private static readonly TimeSpan LongestStop = TimeSpan.FromMinutes(5);
    private readonly Process _process;

    private ServiceProcess(Process process) => _process = process;

    /// <inheritdoc/>
    public bool HasEnded => _process.HasExited;

    /// <summary>Starts it.</summary>
    /// <param name="said">Takes each line that it prints.</param>
    public static ServiceProcess Start(IEnumerable<string> arguments, Action<string?> said)
    {
        var dll = Path.Combine(Checkout.Top, ".build", "service", "JustRight.Service.dll");
        if (!File.Exists(dll)) throw new InvalidOperationException("The service is not built: ./test builds it.");
        var start = new ProcessStartInfo("dotnet", [dll, .. arguments])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        var process = Process.Start(start)!;
        process.OutputDataReceived += (_, e) => said(e.Data);
        process.ErrorDataReceived += (_, e) => said(e.Data);
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
        return new ServiceProcess(process);
    }

    /// <inheritdoc/>
    public async Task<int> StopAsync()
    {
        await Programs.MustRunAsync("kill", "-TERM", _process.Id.ToString(CultureInfo.InvariantCulture));
        await _process.WaitForExitAsync(new CancellationTokenSource(LongestStop).Token);
        return _process.ExitCode;
    }

    /// <inheritdoc/>
    public async Task KillAsync()
    {
        _process.Kill(); // SIGKILL
        await _process.WaitForExitAsync();
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        if (!_process.HasExited) await KillAsync();
        _process.Dispose();
    }
}
