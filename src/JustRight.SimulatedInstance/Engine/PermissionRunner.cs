using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Surveys;
using Microsoft.SqlServer.TransactSql.ScriptDom;

namespace JustRight.SimulatedInstance.Engine;

/// <summary>Grants, denies and revokes. Which permissions there are, and on what, says the product's table of them.</summary>
/// <param name="release">The number of the instance's release.</param>
internal sealed class PermissionRunner(Catalog catalog, Powers powers, int release)
{
    private const int OfInstance = 100;
    private const string IsFixed = "is_fixed_role = 1 AND type = 'R' AND name <> 'public'";

    /// <summary>Makes a statement.</summary>
    /// <param name="current">The database it is made in.</param>
    /// <param name="enter">The number of a database the session gets into.</param>
    public void Run(SecurityStatement statement, string current, Func<string, int> enter)
    {
        var thing = statement.SecurityTargetObject is { } on ? ThingOf(on) : null;
        foreach (var permission in statement.Permissions)
        {
            var name = string.Join(' ', permission.Identifiers.Select(i => i.Value)).ToUpperInvariant();
            foreach (var grantee in statement.Principals.Select(p =>
                p.PrincipalType == PrincipalType.Public ? Catalog.Public : p.Identifier.Value))
            {
                foreach (var part in Parts(thing, permission))
                {
                    if (part?.IsOfInstance ?? SqlServerPermissions.Of(SqlServerClass.Server, name) is not null)
                        AtInstance(statement, name, part, grantee, current);
                    else InDatabase(statement, name, part, grantee, enter(current));
                }
            }
        }
    }

    /// <summary>What a statement is about.</summary>
    public static SqlServerSecurable ThingOf(SecurityTargetObject on)
    {
        var names = on.ObjectName.MultiPartIdentifier.Identifiers.Select(i => i.Value).ToList();
        SqlServerSecurable One(SqlServerClass kind) => new(kind, null, names[^1], null);
        SqlServerSecurable Two(SqlServerClass kind) => new(kind, names.Count > 1 ? names[^2] : "dbo", names[^1], null);
        return on.ObjectKind switch
        {
            SecurityObjectKind.NotSpecified or SecurityObjectKind.Object => Two(SqlServerClass.SchemaObject),
            SecurityObjectKind.Type => Two(SqlServerClass.Type),
            SecurityObjectKind.XmlSchemaCollection => Two(SqlServerClass.XmlSchemaCollection),
            SecurityObjectKind.Schema => One(SqlServerClass.Schema),
            SecurityObjectKind.User => One(SqlServerClass.User),
            SecurityObjectKind.Role => One(SqlServerClass.Role),
            SecurityObjectKind.ApplicationRole => One(SqlServerClass.ApplicationRole),
            SecurityObjectKind.Assembly => One(SqlServerClass.Assembly),
            SecurityObjectKind.AsymmetricKey => One(SqlServerClass.AsymmetricKey),
            SecurityObjectKind.SymmetricKey => One(SqlServerClass.SymmetricKey),
            SecurityObjectKind.Certificate => One(SqlServerClass.Certificate),
            SecurityObjectKind.Contract => One(SqlServerClass.Contract),
            SecurityObjectKind.MessageType => One(SqlServerClass.MessageType),
            SecurityObjectKind.Service => One(SqlServerClass.Service),
            SecurityObjectKind.Route => One(SqlServerClass.Route),
            SecurityObjectKind.RemoteServiceBinding => One(SqlServerClass.RemoteServiceBinding),
            SecurityObjectKind.FullTextCatalog => One(SqlServerClass.FulltextCatalog),
            SecurityObjectKind.FullTextStopList => One(SqlServerClass.FulltextStoplist),
            SecurityObjectKind.SearchPropertyList => One(SqlServerClass.SearchPropertyList),
            SecurityObjectKind.Login => One(SqlServerClass.Login),
            SecurityObjectKind.ServerRole => One(SqlServerClass.ServerRole),
            SecurityObjectKind.Endpoint => One(SqlServerClass.Endpoint),
            SecurityObjectKind.AvailabilityGroup => One(SqlServerClass.AvailabilityGroup),
            _ => throw EngineException.NotSimulated($"permissions on a {on.ObjectKind}"),
        };
    }

    /// <summary>The columns a statement names, or what it is on.</summary>
    private static List<SqlServerSecurable?> Parts(SqlServerSecurable? thing, Permission permission) =>
        permission.Columns.Count == 0 ? [thing] : [.. permission.Columns.Select(c => Column(thing, c.Value))];

    private static SqlServerSecurable Column(SqlServerSecurable? thing, string name) =>
        thing is { Class: SqlServerClass.SchemaObject }
            ? thing with { Class = SqlServerClass.Column, Column = name }
            : throw OfEntities();

    /// <summary>Refuses a permission that is not of this release, or not one on such things.</summary>
    private void Require(string permission, SqlServerClass kind)
    {
        var row = SqlServerPermissions.Of(kind, permission);
        if (row is not null && row.Since <= release) return;
        var isKnown = Enum.GetValues<SqlServerClass>()
            .Any(c => SqlServerPermissions.Of(c, permission) is { } known && known.Since <= release);
        if (!isKnown) throw new EngineException(102, $"Incorrect syntax near '{permission}'.", 15);
        if (kind == SqlServerClass.Column) throw OfEntities();
        throw new EngineException(4606, $"Granted or revoked privilege {permission} is not compatible with object.");
    }

    private void AtInstance(
        SecurityStatement statement, string permission, SqlServerSecurable? thing, string grantee, string current)
    {
        Require(permission, thing?.Class ?? SqlServerClass.Server);
        if (!catalog.Same(current, "master"))
            throw new EngineException(
                4621, "Permissions at the server scope can only be granted when the current database is master");
        if (catalog.ServerPrincipal(grantee, "'S', 'U', 'G', 'R'") is not { } principal)
            throw EngineException.Missing("find", "login", grantee);
        if (!powers.MayGrant(permission)) throw new EngineException(4613, "Grantor does not have GRANT permission.");
        if (principal == powers.Login || principal == 1) throw Special();
        if (catalog.One($"SELECT 1 FROM server_principals WHERE principal_id = $1 AND {IsFixed}", principal) is not null)
            throw Roles();
        var (kind, major) = thing is null ? (OfInstance, 0)
            : catalog.Find(null, thing) is { } found ? (found.Class, found.Major)
            : throw EngineException.Missing("find", thing.ClassWord, thing.Name);
        const string where = "WHERE class = $1 AND major_id = $2 AND grantee_principal_id = $3 AND permission_name = $4";
        var now = catalog.One($"SELECT state FROM server_permissions {where}", kind, major, principal, permission) as string;
        if (Next(statement, now) is { } state)
            catalog.Run(
                "INSERT OR REPLACE INTO server_permissions VALUES($1, $2, 0, $3, $4, $5)", kind, major, principal, permission,
                state);
        else catalog.Run($"DELETE FROM server_permissions {where}", kind, major, principal, permission);
    }

    private void InDatabase(
        SecurityStatement statement, string permission, SqlServerSecurable? thing, string grantee, int database)
    {
        Require(permission, thing?.Class ?? SqlServerClass.Database);
        var (kind, major, minor) = thing is null ? (0, 0, 0)
            : catalog.Find(database, thing) ?? throw EngineException.Missing("find", thing.ClassWord, thing.NameWords);
        if (catalog.DatabasePrincipal(database, grantee, "'S', 'U', 'G', 'R'") is not { } principal)
            throw EngineException.Missing("find", "user", grantee);
        if (!powers.Owns(database) && !powers.IsIn(database, "db_securityadmin"))
            throw new EngineException(4613, "Grantor does not have GRANT permission.");
        if (principal == 1) throw Special();
        if (catalog.One(
            $"SELECT 1 FROM database_principals WHERE db = $1 AND principal_id = $2 AND {IsFixed}", database,
            principal) is not null)
            throw Roles();
        const string where =
            "WHERE db = $1 AND class = $2 AND major_id = $3 AND minor_id = $4 AND grantee_principal_id = $5"
            + " AND permission_name = $6";
        var now = catalog.One(
            $"SELECT state FROM database_permissions {where}", database, kind, major, minor, principal, permission) as string;
        if (Next(statement, now) is { } state)
            catalog.Run(
                "INSERT OR REPLACE INTO database_permissions VALUES($1, $2, $3, $4, $5, $6, $7)", database, kind, major, minor,
                principal, permission, state);
        else catalog.Run($"DELETE FROM database_permissions {where}", database, kind, major, minor, principal, permission);
    }

    /// <summary>How an entry stands after a statement; null when there is none any more.</summary>
    private static string? Next(SecurityStatement statement, string? now) => statement switch
    {
        GrantStatement g => g.WithGrantOption || now == "W" ? "W" : "G",
        DenyStatement { CascadeOption: false } when now == "W" => throw Cascade(),
        DenyStatement => "D",
        RevokeStatement { CascadeOption: false } when now == "W" => throw Cascade(),
        RevokeStatement { GrantOptionFor: true } => now is null ? null : "G",
        RevokeStatement => null,
        _ => throw EngineException.NotSimulated(statement.GetType().Name),
    };

    private static EngineException Cascade() => new(4611, "To revoke or deny grantable privileges, specify the CASCADE option.");

    private static EngineException OfEntities() => new(
        1020,
        "Sub-entity lists (such as column or security expressions) cannot be specified for entity-level permissions.");

    private static EngineException Special() => new(
        15152, "Cannot grant, deny, or revoke permissions to sa, dbo, entity owner, information_schema, sys, or yourself.");

    private static EngineException Roles() => new(
        4617, "Cannot grant, deny or revoke permissions to or from special roles.");
}
