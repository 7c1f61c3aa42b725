using System.DirectoryServices.Protocols;
using JustRight.Core.Replicas;

namespace JustRight.Connectors.Directories.Ldap;

/// <summary>When an account last signed in at one controller [MS-ADA1 2.351, lastLogon].</summary>
internal static class LdapLogons
{
    /// <summary>Reads it. An attribute that does not come may be one that the reader may not see: that is not "never".</summary>
    public static ControllerLogon Read(LdapSession session, string account)
    {
        if (session.Find(account, "lastLogon", "logonCount") is not { } found)
            return new ControllerLogon(session.Controller, $"{account} is not there, or not yet", null);
        return found.Has("lastLogon") || found.Has("logonCount")
            ? new ControllerLogon(session.Controller, null, found.FileTime("lastLogon"))
            : new ControllerLogon(session.Controller, "lastLogon may not be read", null);
    }

    /// <summary>The controllers of the domain, read-only ones among them, by their DNS names [MS-ADTS 6.1.1.3].</summary>
    public static IReadOnlyList<string> ControllersOf(LdapSession session) =>
    [
        .. session.Search(session.Root, SearchScope.Subtree, Controllers, "dNSHostName", "name")
            .Select(e => e.Text("dNSHostName") ?? e.Text("name") ?? e.Dn),
    ];

    private static readonly EntryFilter Controllers = new("primaryGroupID", ["516", "521"]);
}
