using JustRight.Core.Hosts;
using JustRight.Core.Rights;

namespace JustRight.Core.Engines.Hosts;

/// <summary>The rights that the lists of user rights of a host are about.</summary>
public static class HostLists
{
    /// <summary>
    /// The right on a host that a constant gives or denies, log-on right or privilege; null for a constant that is neither.
    /// </summary>
    public static (Right Right, bool Denies)? RightOf(string constant, string host)
    {
        if (LogonRights.OfConstant(constant) is { } logon) return logon.Denies ? (new KeptOutRight(host, logon.Type), true)
            : (new LogonRight(host, logon.Type), false);
        return Privileges.Find(constant) is { } privilege ? (new PrivilegeRight(host, privilege), false) : null;
    }
}
