using System.Diagnostics;
using System.Text.RegularExpressions;

namespace JustRight.Connectors.Tests;

/// <summary>What an ordinary client writes of a controller: the commands that the manual gives, as they stand there.</summary>
public static partial class DirectoryExport
{
    /// <summary>Runs them, and returns the file.</summary>
    public static async Task<string> RunAsync(Controller controller, CancellationToken cancel)
    {
        var page = await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "docs", "directory-file.md"), cancel);
        var commands = CommandBlock().Match(page[page.IndexOf("are run as they stand", StringComparison.Ordinal)..]).Groups[1].Value;
        var folder = Directory.CreateDirectory(Path.Combine(controller.Folder, $"export-{Guid.NewGuid():N}")).FullName;
        var secret = Path.Combine(folder, "secret");
        await File.WriteAllTextAsync(secret, controller.Password, cancel);
        var start = new ProcessStartInfo("bash", ["-euo", "pipefail", "-c", commands]) { WorkingDirectory = folder, RedirectStandardError = true };
        foreach (var (name, value) in new[]
        {
            ("CONTROLLER", $"ldaps://{Controller.Address}"), ("READER", controller.Target.SignInAs), ("SECRET", secret), ("ROOT", Controller.Domain.Root), ("LDAPTLS_CACERT", Path.Combine(controller.CaFolder, "ca.pem")),
        }) start.Environment[name] = value;
        using var process = Process.Start(start)!;
        var error = await process.StandardError.ReadToEndAsync(cancel);
        await process.WaitForExitAsync(cancel);
        process.ExitCode.ShouldBe(0, error);
        return await File.ReadAllTextAsync(Path.Combine(folder, "directory.ldif"), cancel);
    }

    [GeneratedRegex("```sh\n(.*?)```", RegexOptions.Singleline)]
    private static partial Regex CommandBlock();
}
