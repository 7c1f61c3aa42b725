using JustRight.Core.Rights.Directory;

namespace JustRight.Core.Surveys;

/// <summary>What was read of a database instance.</summary>
/// <param name="Unread">Why nothing could be read, or null.</param>
public sealed record InstanceSnapshot(
    string Name, string Engine, DateTimeOffset ReadAt, string? Unread, IReadOnlyList<InstanceLogin> Logins, IReadOnlyList<RoleMembers> Roles, IReadOnlyList<DatabaseSnapshot> Databases)
{
    /// <summary>An instance that could not be read.</summary>
    public static InstanceSnapshot NotRead(string name, string engine, DateTimeOffset at, string reason) => new(name, engine, at, reason, [], [], []);
}

/// <summary>A login: a domain user or a domain group that may connect.</summary>
public sealed record InstanceLogin(Sid Sid, string Name);

/// <summary>The direct members of a role: principals by SID, and other roles by name.</summary>
public sealed record RoleMembers(string Role, IReadOnlyList<Sid> Members, IReadOnlyList<string> MemberRoles);

/// <summary>What was read of one database.</summary>
/// <param name="Owner">The owner, who is the database's dbo; may be empty.</param>
public sealed record DatabaseSnapshot(string Name, Sid Owner, string? Unread, IReadOnlyList<InstanceLogin> Users, IReadOnlyList<RoleMembers> Roles);
