using System.Collections.Frozen;

namespace JustRight.Core.Hosts;

/// <summary>The privileges a token can carry [MS-LSAD 3.1.1.2.1], with what each lets its holder do.</summary>
public static class Privileges
{
    private static readonly (string Constant, string Words, int Points)[] Table =
    [
        ("SeAssignPrimaryTokenPrivilege", "start processes as another account", 300),
        ("SeAuditPrivilege", "write to the security log", 20),
        ("SeBackupPrivilege", "read every file, for backup", 350),
        ("SeChangeNotifyPrivilege", "traverse folders without list access", 1),
        ("SeCreateGlobalPrivilege", "create global objects", 10),
        ("SeCreatePagefilePrivilege", "create a page file", 100),
        ("SeCreatePermanentPrivilege", "create permanent shared objects", 100),
        ("SeCreateSymbolicLinkPrivilege", "create symbolic links", 60),
        ("SeCreateTokenPrivilege", "make tokens of any account", 480),
        ("SeDebugPrivilege", "open the memory of every process", 470),
        ("SeDelegateSessionUserImpersonatePrivilege", "impersonate another user of the same session", 100),
        ("SeEnableDelegationPrivilege", "trust accounts for delegation", 450),
        ("SeImpersonatePrivilege", "act as a client that signed in to it", 200),
        ("SeIncreaseBasePriorityPrivilege", "raise the priority of processes", 40),
        ("SeIncreaseQuotaPrivilege", "set the memory quota of processes", 30),
        ("SeIncreaseWorkingSetPrivilege", "raise its own working set", 5),
        ("SeLoadDriverPrivilege", "load device drivers", 470),
        ("SeLockMemoryPrivilege", "keep pages in memory", 30),
        ("SeMachineAccountPrivilege", "join computers to the domain", 100),
        ("SeManageVolumePrivilege", "manage volumes", 250),
        ("SeProfileSingleProcessPrivilege", "measure one process", 20),
        ("SeRelabelPrivilege", "change the integrity label of objects", 200),
        ("SeRemoteShutdownPrivilege", "shut down the host remotely", 80),
        ("SeRestorePrivilege", "write every file, for restoring", 460),
        ("SeSecurityPrivilege", "manage auditing and read the security log", 150),
        ("SeShutdownPrivilege", "shut the host down", 60),
        ("SeSyncAgentPrivilege", "read the whole directory, for synchronizing", 440),
        ("SeSystemEnvironmentPrivilege", "change firmware settings", 200),
        ("SeSystemProfilePrivilege", "measure the whole host", 30),
        ("SeSystemtimePrivilege", "set the clock", 60),
        ("SeTakeOwnershipPrivilege", "take ownership of any object", 460),
        ("SeTcbPrivilege", "act as part of the operating system", 490),
        ("SeTimeZonePrivilege", "set the time zone", 5),
        ("SeTrustedCredManAccessPrivilege", "read stored credentials as a trusted caller", 450),
        ("SeUndockPrivilege", "undock the host", 1),
    ];

    private static readonly FrozenDictionary<string, (string Constant, string Words, int Points)> ByConstant =
        Table.ToFrozenDictionary(r => r.Constant, StringComparer.OrdinalIgnoreCase);

    /// <summary>Every constant, in the order of the alphabet.</summary>
    public static IReadOnlyList<string> Constants { get; } = [.. Table.Select(r => r.Constant)];

    /// <summary>The constant as the protocol writes it, or null when it is no privilege.</summary>
    public static string? Find(string constant) => ByConstant.TryGetValue(constant, out var row) ? row.Constant : null;

    /// <summary>What it lets its holder do, in words.</summary>
    public static string Words(string constant) => ByConstant[constant].Words;

    /// <summary>
    /// How far it reaches, on the scale of the reach of a right: from 440 on it can become an administrator of its host.
    /// </summary>
    public static int Points(string constant) => ByConstant[constant].Points;
}
