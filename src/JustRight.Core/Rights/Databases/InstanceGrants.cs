using JustRight.Core.Rights.Directory;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights;

/// <summary>
/// What one database instance gives and denies. Whoever a login stands for holds what the login holds: a user, a domain group, or
/// a local group of the instance's host, through which others come.
/// </summary>
/// <param name="host">The instance's host, or null when it was not surveyed.</param>
internal sealed class InstanceGrants(InstanceSnapshot instance, HostSnapshot? host)
{
    private const string Public = "public";

    /// <summary>Everything that is granted directly.</summary>
    public IEnumerable<RightTail> Given()
    {
        foreach (var login in instance.Logins.Where(l => l is { MayConnect: true, Disabled: false }))
            foreach (var tail in Ends(login, new InstancePermissionRight(instance.Name, SqlServerPermissions.ConnectSql), [])) yield return tail;
        var roles = RoleClosure.Of(instance.Roles).ToList();
        foreach (var (login, role, steps) in Logins(roles))
            foreach (var tail in Ends(login, new InstanceRoleRight(instance.Name, role), steps)) yield return tail;
        foreach (var tail in instance.Permissions.Where(p => p.State != PermissionState.Deny).SelectMany(p => OfInstance(p, roles))) yield return tail;
        foreach (var tail in instance.Databases.SelectMany(GivenIn)) yield return tail;
    }

    /// <summary>Everything that is denied directly. A login that is switched off keeps its user out like a denial.</summary>
    public IEnumerable<RightTail> Denied()
    {
        foreach (var login in instance.Logins.Where(l => l.Disabled))
            yield return new RightTail(login.Sid, new InstancePermissionRight(instance.Name, SqlServerPermissions.ConnectSql), [new PathStep(StepKind.Login, $"{instance.Name} login {login.Name}, which is switched off")], null);
        var roles = RoleClosure.Of(instance.Roles).ToList();
        foreach (var tail in instance.Permissions.Where(p => p.State == PermissionState.Deny).SelectMany(p => OfInstance(p, roles))) yield return tail;
        foreach (var tail in instance.Databases.SelectMany(DeniedIn)) yield return tail;
    }

    private IEnumerable<RightTail> GivenIn(DatabaseSnapshot database)
    {
        var place = $"{instance.Name}/{database.Name}";
        var roles = RoleClosure.Of(database.Roles).ToList();
        foreach (var user in database.Users.Where(u => u is { MayConnect: true, Disabled: false }))
            foreach (var tail in Ends(user, Permission(database, SqlServerPermissions.Connect, null), [], place)) yield return tail;
        foreach (var (user, role, steps) in Users(database, roles))
            foreach (var tail in Ends(user, new DatabaseRoleRight(instance.Name, database.Name, role), steps, place)) yield return tail;
        foreach (var tail in database.Permissions.Where(p => p.State != PermissionState.Deny).SelectMany(p => InDatabase(database, p, roles))) yield return tail;
        if (!database.Owner.IsEmpty)
            yield return new RightTail(database.Owner, new DatabaseRoleRight(instance.Name, database.Name, "db_owner"), [new PathStep(StepKind.Login, $"owner of {place}")], null);
        if (!database.AdmitsGuests) yield break;
        foreach (var login in instance.Logins)
            foreach (var tail in Ends(login, Permission(database, SqlServerPermissions.Connect, null), [new PathStep(StepKind.Role, $"guest of {place}")])) yield return tail;
    }

    private IEnumerable<RightTail> DeniedIn(DatabaseSnapshot database)
    {
        var roles = RoleClosure.Of(database.Roles).ToList();
        foreach (var tail in database.Permissions.Where(p => p.State == PermissionState.Deny).SelectMany(p => InDatabase(database, p, roles))) yield return tail;
        foreach (var (role, permissions) in SqlServerPermissions.DenyingRoles)
            foreach (var permission in permissions)
                foreach (var tail in InDatabase(database, new PermissionEntry(permission, PermissionState.Deny, default, role), roles)) yield return tail;
    }

    /// <summary>The ends of an entry at the instance: at its login, or at those in its role.</summary>
    private IEnumerable<RightTail> OfInstance(PermissionEntry entry, IReadOnlyList<(Sid Sid, string Role, IReadOnlyList<PathStep> Steps)> roles)
    {
        var right = new InstancePermissionRight(instance.Name, entry.Permission);
        if (entry.Role is null) return instance.Logins.Where(l => l.Sid == entry.Holder).SelectMany(l => Ends(l, right, []));
        if (Same(entry.Role, Public)) return instance.Logins.SelectMany(l => Ends(l, right, [new PathStep(StepKind.Role, Public)]));
        return Logins(roles).Where(r => Same(r.Role, entry.Role)).SelectMany(r => Ends(r.Login, right, [.. r.Steps, new PathStep(StepKind.Role, entry.Role)]));
    }

    private IEnumerable<RightTail> InDatabase(DatabaseSnapshot database, PermissionEntry entry, IReadOnlyList<(Sid Sid, string Role, IReadOnlyList<PathStep> Steps)> roles)
    {
        var right = Permission(database, entry.Permission, entry.On);
        var place = $"{instance.Name}/{database.Name}";
        if (entry.Role is null) return database.Users.Where(u => u.Sid == entry.Holder).SelectMany(u => Ends(u, right, [], place));
        if (!Same(entry.Role, Public)) return Users(database, roles).Where(r => Same(r.Role, entry.Role)).SelectMany(r => Ends(r.Login, right, [.. r.Steps, new PathStep(StepKind.Role, entry.Role)], place));
        var all = database.Users.SelectMany(u => Ends(u, right, [new PathStep(StepKind.Role, Public)], place));
        return database.AdmitsGuests ? all.Concat(instance.Logins.SelectMany(l => Ends(l, right, [new PathStep(StepKind.Role, $"guest of {place}"), new PathStep(StepKind.Role, Public)]))) : all;
    }

    /// <summary>A role counts for its members that have a login.</summary>
    private IEnumerable<(InstanceLogin Login, string Role, IReadOnlyList<PathStep> Steps)> Logins(IReadOnlyList<(Sid Sid, string Role, IReadOnlyList<PathStep> Steps)> roles) =>
        roles.Join(instance.Logins, r => r.Sid, l => l.Sid, (r, l) => (l, r.Role, r.Steps));

    private static IEnumerable<(InstanceLogin Login, string Role, IReadOnlyList<PathStep> Steps)> Users(DatabaseSnapshot database, IReadOnlyList<(Sid Sid, string Role, IReadOnlyList<PathStep> Steps)> roles) =>
        roles.Join(database.Users, r => r.Sid, u => u.Sid, (r, u) => (u, r.Role, r.Steps));

    /// <summary>Who comes to a right through a login, or through the user of a database: the login's own principal, or the members of the local group it stands for.</summary>
    private IEnumerable<RightTail> Ends(InstanceLogin login, Right right, IReadOnlyList<PathStep> steps, string? database = null)
    {
        var through = new PathStep(StepKind.Login, database is null ? $"{instance.Name} login {login.Name}" : $"{database} user {login.Name}");
        if (host?.LocalGroups.FirstOrDefault(g => g.Sid == login.Sid) is not { } group) return [new RightTail(login.Sid, right, [through, .. steps], null)];
        var local = new PathStep(StepKind.LocalGroup, $"{host.Name}\\{group.Name}");
        return group.Members.Select(m => new RightTail(m, right, [local, through, .. steps], null));
    }

    private DatabasePermissionRight Permission(DatabaseSnapshot database, string permission, string? on) => new(instance.Name, database.Name, permission, on);

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
