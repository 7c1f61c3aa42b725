using System.Diagnostics;
using System.Text;

namespace JustRight.Tests.Shared;

/// <summary>How a program ended and what it printed.</summary>
public sealed record ProgramEnd(int Code, string Output, string Error)
{
    /// <summary>What it printed; throws when it did not end with 0.</summary>
    public string Ended(string program) =>
        Code == 0 ? Output : throw new InvalidOperationException($"{program} ended with {Code}: {Output} {Error}");
}

/// <summary>Programs of the system's, run to their end or kept running.</summary>
public static class Programs
{
    /// <summary>Runs a program to its end.</summary>
    /// <param name="input">What stands on its standard input.</param>
    /// <param name="environment">What it finds in its environment besides ours.</param>
    /// <param name="running">Called once it runs.</param>
    public static async Task<ProgramEnd> RunAsync(
        string program, IEnumerable<string> arguments, string input = "",
        IEnumerable<(string Name, string Value)>? environment = null, string? folder = null, Action<Process>? running = null,
        CancellationToken cancel = default)
    {
        using var process = Process.Start(Start(program, arguments, environment, folder))!;
        running?.Invoke(process);
        var output = process.StandardOutput.ReadToEndAsync(cancel);
        var error = process.StandardError.ReadToEndAsync(cancel);
        try
        {
            await process.StandardInput.WriteAsync(input.AsMemory(), cancel);
            process.StandardInput.Close();
        }
        catch (IOException)
        {
            // It ended without reading everything; how it ended says the rest.
        }

        await process.WaitForExitAsync(cancel);
        return new ProgramEnd(process.ExitCode, await output, await error);
    }

    /// <summary>Runs a program that must end with 0, and returns what it printed.</summary>
    public static async Task<string> MustRunAsync(string program, params string[] arguments) =>
        (await RunAsync(program, arguments)).Ended($"{program} {string.Join(' ', arguments.Take(2))}");

    /// <summary>Starts a server; what it prints is let go.</summary>
    public static Process Serve(
        string program, IEnumerable<string> arguments, IEnumerable<(string Name, string Value)>? environment = null)
    {
        var process = Process.Start(Start(program, arguments, environment, null))!;
        process.OutputDataReceived += (_, _) => { };
        process.ErrorDataReceived += (_, _) => { };
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
        return process;
    }

    /// <summary>Kills a server and what it started, and waits until it is gone.</summary>
    public static async Task EndAsync(this Process process)
    {
        if (!process.HasExited) process.Kill(entireProcessTree: true);
        await process.WaitForExitAsync();
        process.Dispose();
    }

    private static ProcessStartInfo Start(
        string program, IEnumerable<string> arguments, IEnumerable<(string Name, string Value)>? environment, string? folder)
    {
        var start = new ProcessStartInfo(program, arguments)
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            StandardInputEncoding = new UTF8Encoding(false),
            WorkingDirectory = folder ?? "",
        };
        foreach (var (name, value) in environment ?? []) start.Environment[name] = value;
        return start;
    }
}
