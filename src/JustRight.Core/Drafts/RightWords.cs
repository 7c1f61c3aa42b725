using System.Collections.Frozen;
using System.Text.RegularExpressions;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Hosts;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Drafts;

/// <summary>A right as a need of the sheet language says it.</summary>
/// <param name="Kind">The kind of need.</param>
/// <param name="Value">Its value.</param>
public sealed record ReadRight(NeedKind Kind, string Value)
{
    /// <summary>Another database of the same instance that it is in, or null.</summary>
    public string? OtherDatabase { get; init; }

    /// <summary>For a directory need: the class of object, or null for what the act is about by itself.</summary>
    public string? Of { get; init; }

    /// <summary>For a directory need: the attributes.</summary>
    public IReadOnlyList<string> Attributes { get; init; } = [];
}

/// <summary>
/// Reads a right from the words of a vendor's guide: the names that the systems themselves show. What it does not know it does
/// not guess.
/// </summary>
public static partial class RightWords
{
    private const string Jobs = "msdb";

    /// <summary>User rights by the names under which the system lists them [MS-LSAD 3.1.1.2], in small letters.</summary>
    private static readonly FrozenDictionary<string, ReadRight> UserRights = new (string Words, string Value)[]
    {
        ("log on as a service", "service"), ("logon as a service", "service"), ("log on as service", "service"),
        ("logon as service", "service"), ("log on as a batch job", "batch"), ("logon as a batch job", "batch"),
        ("log on as batch job", "batch"), ("log on locally", "interactive"), ("allow log on locally", "interactive"),
        ("allow log on through remote desktop services", "remote"), ("log on through remote desktop services", "remote"),
        ("access this computer from the network", "network"), ("act as part of the operating system", "SeTcbPrivilege"),
        ("add workstations to domain", "SeMachineAccountPrivilege"),
        ("adjust memory quotas for a process", "SeIncreaseQuotaPrivilege"),
        ("back up files and directories", "SeBackupPrivilege"),
        ("backup files and directories", "SeBackupPrivilege"), ("bypass traverse checking", "SeChangeNotifyPrivilege"),
        ("change the system time", "SeSystemtimePrivilege"), ("change the time zone", "SeTimeZonePrivilege"),
        ("create a pagefile", "SeCreatePagefilePrivilege"), ("create a token object", "SeCreateTokenPrivilege"),
        ("create global objects", "SeCreateGlobalPrivilege"),
        ("create permanent shared objects", "SeCreatePermanentPrivilege"),
        ("create symbolic links", "SeCreateSymbolicLinkPrivilege"), ("debug programs", "SeDebugPrivilege"),
        ("enable computer and user accounts to be trusted for delegation", "SeEnableDelegationPrivilege"),
        ("force shutdown from a remote system", "SeRemoteShutdownPrivilege"), ("generate security audits", "SeAuditPrivilege"),
        ("impersonate a client after authentication", "SeImpersonatePrivilege"),
        ("increase a process working set", "SeIncreaseWorkingSetPrivilege"),
        ("increase scheduling priority", "SeIncreaseBasePriorityPrivilege"),
        ("load and unload device drivers", "SeLoadDriverPrivilege"), ("lock pages in memory", "SeLockMemoryPrivilege"),
        ("manage auditing and security log", "SeSecurityPrivilege"), ("modify an object label", "SeRelabelPrivilege"),
        ("modify firmware environment values", "SeSystemEnvironmentPrivilege"),
        ("perform volume maintenance tasks", "SeManageVolumePrivilege"),
        ("profile single process", "SeProfileSingleProcessPrivilege"),
        ("profile system performance", "SeSystemProfilePrivilege"),
        ("remove computer from docking station", "SeUndockPrivilege"),
        ("replace a process level token", "SeAssignPrimaryTokenPrivilege"),
        ("restore files and directories", "SeRestorePrivilege"), ("shut down the system", "SeShutdownPrivilege"),
        ("synchronize directory service data", "SeSyncAgentPrivilege"),
        ("take ownership of files or other objects", "SeTakeOwnershipPrivilege"),
        ("access credential manager as a trusted caller", "SeTrustedCredManAccessPrivilege"),
    }.ToFrozenDictionary(
        r => r.Words,
        r => new ReadRight(r.Value.StartsWith("Se", StringComparison.Ordinal) ? NeedKind.Privilege : NeedKind.Logon, r.Value));

    /// <summary>What a policy calls the denying twins.</summary>
    private static readonly FrozenDictionary<string, string> Denials = new Dictionary<string, string>
    {
        ["deny log on as a service"] = "service",
        ["deny log on as a batch job"] = "batch",
        ["deny log on locally"] = "interactive",
        ["deny log on through remote desktop services"] = "remote",
        ["deny access to this computer from the network"] = "network",
    }.ToFrozenDictionary();

    /// <summary>Groups that every domain is born with [MS-ADTS 6.1.1.6].</summary>
    private static readonly FrozenSet<string> DomainGroups = new[]
    {
        "Domain Admins", "Domain Users", "Domain Guests", "Domain Computers", "Domain Controllers", "Enterprise Admins",
        "Schema Admins", "Cert Publishers", "Group Policy Creator Owners", "Protected Users", "DnsAdmins",
    }.ToFrozenSet(StringComparer.OrdinalIgnoreCase);

    /// <summary>What another word for the local administrators is.</summary>
    private static readonly string[] LocalAdministrators =
        ["local administrator", "local administrators", "local admin", "local admins", "administrator rights", "administrators"];

    /// <summary>A right, or null where the words are not those of one.</summary>
    /// <param name="text">One right, as the table writes it.</param>
    public static ReadRight? Read(string text)
    {
        var words = Bare(text);
        return UserRight(words) ?? OfDatabases(words) ?? Group(words) ?? OfDirectory(words);
    }

    /// <summary>
    /// The rights in a cell, each with its own text, and a null for what is none: parted by lines and semicolons, and by commas
    /// where every part is a right by itself.
    /// </summary>
    public static IEnumerable<(string Text, ReadRight? Right)> All(string cell)
    {
        const StringSplitOptions Parting = StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries;
        foreach (var line in cell.Split(['\n', ';', '•'], Parting))
        {
            if (Read(line) is { } whole)
            {
                yield return (line, whole);
                continue;
            }

            var parts = line.Split(',', Parting);
            if (parts.Length > 1 && parts.All(p => Read(p) is not null))
                foreach (var part in parts) yield return (part, Read(part));
            else
                yield return (line, null);
        }
    }

    private static ReadRight? UserRight(string words)
    {
        if (UserRights.GetValueOrDefault(words.ToLowerInvariant()) is { } known) return known;
        if (Denials.GetValueOrDefault(words.ToLowerInvariant()) is { } denied) return new ReadRight(NeedKind.KeptOut, denied);
        var constant = Constant().Match(words).Value;
        if (constant.Length == 0) return null;
        if (LogonRights.OfConstant(constant) is { } logon)
            return new ReadRight(logon.Denies ? NeedKind.KeptOut : NeedKind.Logon, logon.Type);
        return Privileges.Find(constant) is { } privilege ? new ReadRight(NeedKind.Privilege, privilege) : null;
    }

    private static ReadRight? OfDatabases(string words)
    {
        var name = DatabaseDress().Replace(words, "").Trim();
        if (SqlServerPermissions.InstanceRoles.Select(r => r.Role).Append("sysadmin")
            .FirstOrDefault(r => Same(r, name)) is { } role)
            return new ReadRight(NeedKind.InstanceRole, role);
        if (SqlServerPermissions.DatabaseRoles.FirstOrDefault(r => Same(r.Role, name)) is { } fixedRole)
            return new ReadRight(NeedKind.DatabaseRole, fixedRole.Role);
        if (AgentRole().IsMatch(name))
            return new ReadRight(NeedKind.DatabaseRole, AgentRoles.First(r => Same(r, name))) { OtherDatabase = Jobs };
        if (Same(name, "dbo") || Same(words, "database owner") || Same(words, "owner of the database"))
            return new ReadRight(NeedKind.DatabaseOwner, "yes");
        // both have some: the instance's own is the rarer word, and the wider right
        var permission = name.ToUpperInvariant();
        if (permission == SqlServerPermissions.Control) return null; // of what?
        return SqlServerPermissions.Of(SqlServerClass.Database, permission) is not null
                ? new ReadRight(NeedKind.DatabasePermission, permission)
            : SqlServerPermissions.Of(SqlServerClass.Server, permission) is not null
                ? new ReadRight(NeedKind.InstancePermission, permission)
            : null;
    }

    private static ReadRight? Group(string words)
    {
        var name = GroupDress().Replace(words, "").Trim();
        if (LocalAdministrators.Contains(name.ToLowerInvariant())) return new ReadRight(NeedKind.LocalGroup, "Administrators");
        if (DomainGroups.TryGetValue(name, out var domain)) return new ReadRight(NeedKind.DomainGroup, domain);
        var local = name.StartsWith("local ", StringComparison.OrdinalIgnoreCase) ? name["local ".Length..] : name;
        return BuiltInGroups.AllNames.FirstOrDefault(g => Same(g, local)) is { } group
            ? new ReadRight(NeedKind.LocalGroup, group)
            : null;
    }

    private static ReadRight? OfDirectory(string words)
    {
        if (Attributes().Match(words) is { Success: true } written)
        {
            var act = $"{written.Groups["act"].Value.ToLowerInvariant()} attributes";
            var names = written.Groups["names"].Value.Split([',', ' '], StringSplitOptions.RemoveEmptyEntries)
                .Where(n => !Same(n, "and")).ToList();
            return new ReadRight(NeedKind.Directory, act) { Attributes = names, Of = ClassOf(written.Groups["of"].Value) };
        }

        if (Objects().Match(words) is { Success: true } objects)
            return new ReadRight(NeedKind.Directory, objects.Groups["act"].Value.ToLowerInvariant())
            {
                Of = ClassOf(objects.Groups["of"].Value),
            };
        if (FullControl().Match(words) is { Success: true } full)
            return new ReadRight(NeedKind.Directory, "full control") { Of = ClassOf(full.Groups["of"].Value) };
        var value = ResetPassword().IsMatch(words) ? "reset password"
            : Unlock().IsMatch(words) ? "unlock"
            : JoinComputers().IsMatch(words) ? "join computers"
            : ChangeMembership().IsMatch(words) ? "change membership"
            : null;
        return value is null ? null : new ReadRight(NeedKind.Directory, value);
    }

    private static string? ClassOf(string word) => word.ToLowerInvariant().TrimEnd('s') is { Length: > 0 } one ? one : null;

    private static readonly string[] AgentRoles = ["SQLAgentUserRole", "SQLAgentReaderRole", "SQLAgentOperatorRole"];

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);

    /// <summary>The words without what guides put around them: quotes, a full stop, spaces, the article.</summary>
    private static string Bare(string text) =>
        Frame().Replace(Spaces().Replace(text, " ").Trim(' ', '.'), "").Trim(' ', '"', '\'', '“', '”');

    [GeneratedRegex(@"\s+")]
    private static partial Regex Spaces();

    [GeneratedRegex(@"^(?:user\s+right:?\s+|[-*–]\s*|the\s+)+|\s+(?:user\s+)?rights?$", RegexOptions.IgnoreCase)]
    private static partial Regex Frame();

    [GeneratedRegex(@"\bSe[A-Za-z]+(?:Privilege|LogonRight)\b")]
    private static partial Regex Constant();

    [GeneratedRegex(
        @"^(?:(?:member(?:ship)?\s+(?:of|in)|the|SQL(?:\s+Server)?)\s+)+|(?:\s+(?:fixed|server|database|role|permission))+$",
        RegexOptions.IgnoreCase)]
    private static partial Regex DatabaseDress();

    [GeneratedRegex(@"^SQLAgent(?:User|Reader|Operator)Role$", RegexOptions.IgnoreCase)]
    private static partial Regex AgentRole();

    [GeneratedRegex(
        @"^(?:(?:member(?:ship)?\s+(?:of|in)|(?:must\s+be|is)(?:\s+an?)?|added\s+to|the)\s+)+"
        + @"|\s+(?:security\s+)?(?:group|rights?)$",
        RegexOptions.IgnoreCase)]
    private static partial Regex GroupDress();

    [GeneratedRegex(
        @"^(?<act>read|write)(?:\s+(?:the\s+)?attributes?)?:?\s+(?:the\s+)?(?:attributes?\s+)?"
        + @"(?<names>[A-Za-z][\w-]*(?:(?:,\s*|\s+and\s+)[A-Za-z][\w-]*)*)"
        + @"\s+of\s+(?:the\s+)?(?<of>users?|groups?|computers?|contacts?)(?:\s+objects?)?$",
        RegexOptions.IgnoreCase)]
    private static partial Regex Attributes();

    [GeneratedRegex(@"^(?<act>create|delete|move)\s+(?<of>users?|groups?|computers?|contacts?)(?:\s+(?:objects?|accounts?))?$",
        RegexOptions.IgnoreCase)]
    private static partial Regex Objects();

    [GeneratedRegex(@"^full\s+control\s+(?:of|over)\s+(?<of>users?|groups?|computers?|contacts?)(?:\s+(?:objects?|accounts?))?$",
        RegexOptions.IgnoreCase)]
    private static partial Regex FullControl();

    [GeneratedRegex(@"^reset\s+(?:user\s+)?passwords?(?:\s+of\s+users?)?$", RegexOptions.IgnoreCase)]
    private static partial Regex ResetPassword();

    [GeneratedRegex(@"^unlock(?:\s+(?:user\s+)?(?:accounts?|users?))?$", RegexOptions.IgnoreCase)]
    private static partial Regex Unlock();

    [GeneratedRegex(@"^join\s+computers?(?:\s+to\s+the\s+domain)?$", RegexOptions.IgnoreCase)]
    private static partial Regex JoinComputers();

    [GeneratedRegex(@"^(?:change|modify)\s+(?:group\s+)?memberships?(?:\s+of\s+groups?)?$", RegexOptions.IgnoreCase)]
    private static partial Regex ChangeMembership();
}
