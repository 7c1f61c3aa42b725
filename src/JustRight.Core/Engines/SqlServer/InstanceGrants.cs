using JustRight.Core.Directory;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>
/// What one database instance gives and denies. Whoever a login stands for holds what the login holds: a user, a domain group, or
/// a local group of the instance's host, through which others come.
/// </summary>
/// <param name="host">The instance's host, or null when it was not surveyed.</param>
internal sealed class InstanceGrants(InstanceSnapshot instance, HostSnapshot? host)
{
    private const string Public = "public";
    private const string Guest = "guest";
    private readonly Dictionary<string, Level> _guests = new(StringComparer.Ordinal);
    private Level? _level; // made when it is first asked for: many instances deny nothing

    private Level AtInstance => _level ??= new Level(instance.Logins, instance.Roles);

    /// <summary>Everything that is granted directly.</summary>
    public IEnumerable<RightTail> Given()
    {
        var connect = new InstancePermissionRight(instance.Name, SqlServerPermissions.ConnectSql);
        foreach (var login in instance.Logins.Where(l => l is { MayConnect: true, Disabled: false }))
            foreach (var tail in Ends(login, connect, [])) yield return tail;
        var roles = new Dictionary<string, Right>(StringComparer.Ordinal); // a right a role, not one a member: there are many
        foreach (var (login, role, steps) in AtInstance.InRoles)
            foreach (var tail in Ends(
                login, roles.TryGetValue(role, out var right) ? right : roles[role] = new InstanceRoleRight(instance.Name, role),
                steps))
                yield return tail;
        foreach (var tail in instance.Permissions.Where(p => p.State != PermissionState.Deny).SelectMany(OfInstance))
            yield return tail;
        foreach (var thing in instance.Owned)
            foreach (var tail in Owned(
                thing, new InstancePermissionRight(instance.Name, SqlServerPermissions.Control, thing.On), AtInstance, null))
                yield return tail;
        foreach (var tail in instance.Databases.SelectMany(GivenIn)) yield return tail;
    }

    /// <summary>Everything that is denied directly. A login that is switched off keeps its user out like a denial.</summary>
    public IEnumerable<RightTail> Denied()
    {
        foreach (var login in instance.Logins.Where(l => l.Disabled))
            yield return new RightTail(
                login.Sid, new InstancePermissionRight(instance.Name, SqlServerPermissions.ConnectSql),
                [
                    new PathStep(StepKind.Login, $"{instance.Name} login {login.Name}, which is disabled")
                    {
                        Meaning = StepMeaning.SwitchedOff,
                    },
                ],
                null);
        foreach (var tail in instance.Permissions.Where(p => p.State == PermissionState.Deny).SelectMany(OfInstance))
            yield return tail;
        foreach (var tail in instance.Databases.SelectMany(DeniedIn)) yield return tail;
    }

    private IEnumerable<RightTail> GivenIn(DatabaseSnapshot database)
    {
        var place = $"{instance.Name}/{database.Name}";
        var level = new Level(database.Users, database.Roles);
        var connect = Permission(database, SqlServerPermissions.Connect, null);
        foreach (var user in database.Users.Where(u => u is { MayConnect: true, Disabled: false }))
            foreach (var tail in Ends(user, connect, [], place)) yield return tail;
        var roles = new Dictionary<string, Right>(StringComparer.Ordinal);
        foreach (var (user, role, steps) in level.InRoles)
            foreach (var tail in Ends(
                user,
                roles.TryGetValue(role, out var right)
                    ? right
                    : roles[role] = new DatabaseRoleRight(instance.Name, database.Name, role),
                steps, place))
                yield return tail;
        foreach (var (permission, entries) in database.Permissions.Where(p =>
            p.State != PermissionState.Deny).GroupBy(p =>
                (p.Permission, p.On)).Select(g => (Permission(database, g.Key.Permission, g.Key.On), g)))
            foreach (var tail in entries.SelectMany(p => InDatabase(database, p, permission, level))) yield return tail;
        if (!database.Owner.IsEmpty)
        {
            yield return new RightTail(database.Owner, new DatabaseOwnerRight(instance.Name, database.Name), [], null);
            yield return new RightTail(
                database.Owner, new DatabaseRoleRight(instance.Name, database.Name, "db_owner"),
                [new PathStep(StepKind.Login, $"owner of {place}") { Meaning = StepMeaning.Ownership }], null);
        }

        foreach (var thing in database.Owned)
            foreach (var tail in Owned(thing, Permission(database, SqlServerPermissions.Control, thing.On), level, place))
                yield return tail;
        if (!database.AdmitsGuests) yield break;
        var guests = Guests(database);
        foreach (var login in instance.Logins)
            foreach (var tail in Ends(login, connect, [AsGuest(place)])) yield return tail;
        foreach (var (login, role, steps) in guests.InRoles.Where(r => !Same(r.Role, Guest)))
            foreach (var tail in Ends(
                login, new DatabaseRoleRight(instance.Name, database.Name, role), [AsGuest(place), .. Beyond(steps)]))
                yield return tail;
    }

    private IEnumerable<RightTail> DeniedIn(DatabaseSnapshot database)
    {
        var denials = database.Permissions.Where(p => p.State == PermissionState.Deny)
            .Concat(SqlServerPermissions.DenyingRoles.Where(d => database.Roles.Any(r => Same(r.Role, d.Role))).SelectMany(d =>
                d.Permissions.Select(p => new PermissionEntry(p, PermissionState.Deny, default, d.Role))))
                .ToList();
        if (denials.Count == 0) return [];
        var level = new Level(database.Users, database.Roles);
        return denials.SelectMany(p => InDatabase(database, p, Permission(database, p.Permission, p.On), level));
    }

    private IEnumerable<RightTail> OfInstance(PermissionEntry entry)
    {
        var right = new InstancePermissionRight(instance.Name, entry.Permission, entry.On);
        return AtInstance.HoldersOf(entry).SelectMany(h => Ends(h.Login, right, h.Steps));
    }

    private IEnumerable<RightTail> InDatabase(
        DatabaseSnapshot database, PermissionEntry entry, DatabasePermissionRight right, Level level)
    {
        var place = $"{instance.Name}/{database.Name}";
        var all = level.HoldersOf(entry).SelectMany(h => Ends(h.Login, right, h.Steps, place));
        if (!database.AdmitsGuests || entry.Role is null) return all;
        return all.Concat(Guests(database).HoldersOf(entry)
            .SelectMany(h => Ends(h.Login, right, [AsGuest(place), .. Beyond(h.Steps)])));
    }

    /// <summary>An owner has all of what it owns [Permissions (Database Engine)].</summary>
    private IEnumerable<RightTail> Owned(OwnedThing thing, Right right, Level level, string? place)
    {
        var owner = new PathStep(StepKind.Login, $"owner of {thing.On}") { Meaning = StepMeaning.Ownership };
        return level.HoldersOf(new PermissionEntry(SqlServerPermissions.Control, PermissionState.Grant, thing.Owner, thing.Role))
            .SelectMany(h => Ends(h.Login, right, [.. h.Steps, owner], place));
    }

    /// <summary>
    /// Every login as guest of a database, with the roles guest is in. That whoever has a user does not come so, the right says.
    /// </summary>
    private Level Guests(DatabaseSnapshot database) => _guests.TryGetValue(database.Name, out var known) ? known
        : _guests[database.Name] = new Level(
            instance.Logins,
            [
                .. database.Roles.Select(r => r with { Members = [] }),
                new RoleMembers(Guest, [.. instance.Logins.Select(l => l.Sid).Distinct()], []),
            ]);

    /// <summary>The roles on the way but guest, which is told with its database.</summary>
    private static IEnumerable<PathStep> Beyond(IReadOnlyList<PathStep> steps) =>
        steps.Where(s => s.Role is not { } role || !Same(role, Guest));

    private static PathStep AsGuest(string place) => new(StepKind.Role, $"guest of {place}") { Meaning = StepMeaning.Guest };

    /// <summary>
    /// Who comes to a right through a login, or through the user of a database: the login's own principal, or the members of
    /// the local group it stands for.
    /// </summary>
    private IEnumerable<RightTail> Ends(InstanceLogin login, Right right, IReadOnlyList<PathStep> steps, string? database = null)
    {
        var through = new PathStep(
            StepKind.Login, database is null ? $"{instance.Name} login {login.Name}" : $"{database} user {login.Name}");
        if (host?.LocalGroups.FirstOrDefault(g => g.Sid == login.Sid) is not { } group)
            return [new RightTail(login.Sid, right, [through, .. steps], null)];
        var local = new PathStep(StepKind.LocalGroup, $"{host.Name}\\{group.Name}");
        return group.Members.Select(m => new RightTail(m, right, [local, through, .. steps], null));
    }

    private DatabasePermissionRight Permission(DatabaseSnapshot database, string permission, string? on) =>
        new(instance.Name, database.Name, permission, on);

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);

    /// <summary>
    /// The logins of an instance, or the users of a database, with the roles they are in. A role counts for those of its
    /// members that have a login or user.
    /// </summary>
    private sealed class Level
    {
        private readonly IReadOnlyList<InstanceLogin> _all;
        private readonly ILookup<Sid, InstanceLogin> _bySid;
        private readonly ILookup<string, (InstanceLogin Login, IReadOnlyList<PathStep> Steps)> _byRole;

        public Level(IReadOnlyList<InstanceLogin> all, IReadOnlyList<RoleMembers> roles)
        {
            _all = all;
            _bySid = all.ToLookup(l => l.Sid);
            InRoles = [.. RoleClosure.Of(roles).SelectMany(r => _bySid[r.Sid].Select(l => (l, r.Role, r.Steps)))];
            _byRole = InRoles.ToLookup(r => r.Role, r => (r.Login, r.Steps), StringComparer.OrdinalIgnoreCase);
        }

        /// <summary>Everybody in every role, with the roles in between.</summary>
        public IReadOnlyList<(InstanceLogin Login, string Role, IReadOnlyList<PathStep> Steps)> InRoles { get; }

        /// <summary>Whom an entry is for: its own principal, those in its role, or everybody.</summary>
        public IEnumerable<(InstanceLogin Login, IReadOnlyList<PathStep> Steps)> HoldersOf(PermissionEntry entry) =>
            entry.Role is null ? _bySid[entry.Holder].Select(l => (l, (IReadOnlyList<PathStep>)[]))
                : Same(entry.Role, Public) ? _all.Select(l => (l, (IReadOnlyList<PathStep>)[PathStep.ThroughEverybodys(Public)]))
                : _byRole[entry.Role].Select(r => (r.Login, (IReadOnlyList<PathStep>)[.. r.Steps, PathStep.Through(entry.Role)]));
    }
}
