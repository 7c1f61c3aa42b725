using System.Globalization;
using System.Text;
using JustRight.Core.Changes;
using JustRight.Core.Engines;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Hosts;
using JustRight.Core.Surveys;
using JustRight.Formats.Handovers;

namespace JustRight.Formats.PostgreSql;

/// <summary>
/// Writes changes of an instance of the PostgreSQL family as its SQL, and as scripts for its own client psql. Names are always
/// delimited and texts quoted, with theirs doubled; a name that the engine would cut short is refused.
/// </summary>
public static class PostgreSqlStatements
{
    private const int LongestName = 63; // bytes; the engine cuts longer ones without a word

    /// <summary>Why a change cannot be written, or null when it can.</summary>
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

    /// <summary>One change. It must be asked and made in its database; one without may be in any.</summary>
    /// <exception cref="ArgumentException">It is no change of this engine, or holds a name or a privilege that cannot be
    /// written.</exception>
    public static SqlChange Of(InstanceChange change) => change switch
    {
        CreateLogin c => new(null, Has(c.Principal, "rolcanlogin"), $"CREATE ROLE {Name(c.Principal)} LOGIN"),
        DropLogin c =>
            new(
                null, $"NOT EXISTS (SELECT FROM pg_roles WHERE rolname = {Literal(c.Principal)})",
                $"DROP ROLE {Name(c.Principal)}"),
        AddInstanceRoleMember c => new(null, InRole(c.Role, c.Principal), $"GRANT {Name(c.Role)} TO {Name(c.Principal)}"),
        RemoveInstanceRoleMember c =>
            new(null, $"NOT {InRole(c.Role, c.Principal)}", $"REVOKE {Name(c.Role)} FROM {Name(c.Principal)}"),
        GrantInstancePermission c => OnParameter(c.Permission, c.Principal, gives: true) ?? new(
            null, Has(c.Principal, Attribute(c.Permission).Column),
            $"ALTER ROLE {Name(c.Principal)} {Attribute(c.Permission).Word}"),
        RevokeInstancePermission c => OnParameter(c.Permission, c.Principal, gives: false) ?? new(
            null, $"NOT {Has(c.Principal, Attribute(c.Permission).Column)}",
            $"ALTER ROLE {Name(c.Principal)} NO{Attribute(c.Permission).Word}"),
        ChangeDatabaseOwner c =>
            new(
                null,
                $"EXISTS (SELECT FROM pg_database d JOIN pg_roles r ON r.oid = d.datdba WHERE d.datname = {Literal(c.Database)} AND r.rolname = {Literal(c.Principal)})",
                $"ALTER DATABASE {Name(c.Database)} OWNER TO {Name(c.Principal)}"),
        GrantDatabasePermission c => Privilege(c.Database, c.Permission, c.On, c.Principal, gives: true),
        RevokeDatabasePermission c => Privilege(c.Database, c.Permission, c.On, c.Principal, gives: false),
        _ => throw new ArgumentException($"{change.GetType().Name} is not a change for this engine.", nameof(change)),
    };

    /// <summary>
    /// A script for psql that makes changes in order; each looks first and does nothing when it is true already, so it can be
    /// run again.
    /// </summary>
    /// <param name="head">What it is, line by line.</param>
    public static string Script(IEnumerable<string> head, IEnumerable<(int Number, InstanceChange Change, string? Why)> steps)
    {
        var text = Head(head).Append("\\set ON_ERROR_STOP on\nSET standard_conforming_strings = on;\n");
        string? context = null;
        foreach (var (number, change, why) in steps)
        {
            var sql = Of(change);
            text.Append('\n').AppendLine(SqlComment.Of(string.Create(CultureInfo.InvariantCulture, $"{number}. {change.Words}")));
            if (why is not null) text.AppendLine(SqlComment.Of($"   {why}"));
            context = Enter(text, sql.Database, context);
            // The answer of the question, if there is one, is run: there is none when it is done already.
            text.Append("SELECT ").Append(Literal(sql.Statement)).Append("\n    WHERE NOT (").Append(sql.Done)
                .Append(")\n\\gexec\n");
        }

        return text.ToString();
    }

    /// <summary>A script for psql that changes nothing and answers for each change whether it is done.</summary>
    /// <param name="head">What it is, line by line.</param>
    public static string CheckScript(IEnumerable<string> head, IReadOnlyList<(int Number, InstanceChange Change)> steps)
    {
        var text = Head(head).Append("\\set ON_ERROR_STOP on\nSET standard_conforming_strings = on;\n");
        string? context = null;
        foreach (var (number, change) in steps)
        {
            var sql = Of(change);
            context = Enter(text, sql.Database, context);
            text.Append(
                CultureInfo.InvariantCulture,
                $"SELECT {number} AS step, {Literal(change.Words)} AS what, CASE WHEN {sql.Done} THEN 'done' ELSE 'NOT DONE' END AS state;\n");
        }

        return text.ToString();
    }

    /// <summary>A name as an identifier [PostgreSQL, Identifiers and Key Words]: in double quotes, one in it doubled.</summary>
    /// <exception cref="ArgumentException">It is empty, longer than 63 bytes, or has a line end or another control
    /// character.</exception>
    public static string Name(string name) =>
        name.Length == 0 || Encoding.UTF8.GetByteCount(name) > LongestName || name.Any(char.IsControl)
            || name.AsSpan().IndexOfAny('\u2028', '\u2029') >= 0
            ? throw new ArgumentException(
                $"'{string.Concat(name.Select(c => char.IsControl(c) ? ' ' : c))}' cannot be a name there: empty, over {LongestName} bytes, or with a line end.",
                nameof(name))
            : $"\"{name.Replace("\"", "\"\"", StringComparison.Ordinal)}\"";

    /// <summary>A text as a constant: in quotes, a quote doubled; a backslash stands for itself.</summary>
    public static string Literal(string text) => $"'{text.Replace("'", "''", StringComparison.Ordinal)}'";

    private static SqlChange Privilege(string database, string privilege, string? on, string role, bool gives)
    {
        var word = RoleAttributeNames.Privileges.Keys.FirstOrDefault(p => string.Equals(p, privilege, StringComparison.OrdinalIgnoreCase))
            ?? throw new ArgumentException($"'{privilege}' is not a privilege of this engine.", nameof(privilege));
        var thing = on is null ? null : PostgreSqlSecurable.TryParse(on)
            ?? throw new ArgumentException($"'{on}' is nothing that a privilege is on.", nameof(on));
        var (what, list) = thing is null
            ? (
                $"DATABASE {Name(database)}",
                $"SELECT coalesce(datacl, acldefault('d', datdba)) AS acl FROM pg_database WHERE datname = {Literal(database)}")
            : On(thing);
        var given = $"EXISTS (SELECT FROM ({list}) o, aclexplode(o.acl) e JOIN pg_roles r ON r.oid = e.grantee WHERE r.rolname = {Literal(role)} AND e.privilege_type = {Literal(word)})";
        var said = thing is { Class: SecurableClass.Column } ? $"{word} ({Name(thing.Detail!)})" : word;
        return new SqlChange(
            on is null ? null : database, gives ? given : $"NOT {given}",
            $"{(gives ? "GRANT" : "REVOKE")} {said} ON {what} {(gives ? "TO" : "FROM")} {Name(role)}");
    }

    /// <summary>How a statement names something, and the question for what is given on it.</summary>
    private static (string What, string List) On(PostgreSqlSecurable thing) => thing.Class switch
    {
        SecurableClass.Schema => (
            $"SCHEMA {Name(thing.Name)}",
            $"SELECT coalesce(nspacl, acldefault('n', nspowner)) AS acl FROM pg_namespace WHERE nspname = {Literal(thing.Name)}"),
        SecurableClass.Relation => (
            $"TABLE {Whole(thing)}",
            $"SELECT coalesce(c.relacl, acldefault(CASE c.relkind WHEN 'S' THEN 's' ELSE 'r' END::\"char\", c.relowner)) AS acl FROM pg_class c WHERE c.relname = {Literal(thing.Name)} AND {Within("c.relnamespace", thing)}"),
        SecurableClass.Column => (
            $"TABLE {Whole(thing)}",
            $"SELECT a.attacl AS acl FROM pg_attribute a JOIN pg_class c ON c.oid = a.attrelid WHERE a.attname = {Literal(thing.Detail!)} AND c.relname = {Literal(thing.Name)} AND {Within("c.relnamespace", thing)}"),
        SecurableClass.Routine => (
            $"ROUTINE {Whole(thing)}({Types(thing.Detail!)})",
            $"SELECT coalesce(p.proacl, acldefault('f', p.proowner)) AS acl FROM pg_proc p WHERE p.proname = {Literal(thing.Name)} AND oidvectortypes(p.proargtypes) = {Literal(thing.Detail!)} AND {Within("p.pronamespace", thing)}"),
        SecurableClass.Type => (
            $"TYPE {Whole(thing)}",
            $"SELECT coalesce(t.typacl, acldefault('T', t.typowner)) AS acl FROM pg_type t WHERE t.typname = {Literal(thing.Name)} AND {Within("t.typnamespace", thing)}"),
        SecurableClass.Language => (
            $"LANGUAGE {Name(thing.Name)}",
            $"SELECT coalesce(lanacl, acldefault('l', lanowner)) AS acl FROM pg_language WHERE lanname = {Literal(thing.Name)}"),
        SecurableClass.LargeObject => (
            $"LARGE OBJECT {Number(thing.Name)}",
            $"SELECT coalesce(lomacl, acldefault('L', lomowner)) AS acl FROM pg_largeobject_metadata WHERE oid = {Number(thing.Name)}"),
        SecurableClass.ForeignServer => (
            $"FOREIGN SERVER {Name(thing.Name)}",
            $"SELECT coalesce(srvacl, acldefault('S', srvowner)) AS acl FROM pg_foreign_server WHERE srvname = {Literal(thing.Name)}"),
        SecurableClass.ForeignDataWrapper => (
            $"FOREIGN DATA WRAPPER {Name(thing.Name)}",
            $"SELECT coalesce(fdwacl, acldefault('F', fdwowner)) AS acl FROM pg_foreign_data_wrapper WHERE fdwname = {Literal(thing.Name)}"),
    };

    private static string Whole(PostgreSqlSecurable thing) => $"{Name(thing.Schema!)}.{Name(thing.Name)}";

    private static string Within(string column, PostgreSqlSecurable thing) =>
        $"{column} = (SELECT oid FROM pg_namespace WHERE nspname = {Literal(thing.Schema!)})";

    /// <summary>The types of a routine stand bare in a statement: only what cannot end it is taken.</summary>
    private static string Types(string types) =>
        types.All(c => char.IsAsciiLetterOrDigit(c) || c is ' ' or ',' or '_' or '[' or ']' or '.')
            ? types
            : throw new ArgumentException($"'{types}' names types that cannot be written here.", nameof(types));

    private static string Number(string name) => name.Length is > 0 and <= 10 && name.All(char.IsAsciiDigit)
        ? name
        : throw new ArgumentException($"'{name}' is not the number of a large object.", nameof(name));

    /// <summary>Leave to set a parameter; null for what is none.</summary>
    private static SqlChange? OnParameter(string permission, string role, bool gives)
    {
        if (ParameterPrivilege.TryParse(permission) is not { } right) return null;
        if (!ParameterPrivilege.All.Contains(right.Privilege) || right.Parameter.Length == 0
            || !right.Parameter.All(c => char.IsAsciiLetterOrDigit(c) || c is '_' or '.'))
            throw new ArgumentException($"'{permission}' is no leave to set a parameter.", nameof(permission));
        var given = $"EXISTS (SELECT FROM pg_parameter_acl p, aclexplode(p.paracl) e JOIN pg_roles r ON r.oid = e.grantee WHERE p.parname = {Literal(right.Parameter)} AND r.rolname = {Literal(role)} AND e.privilege_type = {Literal(right.Privilege)})";
        return new SqlChange(
            null, gives ? given : $"NOT {given}",
            $"{(gives ? "GRANT" : "REVOKE")} {right.Privilege} ON PARAMETER {right.Parameter} {(gives ? "TO" : "FROM")} {Name(role)}");
    }

    private static string Has(string role, string column) =>
        $"EXISTS (SELECT FROM pg_roles WHERE rolname = {Literal(role)} AND {column})";

    private static string InRole(string role, string member) =>
        $"EXISTS (SELECT FROM pg_auth_members a JOIN pg_roles r ON r.oid = a.roleid JOIN pg_roles m ON m.oid = a.member WHERE r.rolname = {Literal(role)} AND m.rolname = {Literal(member)})";

    private static (string Word, string Column) Attribute(string permission) => RoleAttributeNames.Find(permission)
        ?? throw new ArgumentException($"'{permission}' is not a role attribute.", nameof(permission));

    /// <summary>
    /// Goes to another database on the same server. A database may be called like a connection string, so it is never given
    /// bare.
    /// </summary>
    private static string? Enter(StringBuilder text, string? database, string? context)
    {
        if (database is null || database == context) return context;
        _ = Name(database);
        var value = database.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("'", "\\'", StringComparison.Ordinal);
        // psql takes double quotes off last, and leaves one of two between a pair
        var whole = $"dbname='{value}'".Replace("\\", "\\\\", StringComparison.Ordinal)
            .Replace("'", "''", StringComparison.Ordinal).Replace("\"", "\"\"\"\"", StringComparison.Ordinal);
        text.Append("\\connect -reuse-previous=on '").Append(whole).Append("'\nSET standard_conforming_strings = on;\n");
        return database;
    }

    private static StringBuilder Head(IEnumerable<string> lines) => SqlComment.Head(lines);
}
