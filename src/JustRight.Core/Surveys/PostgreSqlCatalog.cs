namespace JustRight.Core.Surveys;

/// <summary>
/// What was read of an instance of the PostgreSQL family: its roles, what they hold, and as whom the domain's accounts may sign
/// in.
/// </summary>
public sealed record PostgreSqlCatalog(
    IReadOnlyList<PostgreSqlRole> Roles, IReadOnlyList<PostgreSqlMembership> Memberships,
    IReadOnlyList<PostgreSqlDatabase> Databases,
    IReadOnlyList<SignInRule> SignInRules, IReadOnlyList<NameMapLine> NameMap)
{
    /// <summary>Why rules of sign-in or the name map could not be read, or null.</summary>
    public string? SignInUnread { get; init; }
}

/// <summary>What a role may do by itself [PostgreSQL, Role Attributes]. Members do not inherit these.</summary>
[Flags]
public enum RoleAttributes
{
    /// <summary>Nothing.</summary>
    None = 0,

    /// <summary>Everything, without any check.</summary>
    Superuser = 1,

    /// <summary>
    /// Has at once what the roles it is in hold. Up to release 15 for all memberships; later each says so itself.
    /// </summary>
    Inherit = 2,

    /// <summary>Creates and changes roles.</summary>
    CreateRole = 4,

    /// <summary>Creates databases.</summary>
    CreateDatabase = 8,

    /// <summary>Signs in.</summary>
    Login = 16,

    /// <summary>Streams replication.</summary>
    Replication = 32,

    /// <summary>Sees rows whatever their policies say.</summary>
    BypassRowSecurity = 64,
}

/// <summary>A role: a user and a group at once.</summary>
public sealed record PostgreSqlRole(string Name, RoleAttributes Attributes);

/// <summary>That a role is in another.</summary>
/// <param name="Inherit">Whether the member has what the role holds without more ado.</param>
/// <param name="Set">Whether the member may become the role by SET ROLE.</param>
/// <param name="Admin">Whether the member may put others in.</param>
public sealed record PostgreSqlMembership(string Member, string Role, bool Inherit, bool Set, bool Admin);

/// <summary>One privilege given on something.</summary>
/// <param name="Grantee">The role; null for everybody (PUBLIC).</param>
/// <param name="Privilege">Such as <c>SELECT</c>.</param>
/// <param name="GrantOn">Whether the grantee may grant it on.</param>
public sealed record PrivilegeEntry(string? Grantee, string Privilege, bool GrantOn);

/// <summary>A database.</summary>
/// <param name="Entries">What is given on it, with what the engine gives by default written out.</param>
/// <param name="Unread">Why what is in it could not be read, or null.</param>
public sealed record PostgreSqlDatabase(
    string Name, string Owner, IReadOnlyList<PrivilegeEntry> Entries, string? Unread, IReadOnlyList<PostgreSqlSchema> Schemas,
    IReadOnlyList<PostgreSqlTable> Tables, IReadOnlyList<DefaultPrivileges> Defaults);

/// <summary>A schema of a database.</summary>
public sealed record PostgreSqlSchema(string Name, string Owner, IReadOnlyList<PrivilegeEntry> Entries);

/// <summary>A table or view of a database.</summary>
public sealed record PostgreSqlTable(string Schema, string Name, string Owner, IReadOnlyList<PrivilegeEntry> Entries);

/// <summary>What tables that a role makes later are born with [PostgreSQL, ALTER DEFAULT PRIVILEGES].</summary>
/// <param name="Creator">The role that makes them.</param>
/// <param name="Schema">In which schema; null for all: that one takes the place of what the engine gives, those of a schema are
/// added.</param>
public sealed record DefaultPrivileges(string Creator, string? Schema, IReadOnlyList<PrivilegeEntry> Entries);

/// <summary>A rule of who may sign in how [PostgreSQL, The pg_hba.conf File]. The first that fits counts.</summary>
/// <param name="Type">How one comes: <c>local</c> (the machine's own socket), <c>host</c> (by any network connection),
/// <c>hostssl</c>, <c>hostgssenc</c>, …</param>
/// <param name="Databases">Names, or <c>all</c>, <c>sameuser</c>, <c>samerole</c>, <c>replication</c>.</param>
/// <param name="Users">Names, <c>all</c>, or <c>+role</c> for members of a role.</param>
/// <param name="AnyAddress">Whether it holds for every address.</param>
/// <param name="Method">Such as <c>gss</c>, <c>ldap</c>, <c>reject</c>.</param>
/// <param name="Options">Such as <c>map=domain</c>, <c>include_realm=0</c>.</param>
public sealed record SignInRule(
    string Type, IReadOnlyList<string> Databases, IReadOnlyList<string> Users, bool AnyAddress, string Method,
    IReadOnlyList<string> Options);

/// <summary>A line of a name map [PostgreSQL, User Name Maps].</summary>
/// <param name="SystemName">The name outside; with a slash before it a pattern whose first group <c>\1</c> stands for.</param>
/// <param name="Role">The role.</param>
public sealed record NameMapLine(string Map, string SystemName, string Role);
