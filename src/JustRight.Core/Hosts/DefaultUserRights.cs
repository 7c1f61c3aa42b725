using System.Collections.Frozen;
using JustRight.Core.Directory;

namespace JustRight.Core.Hosts;

/// <summary>Who holds which log-on right or privilege on a new member server, for those that products ask for.</summary>
public static class DefaultUserRights
{
    private const string Administrators = "S-1-5-32-544", BackupOperators = "S-1-5-32-551", Users = "S-1-5-32-545", LocalService = "S-1-5-19", NetworkService = "S-1-5-20", Service = "S-1-5-6";

    private static readonly FrozenDictionary<string, IReadOnlyList<Sid>> Lists = new (string Constant, string[] Holders)[]
    {
        ("SeServiceLogonRight", ["S-1-5-80-0"]),
        ("SeBatchLogonRight", [Administrators, BackupOperators, "S-1-5-32-559"]),
        ("SeInteractiveLogonRight", [Administrators, BackupOperators, Users]),
        ("SeRemoteInteractiveLogonRight", [Administrators, "S-1-5-32-555"]),
        ("SeNetworkLogonRight", ["S-1-1-0", Administrators, BackupOperators, Users]),
        ("SeAssignPrimaryTokenPrivilege", [LocalService, NetworkService]),
        ("SeIncreaseQuotaPrivilege", [Administrators, LocalService, NetworkService]),
        ("SeImpersonatePrivilege", [Administrators, LocalService, NetworkService, Service]),
        ("SeAuditPrivilege", [LocalService, NetworkService]),
        ("SeCreateGlobalPrivilege", [Administrators, LocalService, NetworkService, Service]),
        ("SeBackupPrivilege", [Administrators, BackupOperators]),
        ("SeRestorePrivilege", [Administrators, BackupOperators]),
        ("SeDebugPrivilege", [Administrators]),
        ("SeSecurityPrivilege", [Administrators]),
        ("SeManageVolumePrivilege", [Administrators]),
        ("SeIncreaseBasePriorityPrivilege", [Administrators]),
        ("SeLockMemoryPrivilege", []),
        ("SeTcbPrivilege", []),
    }.ToFrozenDictionary(r =>
        r.Constant, r => (IReadOnlyList<Sid>)[.. r.Holders.Select(Sid.Parse)], StringComparer.OrdinalIgnoreCase);

    /// <summary>The constants of all rights that the table has.</summary>
    public static IEnumerable<string> Constants => Lists.Keys;

    /// <summary>The holders of a right on a new member server, or null when this table does not say.</summary>
    public static IReadOnlyList<Sid>? Of(string constant) => Lists.GetValueOrDefault(constant);
}
