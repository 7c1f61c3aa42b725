using System.Diagnostics;
using JustRight.Connectors.Directories.Ldap;

namespace JustRight.Tests.Shared;

/// <summary>A real inetOrgPerson directory (Debian's slapd) on loopback.</summary>
public static class SlapdServer
{
    /// <summary>Starts it in the foreground, and returns when it answers.</summary>
    /// <param name="configuration">The file of its configuration.</param>
    /// <param name="addresses">Where it listens, as it is told.</param>
    /// <param name="port">One of the ports of those, to know that it answers.</param>
    public static async Task<Process> StartAsync(string configuration, string addresses, int port)
    {
        LdapLibrary.WaitThroughSignals(); // for the connections that tests open by themselves
        // Its own log goes to the system; -d 0 keeps it in the foreground.
        var process = Programs.Serve("/usr/sbin/slapd", ["-d", "0", "-f", configuration, "-h", addresses]);
        await Waiting.UntilAsync("slapd answers", () => process.HasExited
            ? throw new InvalidOperationException($"slapd ended with code {process.ExitCode}.")
            : Loopback.AnswersAsync(port));
        return process;
    }
}
