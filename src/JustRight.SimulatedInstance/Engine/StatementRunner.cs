using JustRight.Formats.SqlServer;
using Microsoft.SqlServer.TransactSql.ScriptDom;

namespace JustRight.SimulatedInstance.Engine;

/// <summary>
/// Makes the statements that change the catalog, and refuses them for the reasons, and with the numbers, that the engine
/// documents.
/// </summary>
internal sealed class StatementRunner(SimulatedEngine engine, Powers powers)
{
    private const string Windows = "'U', 'G'";
    private const string Role = "'R'";
    private Catalog Catalog => engine.Catalog;

    /// <summary>Whether the session gets into a database: its number.</summary>
    public int Enter(string name)
    {
        if (Catalog.Database(name) is not { } database)
            throw new EngineException(911, $"Database '{name}' does not exist. Make sure that the name is entered correctly.");
        if (Catalog.ReadableReplica(database) == false)
            throw new EngineException(
                976,
                $"The target database, '{name}', is participating in an availability group and is currently not accessible "
                + "for queries.",
                14);
        return powers.UserIn(database) is null
            ? throw new EngineException(
                916, $"The login is not able to access the database \"{name}\" under the current security context.", 14)
            : database;
    }

    /// <summary>Whether the session may change a database: its number.</summary>
    private int Change(string name)
    {
        var database = Enter(name);
        return Catalog.ReadableReplica(database) is null
            ? database
            : throw new EngineException(3906, $"Failed to update database \"{name}\" because the database is read-only.");
    }

    /// <summary>
    /// Which rows of a view the session may see: without the right to see definitions, itself and what everybody sees.
    /// </summary>
    /// <param name="current">The database it is in.</param>
    public Func<string, string?, string> Visible(string current) => (view, named) =>
    {
        switch (view.ToUpperInvariant())
        {
            case "SERVER_PRINCIPALS" when !powers.SeesDefinitions:
                return $"type = 'R' OR principal_id = {powers.Login}";
            case "SERVER_ROLE_MEMBERS" when !powers.SeesDefinitions:
                return $"member_principal_id = {powers.Login}";
            case "SERVER_PERMISSIONS" when !powers.SeesDefinitions:
                return $"grantee_principal_id IN (2, {powers.Login})";
            case "SERVER_PRINCIPALS" or "SERVER_ROLE_MEMBERS" or "SERVER_PERMISSIONS" or "DATABASES":
            case "CONFIGURATIONS" or "ENDPOINTS":
                return "1";
            case var table when Catalog.AgentTables.Contains(table, StringComparer.OrdinalIgnoreCase):
                return powers.Reads(Enter(Catalog.Jobs), view) ? "1" : throw new EngineException(
                    229, $"The SELECT permission was denied on '{view}', database '{Catalog.Jobs}', schema 'dbo'.", 14);
            case "AVAILABILITY_GROUPS" or "AVAILABILITY_REPLICAS":
                return powers.SeesDefinitions ? "1" : "0";
            case "DATABASE_PRINCIPALS" or "DATABASE_ROLE_MEMBERS" or "DATABASE_PERMISSIONS" or "SCHEMAS" or "OBJECTS":
            case "COLUMNS" or "EXTENDED_PROPERTIES":
            case var other when SqlServerThings.InDatabase.Any(t =>
                t.Since <= engine.Release && string.Equals(t.View, other, StringComparison.OrdinalIgnoreCase)):
                var database = Enter(named ?? current);
                return powers.SeesDefinitionsIn(database) ? $"db = {database}" : view.ToUpperInvariant() switch
                {
                    "DATABASE_PRINCIPALS" => $"db = {database} AND (type = 'R' OR principal_id = {powers.UserIn(database)})",
                    "DATABASE_ROLE_MEMBERS" => $"db = {database} AND member_principal_id = {powers.UserIn(database)}",
                    "DATABASE_PERMISSIONS" => $"db = {database} AND grantee_principal_id IN (0, {powers.UserIn(database)})",
                    _ => "0",
                };
            default:
                throw new EngineException(208, $"Invalid object name 'sys.{view}'.");
        }
    };

    /// <summary>Makes a statement.</summary>
    /// <param name="current">The database it is made in.</param>
    public void Run(TSqlStatement statement, string current)
    {
        switch (statement)
        {
            case CreateLoginStatement { Source: WindowsCreateLoginSource } s:
                CreateLogin(s.Name.Value);
                break;
            case DropLoginStatement s:
                DropLogin(s.Name.Value);
                break;
            case AlterLoginEnableDisableStatement s:
                Require(powers.At("ALTER ANY LOGIN"));
                Catalog.Run(
                    "UPDATE server_principals SET is_disabled = $2 WHERE principal_id = $1",
                    Catalog.ServerPrincipal(s.Name.Value, "'S', 'U', 'G'")
                        ?? throw EngineException.Missing("alter", "login", s.Name.Value),
                    s.IsEnable ? 0 : 1);
                break;
            case CreateServerRoleStatement s:
                Require(powers.At("CREATE SERVER ROLE"));
                Catalog.AddServerPrincipal(
                    Free(
                        s.Name.Value, Catalog.ServerPrincipal(s.Name.Value, "'S', 'U', 'G', 'R'"), 15025,
                        "The server principal '{0}' already exists."),
                    "R", Fresh());
                break;
            case AlterServerRoleStatement s:
                AlterServerRole(s.Name.Value, s.Action);
                break;
            case CreateDatabaseStatement s:
                Require(powers.At("CREATE ANY DATABASE"));
                Catalog.AddDatabase(
                    Free(
                        s.DatabaseName.Value, Catalog.Database(s.DatabaseName.Value), 1801,
                        "Database '{0}' already exists. Choose a different database name."),
                    OwnSid());
                break;
            case CreateUserStatement { UserLoginOption: { UserLoginOptionType: UserLoginOptionType.Login } option } s:
                CreateUser(Change(current), s.Name.Value, option.Identifier.Value);
                break;
            case DropUserStatement s:
                DropUser(Change(current), s.Name.Value);
                break;
            case CreateRoleStatement s:
                Require(powers.In(Change(current), "CREATE ROLE"));
                Catalog.AddDatabasePrincipal(
                    Change(current),
                    Free(
                        s.Name.Value, Catalog.DatabasePrincipal(Change(current), s.Name.Value, "'S', 'U', 'G', 'R'"), 15023,
                        "User, group, or role '{0}' already exists in the current database."),
                    "R", null);
                break;
            case AlterRoleStatement s:
                AlterRole(Change(current), s.Name.Value, s.Action);
                break;
            case CreateSchemaStatement s:
                Require(powers.In(Change(current), "CREATE SCHEMA"));
                Catalog.Run(
                    "INSERT INTO schemas VALUES($1, $2, $3, 1)", Change(current), Catalog.NextNumber(),
                    Free(
                        s.Name.Value, Schema(Change(current), s.Name.Value), 2714,
                        "There is already an object named '{0}' in the database."));
                break;
            case CreateTableStatement s:
                Require(powers.In(Change(current), "CREATE TABLE"));
                CreateTable(Change(current), s);
                break;
            case SecurityStatement s:
                new PermissionRunner(Catalog, powers, engine.Release).Run(s, current, Change);
                break;
            case AlterAuthorizationStatement { SecurityTargetObject: { ObjectKind: SecurityObjectKind.Database } of } s:
                ChangeOwner(of.ObjectName.MultiPartIdentifier.Identifiers[^1].Value, s.PrincipalName.Value);
                break;
            case AlterAuthorizationStatement { SecurityTargetObject: { } of } s:
                ChangeThingsOwner(of, s, current);
                break;
            case ExecuteStatement { ExecuteSpecification.ExecutableEntity: ExecutableProcedureReference procedure }:
                Execute(Change(current), procedure);
                break;
            default:
                throw EngineException.NotSimulated(
                    $"the statement {statement.GetType().Name.Replace("Statement", "", StringComparison.Ordinal)}");
        }
    }

    private void CreateLogin(string name)
    {
        Require(powers.At("ALTER ANY LOGIN") || powers.At("CREATE LOGIN"));
        if (!name.Contains('\\', StringComparison.Ordinal))
            throw new EngineException(
                15407, $"'{name}' is not a valid Windows NT name. Give the complete name: <domain\\username>.");
        Free(name, Catalog.ServerPrincipal(name, "'S', 'U', 'G', 'R'"), 15025, "The server principal '{0}' already exists.");
        if (engine.Birth.Domain(name) is not { } found)
            throw new EngineException(15401, $"Windows NT user or group '{name}' not found. Check the name again.");
        var sid = found.Sid.ToBytes();
        if (Catalog.One("SELECT 1 FROM server_principals WHERE sid = $1", sid) is not null)
            throw new EngineException(15433, "Supplied parameter sid is in use.");
        Catalog.AddServerPrincipal(name, found.IsGroup ? "G" : "U", sid);
    }

    private void DropLogin(string name)
    {
        if (!powers.At("ALTER ANY LOGIN")
            || Catalog.ServerPrincipal(name, "'S', 'U', 'G'") is not { } login)
            throw EngineException.Missing("drop", "login", name);
        if (Catalog.One(
            "SELECT 1 FROM databases AS d JOIN server_principals AS p ON p.sid = d.owner_sid WHERE p.principal_id = $1",
            login) is not null)
            throw new EngineException(
                15174,
                $"Login '{name}' owns one or more database(s). Change the owner of the database(s) before dropping the login.");
        if (Catalog.Number(
            "SELECT count(*) FROM sysjobs AS j JOIN server_principals AS p ON p.sid = j.owner_sid WHERE p.principal_id = $1",
            login) is > 0 and var jobs)
            throw new EngineException(
                15170,
                $"This login is the owner of {jobs} job(s). Delete or reassign them before the login can be dropped.");
        Catalog.Run("DELETE FROM server_role_members WHERE member_principal_id = $1", login);
        Catalog.Run("DELETE FROM server_permissions WHERE grantee_principal_id = $1", login);
        Catalog.Run("DELETE FROM server_principals WHERE principal_id = $1", login);
    }

    private void AlterServerRole(string name, AlterRoleAction action)
    {
        if (Catalog.ServerPrincipal(name, Role) is not { } role) throw EngineException.Missing("alter", "server role", name);
        var isFixed = Catalog.Number("SELECT is_fixed_role FROM server_principals WHERE principal_id = $1", role) == 1;
        if (!(powers.InServerRole(name) || (!isFixed && powers.At("ALTER ANY SERVER ROLE")) || powers.RulesAll))
            throw EngineException.Missing("alter", "server role", name);
        var (member, add) = MemberOf(action);
        if (Catalog.ServerPrincipal(member, "'S', 'U', 'G', 'R'") is not { } principal)
            throw EngineException.Missing(add ? "add" : "drop", "principal", member);
        if (add) Catalog.Run("INSERT OR IGNORE INTO server_role_members VALUES($1, $2)", role, principal);
        else if (Catalog.Run(
            "DELETE FROM server_role_members WHERE role_principal_id = $1 AND member_principal_id = $2", role, principal) == 0)
            throw EngineException.Missing("drop", "principal", member);
    }

    private void CreateUser(int database, string name, string login)
    {
        Require(powers.In(database, "ALTER ANY USER"));
        Free(
            name, Catalog.DatabasePrincipal(database, name, "'S', 'U', 'G', 'R'"), 15023,
            "User, group, or role '{0}' already exists in the current database.");
        if (Catalog.ServerPrincipal(login, "'S', 'U', 'G'") is not { } principal)
            throw new EngineException(15007, $"'{login}' is not a valid login or you do not have permission.");
        var sid = (byte[])Catalog.One("SELECT sid FROM server_principals WHERE principal_id = $1", principal)!;
        if (Catalog.One("SELECT 1 FROM database_principals WHERE db = $1 AND sid = $2", database, sid) is not null)
            throw new EngineException(15063, "The login already has an account under a different user name.");
        Catalog.AddDatabasePrincipal(
            database, name, (string)Catalog.One("SELECT type FROM server_principals WHERE principal_id = $1", principal)!, sid);
    }

    private void DropUser(int database, string name)
    {
        if (!powers.In(database, "ALTER ANY USER")
            || Catalog.DatabasePrincipal(database, name, "'S', 'U', 'G'") is not { } user)
            throw EngineException.Missing("drop", "user", name);
        if (user <= 2) throw new EngineException(15150, $"Cannot drop the user '{name}'.");
        if (Catalog.One("SELECT 1 FROM schemas WHERE db = $1 AND principal_id = $2", database, user) is not null)
            throw new EngineException(15138, "The database principal owns a schema in the database, and cannot be dropped.");
        Catalog.Run("DELETE FROM database_role_members WHERE db = $1 AND member_principal_id = $2", database, user);
        Catalog.Run("DELETE FROM database_permissions WHERE db = $1 AND grantee_principal_id = $2", database, user);
        Catalog.Run("DELETE FROM database_principals WHERE db = $1 AND principal_id = $2", database, user);
    }

    private void AlterRole(int database, string name, AlterRoleAction action)
    {
        var isFixed = name.StartsWith("db_", StringComparison.OrdinalIgnoreCase);
        if (Catalog.DatabasePrincipal(database, name, Role) is not { } role
            || !(isFixed ? powers.Owns(database) : powers.In(database, "ALTER ANY ROLE")))
            throw EngineException.Missing("alter", "role", name);
        var (member, add) = MemberOf(action);
        if (Catalog.DatabasePrincipal(database, member, "'S', 'U', 'G', 'R'") is not { } principal)
            throw EngineException.Missing(add ? "add" : "drop", "principal", member);
        if (add) Catalog.Run("INSERT OR IGNORE INTO database_role_members VALUES($1, $2, $3)", database, role, principal);
        else if (Catalog.Run(
            "DELETE FROM database_role_members WHERE db = $1 AND role_principal_id = $2 AND member_principal_id = $3", database,
            role, principal) == 0)
            throw EngineException.Missing("drop", "principal", member);
    }

    private void ChangeOwner(string name, string owner)
    {
        var database = Change(name);
        Require(powers.RulesAll || (powers.Owns(database) && powers.At("CONTROL SERVER")));
        if (Catalog.ServerPrincipal(owner, $"'S', {Windows}") is not { } login)
            throw EngineException.Missing("find", "principal", owner);
        var sid = Catalog.One("SELECT sid FROM server_principals WHERE principal_id = $1", login);
        if (Catalog.One(
            "SELECT 1 FROM database_principals WHERE db = $1 AND sid = $2 AND principal_id <> 1", database, sid) is not null)
            throw new EngineException(15110, "The proposed new database owner is already a user or aliased in the database.");
        Catalog.Run("UPDATE databases SET owner_sid = $2 WHERE database_id = $1", database, sid);
        Catalog.Run("UPDATE database_principals SET sid = $2 WHERE db = $1 AND principal_id = 1", database, sid);
    }

    /// <summary>The procedures that keep properties of a database [sp_addextendedproperty, sp_dropextendedproperty].</summary>
    private void Execute(int database, ExecutableProcedureReference procedure)
    {
        var called = procedure.ProcedureReference.ProcedureReference.Name.BaseIdentifier.Value;
        string Given(string parameter) =>
            procedure.Parameters.FirstOrDefault(p => p.Variable?.Name == parameter)?.ParameterValue is StringLiteral text
                ? text.Value
                : throw EngineException.NotSimulated($"{called} without {parameter}");
        Require(powers.In(database, "ALTER"));
        var name = Given("@name");
        var isThere = Catalog.One("SELECT 1 FROM extended_properties WHERE db = $1 AND name = $2", database, name) is not null;
        switch (called)
        {
            case "sp_addextendedproperty" when isThere:
                throw new EngineException(15233, $"Property cannot be added. Property '{name}' already exists.");
            case "sp_addextendedproperty":
                Catalog.Run("INSERT INTO extended_properties VALUES($1, 0, $2, $3)", database, name, Given("@value"));
                break;
            case "sp_dropextendedproperty" when !isThere:
                throw new EngineException(15217, $"Property cannot be updated or deleted. Property '{name}' does not exist.");
            case "sp_dropextendedproperty":
                Catalog.Run("DELETE FROM extended_properties WHERE db = $1 AND name = $2", database, name);
                break;
            default:
                throw EngineException.NotSimulated($"the procedure {called}");
        }
    }

    private void CreateTable(int database, CreateTableStatement table)
    {
        var schema = table.SchemaObjectName.SchemaIdentifier?.Value ?? "dbo";
        var number = Catalog.NextNumber();
        Catalog.Run(
            "INSERT INTO objects VALUES($1, $2, $3, $4, 'U', NULL)", database, number,
            Schema(database, schema) ?? throw EngineException.Missing("find", "schema", schema),
            table.SchemaObjectName.BaseIdentifier.Value);
        for (var i = 0; i < table.Definition.ColumnDefinitions.Count; i++)
            Catalog.Run(
                "INSERT INTO columns VALUES($1, $2, $3, $4)", database, number, i + 1,
                table.Definition.ColumnDefinitions[i].ColumnIdentifier.Value);
    }

    /// <summary>Gives a thing that permissions are on another owner [ALTER AUTHORIZATION].</summary>
    private void ChangeThingsOwner(SecurityTargetObject of, AlterAuthorizationStatement statement, string current)
    {
        var thing = PermissionRunner.ThingOf(of);
        var things = SqlServerThings.Of(thing.Class);
        var database = thing.IsOfInstance ? (int?)null : Change(current);
        if (things.Owner is null) throw EngineException.NotSimulated($"another owner of a {thing.ClassWord}");
        if (Catalog.Find(database, thing) is not { } found) throw EngineException.Missing("find", "object", thing.NameWords);
        Require(powers.RulesAll || (database is { } inside && powers.Owns(inside)));
        int? owner = statement.ToSchemaOwner ? null
            : (database is { } at
                ? Catalog.DatabasePrincipal(at, statement.PrincipalName.Value, "'S', 'U', 'G', 'R'")
                : Catalog.ServerPrincipal(statement.PrincipalName.Value, "'S', 'U', 'G'"))
            ?? throw EngineException.Missing("find", "principal", statement.PrincipalName.Value);
        Catalog.Run(
            $"UPDATE {things.View} SET {things.Owner} = $1 WHERE {things.Id} = $2{(database is null ? "" : " AND db = $3")}",
            owner, found.Major, database);
    }

    private int? Schema(int database, string name) =>
        Catalog.Number("SELECT schema_id FROM schemas WHERE db = $1 AND name = $2", database, name);

    private byte[] OwnSid() => (byte[])Catalog.One("SELECT sid FROM server_principals WHERE principal_id = $1", powers.Login)!;

    private byte[] Fresh() => [0xFF, .. BitConverter.GetBytes(Catalog.NextNumber())];

    private static (string Member, bool Add) MemberOf(AlterRoleAction action) => action switch
    {
        AddMemberAlterRoleAction a => (a.Member.Value, true),
        DropMemberAlterRoleAction d => (d.Member.Value, false),
        _ => throw EngineException.NotSimulated("how to rename a role"),
    };

    private static string Free(string name, int? taken, int number, string message) =>
        taken is null ? name : throw new EngineException(number, message.Replace("{0}", name, StringComparison.Ordinal));

    private static void Require(bool may)
    {
        if (!may) throw EngineException.NoPermission();
    }
}
