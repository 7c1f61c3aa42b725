namespace JustRight.Databases.Tests.PostgreSql;

/// <summary>
/// Questions whose answers are the server's own judgement: role, class, schema, name, detail, privilege, and whether it is held
/// once the role is in.
/// </summary>
internal static class ServersAnswers
{
    private const string Uses = "(r.rolsuper OR has_schema_privilege(r.oid, n.oid, 'USAGE'))";
    private const string Mine = "n.nspname ~ '^[sS]'";
    private const string Schemas = "n.nspname !~ '^pg_' AND n.nspname <> 'information_schema'";

    /// <summary>Whether a role gets in at all.</summary>
    public const string EntersInstance = "r.rolcanlogin AND (r.rolsuper OR r.rolconnlimit <> 0)";

    /// <summary>Whether a role gets in to the database that is asked.</summary>
    public const string EntersDatabase = """
        r.rolcanlogin AND (r.rolsuper OR (r.rolconnlimit <> 0 AND has_database_privilege(r.oid, current_database(), 'CONNECT')
            AND (SELECT datconnlimit FROM pg_database WHERE datname = current_database()) <> 0))
        """;

    /// <summary>What is asked once.</summary>
    public static IReadOnlyList<string> AtInstance { get; } =
    [
        """
        SELECT r.rolname, 'role', '', o.rolname, '', '', pg_has_role(r.oid, o.oid, 'USAGE') FROM pg_roles r, pg_roles o
        WHERE o.oid <> r.oid AND o.rolname <> 'pg_database_owner' AND (o.rolname ~ '^pg_' OR o.rolname ~ ' of ')
        """,
        """
        SELECT r.rolname, 'attribute', '', a, '', '', CASE a WHEN 'SUPERUSER' THEN r.rolsuper
            WHEN 'CREATEDB' THEN r.rolsuper OR r.rolcreatedb WHEN 'CREATEROLE' THEN r.rolsuper OR r.rolcreaterole
            ELSE r.rolcanlogin END
        FROM pg_roles r, unnest(ARRAY['SUPERUSER', 'CREATEDB', 'CREATEROLE', 'LOGIN']) a
        """,
        """
        SELECT r.rolname, 'parameter', '', p, '', w, has_parameter_privilege(r.oid, p, w)
        FROM pg_roles r, unnest(ARRAY['log_statement', 'fenn.moor']) p, unnest(ARRAY['SET', 'ALTER SYSTEM']) w
        WHERE p <> 'fenn.moor' OR EXISTS (SELECT FROM pg_parameter_acl WHERE parname = p)
        """,
    ];

    /// <summary>What is asked in each database.</summary>
    public static IReadOnlyList<string> InDatabase { get; } =
    [
        """
        SELECT r.rolname, '', '', '', '', p, has_database_privilege(r.oid, current_database(), p)
        FROM pg_roles r, unnest(ARRAY['CONNECT', 'CREATE', 'TEMPORARY']) p
        """,
        """
        SELECT r.rolname, 'owner', '', '', '', '', pg_has_role(r.oid, d.datdba, 'USAGE') FROM pg_roles r, pg_database d
        WHERE d.datname = current_database()
        """,
        $"""
        SELECT r.rolname, 'SCHEMA', '', n.nspname, '', p, has_schema_privilege(r.oid, n.oid, p)
        FROM pg_roles r, pg_namespace n, unnest(ARRAY['USAGE', 'CREATE']) p WHERE {Schemas}
        """,
        $"""
        SELECT r.rolname, 'SCHEMA', '', n.nspname, '', 'OWNER', pg_has_role(r.oid, n.nspowner, 'USAGE')
        FROM pg_roles r, pg_namespace n WHERE {Schemas}
        """,
        $"""
        SELECT r.rolname, 'OBJECT', n.nspname, c.relname, '', p, has_table_privilege(r.oid, c.oid, p) AND {Uses}
        FROM pg_roles r, pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace,
            unnest(ARRAY['INSERT', 'SELECT', 'UPDATE', 'DELETE', 'TRUNCATE', 'REFERENCES', 'TRIGGER']) p
        WHERE c.relkind = 'r' AND ({Mine} OR c.relname = 'pg_authid' AND c.relacl IS DISTINCT FROM
            (SELECT initprivs FROM pg_init_privs i WHERE i.objoid = c.oid AND objsubid = 0))
        """,
        $"""
        SELECT r.rolname, 'OBJECT', n.nspname, c.relname, '', p, has_sequence_privilege(r.oid, c.oid, p) AND {Uses}
        FROM pg_roles r, pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace, unnest(ARRAY['USAGE', 'SELECT', 'UPDATE']) p
        WHERE c.relkind = 'S'
        """,
        $"""
        SELECT r.rolname, 'COLUMN', n.nspname, c.relname, 'a', p, has_column_privilege(r.oid, c.oid, 'a', p) AND {Uses}
        FROM pg_roles r, pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace,
            unnest(ARRAY['SELECT', 'INSERT', 'UPDATE', 'REFERENCES']) p
        WHERE c.relkind = 'r' AND {Mine}
        """,
        $"""
        SELECT r.rolname, 'ROUTINE', n.nspname, f.proname, oidvectortypes(f.proargtypes), 'EXECUTE',
            has_function_privilege(r.oid, f.oid, 'EXECUTE') AND {Uses}
        FROM pg_roles r, pg_proc f JOIN pg_namespace n ON n.oid = f.pronamespace
        WHERE {Mine} OR (f.proname = 'pg_ls_dir' AND f.proacl IS DISTINCT FROM
            (SELECT initprivs FROM pg_init_privs i WHERE i.objoid = f.oid AND objsubid = 0))
        """,
        $"""
        SELECT r.rolname, 'TYPE', n.nspname, t.typname, '', 'USAGE', has_type_privilege(r.oid, t.oid, 'USAGE') AND {Uses}
        FROM pg_roles r, pg_type t JOIN pg_namespace n ON n.oid = t.typnamespace WHERE t.typtype = 'e' AND {Mine}
        """,
        """
        SELECT r.rolname, 'LANGUAGE', '', l.lanname, '', 'USAGE', has_language_privilege(r.oid, l.oid, 'USAGE')
        FROM pg_roles r, pg_language l WHERE l.lanname IN ('sql', 'plpgsql')
        """,
    ];

    /// <summary>A question with whether the role gets in.</summary>
    public static string Whole(string question, string enters) =>
        $"""
        SELECT q.*, {enters} FROM ({question}) q(rolname, class, schema, name, detail, privilege, held)
        JOIN pg_roles r USING (rolname)
        """;
}
