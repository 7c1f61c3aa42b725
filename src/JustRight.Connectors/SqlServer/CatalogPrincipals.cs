using JustRight.Core.Directory;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.SqlServer;

/// <summary>
/// The principals of an instance or of a database by their number in its catalog, and what they hold. Those that are no
/// accounts of a domain (logins with a password of the engine's own, certificates, keys) can be no account of a sheet: what they
/// hold is kept for whoever may act as one.
/// </summary>
/// <param name="wayIn">The permission that lets a login or user in: granted to a login, that is told of the login
/// itself.</param>
internal sealed class CatalogPrincipals(string wayIn)
{
    private const string Public = "public";
    private const string Dbo = "dbo"; // left out where the principals of a database are added
    private const int Guest = 2;
    private readonly Dictionary<int, (Sid Sid, string Name, bool IsDisabled)> _logins = [];
    private readonly Dictionary<int, (string Name, List<string> Roles, List<string> Permissions)> _own = [];
    private readonly Dictionary<int, (string Name, List<Sid> Members, List<string> Roles)> _roles = [];
    private readonly Dictionary<int, string> _applicationRoles = [];
    private readonly HashSet<int> _mayConnect = [];
    private readonly List<PermissionEntry> _permissions = [];
    private readonly List<OwnedThing> _owned = [];

    /// <summary>A row of the view of principals.</summary>
    /// <param name="type">U a user, G a group, R a role, A an application role; others are the engine's own.</param>
    public void Add(int id, string name, string type, byte[]? sid, bool isDisabled)
    {
        switch (type.Trim())
        {
            case "U" or "G" when Sid.TryFromBytes(sid, out var known):
                _logins[id] = (known, name, isDisabled);
                break;
            case "R":
                _roles[id] = (name, [], []);
                break;
            case "A":
                _applicationRoles[id] = name;
                break;
            default:
                _own[id] = (name, [], []);
                break;
        }
    }

    /// <summary>A row of the view of members. Guest is told as a role: whoever comes as guest is in it.</summary>
    public void Join(int role, int member)
    {
        if (!_roles.TryGetValue(role, out var into)) return;
        if (_logins.TryGetValue(member, out var login)) into.Members.Add(login.Sid);
        else if (_roles.TryGetValue(member, out var inner)) into.Roles.Add(inner.Name);
        else if (IsGuest(member, out var guest)) into.Roles.Add(guest);
        else if (_own.TryGetValue(member, out var own)) own.Roles.Add(into.Name);
    }

    /// <summary>A row of the view of permissions.</summary>
    /// <param name="state">G granted, W granted with the right to grant on, D denied.</param>
    /// <param name="on">What it is on; null for the whole.</param>
    public void Grant(string permission, string state, int grantee, SqlServerSecurable? on)
    {
        var how = state.Trim() switch
        {
            "G" => PermissionState.Grant,
            "W" => PermissionState.GrantOn,
            "D" => PermissionState.Deny,
            _ => (PermissionState?)null,
        };
        if (how is not { } known) return;
        var words = on?.Words;
        if (_roles.TryGetValue(grantee, out var role))
            _permissions.Add(new PermissionEntry(permission, known, default, role.Name) { On = words });
        else if (_logins.TryGetValue(grantee, out var login))
        {
            if (permission == wayIn && on is null && known != PermissionState.Deny) _mayConnect.Add(grantee);
            else _permissions.Add(new PermissionEntry(permission, known, login.Sid, null) { On = words });
        }
        else if (IsGuest(grantee, out var guest))
        {
            if (permission == wayIn && on is null) AdmitsGuests |= known != PermissionState.Deny;
            else _permissions.Add(new PermissionEntry(permission, known, default, guest) { On = words });
        }
        else if (_own.TryGetValue(grantee, out var own) && known != PermissionState.Deny && !(permission == wayIn && on is null))
        {
            own.Permissions.Add(words is null ? permission : $"{permission} on {words}");
        }
    }

    /// <summary>Something that a principal owns.</summary>
    public void Own(SqlServerSecurable on, int owner)
    {
        if (_logins.TryGetValue(owner, out var login)) _owned.Add(new OwnedThing(on.Words, login.Sid, null));
        else if (_roles.TryGetValue(owner, out var role)) _owned.Add(new OwnedThing(on.Words, default, role.Name));
        else _owned.Add(new OwnedThing(on.Words, default, _own.TryGetValue(owner, out var own) ? own.Name : Dbo));
    }

    /// <summary>A principal as something that permissions are on; null when there is none of that number.</summary>
    /// <param name="login">The class of those that are no roles.</param>
    /// <param name="role">The class of roles.</param>
    public SqlServerSecurable? Thing(int id, SqlServerClass login, SqlServerClass role)
    {
        if (_logins.TryGetValue(id, out var known)) return new SqlServerSecurable(login, null, known.Name, null);
        if (_own.TryGetValue(id, out var own)) return new SqlServerSecurable(login, null, own.Name, null);
        if (_roles.TryGetValue(id, out var of)) return new SqlServerSecurable(role, null, of.Name, null);
        return _applicationRoles.TryGetValue(id, out var application)
            ? new SqlServerSecurable(SqlServerClass.ApplicationRole, null, application, null)
            : null;
    }

    /// <summary>Whether whoever has no user enters as guest.</summary>
    public bool AdmitsGuests { get; private set; }

    /// <summary>The logins or users.</summary>
    public IReadOnlyList<InstanceLogin> Logins() =>
        [.. _logins.OrderBy(l => l.Key).Select(l =>
            new InstanceLogin(l.Value.Sid, l.Value.Name)
            {
                Disabled = l.Value.IsDisabled,
                MayConnect = _mayConnect.Contains(l.Key),
            })];

    /// <summary>The engine's own that hold anything.</summary>
    public IReadOnlyList<OwnPrincipal> Own() =>
    [
        .. _own.OrderBy(o => o.Key).Where(o => o.Value.Roles.Count + o.Value.Permissions.Count > 0)
            .Select(o => new OwnPrincipal(o.Value.Name, o.Value.Roles, o.Value.Permissions)),
    ];

    /// <summary>The roles but the one that everybody is in.</summary>
    public IReadOnlyList<RoleMembers> Roles() =>
        [.. _roles.OrderBy(r => r.Key).Where(r => r.Value.Name != Public).Select(r =>
            new RoleMembers(r.Value.Name, r.Value.Members, r.Value.Roles))];

    /// <summary>The permissions.</summary>
    public IReadOnlyList<PermissionEntry> Permissions() => _permissions;

    /// <summary>What has an owner of its own.</summary>
    public IReadOnlyList<OwnedThing> Owned() => _owned;

    /// <summary>
    /// Two roles that differ by case alone, in words, or null. Sheets do not tell case apart, and catalogs may.
    /// </summary>
    public string? NamesThatDifferByCase() =>
        _roles.Values.GroupBy(r => r.Name, StringComparer.OrdinalIgnoreCase).FirstOrDefault(g => g.Count() > 1) is { } pair
            ? $"the roles {string.Join(" and ", pair.Select(r => r.Name))}"
            : null;

    /// <summary>In a database the second principal is guest.</summary>
    private bool IsGuest(int id, out string name)
    {
        name = _own.TryGetValue(id, out var own) ? own.Name : "";
        return id == Guest && string.Equals(name, "guest", StringComparison.OrdinalIgnoreCase);
    }
}
