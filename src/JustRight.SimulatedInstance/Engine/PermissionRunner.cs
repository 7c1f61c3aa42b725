using Microsoft.SqlServer.TransactSql.ScriptDom;

namespace JustRight.SimulatedInstance.Engine;

/// <summary>Grants, denies and revokes.</summary>
internal sealed class PermissionRunner(Catalog catalog, Powers powers)
{
    /// <summary>Makes a statement.</summary>
    /// <param name="current">The database it is made in.</param>
    /// <param name="enter">The number of a database the session gets into.</param>
    public void Run(SecurityStatement statement, string current, Func<string, int> enter)
    {
        foreach (var permission in statement.Permissions.Select(p =>
            string.Join(' ', p.Identifiers.Select(i => i.Value)).ToUpperInvariant()))
        {
            foreach (var grantee in statement.Principals.Select(p =>
                p.PrincipalType == PrincipalType.Public ? Catalog.Public : p.Identifier.Value))
            {
                if (statement.SecurityTargetObject is null && PermissionNames.AtInstance.Contains(permission))
                    AtInstance(statement, permission, grantee, current);
                else InDatabase(statement, permission, grantee, enter(current));
            }
        }
    }

    private void AtInstance(SecurityStatement statement, string permission, string grantee, string current)
    {
        if (!catalog.Same(current, "master"))
            throw new EngineException(
                4621, "Permissions at the server scope can only be granted when the current database is master");
        if (catalog.ServerPrincipal(grantee, "'S', 'U', 'G', 'R'") is not { } principal)
            throw EngineException.Missing("find", "login", grantee);
        if (!powers.MayGrant(permission)) throw new EngineException(4613, "Grantor does not have GRANT permission.");
        if (principal == powers.Login || principal == 1)
            throw new EngineException(
                15152,
                $"Cannot grant, deny, or revoke permissions to sa, dbo, entity owner, information_schema, sys, or yourself.");
        var now = catalog.One(
            "SELECT state FROM server_permissions WHERE grantee_principal_id = $1 AND permission_name = $2", principal,
            permission) as string;
        if (Next(statement, now) is { } state)
            catalog.Run("INSERT OR REPLACE INTO server_permissions VALUES(100, 0, 0, $1, $2, $3)", principal, permission, state);
        else
            catalog.Run(
                "DELETE FROM server_permissions WHERE grantee_principal_id = $1 AND permission_name = $2", principal, permission);
    }

    private void InDatabase(SecurityStatement statement, string permission, string grantee, int database)
    {
        if (!PermissionNames.InDatabase.Contains(permission))
            throw new EngineException(102, $"Incorrect syntax near '{permission}'.", 15);
        var (kind, major) = Target(statement.SecurityTargetObject, database);
        if (catalog.DatabasePrincipal(database, grantee, "'S', 'U', 'G', 'R'") is not { } principal)
            throw EngineException.Missing("find", "user", grantee);
        if (!powers.Owns(database) && !powers.In(database, "ALTER ANY USER", "db_securityadmin"))
            throw new EngineException(4613, "Grantor does not have GRANT permission.");
        if (principal == 1)
            throw new EngineException(
                15152,
                "Cannot grant, deny, or revoke permissions to sa, dbo, entity owner, information_schema, sys, or yourself.");
        const string where = "WHERE db = $1 AND class = $2 AND major_id = $3 AND grantee_principal_id = $4 AND permission_name = $5";
        var now = catalog.One(
            $"SELECT state FROM database_permissions {where}", database, kind, major, principal, permission) as string;
        if (Next(statement, now) is { } state)
            catalog.Run(
                "INSERT OR REPLACE INTO database_permissions VALUES($1, $2, $3, 0, $4, $5, $6)", database, kind, major, principal,
                permission, state);
        else catalog.Run($"DELETE FROM database_permissions {where}", database, kind, major, principal, permission);
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

    private (int Kind, int Major) Target(SecurityTargetObject? on, int database)
    {
        if (on is null) return (0, 0);
        var names = on.ObjectName.MultiPartIdentifier.Identifiers.Select(i => i.Value).ToList();
        switch (on.ObjectKind)
        {
            case SecurityObjectKind.Schema:
                return (
                    3,
                    catalog.Number("SELECT schema_id FROM schemas WHERE db = $1 AND name = $2", database, names[^1])
                        ?? throw EngineException.Missing("find", "schema", names[^1]));
            case SecurityObjectKind.Object or SecurityObjectKind.NotSpecified:
                var schema = names.Count > 1 ? names[^2] : "dbo";
                return (
                    1,
                    catalog.Number(
                        "SELECT o.object_id FROM objects AS o JOIN schemas AS s ON s.db = o.db AND s.schema_id = o.schema_id WHERE o.db = $1 AND s.name = $2 AND o.name = $3",
                        database, schema, names[^1])
                        ?? throw EngineException.Missing("find", "object", names[^1]));
            default:
                throw EngineException.NotSimulated($"permissions on a {on.ObjectKind}");
        }
    }
}
