using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>
/// What roles of an instance of the PostgreSQL family may do, as the engine itself decides it [PostgreSQL, Database Roles;
/// Privileges]:
/// through roles that hand on at once, through PUBLIC, through the predefined roles, and as superuser.
/// </summary>
public sealed class RoleAuthority
{
    /// <summary>The predefined role whose one member is the owner of the database one is in.</summary>
    public const string DatabaseOwner = "pg_database_owner";

    private static readonly ConditionalWeakTable<PostgreSqlCatalog, RoleAuthority> Read = [];
    private readonly Dictionary<string, PostgreSqlRole> _roles;
    private readonly ILookup<string, PostgreSqlMembership> _of;
    private readonly ConcurrentDictionary<(
        string Role, string? Owner), IReadOnlyDictionary<string, IReadOnlyList<string>>> _held = [];

    /// <summary>Reads a catalog. Names of roles are compared by case, as the engine does.</summary>
    public RoleAuthority(PostgreSqlCatalog catalog)
    {
        _roles = catalog.Roles.ToDictionary(r => r.Name, StringComparer.Ordinal);
        _of = catalog.Memberships.ToLookup(m => m.Member, StringComparer.Ordinal);
        SignIns = new SignIns(catalog, this);
    }

    /// <summary>What roles may do in a catalog, read when it is first asked for.</summary>
    internal static RoleAuthority Of(PostgreSqlCatalog catalog) => Read.GetValue(catalog, c => new RoleAuthority(c));

    /// <summary>As whom accounts may sign in.</summary>
    public SignIns SignIns { get; }

    /// <summary>Whether a role is a superuser, for whom nothing is checked.</summary>
    public bool RulesAll(string role) => Has(role, RoleAttributes.Superuser);

    /// <summary>Whether a role has an attribute of its own. Attributes are not inherited.</summary>
    public bool Has(string role, RoleAttributes attribute) =>
        _roles.TryGetValue(role, out var found) && found.Attributes.HasFlag(attribute);

    /// <summary>
    /// The roles whose privileges a role has at once, itself among them, each with the roles in between, nearest first. A chain
    /// ends
    /// where a membership does not hand on.
    /// </summary>
    /// <param name="databaseOwner">The owner of the database it is in, who is the member of <see cref="DatabaseOwner"/> there;
    /// null outside of any.</param>
    public IReadOnlyDictionary<string, IReadOnlyList<string>> PrivilegesOf(string role, string? databaseOwner) =>
        _held.GetOrAdd(
            (role, databaseOwner),
            _ => Reach(
                role, m => m.Inherit, at => at == databaseOwner && Has(at, RoleAttributes.Inherit) ? DatabaseOwner : null));

    /// <summary>
    /// The roles that a role may become by SET ROLE, itself among them, each with the roles in between. A superuser may become
    /// any.
    /// </summary>
    public IReadOnlyDictionary<string, IReadOnlyList<string>> MayBecome(string role) =>
        RulesAll(role)
            ? _roles.Keys.ToDictionary(r => r, _ => (IReadOnlyList<string>)[], StringComparer.Ordinal)
            : Reach(role, m => m.Set, _ => null);

    /// <summary>Whether a role was put into another by any chain: that it is a superuser makes it no member.</summary>
    public bool IsTrulyIn(string role, string of) => Reach(role, _ => true, _ => null).ContainsKey(of);

    /// <summary>Whether a role has at once what another one has.</summary>
    public bool HasPrivilegesOf(string role, string of, string? databaseOwner = null) =>
        RulesAll(role) || PrivilegesOf(role, databaseOwner).ContainsKey(of);

    /// <summary>Whether a role has a privilege on a database: <c>CONNECT</c>, <c>CREATE</c> or <c>TEMPORARY</c>.</summary>
    public bool OnDatabase(string role, PostgreSqlDatabase database, string privilege) =>
        RulesAll(role) || Given(role, database.Entries, privilege, database.Owner);

    /// <summary>
    /// Whether a role has a privilege on a schema: <c>USAGE</c> or <c>CREATE</c>. Who reads or writes all data may use every
    /// schema.
    /// </summary>
    public bool OnSchema(string role, PostgreSqlDatabase database, PostgreSqlSchema schema, string privilege) =>
        RulesAll(role) || Given(role, schema.Entries, privilege, database.Owner)
        || (privilege == "USAGE"
            && (HasPrivilegesOf(role, RoleAttributeNames.ReadsAllData, database.Owner)
                || HasPrivilegesOf(role, RoleAttributeNames.WritesAllData, database.Owner)));

    private bool Given(string role, IReadOnlyList<PrivilegeEntry> entries, string privilege, string databaseOwner)
    {
        var held = PrivilegesOf(role, databaseOwner);
        return entries.Any(e => e.Privilege == privilege && (e.Grantee is null || held.ContainsKey(e.Grantee)));
    }

    private Dictionary<string, IReadOnlyList<string>> Reach(
        string role, Func<PostgreSqlMembership, bool> goes, Func<string, string?> besides)
    {
        var found = new Dictionary<string, IReadOnlyList<string>>(StringComparer.Ordinal) { [role] = [] };
        var queue = new Queue<string>([role]);
        while (queue.TryDequeue(out var at))
        {
            IReadOnlyList<string> through = at == role ? [] : [.. found[at], at];
            foreach (var next in _of[at].Where(goes).Select(m => m.Role).Concat(besides(at) is { } one ? [one] : []))
                if (found.TryAdd(next, through)) queue.Enqueue(next);
        }

        return found;
    }
}
