using System.Globalization;
using System.Text;
using JustRight.Core.Changes;
using JustRight.Core.Engines;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Hosts;

namespace JustRight.Formats.Databases;

/// <summary>
/// Writes changes of an instance of the PostgreSQL family as its SQL, and as scripts for its own client psql. Names are always
/// delimited and texts quoted, with theirs doubled; a name that the engine would cut short is refused.
/// </summary>
public static class PostgreSqlStatements
{
    private const int LongestName = 63; // bytes; the engine cuts longer ones without a word
    private static readonly string[] Privileges = [
        "CONNECT", "CREATE", "TEMPORARY", "USAGE", "SELECT", "INSERT", "UPDATE", "DELETE", "TRUNCATE", "REFERENCES", "TRIGGER"];

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
        GrantInstancePermission c =>
            new(
                null, Has(c.Principal, Attribute(c.Permission).Column),
                $"ALTER ROLE {Name(c.Principal)} {Attribute(c.Permission).Word}"),
        RevokeInstancePermission c =>
            new(
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
        var word = Privileges.FirstOrDefault(p => string.Equals(p, privilege, StringComparison.OrdinalIgnoreCase))
            ?? throw new ArgumentException($"'{privilege}' is not a privilege of this engine.", nameof(privilege));
        var (what, list) = Securable.Of(on) switch
        {
            null => (
                $"DATABASE {Name(database)}",
                $"(SELECT coalesce(datacl, acldefault('d', datdba)) AS acl FROM pg_database WHERE datname = {Literal(database)}) o"),
            (var schema, null) =>
                (
                    $"SCHEMA {Name(schema)}",
                    $"(SELECT coalesce(nspacl, acldefault('n', nspowner)) AS acl FROM pg_namespace WHERE nspname = {Literal(schema)}) o"),
            var (schema, table) =>
                (
                    $"TABLE {Name(schema)}.{Name(table)}",
                    $"(SELECT coalesce(c.relacl, acldefault('r', c.relowner)) AS acl FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace WHERE n.nspname = {Literal(schema)} AND c.relname = {Literal(table)}) o"),
        };
        var given = $"EXISTS (SELECT FROM {list}, aclexplode(o.acl) e JOIN pg_roles r ON r.oid = e.grantee WHERE r.rolname = {Literal(role)} AND e.privilege_type = {Literal(word)})";
        return new SqlChange(
            on is null ? null : database, gives ? given : $"NOT {given}",
            $"{(gives ? "GRANT" : "REVOKE")} {word} ON {what} {(gives ? "TO" : "FROM")} {Name(role)}");
    }

    private static string Has(string role, string column) =>
        $"EXISTS (SELECT FROM pg_roles WHERE rolname = {Literal(role)} AND {column})";

    private static string InRole(string role, string member) =>
        $"EXISTS (SELECT FROM pg_auth_members a JOIN pg_roles r ON r.oid = a.roleid JOIN pg_roles m ON m.oid = a.member WHERE r.rolname = {Literal(role)} AND m.rolname = {Literal(member)})";

    private static (string Word, string Column) Attribute(string permission) =>
        RoleAttributeNames.All.TryGetValue(permission.ToUpperInvariant(), out var known)
            ? (permission.ToUpperInvariant(), known.Column)
            : throw new ArgumentException($"'{permission}' is not a role attribute.", nameof(permission));

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
