using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Hosts;
using JustRight.Core.Sheets;

namespace JustRight.Core.Rights;

/// <summary>
/// One right at one concrete place of an estate. Two rights are the same when their <see cref="Key"/> is: names of hosts,
/// groups, instances and roles are compared without regard to case, as the systems themselves do.
/// </summary>
public abstract class Right : IEquatable<Right>, IComparable<Right>
{
    private protected Right(NeedKind? kind, string place, string words, string key)
    {
        Kind = kind;
        Place = place;
        Words = words;
        Key = key.ToLowerInvariant();
    }

    /// <summary>The kind of need that asks for it, or null for what every account needs of itself.</summary>
    public NeedKind? Kind { get; }

    /// <summary>The host, instance, database or domain it holds at.</summary>
    public string Place { get; }

    /// <summary>The host it holds on, or null for a right elsewhere.</summary>
    public string? OnHost => Kind is NeedKind.Logon or NeedKind.Privilege or NeedKind.LocalGroup or NeedKind.Service ? Place : null;

    /// <summary>The database instance it holds at, or in a database of; null for a right elsewhere.</summary>
    public string? AtInstance => this switch
    {
        InstanceRoleRight r => r.Instance,
        InstancePermissionRight r => r.Instance,
        DatabaseRoleRight r => r.Instance,
        DatabaseOwnerRight r => r.Instance,
        DatabasePermissionRight r => r.Instance,
        _ => null,
    };

    /// <summary>A few words for a table cell, without the place: <c>Administrators</c>, <c>log on as a service</c>.</summary>
    public string Words { get; }

    /// <summary>Its stable identity, also used on the wire.</summary>
    public string Key { get; }

    /// <summary>What <see cref="Implication"/> found out about it, kept since a survey's few rights are asked about for every account.</summary>
    internal IReadOnlyList<Right>? Above { get; set; }

    /// <inheritdoc cref="Above"/>
    internal IReadOnlyList<Right>? Covering { get; set; }

    /// <inheritdoc cref="Above"/>
    internal IReadOnlyList<Right>? Entrances { get; set; }

    /// <inheritdoc/>
    public bool Equals(Right? other) => other is not null && Key == other.Key;

    /// <inheritdoc/>
    public override bool Equals(object? obj) => Equals(obj as Right);

    /// <inheritdoc/>
    public override int GetHashCode() => Key.GetHashCode(StringComparison.Ordinal);

    /// <inheritdoc/>
    public int CompareTo(Right? other) => string.CompareOrdinal(Key, other?.Key);

    /// <summary>The right with its place.</summary>
    public override string ToString() => $"{Words} on {Place}";

    /// <inheritdoc cref="Equals(Right)"/>
    public static bool operator ==(Right? a, Right? b) => a is null ? b is null : a.Equals(b);

    /// <summary>Not the same right.</summary>
    public static bool operator !=(Right? a, Right? b) => !(a == b);

    /// <summary>Ordered by key.</summary>
    public static bool operator <(Right a, Right b) => a.CompareTo(b) < 0;

    /// <summary>Ordered by key.</summary>
    public static bool operator >(Right a, Right b) => a.CompareTo(b) > 0;

    /// <summary>Ordered by key.</summary>
    public static bool operator <=(Right a, Right b) => a.CompareTo(b) <= 0;

    /// <summary>Ordered by key.</summary>
    public static bool operator >=(Right a, Right b) => a.CompareTo(b) >= 0;
}

/// <summary>A log-on right on a host.</summary>
public sealed class LogonRight(string host, string type)
    : Right(NeedKind.Logon, host, LogonRights.Words(type), $"logon:{type}@{host}")
{
    /// <summary>The host.</summary>
    public string Host { get; } = host;

    /// <summary><c>service</c>, <c>batch</c>, <c>interactive</c>, <c>remote</c> or <c>network</c>.</summary>
    public string Type { get; } = type;
}

/// <summary>A privilege on a host.</summary>
public sealed class PrivilegeRight(string host, string constant)
    : Right(NeedKind.Privilege, host, Privileges.Words(constant), $"privilege:{constant}@{host}")
{
    /// <summary>The host.</summary>
    public string Host { get; } = host;

    /// <summary>Such as <c>SeAssignPrimaryTokenPrivilege</c>.</summary>
    public string Constant { get; } = constant;
}

/// <summary>What a service is asked.</summary>
public enum ServiceAspect
{
    /// <summary>It runs as the account from its next start on.</summary>
    Identity,

    /// <summary>It runs as that now: no restart is pending.</summary>
    Restarted,

    /// <summary>It starts when it should.</summary>
    Start,

    /// <summary>It waits for the services it should, and nothing stands in their way.</summary>
    Order,
}

/// <summary>Something that a service of a host must be, judged like a right of the account it runs as.</summary>
/// <param name="wanted">What is wanted, in words.</param>
public sealed class ServiceRight(string host, string service, ServiceAspect aspect, string wanted)
    : Right(NeedKind.Service, host, wanted, $"service:{service}/{aspect}@{host}")
{
    /// <summary>The host.</summary>
    public string Host { get; } = host;

    /// <summary>The service's short name.</summary>
    public string Service { get; } = service;

    /// <summary>What is asked of it.</summary>
    public ServiceAspect Aspect { get; } = aspect;
}

/// <summary>Membership of a local group of a host.</summary>
public sealed class LocalGroupRight(string host, string group) : Right(NeedKind.LocalGroup, host, group, $"local-group:{group}@{host}")
{
    /// <summary>The host.</summary>
    public string Host { get; } = host;

    /// <summary>The local group.</summary>
    public string Group { get; } = group;
}

/// <summary>Membership of a domain group.</summary>
public sealed class DomainGroupRight(string domain, string group) : Right(NeedKind.DomainGroup, domain, group, $"domain-group:{domain}\\{group}")
{
    /// <summary>The group's logon name.</summary>
    public string Group { get; } = group;
}

/// <summary>A right over objects of one class below a branch of the directory.</summary>
/// <param name="attributes">The attributes, for acts that name them.</param>
/// <param name="of">The class of object.</param>
/// <param name="branch">The distinguished name of the branch.</param>
public sealed class DirectoryRight(DirectoryAct act, IReadOnlyList<string> attributes, string of, string branch)
    : Right(NeedKind.Directory, branch, WordsOf(act, attributes, of), $"directory:{WordsOf(act, attributes, of)}@{branch}")
{
    /// <summary>What it lets the account do.</summary>
    public DirectoryAct Act { get; } = act;

    /// <summary>The attributes.</summary>
    public IReadOnlyList<string> Attributes { get; } = attributes;

    /// <summary>The class of object.</summary>
    public string Of { get; } = of;

    /// <summary>The branch.</summary>
    public string Branch { get; } = branch;

    /// <inheritdoc/>
    public override string ToString() => $"{Words} below {Branch}";

    private static string WordsOf(DirectoryAct act, IReadOnlyList<string> attributes, string of) => act switch
    {
        DirectoryAct.WriteAttributes => $"write {string.Join(", ", attributes)} of {of}",
        DirectoryAct.ReadAttributes => $"read {string.Join(", ", attributes)} of {of}",
        DirectoryAct.JoinComputers => "join computers",
        _ => $"{DirectoryActs.ByAct[act].Words} of {of}",
    };
}

/// <summary>A right that an entry of an access list gives, found on an object of the directory; no need has this shape.</summary>
/// <param name="words">What it lets its holder do.</param>
/// <param name="where">The distinguished name of the object that carries the entry; or of the branch, when many carry the same.</param>
/// <param name="rule">The entry.</param>
/// <param name="objects">How many objects carry it.</param>
public sealed class EntryRight(string words, string where, AccessRule rule, int objects)
    : Right(NeedKind.Directory, where, objects == 1 ? words : $"{words}, by an entry on each of {objects} objects", $"entry:{rule.Key}@{(objects == 1 ? "" : "below ")}{where}")
{
    /// <summary>The object that carries the entry, or the branch in which many do.</summary>
    public string Where { get; } = where;

    /// <summary>The entry.</summary>
    public AccessRule Rule { get; } = rule;

    /// <summary>How many objects carry it.</summary>
    public int Objects { get; } = objects;
}

/// <summary>Ownership of objects of the directory: an owner may change the access list [MS-ADTS 5.1.3.3.2].</summary>
/// <param name="where">The distinguished name of the object; or of the branch, when there are many.</param>
/// <param name="objects">How many objects.</param>
public sealed class OwnerRight(string where, int objects)
    : Right(NeedKind.Directory, where, objects == 1 ? "change its access list, as its owner" : $"change the access lists of {objects} objects, as their owner", $"owner@{(objects == 1 ? "" : "below ")}{where}")
{
    /// <summary>The object, or the branch.</summary>
    public string Where { get; } = where;
}

/// <summary>A right of a kind that this release cannot judge: always unseen.</summary>
public sealed class UnjudgedRight(NeedKind kind, string value, string place)
    : Right(kind, place, $"{NeedKinds.ByKind[kind].Key}: {value}", $"{NeedKinds.ByKind[kind].Key}:{value}@{place}");

/// <summary>What an account needs of itself.</summary>
public enum AccountAspect
{
    /// <summary>It exists.</summary>
    Exists,

    /// <summary>It is in the planned branch.</summary>
    Branch,

    /// <summary>Its password expires, or does not, as planned.</summary>
    PasswordExpiry,

    /// <summary>It may not change its own password, as planned.</summary>
    PasswordChange,

    /// <summary>Its description is the planned one.</summary>
    Description,

    /// <summary>It is neither disabled, expired, locked, nor is its password expired.</summary>
    Usable,
}

/// <summary>A need of the account itself, judged like a right.</summary>
public sealed class AccountRight(string domain, AccountAspect aspect) : Right(null, domain, AspectWords(aspect), $"account:{aspect}")
{
    /// <summary>Which need.</summary>
    public AccountAspect Aspect { get; } = aspect;

    private static string AspectWords(AccountAspect aspect) => aspect switch
    {
        AccountAspect.Exists => "exists",
        AccountAspect.Branch => "in its branch",
        AccountAspect.PasswordExpiry => "password expiry",
        AccountAspect.PasswordChange => "own password change",
        AccountAspect.Description => "description",
        _ => "usable",
    };
}
