using System.Diagnostics;
using System.Text.RegularExpressions;

namespace JustRight.SignIn.Tests;

/// <summary>An ordinary LDAP client of the system's own: it knows nothing of us. Passwords go to it in a file, as they should.</summary>
internal static partial class LdapTools
{
    /// <summary>Searches and returns the distinguished names found; null when the client could not bind or search.</summary>
    public static async Task<IReadOnlyList<string>?> SearchAsync(string address, string caFolder, string bindAs, string password, string baseDn, string filter, bool startTls = false)
    {
        var file = Path.GetTempFileName();
        try
        {
            await File.WriteAllTextAsync(file, password);
            var start = new ProcessStartInfo("ldapsearch", ["-LLL", "-x", "-o", "ldif-wrap=no", "-E", "pr=100/noprompt", "-H", address, "-D", bindAs, "-y", file, "-b", baseDn, .. startTls ? ["-ZZ"] : Array.Empty<string>(), filter, "1.1"]) { RedirectStandardOutput = true, RedirectStandardError = true };
            start.Environment["LDAPTLS_CACERT"] = Path.Combine(caFolder, "ca.pem");
            using var process = Process.Start(start)!;
            var (output, error) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
            await process.WaitForExitAsync();
            if (process.ExitCode != 0) TestContext.Current.TestOutputHelper?.WriteLine(await error);
            return process.ExitCode == 0 ? [.. Name().Matches(await output).Select(m => m.Groups[1].Value)] : null;
        }
        finally
        {
            File.Delete(file);
        }
    }

    [GeneratedRegex("^dn:+ (.*)$", RegexOptions.Multiline)]
    private static partial Regex Name();
}
