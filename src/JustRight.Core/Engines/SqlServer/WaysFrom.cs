using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>Where one right leads next.</summary>
internal sealed class WaysFrom(Holdings holdings, SqlServerRight right)
{
    private const string SecurityAdministrators = "securityadmin";
    private const string RoleAdministrators = "db_securityadmin";
    private const string StructureAdministrators = "db_ddladmin";
    private const string Dbo = "dbo";

    /// <summary>With one of these on a database, whoever may change a schema can make what runs there as its owner.</summary>
    private static readonly string[] MakingModules = ["CREATE FUNCTION", "CREATE PROCEDURE", "CREATE VIEW"];

    private readonly SurveyView _view = holdings.View;
    private readonly InstanceSnapshot? _instance = holdings.View.Instance(right.Instance);

    /// <summary>The rights that it leads to, each with the step in words.</summary>
    public IEnumerable<(SqlServerRight Right, string Why)> Next() => _instance is null ? [] : right.LeadsTo(this);

    /// <summary>From a role of the instance.</summary>
    internal IEnumerable<(SqlServerRight Right, string Why)> OfInstanceRole(InstanceRoleRight role)
    {
        if (Same(role.Role, SecurityAdministrators))
            yield return (Everything, $"{SecurityAdministrators} can grant itself CONTROL SERVER");
        foreach (var outer in _instance!.Roles.Where(r => r.MemberRoles.Any(m => Same(m, role.Role))))
            yield return (new InstanceRoleRight(right.Instance, outer.Role), $"{role.Role} is in {outer.Role}");
        foreach (var entry in Granted(_instance.Permissions, role.Role))
            yield return (
                new InstancePermissionRight(right.Instance, entry.Permission, entry.On), $"{role.Role} was granted it");
    }

    /// <summary>From a permission at the instance.</summary>
    internal IEnumerable<(SqlServerRight Right, string Why)> OfInstancePermission(InstancePermissionRight permission)
    {
        var words = permission.Words;
        if (permission is { On: null, Permission: SqlServerPermissions.ControlServer or "IMPERSONATE ANY LOGIN" })
            return [(Everything, $"with {words} it can act as any login")];
        if (permission is { On: null, Permission: "ALTER ANY SERVER ROLE" })
            return Made().Select(r => Adding(r, words));
        return permission.Thing switch
        {
            { Class: SqlServerClass.Login } login when Takes(permission.Permission, "IMPERSONATE") => OfLogin(login.Name, words),
            { Class: SqlServerClass.ServerRole } role when Takes(permission.Permission, "ALTER", "TAKE OWNERSHIP") =>
                Made().Where(r => Same(r, role.Name)).Select(r => Adding(r, words)),
            _ => [],
        };

        // Into the roles that an instance comes with only their own members add.
        IEnumerable<string> Made() => _instance!.Roles.Select(r => r.Role).Where(r => !SqlServerRoles.IsFixed(r));

        (SqlServerRight, string) Adding(string role, string by) =>
            (new InstanceRoleRight(right.Instance, role), $"with {by} it can add itself to {role}");
    }

    /// <summary>Whoever acts as a login has what it holds, also while it is disabled [EXECUTE AS].</summary>
    private IEnumerable<(SqlServerRight, string)> OfLogin(string name, string by) =>
        HoldingsOf(name, $"with {by} it can act as {name}");

    /// <summary>What a login holds.</summary>
    private IEnumerable<(SqlServerRight, string)> HoldingsOf(string name, string why)
    {
        if (_instance!.OwnLogins.FirstOrDefault(l => Same(l.Name, name)) is { } own)
            return own.Roles.Select(r => (SqlServerRight)new InstanceRoleRight(right.Instance, r))
                .Concat(own.Permissions.Select(p => InstancePermissionRight.Parse(right.Instance, p)))
                .Select(r => (r, why));
        if (_instance.Logins.FirstOrDefault(l => Same(l.Name, name)) is not { } login
            || _view.Graph.IndexOf(login.Sid) is not (>= 0 and var node))
            return [];
        return _view.HoldingsOf(node).All().Select(h => h.Right).OfType<SqlServerRight>()
            .Where(r => Same(r.Instance, right.Instance)).Select(r => (r, why));
    }

    /// <summary>From ownership of a database.</summary>
    internal IEnumerable<(SqlServerRight Right, string Why)> OfOwner(DatabaseOwnerRight owner) =>
        InDatabase(owner, _ => [], Makes.Nothing);

    /// <summary>From a role of a database.</summary>
    internal IEnumerable<(SqlServerRight Right, string Why)> OfRole(DatabaseRoleRight role) =>
        InDatabase(
            role, database => OfRole(role, database),
            Same(role.Role, StructureAdministrators) ? Makes.AsDbo : Makes.Nothing);

    /// <summary>From a permission in a database.</summary>
    internal IEnumerable<(SqlServerRight Right, string Why)> OfPermission(DatabasePermissionRight permission) => InDatabase(
        permission, database => OfPermission(permission, database), Database(permission) is { } inside
            ? MadeWith(permission, inside)
            : Makes.Nothing);

    /// <summary>What is its own, and what comes of ruling a database or of making or changing modules there.</summary>
    private IEnumerable<(SqlServerRight, string)> InDatabase(
        DatabaseRight inside, Func<DatabaseSnapshot, IEnumerable<(SqlServerRight, string)>> own, Makes makes) =>
        Database(inside) is not { } database ? []
            : own(database)
                .Concat(inside.IsDbo ? OfDbo(database) : [])
                .Concat(inside.IsDbo || makes == Makes.AsDbo ? Chained(database) : [])
                .Concat(inside.IsDbo || makes != Makes.Nothing ? OfJobs(database) : []);

    /// <summary>Modules that somebody may make or change in a database.</summary>
    private enum Makes
    {
        /// <summary>None.</summary>
        Nothing,

        /// <summary>Some, as whose owner they do not run.</summary>
        Some,

        /// <summary>Such as run as the owner of the database.</summary>
        AsDbo,
    }

    /// <summary>A module is changed with ALTER on it or on its schema, a trigger made with ALTER on its table.</summary>
    private Makes MadeWith(DatabasePermissionRight permission, DatabaseSnapshot database) => permission switch
    {
        { On: null, Permission: "ALTER" or "ALTER ANY SCHEMA" } => Makes.Some,
        { Thing: { Class: SqlServerClass.Schema } schema } when Takes(permission.Permission, "ALTER") =>
            Alters(permission, schema, database) ? Makes.AsDbo : Makes.Some,
        { Thing.Class: SqlServerClass.SchemaObject } when Takes(permission.Permission, "ALTER") => Makes.Some,
        _ => Makes.Nothing,
    };

    /// <summary>
    /// What a job runs as its owner in a database is what whoever changes modules there has written [sp_add_jobstep].
    /// </summary>
    private IEnumerable<(SqlServerRight, string)> OfJobs(DatabaseSnapshot database) =>
        from job in _instance!.Agent?.Jobs ?? []
        where job is { IsOn: true, OwnerName: not null } && job.Databases.Any(d => Same(d, database.Name))
        from way in HoldingsOf(
            job.OwnerName!, $"the job {job.Name} runs what it changes in {database.Name}, as its owner {job.OwnerName}")
        select way;

    private IEnumerable<(SqlServerRight, string)> OfRole(DatabaseRoleRight role, DatabaseSnapshot database)
    {
        if (Same(role.Role, RoleAdministrators))
            foreach (var made in Made(database))
                yield return (made, $"{RoleAdministrators} can add itself to {made.Role}");
        foreach (var outer in database.Roles.Where(r => r.MemberRoles.Any(m => Same(m, role.Role))))
            yield return (Role(database, outer.Role), $"{role.Role} is in {outer.Role}");
        foreach (var entry in Granted(database.Permissions, role.Role))
            yield return (Permission(database, entry.Permission, entry.On), $"{role.Role} was granted it");
    }

    private IEnumerable<(SqlServerRight, string)> OfPermission(DatabasePermissionRight permission, DatabaseSnapshot database)
    {
        var words = permission.Words;
        if (permission.On is null)
        {
            if (permission.Permission == "TAKE OWNERSHIP")
                return [(new DatabaseOwnerRight(right.Instance, database.Name), $"with {words} it can make itself the owner")];
            return permission.Permission is "ALTER" or "ALTER ANY ROLE" ? Made(database).Select(r => Adding(r)) : [];
        }

        return permission.Thing switch
        {
            { Class: SqlServerClass.User } user when Takes(permission.Permission, "IMPERSONATE") =>
                OfUser(user.Name, words, database),
            { Class: SqlServerClass.Role } role when Takes(permission.Permission, "ALTER", "TAKE OWNERSHIP") =>
                Made(database).Where(r => Same(r.Role, role.Name)).Select(Adding),
            { Class: SqlServerClass.Schema } schema when Alters(permission, schema, database) =>
                [(Permission(database, "SELECT", null), $"what it makes in {schema.Name} reads all that has the same owner")],
            _ => [],
        };

        (SqlServerRight, string) Adding(DatabaseRoleRight role) => (role, $"with {words} it can add itself to {role.Role}");
    }

    private IEnumerable<(SqlServerRight, string)> OfUser(string name, string by, DatabaseSnapshot database)
    {
        var why = $"with {by} it can act as {name}";
        if (Same(name, Dbo)) return [(Role(database, DatabaseRoleRight.Owners), why)];
        if (database.OwnUsers.FirstOrDefault(u => Same(u.Name, name)) is { } own)
            return own.Roles.Select(r => (SqlServerRight)Role(database, r))
                .Concat(own.Permissions.Select(p => DatabasePermissionRight.Parse(right.Instance, database.Name, p)))
                .Select(r => (r, why));
        if (database.Users.FirstOrDefault(u => Same(u.Name, name)) is not { } user
            || _view.Graph.IndexOf(user.Sid) is not (>= 0 and var node))
            return [];
        return _view.HoldingsOf(node).All().Select(h => h.Right).OfType<DatabaseRight>()
            .Where(r => Same(r.Instance, right.Instance) && Same(r.Database, database.Name))
            .Select(r => ((SqlServerRight)r, why));
    }

    /// <summary>A database that is trusted vouches at the instance for its owner, as whom dbo acts.</summary>
    private IEnumerable<(SqlServerRight, string)> OfDbo(DatabaseSnapshot database) =>
        database is { IsTrusted: true, OwnerName: { } owner } && Rules(owner, database)
            ? [(Everything, $"{database.Name} is TRUSTWORTHY, and its owner {owner} rules the instance")]
            : [];

    /// <summary>Whether the owner of a database can do anything at the instance.</summary>
    private bool Rules(string owner, DatabaseSnapshot database)
    {
        if (_instance!.OwnLogins.FirstOrDefault(l => Same(l.Name, owner)) is { } own)
            return own.Roles.Any(r => Same(r, SqlServerRight.AllPowerful))
                || own.Permissions.Any(p => Same(p, SqlServerPermissions.ControlServer));
        return _view.Graph.IndexOf(database.Owner) is >= 0 and var node
            && _view.HoldingsOf(node) is var its
            && (its.Of(Everything) is not null
                || its.Of(new InstancePermissionRight(right.Instance, SqlServerPermissions.ControlServer)) is not null);
    }

    /// <summary>What is made in one database reads another of the same owner, where both let chains of ownership cross.</summary>
    private IEnumerable<(SqlServerRight, string)> Chained(DatabaseSnapshot database) => !database.IsChained ? []
        : _instance!.Databases
            .Where(d => d.IsChained && d != database && d.OwnerName is not null && d.OwnerName == database.OwnerName)
            .Where(d => Holds(Permission(d, SqlServerPermissions.Connect, null)))
            .Select(d => (
                (SqlServerRight)Permission(d, "SELECT", null),
                $"what it makes in {database.Name} reads {d.Name}: chains of ownership cross, and both are {d.OwnerName}'s"));

    /// <summary>Whether what it makes in a schema runs as dbo.</summary>
    private bool Alters(DatabasePermissionRight permission, SqlServerSecurable schema, DatabaseSnapshot database) =>
        Takes(permission.Permission, "ALTER") && IsOfDbo(schema, database)
        && MakingModules.Any(m => Holds(Permission(database, m, null)));

    /// <summary>The roles of a database that somebody made: into the fixed ones only its owners add.</summary>
    private IEnumerable<DatabaseRoleRight> Made(DatabaseSnapshot database) => database.Roles
        .Where(r => !SqlServerRoles.IsFixedIn(database.Name, r.Role))
        .Where(r => !SqlServerPermissions.DenyingRoles.Any(d => Same(d.Role, r.Role)))
        .Select(r => Role(database, r.Role));

    private static bool IsOfDbo(SqlServerSecurable schema, DatabaseSnapshot database) =>
        !database.Owned.Any(o => Same(o.On, schema.Words));

    private bool Holds(Right asked) => asked.Above.Prepend(asked).Any(r => holdings.HandingOn(r) is not null);

    /// <summary>Whether a permission on something is one of these, or all of them.</summary>
    private static bool Takes(string permission, params ReadOnlySpan<string> wanted) =>
        permission == SqlServerPermissions.Control || wanted.Contains(permission);

    private static IEnumerable<PermissionEntry> Granted(IReadOnlyList<PermissionEntry> entries, string role) =>
        entries.Where(e => e.State != PermissionState.Deny && e.Role is not null && Same(e.Role, role));

    private DatabaseSnapshot? Database(DatabaseRight inside) => _view.Database(right.Instance, inside.Database);

    private InstanceRoleRight Everything => new(right.Instance, SqlServerRight.AllPowerful);

    private DatabaseRoleRight Role(DatabaseSnapshot database, string role) => new(right.Instance, database.Name, role);

    private DatabasePermissionRight Permission(DatabaseSnapshot database, string permission, string? on) =>
        new(right.Instance, database.Name, permission, on);

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
