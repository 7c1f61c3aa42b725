using System.CommandLine;
using System.CommandLine.Help;
using JustRight.Service.Features.Backups;
using JustRight.Service.Platform.Faults;
using JustRight.Service.Platform.Settings;

namespace JustRight.Service.Hosting;

/// <summary>The program's own command line: without a command it runs the service.</summary>
internal static class ServiceCommand
{
    private const string About = """
        Just Right's service. It runs until it is told to stop.

        Settings: --JustRight:Data FOLDER, --urls http://127.0.0.1:5820, …; also as environment variables (JustRight__Data).
        docs/operations.md has all of them.

        Exit codes: 0 stopped, 2 a setting that cannot be, 3 the data folder, 4 the database, 5 the address, 6 a full disk,
        7 keys that do not fit, 8 a backup that is none.
        """;

    /// <summary>Does what the arguments say; returns the process's exit code.</summary>
    public static Task<int> RunAsync(string[] args)
    {
        var root = new Command("justright-service", About) { TreatUnmatchedTokensAsErrors = false };
        root.Add(new HelpOption());
        root.Add(new VersionOption());
        root.SetAction((_, _) => ServiceHost.RunAsync(args, Surroundings.Process));
        root.Add(Restore());
        // A stop is the service's own affair: it signs the log's head, and lets a step end. Left to the parser it is cut off.
        return root.Parse(args).InvokeAsync(new InvocationConfiguration { ProcessTerminationTimeout = null });
    }

    private static Command Restore()
    {
        var from = Named<string>("--from", "FILE", "The backup (justright backup makes one)", required: true);
        var into = Named<string>("--into", "FOLDER", "The data folder: a new one, or empty", required: true);
        var key = Named<string?>("--key", "FILE", "The recipient's certificate and key, PEM or PKCS #12");
        var keyPassword = Named<string?>("--key-password-file", "FILE", "What holds the password of that file");
        var without = new Option<bool>("--without-secrets") { Description = "Leave out the secrets that are in it" };
        var passphrase = Named<string?>(
            "--keys-passphrase-file", "FILE",
            "The passphrase that encrypts the keys in the data folder (JustRight:Keys:PassphraseFile)");
        var certificate = Named<string?>(
            "--keys-certificate", "FILE", "The certificate that encrypts them (JustRight:Keys:Certificate)");
        var certificatePassword = Named<string?>(
            "--keys-certificate-password-file", "FILE", "What holds the password of that file");
        var command = new Command(
            "restore",
            "Makes a data folder of a backup, and checks it before it is one: parts, database, log, and that each secret\n"
            + "opens\n\n"
            + "Example: justright-service restore --from sunday.backup --into /var/lib/justright --key keeper.pem")
        {
            from, into, key, keyPassword, without, passphrase, certificate, certificatePassword,
        };
        command.SetAction((parsed, cancel) => TellAsync(
            new RestoreOrder(
                parsed.GetRequiredValue(from), parsed.GetRequiredValue(into), parsed.GetValue(key), parsed.GetValue(keyPassword),
                parsed.GetValue(without),
                new KeySettings
                {
                    PassphraseFile = parsed.GetValue(passphrase),
                    Certificate = parsed.GetValue(certificate),
                    CertificatePasswordFile = parsed.GetValue(certificatePassword),
                }),
            cancel));
        return command;
    }

    private static Option<T> Named<T>(string name, string value, string description, bool required = false) =>
        new(name) { Description = description, HelpName = value, Required = required };

    private static async Task<int> TellAsync(RestoreOrder order, CancellationToken cancel)
    {
        try
        {
            foreach (var line in await Restoring.RunAsync(order, cancel)) await Console.Out.WriteLineAsync(line);
            return 0;
        }
        catch (Exception e) when (StartFault.Of(e) is { } fault)
        {
            await Console.Error.WriteLineAsync(fault.Message);
            return fault.Code;
        }
    }
}
