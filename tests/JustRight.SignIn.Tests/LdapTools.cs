using System.Text.RegularExpressions;

namespace JustRight.SignIn.Tests;

/// <summary>
/// An ordinary LDAP client of the system's own: it knows nothing of us. Passwords go to it in a file, as they should.
/// </summary>
internal static partial class LdapTools
{
    /// <summary>Searches and returns the distinguished names found; null when the client could not bind or search.</summary>
    public static async Task<IReadOnlyList<string>?> SearchAsync(
        string address, string caFolder, string bindAs, string password, string baseDn, string filter, bool startTls = false,
        string scope = "sub")
    {
        var file = Path.GetTempFileName();
        try
        {
            await File.WriteAllTextAsync(file, password);
            string[] arguments =
            [
                "-LLL", "-x", "-o", "ldif-wrap=no", "-E", "pr=100/noprompt", "-H", address, "-D", bindAs, "-y", file,
                "-b", baseDn, "-s", scope, .. startTls ? ["-ZZ"] : Array.Empty<string>(), filter, "1.1",
            ];
            var trust = ("LDAPTLS_CACERT", Path.Combine(caFolder, "ca.pem"));
            var end = await Programs.RunAsync("ldapsearch", arguments, environment: [trust]);
            if (end.Code != 0) TestContext.Current.TestOutputHelper?.WriteLine(end.Error);
            return end.Code == 0 ? [.. Name().Matches(end.Output).Select(m => m.Groups[1].Value)] : null;
        }
        finally
        {
            File.Delete(file);
        }
    }

    [GeneratedRegex("^dn:+ (.*)$", RegexOptions.Multiline)]
    private static partial Regex Name();
}
