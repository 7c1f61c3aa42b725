using JustRight.Core.Directory;

namespace JustRight.Core.Surveys;

/// <summary>What was read of a database instance.</summary>
/// <param name="Unread">Why nothing could be read, or null.</param>
public sealed record InstanceSnapshot(
    string Name, string Engine, DateTimeOffset ReadAt, string? Unread, IReadOnlyList<InstanceLogin> Logins,
    IReadOnlyList<RoleMembers> Roles, IReadOnlyList<DatabaseSnapshot> Databases)
{
    /// <summary>The part name that stands for all permissions of the instance.</summary>
    public const string PermissionsPart = "permissions";

    /// <summary>The host it runs on: a login may stand for a local group of that.</summary>
    public string Host { get; init; } = "";

    /// <summary>Its release as it says; empty when that was not told.</summary>
    public string Release { get; init; } = "";

    /// <summary>Who read it, as the instance calls the reader; empty when that was not told.</summary>
    public string ReadBy { get; init; } = "";

    /// <summary>Permissions granted and denied at the instance itself.</summary>
    public IReadOnlyList<PermissionEntry> Permissions { get; init; } = [];

    /// <summary>Logins of the engine's own, and what they were granted: whoever acts as one has that too.</summary>
    public IReadOnlyList<OwnPrincipal> OwnLogins { get; init; } = [];

    /// <summary>What of the instance has an owner of its own.</summary>
    public IReadOnlyList<OwnedThing> Owned { get; init; } = [];

    /// <summary>Whether contained databases let their users in without a login.</summary>
    public bool AdmitsContained { get; init; }

    /// <summary>The jobs of its agent; null when they were not asked for.</summary>
    public AgentJobs? Agent { get; init; }

    /// <summary>
    /// The catalog of an instance of the PostgreSQL family, which has roles in the place of logins, users and roles; null for
    /// the other family.
    /// </summary>
    public PostgreSqlCatalog? PostgreSql { get; init; }

    /// <summary>What could not be read, though the instance answers.</summary>
    public IReadOnlyList<UnreadPart> UnreadParts { get; init; } = [];

    /// <summary>An instance that could not be read.</summary>
    public static InstanceSnapshot NotRead(string name, string engine, DateTimeOffset at, string reason) =>
        new(name, engine, at, reason, [], [], []);
}

/// <summary>A login: a domain user, a machine, a domain group or a local group that may connect.</summary>
public sealed record InstanceLogin(Sid Sid, string Name)
{
    /// <summary>Whether it is switched off. A switched-off login keeps its user out, whatever groups have logins too.</summary>
    public bool Disabled { get; init; }

    /// <summary>Whether it may connect: what a login is born with, and what can be revoked.</summary>
    public bool MayConnect { get; init; } = true;
}

/// <summary>The direct members of a role: principals by SID, and other roles by name.</summary>
public sealed record RoleMembers(string Role, IReadOnlyList<Sid> Members, IReadOnlyList<string> MemberRoles);

/// <summary>How an entry of a permission stands.</summary>
public enum PermissionState
{
    /// <summary>Granted.</summary>
    Grant,

    /// <summary>Granted, and may be granted on.</summary>
    GrantOn,

    /// <summary>Denied, which outweighs every grant but for those who cannot be denied.</summary>
    Deny,
}

/// <summary>One entry: a permission granted or denied to a principal or to a role.</summary>
/// <param name="Permission">Such as <c>VIEW SERVER STATE</c>.</param>
/// <param name="Holder">The principal; empty when it is a role.</param>
/// <param name="Role">The role; null when it is a principal.</param>
public sealed record PermissionEntry(string Permission, PermissionState State, Sid Holder, string? Role)
{
    /// <summary>
    /// What it is on, as <see cref="SqlServerSecurable"/> writes it; null for the instance or the database itself.
    /// </summary>
    public string? On { get; init; }
}

/// <summary>A login or user of the engine's own, which is no principal of a domain.</summary>
/// <param name="Roles">The roles it is in directly.</param>
/// <param name="Permissions">What it was granted, as sheets write it.</param>
public sealed record OwnPrincipal(string Name, IReadOnlyList<string> Roles, IReadOnlyList<string> Permissions);

/// <summary>Something that has an owner of its own.</summary>
/// <param name="On">What it is, as <see cref="SqlServerSecurable"/> writes it.</param>
/// <param name="Owner">The principal; empty when it is a role, or a principal of the engine's own.</param>
/// <param name="Role">The role, or the engine's own principal; null when it is a principal.</param>
public sealed record OwnedThing(string On, Sid Owner, string? Role)
{
    /// <summary>Why no step takes away what comes of owning something.</summary>
    public static string WhyKept(string on) => $"it owns {on}: only another owner ends that";
}

/// <summary>What was read of one database.</summary>
/// <param name="Owner">The owner, who is the database's dbo; may be empty.</param>
public sealed record DatabaseSnapshot(
    string Name, Sid Owner, string? Unread, IReadOnlyList<InstanceLogin> Users, IReadOnlyList<RoleMembers> Roles)
{
    /// <summary>What the instance calls the owner, also when that is no account of a domain; null when it was not told.</summary>
    public string? OwnerName { get; init; }

    /// <summary>Permissions granted and denied in it.</summary>
    public IReadOnlyList<PermissionEntry> Permissions { get; init; } = [];

    /// <summary>Users of the engine's own, and what they were granted.</summary>
    public IReadOnlyList<OwnPrincipal> OwnUsers { get; init; } = [];

    /// <summary>What in it has an owner of its own, but for what dbo owns by coming with the database.</summary>
    public IReadOnlyList<OwnedThing> Owned { get; init; } = [];

    /// <summary>Whether it is contained: it may know its users by itself.</summary>
    public bool IsContained { get; init; }

    /// <summary>Whether the instance trusts it (TRUSTWORTHY): what its owner vouches for counts at the instance.</summary>
    public bool IsTrusted { get; init; }

    /// <summary>Whether chains of ownership go on into other databases that let them.</summary>
    public bool IsChained { get; init; }

    /// <summary>Whether whoever may connect to the instance enters as guest.</summary>
    public bool AdmitsGuests { get; init; }
}
