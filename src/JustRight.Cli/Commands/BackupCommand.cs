using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>backup</c>: all that the service keeps, of one moment.</summary>
internal static class BackupCommand
{
    public static Command Make()
    {
        var to = new Option<string>("--to")
        {
            Description = "The file to make; it must not be there yet",
            HelpName = "FILE",
            Required = true,
        };
        var recipient = new Option<string?>("--recipient")
        {
            Description = "A PEM certificate: secrets, kept passwords and keys go into the backup, encrypted to it",
            HelpName = "CERT",
        };
        return CommandKit.Make(
            "backup",
            "Makes a backup while the service runs (owner)\n"
            + "Without a recipient no key, secret or password is in it. The service's own program restores it: docs/backup.md",
            ["justright backup --to sunday.backup", "justright backup --to sunday.backup --recipient keeper.pem"],
            [to, recipient], c => RunAsync(c, c.Parsed.GetRequiredValue(to), c.Parsed.GetValue(recipient)))
            .Answers(j => j.BackupMade);
    }

    private static async Task<int> RunAsync(Call call, string to, string? recipient)
    {
        if (File.Exists(to) || Directory.Exists(to))
            throw new ClientException(ExitCode.BadInput, $"{to} is there already.", "Name a new file.");
        var order = new BackupOrder { Recipient = recipient is null ? null : await InputFile.TextAsync(recipient, call.Cancel) };
        var part = $"{to}.{Guid.NewGuid():N}.part";
        try
        {
            Task Save() => call.Api.SaveAsync("backup", order, ContractsJson.Default.BackupOrder, part, call.Cancel);
            if (call.Screen.IsWatched) await call.Screen.Error.Status().StartAsync("making the backup …", _ => Save());
            else await Save();
            File.Move(part, to);
        }
        catch (Exception e) when (e is IOException and not HttpIOException or UnauthorizedAccessException)
        {
            throw new ClientException(ExitCode.BadInput, $"{to} cannot be written: {e.Message}");
        }
        finally
        {
            File.Delete(part);
        }

        var made = new BackupMade(Path.GetFullPath(to), new FileInfo(to).Length, recipient is not null);
        if (call.Screen.IsJson) call.Screen.Json(made, ContractsJson.Default.BackupMade);
        else call.Screen.Line(Markup.Escape($"{to}: {made.Bytes} bytes, {Secrecy(made)}"));
        return ExitCode.Fine;
    }

    private static string Secrecy(BackupMade made) =>
        made.HasSecrets ? "what is secret encrypted to the recipient" : "nothing secret in it";
}
