using System.Collections.ObjectModel;
using System.Text.Json.Serialization;
using JustRight.Core.Directory;
using JustRight.Core.Surveys;

namespace JustRight.Simulation;

/// <summary>The simulated estate as it is kept in its file. Principals are named by logon name, or by SID where they have no name.</summary>
public sealed class SimulationState
{
    /// <summary>The domain's short name.</summary>
    public required string Domain { get; set; }

    /// <summary>The domain's SID.</summary>
    public required string DomainSid { get; set; }

    /// <summary>The distinguished name of the domain.</summary>
    public required string Root { get; set; }

    /// <summary>The relative identifier the next new principal gets.</summary>
    public uint NextRid { get; set; }

    /// <summary>After how many wrong passwords an account is locked; 0 for never.</summary>
    public int LockedAfter { get; set; } = 5;

    /// <summary>How many characters a password has at least.</summary>
    public int LeastPasswordLength { get; set; } = 14;

    /// <summary>What the passwords of accounts and people that came with it begin with; their logon name follows.</summary>
    public string PasswordPrefix { get; set; } = SimulationPasswords.Prefix;

    /// <summary>Branches that exist.</summary>
    public List<string> Branches { get; set; } = [];

    /// <summary>Accounts, computers and groups.</summary>
    public SimulationPrincipals Principals { get; set; } = [];

    /// <summary>What stands on objects' own access lists, by distinguished name, in SDDL; names in braces stand for SIDs. An object not here has what its class starts with.</summary>
    [JsonObjectCreationHandling(JsonObjectCreationHandling.Populate)]
    public SortedDictionary<string, string> AccessLists { get; } = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>Policies.</summary>
    public List<SimulationPolicy> Policies { get; set; } = [];

    /// <summary>Where policies are linked.</summary>
    public List<SimulationPolicyLinks> PolicyLinks { get; set; } = [];

    /// <summary>People, groups and others in directories beside the domain.</summary>
    public List<SimulationPerson> People { get; set; } = [];

    /// <summary>When it was laid, for a rehearsal.</summary>
    public DateTimeOffset? LaidAt { get; set; }

    /// <summary>When what it was filled with was surveyed; null where it holds what is usual.</summary>
    public DateTimeOffset? SurveyedAt { get; set; }

    /// <summary>What of the estate that it is a copy of is not in it, in words.</summary>
    public List<string> Remarks { get; set; } = [];

    /// <summary>What was laid wrong on purpose, in words.</summary>
    public List<string> Mistakes { get; set; } = [];

    /// <summary>Hosts.</summary>
    public List<SimulationHost> Hosts { get; set; } = [];

    /// <summary>Database instances.</summary>
    public List<SimulationInstance> Instances { get; set; } = [];
}

/// <summary>The principals of the simulation, each found by its logon name, without regard to case.</summary>
public sealed class SimulationPrincipals() : KeyedCollection<string, SimulationPrincipal>(StringComparer.OrdinalIgnoreCase)
{
    /// <inheritdoc/>
    protected override string GetKeyForItem(SimulationPrincipal item) => item.Name;
}

/// <summary>A principal of the simulation.</summary>
public sealed class SimulationPrincipal
{
    /// <summary>Logon name.</summary>
    public required string Name { get; set; }

    /// <summary>What it is.</summary>
    [JsonConverter(typeof(JsonStringEnumConverter<PrincipalKind>))]
    public PrincipalKind Kind { get; set; }

    /// <summary>Relative identifier.</summary>
    public uint Rid { get; set; }

    /// <summary>Distinguished name.</summary>
    public required string Dn { get; set; }

    /// <summary>Description.</summary>
    public string Description { get; set; } = "";

    /// <summary>Note.</summary>
    public string Note { get; set; } = "";

    /// <summary>When it was made, or null when that is not known.</summary>
    public DateTimeOffset? CreatedAt { get; set; }

    /// <summary>Service principal names of accounts; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public List<string>? ServiceNames { get; set; }

    /// <summary>The services at which an account acts as whoever signed in to it; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public List<string>? DelegatesTo { get; set; }

    /// <summary>Whether an account is trusted for delegation to any service.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool IsTrustedForDelegation { get; set; }

    /// <summary>Primary group of accounts.</summary>
    public uint PrimaryGroupRid { get; set; }

    /// <summary>State of accounts.</summary>
    public AccountState State { get; set; }

    /// <summary>When the password of an account was last set, or null when that is not known.</summary>
    public DateTimeOffset? PasswordSetAt { get; set; }

    /// <summary>Proof of its password, for accounts made in the simulation; those that came with it have the simulated password of <see cref="SimulationPasswords"/>.</summary>
    public string? PasswordProof { get; set; }

    /// <summary>How many wrong passwords were given since the last right one.</summary>
    public int WrongPasswords { get; set; }

    /// <summary>When the last of them was.</summary>
    public DateTimeOffset? WrongPasswordAt { get; set; }

    /// <summary>When the account last signed in; null for never.</summary>
    public DateTimeOffset? LastLogon { get; set; }

    /// <summary>For how many days its password holds, by a policy of its own; 0 for what the domain's policy says.</summary>
    public int PasswordDays { get; set; }

    /// <summary>Scope of groups.</summary>
    [JsonConverter(typeof(JsonStringEnumConverter<GroupScope>))]
    public GroupScope Scope { get; set; }

    /// <summary>Whether a group carries rights.</summary>
    public bool IsSecurity { get; set; } = true;

    /// <summary>Members of a group.</summary>
    public List<string> Members { get; set; } = [];

    /// <summary>Whether <c>adminCount</c> is set: it is or was in a protected group.</summary>
    public bool IsAdminHeld { get; set; }

    /// <summary>Why the members may not be read, or null.</summary>
    public string? MembersUnread { get; set; }
}

/// <summary>An object of a directory beside the domain: a person, a group, a branch.</summary>
public sealed class SimulationPerson
{
    /// <summary>Distinguished name.</summary>
    public required string Dn { get; set; }

    /// <summary>The values of its attributes, <c>memberOf</c> not among them: it is worked out.</summary>
    public SortedDictionary<string, List<string>> Values { get; set; } = [];
}

/// <summary>A machine or server of the simulation that may not answer for a while.</summary>
public abstract class SimulationAnswering
{
    /// <summary>Name.</summary>
    public required string Name { get; set; }

    /// <summary>Why it does not answer, or null.</summary>
    public string? Unreachable { get; set; }

    /// <summary>How many more readings find it unreachable; 0 for all.</summary>
    public int UnreachableReadings { get; set; }

    /// <summary>A reading found it unreachable: what is restarting comes back after some.</summary>
    public void MissedOnce()
    {
        if (UnreachableReadings > 0 && --UnreachableReadings == 0) Unreachable = null;
    }
}

/// <summary>A host of the simulation.</summary>
public sealed class SimulationHost : SimulationAnswering
{
    /// <summary>Local groups with their members.</summary>
    public List<SimulationLocalGroup> LocalGroups { get; set; } = [];

    /// <summary>Holders of log-on rights and privileges, by constant.</summary>
    public SortedDictionary<string, List<string>> LogonRights { get; set; } = [];

    /// <summary>Services.</summary>
    public List<SimulationService> Services { get; set; } = [];

    /// <summary>Scheduled tasks that run as an account.</summary>
    public List<SimulationRunner> Tasks { get; set; } = [];

    /// <summary>Web application pools.</summary>
    public List<SimulationRunner> Pools { get; set; } = [];
}

/// <summary>A scheduled task or a web application pool of a host.</summary>
public sealed class SimulationRunner
{
    /// <summary>Name; of a task with its folder.</summary>
    public required string Name { get; set; }

    /// <summary>What it runs as.</summary>
    public required string Account { get; set; }

    /// <summary>Whether a password is kept with it.</summary>
    public bool KeepsPassword { get; set; }
}

/// <summary>A local group of a host.</summary>
public sealed class SimulationLocalGroup
{
    /// <summary>Name.</summary>
    public required string Name { get; set; }

    /// <summary>SID.</summary>
    public required string Sid { get; set; }

    /// <summary>Members.</summary>
    public List<string> Members { get; set; } = [];
}

/// <summary>A database instance of the simulation.</summary>
public sealed class SimulationInstance : SimulationAnswering
{
    /// <summary>Logins.</summary>
    public List<string> Logins { get; set; } = [];

    /// <summary>Members of roles of the instance.</summary>
    public SortedDictionary<string, List<string>> Roles { get; set; } = [];

    /// <summary>Who is granted a permission of the instance, or denied it.</summary>
    public SortedDictionary<string, List<string>> Permissions { get; set; } = [];

    /// <summary>Databases.</summary>
    public List<SimulationDatabase> Databases { get; set; } = [];
}

/// <summary>A database of the simulation.</summary>
public sealed class SimulationDatabase
{
    /// <summary>Name.</summary>
    public required string Name { get; set; }

    /// <summary>Owner, or null.</summary>
    public string? Owner { get; set; }

    /// <summary>Users.</summary>
    public List<string> Users { get; set; } = [];

    /// <summary>Members of roles of the database.</summary>
    public SortedDictionary<string, List<string>> Roles { get; set; } = [];

    /// <summary>Who is granted a permission in the database, or denied it.</summary>
    public SortedDictionary<string, List<string>> Permissions { get; set; } = [];
}
