using System.Runtime.CompilerServices;

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

    /// <summary>The parameters that something is given on.</summary>
    public IReadOnlyList<PostgreSqlParameter> Parameters { get; init; } = [];

    /// <summary>
    /// Whether names in tickets are compared without regard to case [PostgreSQL, <c>krb_caseins_users</c>].
    /// </summary>
    public bool KerberosIgnoresCase { get; init; }
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
/// <param name="NoConnections">Whether its limit of connections is 0, which keeps everybody out but superusers.</param>
public sealed record PostgreSqlRole(string Name, RoleAttributes Attributes, bool NoConnections = false);

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

/// <summary>Whom a database takes.</summary>
public enum DatabaseDoor
{
    /// <summary>Whoever may connect.</summary>
    Open,

    /// <summary>Superusers alone: its limit of connections is 0.</summary>
    ForSuperusers,

    /// <summary>Nobody: it takes no connections.</summary>
    Shut,
}

/// <summary>A database.</summary>
/// <param name="Entries">What is given on it, with what the engine gives by default written out.</param>
/// <param name="Unread">Why what is in it could not be read, or null.</param>
public sealed record PostgreSqlDatabase(
    string Name, string Owner, IReadOnlyList<PrivilegeEntry> Entries, string? Unread, IReadOnlyList<PostgreSqlSchema> Schemas,
    IReadOnlyList<PostgreSqlObject> Objects)
{
    // Not a field of its own: a copy with other contents would take it along.
    private static readonly ConditionalWeakTable<PostgreSqlDatabase, Dictionary<PostgreSqlSecurable, PostgreSqlObject>> Read = [];

    /// <summary>Whom it takes.</summary>
    public DatabaseDoor Door { get; init; }

    /// <summary>Everything in it that was read, its schemas as well.</summary>
    public IEnumerable<PostgreSqlObject> Things => ByThing.Values;

    /// <summary>Something in it, or null when it was not read; a schema as well.</summary>
    public PostgreSqlObject? Find(PostgreSqlSecurable thing) => ByThing.GetValueOrDefault(thing);

    private Dictionary<PostgreSqlSecurable, PostgreSqlObject> ByThing => Read.GetValue(this, d =>
        d.Schemas.Select(s => new PostgreSqlObject(PostgreSqlSecurable.OfSchema(s.Name), s.Owner, s.Entries)).Concat(d.Objects)
            .ToDictionary(t => t.Thing));
}

/// <summary>A schema of a database.</summary>
public sealed record PostgreSqlSchema(string Name, string Owner, IReadOnlyList<PrivilegeEntry> Entries);

/// <summary>Something in a database besides schemas: a table, a column that something is given on, a routine, a type, …</summary>
/// <param name="Thing">What it is.</param>
/// <param name="Owner">Its owner; of a column the table's.</param>
/// <param name="Entries">What is given on it, with what the engine gives by default written out.</param>
public sealed record PostgreSqlObject(PostgreSqlSecurable Thing, string Owner, IReadOnlyList<PrivilegeEntry> Entries)
{
    /// <summary>Of a routine: whether it runs with its owner's rights (SECURITY DEFINER).</summary>
    public bool RunsAsOwner { get; init; }

    /// <summary>Of a table: whether policies hide rows of it from others than its owner.</summary>
    public bool HidesRows { get; init; }

    /// <summary>Whether it is a view.</summary>
    public bool IsView { get; init; }
}

/// <summary>A parameter that something is given on.</summary>
public sealed record PostgreSqlParameter(string Name, IReadOnlyList<PrivilegeEntry> Entries);
