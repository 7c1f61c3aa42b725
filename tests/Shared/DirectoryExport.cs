using System.Text.RegularExpressions;

namespace JustRight.Tests.Shared;

/// <summary>What an ordinary client writes of a controller: the commands that the manual gives, as they stand there.</summary>
public static partial class DirectoryExport
{
    /// <summary>Runs them as the administrator, and returns the file.</summary>
    public static Task<string> RunAsync(Controller controller, CancellationToken cancel) =>
        RunAsync(controller, controller.Target.SignInAs, controller.Password, cancel);

    /// <summary>Runs them as somebody, and returns the file.</summary>
    public static async Task<string> RunAsync(
        Controller controller, string signInAs, string password, CancellationToken cancel)
    {
        var page = await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "docs", "directory-file.md"), cancel);
        var tested = page[page.IndexOf("are run as they stand", StringComparison.Ordinal)..];
        string[] arguments = ["-euo", "pipefail", "-c", CommandBlock().Match(tested).Groups[1].Value];
        var folder = Directory.CreateDirectory(Path.Combine(controller.Folder, $"export-{Guid.NewGuid():N}")).FullName;
        var secret = Path.Combine(folder, "secret");
        await File.WriteAllTextAsync(secret, password, cancel);
        var end = await Programs.RunAsync("bash", arguments, folder: folder, cancel: cancel, environment: [
            ("CONTROLLER", $"ldaps://{Controller.Address}"), ("READER", signInAs), ("SECRET", secret),
            ("ROOT", Controller.Domain.Root), ("LDAPTLS_CACERT", Path.Combine(controller.CaFolder, "ca.pem")),
        ]);
        end.Ended("the manual's export");
        return await File.ReadAllTextAsync(Path.Combine(folder, "directory.ldif"), cancel);
    }

    [GeneratedRegex("```sh\n(.*?)```", RegexOptions.Singleline)]
    private static partial Regex CommandBlock();
}
