using System.Runtime.InteropServices;

namespace JustRight.Connectors.Directories.Ldap;

/// <summary>
/// What the framework's LDAP client leaves unset in the system's library that it works with (OpenLDAP's libldap).
/// </summary>
internal static class LdapLibrary
{
    /// <summary><c>LDAP_OPT_RESTART</c> of ldap.h.</summary>
    private const int Restart = 0x0009;

    /// <summary>The library's names, the newest first, as the framework looks for it.</summary>
    private static readonly string[] Names = ["libldap.so.2", "libldap-2.5.so.0", "libldap-2.4.so.2"];

    private static readonly Lazy<bool> Kept = new(SetRestart);

    [UnmanagedFunctionPointer(CallingConvention.Cdecl)]
    private delegate int SetOption(nint connection, int option, nint value);

    /// <summary>
    /// Lets every connection that is opened from now on wait on when a signal interrupts it. Unset, the library takes an
    /// interrupted wait for a server that went away ("The LDAP server is unavailable"), and a busy process has signals all the
    /// time: of a program it started that ended, or of the runtime itself when it collects garbage.
    /// </summary>
    /// <returns>Whether a library was there to set.</returns>
    public static bool WaitThroughSignals() => Kept.Value;

    private static bool SetRestart()
    {
        if (OperatingSystem.IsWindows()) return false;
        var set = false;
        foreach (var name in Names)
        {
            if (!NativeLibrary.TryLoad(name, out var library)) continue;
            if (!NativeLibrary.TryGetExport(library, "ldap_set_option", out var function)) continue;
            // 0: what connections begin with
            set |= Marshal.GetDelegateForFunctionPointer<SetOption>(function)(0, Restart, 1) == 0;
        }

        return set;
    }
}
