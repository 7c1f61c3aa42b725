using JustRight.Core.Directory;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.SqlServer;

/// <summary>
/// The principals of an instance or of a database by their number in its catalog, and what they hold. Those that are no
/// accounts of
/// a domain (logins with a password of the engine's own, certificates, keys) are left out: they can be no account of a sheet.
/// </summary>
internal sealed class CatalogPrincipals
{
    private const string Public = "public";
    private readonly Dictionary<int, (Sid Sid, string Name, bool IsDisabled)> _logins = [];
    private readonly Dictionary<int, (string Name, List<Sid> Members, List<string> Roles)> _roles = [];
    private readonly HashSet<int> _mayConnect = [];
    private readonly List<PermissionEntry> _permissions = [];

    /// <summary>A row of the view of principals.</summary>
    /// <param name="type">U a user, G a group, R a role.</param>
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
        }
    }

    /// <summary>A row of the view of members.</summary>
    public void Join(int role, int member)
    {
        if (!_roles.TryGetValue(role, out var into)) return;
        if (_logins.TryGetValue(member, out var login)) into.Members.Add(login.Sid);
        else if (_roles.TryGetValue(member, out var inner)) into.Roles.Add(inner.Name);
    }

    /// <summary>A row of the view of permissions.</summary>
    /// <param name="state">G granted, W granted with the right to grant on, D denied.</param>
    /// <param name="wayIn">The permission that lets a login or user in: granted to a login, that is told of the login
    /// itself.</param>
    public void Grant(string permission, string state, int grantee, string? on, string wayIn)
    {
        var how = state.Trim() switch { "G" => PermissionState.Grant, "W" => PermissionState.GrantOn, "D" => PermissionState.Deny, _ => (PermissionState?)null };
        if (how is not { } known) return;
        if (_roles.TryGetValue(grantee, out var role))
            _permissions.Add(new PermissionEntry(permission, known, default, role.Name) { On = on });
        else if (_logins.TryGetValue(grantee, out var login))
        {
            if (permission == wayIn && on is null && known != PermissionState.Deny) _mayConnect.Add(grantee);
            else _permissions.Add(new PermissionEntry(permission, known, login.Sid, null) { On = on });
        }
    }

    /// <summary>The logins or users.</summary>
    public IReadOnlyList<InstanceLogin> Logins() =>
        [.. _logins.OrderBy(l => l.Key).Select(l =>
            new InstanceLogin(l.Value.Sid, l.Value.Name)
            {
                Disabled = l.Value.IsDisabled,
                MayConnect = _mayConnect.Contains(l.Key),
            })];

    /// <summary>The roles but the one that everybody is in.</summary>
    public IReadOnlyList<RoleMembers> Roles() =>
        [.. _roles.OrderBy(r => r.Key).Where(r => r.Value.Name != Public).Select(r =>
            new RoleMembers(r.Value.Name, r.Value.Members, r.Value.Roles))];

    /// <summary>The permissions.</summary>
    public IReadOnlyList<PermissionEntry> Permissions() => _permissions;

    /// <summary>
    /// Two roles that differ by case alone, in words, or null. Sheets do not tell case apart, and catalogs may.
    /// </summary>
    public string? NamesThatDifferByCase() =>
        _roles.Values.GroupBy(r => r.Name, StringComparer.OrdinalIgnoreCase).FirstOrDefault(g => g.Count() > 1) is { } pair
            ? $"the roles {string.Join(" and ", pair.Select(r => r.Name))}"
            : null;
}
