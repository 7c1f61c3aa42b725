using System.Globalization;
using JustRight.Core.Changes;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Formats.Handovers;

namespace JustRight.Formats.SqlServer;

/// <summary>
/// Writes changes of an instance of the SQL Server family as Transact-SQL. Names are always delimited by brackets or quotes with
/// theirs doubled, so that nothing in a name is ever read as a statement; conditions ask the catalog views that the engine
/// documents.
/// </summary>
public static class TransactSql
{
    private const int LongestName = 128;
    /// <summary>What a condition begins with that is true while something is not there.</summary>
    internal const string Not = "NOT ";
    private const string Line = "\n        ";

    /// <summary>
    /// Why a change cannot be written as a script, or null when it can. A client splits scripts at line ends, whatever quotes
    /// they stand in.
    /// </summary>
    public static string? WhyNot(InstanceChange change)
    {
        try
        {
            Of(change);
            return null;
        }
        catch (ArgumentException e)
        {
            return e.Message;
        }
    }

    /// <summary>One change. Conditions name the database they ask, so they may be asked from anywhere on the instance.</summary>
    /// <exception cref="ArgumentException">It is no change of this engine, or holds a name or a permission that no script can
    /// hold.</exception>
    public static SqlChange Of(InstanceChange change) => change switch
    {
        CreateLogin c => new(null, LoginExists(c.Principal), $"CREATE LOGIN {Name(c.Principal)} FROM WINDOWS"),
        DropLogin c => new(null, Not + LoginExists(c.Principal), $"DROP LOGIN {Name(c.Principal)}"),
        AddInstanceRoleMember c =>
            new(
                null, InRole(null, "server", c.Role, c.Principal),
                $"ALTER SERVER ROLE {Name(c.Role)} ADD MEMBER {Name(c.Principal)}"),
        RemoveInstanceRoleMember c =>
            new(
                null, Not + InRole(null, "server", c.Role, c.Principal),
                $"ALTER SERVER ROLE {Name(c.Role)} DROP MEMBER {Name(c.Principal)}"),
        GrantInstancePermission c =>
            new(null, Granted(c.Permission, c.Principal), $"GRANT {OnInstance(c.Permission)} TO {Name(c.Principal)}"),
        RevokeInstancePermission c =>
            new(null, Not + Granted(c.Permission, c.Principal), $"REVOKE {OnInstance(c.Permission)} FROM {Name(c.Principal)}"),
        ChangeDatabaseOwner c =>
            new(
                null, Owned(c.Database, c.Principal),
                $"ALTER AUTHORIZATION ON DATABASE::{Name(c.Database)} TO {Name(c.Principal)}"),
        CreateDatabaseUser c =>
            new(
                c.Database, UserExists(c.Database, c.Principal),
                $"CREATE USER {Name(c.Principal)} FOR LOGIN {Name(c.Principal)}"),
        DropDatabaseUser c => new(c.Database, Not + UserExists(c.Database, c.Principal), $"DROP USER {Name(c.Principal)}"),
        AddDatabaseRoleMember c =>
            new(
                c.Database, InRole(c.Database, "database", c.Role, c.Principal),
                $"ALTER ROLE {Name(c.Role)} ADD MEMBER {Name(c.Principal)}"),
        RemoveDatabaseRoleMember c =>
            new(
                c.Database, Not + InRole(c.Database, "database", c.Role, c.Principal),
                $"ALTER ROLE {Name(c.Role)} DROP MEMBER {Name(c.Principal)}"),
        GrantDatabasePermission c =>
            new(
                c.Database, Granted(c.Database, c.Permission, c.On, c.Principal),
                $"GRANT {InDatabase(c.Permission, c.On)} TO {Name(c.Principal)}"),
        RevokeDatabasePermission c =>
            new(
                c.Database, Not + Granted(c.Database, c.Permission, c.On, c.Principal),
                $"REVOKE {InDatabase(c.Permission, c.On)} FROM {Name(c.Principal)}"),
        _ => throw new ArgumentException($"{change.GetType().Name} is not a change for this engine.", nameof(change)),
    };

    /// <summary>A name as an identifier [Transact-SQL, delimited identifiers]: in brackets, a closing bracket doubled.</summary>
    /// <exception cref="ArgumentException">The engine takes no such name, or a script cannot hold it: it is empty, longer than
    /// 128 characters, or has a line end or another control character.</exception>
    public static string Name(string name) =>
        name.Length is 0 or > LongestName || name.Any(char.IsControl) || name.AsSpan().IndexOfAny('\u2028', '\u2029') >= 0
            ? throw new ArgumentException(
                $"'{string.Concat(name.Select(c => char.IsControl(c) ? ' ' : c))}' cannot be named in a script: empty, over {LongestName} characters, or with a line end.",
                nameof(name))
            : Delimited(name);

    /// <summary>Any name as an identifier, for a client that sends it whole: nothing is refused.</summary>
    public static string Delimited(string name) => $"[{name.Replace("]", "]]", StringComparison.Ordinal)}]";

    /// <summary>A text as a constant [Transact-SQL, Unicode strings]: in quotes, a quote doubled.</summary>
    public static string Literal(string text) => $"N'{text.Replace("'", "''", StringComparison.Ordinal)}'";

    private static string LoginExists(string login) =>
        $"EXISTS (SELECT 1 FROM sys.server_principals AS p WHERE p.name = {Literal(login)} AND p.type IN ('U', 'G'))";

    private static string UserExists(string database, string user) =>
        $"EXISTS (SELECT 1 FROM {Name(database)}.sys.database_principals AS p WHERE p.name = {Literal(user)} AND p.type IN ('U', 'G'))";

    private static string Owned(string database, string owner) =>
        $"EXISTS (SELECT 1 FROM sys.databases AS d{Line}JOIN sys.server_principals AS p ON p.sid = d.owner_sid{Line}WHERE d.name = {Literal(database)} AND p.name = {Literal(owner)})";

    private static string InRole(string? database, string level, string role, string member)
    {
        var sys = database is null ? "sys" : $"{Name(database)}.sys";
        return $"EXISTS (SELECT 1 FROM {sys}.{level}_role_members AS m{Line}JOIN {sys}.{level}_principals AS r ON r.principal_id = m.role_principal_id{Line}JOIN {sys}.{level}_principals AS p ON p.principal_id = m.member_principal_id{Line}WHERE r.name = {Literal(role)} AND p.name = {Literal(member)})";
    }

    private static string Granted(string permission, string login)
    {
        var (alone, on) = Apart(permission);
        return Granted("sys", "server", Thing(on, ofInstance: true), 100, alone, login);
    }

    private static string Granted(string database, string permission, string? on, string user) =>
        Granted($"{Name(database)}.sys", "database", Thing(on, ofInstance: false), 0, permission, user);

    /// <summary>Whether a permission is granted: on a thing, or on the whole, which has a class of its own.</summary>
    private static string Granted(
        string sys, string level, SqlServerSecurable? thing, int whole, string permission, string principal)
    {
        var (join, where) = ("", $"e.class = {whole.ToString(CultureInfo.InvariantCulture)}");
        if (thing is not null)
        {
            var of = SqlServerThings.Of(thing.Class);
            join = $"{Line}JOIN {of.From(sys)} ON t.{of.Id} = e.major_id{of.With(sys)}";
            where = $"e.class = {of.Number.ToString(CultureInfo.InvariantCulture)} AND {of.Name} = {Literal(thing.Name)}";
            if (of.Only is { } only) where += $" AND {only}";
            if (of.InSchema) where += $" AND s.name = {Literal(thing.Schema!)}";
            if (thing.Column is not null)
            {
                join += $"{Line}JOIN {sys}.columns AS c ON c.object_id = e.major_id AND c.column_id = e.minor_id";
                where += $" AND c.name = {Literal(thing.Column)}";
            }
            else if (of.Number == SqlServerThings.ObjectNumber)
            {
                where += " AND e.minor_id = 0";
            }
        }

        return $"EXISTS (SELECT 1 FROM {sys}.{level}_permissions AS e{Line}JOIN {sys}.{level}_principals AS p ON p.principal_id = e.grantee_principal_id{join}{Line}WHERE {where} AND e.permission_name = {Literal(Permission(permission))} AND e.state IN ('G', 'W') AND p.name = {Literal(principal)})";
    }

    private static string OnInstance(string permission)
    {
        var (alone, on) = Apart(permission);
        return Permission(alone) + OnClause(Thing(on, ofInstance: true));
    }

    private static string InDatabase(string permission, string? on)
    {
        var thing = Thing(on, ofInstance: false);
        return Permission(permission) + (thing?.Column is { } column ? $" ({Name(column)})" : "") + OnClause(thing);
    }

    private static string OnClause(SqlServerSecurable? thing) => thing switch
    {
        null => "",
        { Column: not null } => OnClause(thing.Around),
        { Schema: { } schema } => $" ON {thing.ClassWord}::{Name(schema)}.{Name(thing.Name)}",
        _ => $" ON {thing.ClassWord}::{Name(thing.Name)}",
    };

    /// <summary>What a permission is on; null for the whole.</summary>
    private static SqlServerSecurable? Thing(string? on, bool ofInstance) => on is null ? null
        : SqlServerSecurable.TryParse(on) is { } thing && thing.IsOfInstance == ofInstance
            ? thing.Class is SqlServerClass.DatabaseScopedCredential or SqlServerClass.ExternalLanguage
                // the engine maker's own parser does not read them: nothing would prove what is written
                ? throw new ArgumentException($"Permissions on a {thing.ClassWord} are not written here: grant it by hand.", nameof(on))
                : thing
        : throw new ArgumentException($"'{on}' is nothing that a permission can be on there.", nameof(on));

    /// <summary>A permission at an instance is written with what it is on.</summary>
    private static (string Permission, string? On) Apart(string words)
    {
        var at = words.IndexOf(" on ", StringComparison.OrdinalIgnoreCase);
        return at < 0 ? (words, null) : (words[..at], words[(at + 4)..]);
    }

    /// <summary>Permissions are words and no names: nothing else may stand where one belongs.</summary>
    private static string Permission(string permission) =>
        DatabaseNeedRules.IsPermissionAlone(permission)
            ? permission.ToUpperInvariant()
            : throw new ArgumentException($"'{permission}' cannot be a permission.", nameof(permission));
}
