namespace JustRight.Connectors.PostgreSql;

/// <summary>
/// What is asked of an instance of the PostgreSQL family: its system catalogs, which everybody who gets in may read.
/// </summary>
public static class PostgreSqlQuestions
{
    /// <summary>Release (as a number such as 150018), its words, who asks, and whether tickets' names ignore case.</summary>
    public const string Instance = "SELECT current_setting('server_version_num')::int, current_setting('server_version'), session_user::text, coalesce(current_setting('krb_caseins_users', true), 'off') = 'on'";

    /// <summary>Roles with their attributes.</summary>
    public const string Roles = "SELECT rolname::text, rolsuper, rolinherit, rolcreaterole, rolcreatedb, rolcanlogin, rolreplication, rolbypassrls, rolconnlimit = 0 FROM pg_roles";

    /// <summary>From this release on each membership says for itself what it hands on.</summary>
    public const int MembershipsSayThemselves = 160000;

    /// <summary>From this release on the name map can be asked for.</summary>
    public const int NameMapCanBeAsked = 150000;

    /// <summary>Memberships: member, role, inherit, set, admin.</summary>
    /// <param name="release">The release as a number.</param>
    public static string Memberships(int release)
    {
        var (inherit, set) = release >= MembershipsSayThemselves
            ? ("a.inherit_option", "a.set_option")
            : ("m.rolinherit", "true");
        return $"SELECT m.rolname::text, r.rolname::text, bool_or({inherit}), bool_or({set}), bool_or(a.admin_option) FROM pg_auth_members a JOIN pg_roles m ON m.oid = a.member JOIN pg_roles r ON r.oid = a.roleid GROUP BY 1, 2";
    }

    /// <summary>
    /// Databases: name, owner, whether the reader gets in, whom they take, and one row for each privilege given. A template that
    /// takes no connections is nobody's affair.
    /// </summary>
    public static string Databases { get; } = $"SELECT d.datname::text, pg_get_userbyid(d.datdba)::text, d.datallowconn AND has_database_privilege(d.oid, 'CONNECT'), d.datallowconn, d.datconnlimit = 0, {Entry} FROM pg_database d LEFT JOIN LATERAL aclexplode(coalesce(d.datacl, acldefault('d', d.datdba))) e ON true WHERE d.datallowconn OR NOT d.datistemplate ORDER BY d.datname";

    /// <summary>Schemas; of the engine's own the two that everybody may use.</summary>
    public static string Schemas { get; } = $"SELECT n.nspname::text, pg_get_userbyid(n.nspowner)::text, {Entry} FROM pg_namespace n LEFT JOIN LATERAL aclexplode(coalesce(n.nspacl, acldefault('n', n.nspowner))) e ON true WHERE {NotOwn} OR n.nspname IN ('pg_catalog', 'information_schema') ORDER BY n.nspname";

    /// <summary>
    /// Everything else that privileges are on: its class, schema, name and detail, owner, whether it runs as its owner, whether it
    /// hides rows, whether it is a view, and one row for each privilege given. Of what is the engine's own only that of which what is given was changed.
    /// </summary>
    public static string Objects { get; } = $"""
        SELECT q.class, q.schema::text, q.name::text, q.detail::text, pg_get_userbyid(q.owner)::text, q.definer, q.hides, q.view, {Entry}
        FROM (
            SELECT 'OBJECT' AS class, n.nspname AS schema, c.relname AS name, NULL AS detail, c.relowner AS owner, false AS definer, c.relrowsecurity AS hides, c.relkind IN ('v', 'm') AS view,
                coalesce(c.relacl, acldefault(CASE c.relkind WHEN 'S' THEN 's' ELSE 'r' END::"char", c.relowner)) AS acl
            FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
            WHERE c.relkind IN ('r', 'v', 'm', 'p', 'f', 'S') AND ({NotOwn} OR {Changed("pg_class", "c.oid", 0, "c.relacl")})
            UNION ALL
            SELECT 'COLUMN', n.nspname, c.relname, a.attname, c.relowner, false, false, false, a.attacl
            FROM pg_attribute a JOIN pg_class c ON c.oid = a.attrelid JOIN pg_namespace n ON n.oid = c.relnamespace
            WHERE a.attacl IS NOT NULL AND NOT a.attisdropped AND c.relkind IN ('r', 'v', 'm', 'p', 'f') AND {NotOwn}
            UNION ALL
            SELECT 'ROUTINE', n.nspname, p.proname, oidvectortypes(p.proargtypes), p.proowner, p.prosecdef, false, false, coalesce(p.proacl, acldefault('f', p.proowner))
            FROM pg_proc p JOIN pg_namespace n ON n.oid = p.pronamespace
            WHERE {NotOwn} OR {Changed("pg_proc", "p.oid", 0, "p.proacl")}
            UNION ALL
            SELECT 'TYPE', n.nspname, t.typname, NULL, t.typowner, false, false, false, coalesce(t.typacl, acldefault('T', t.typowner))
            FROM pg_type t JOIN pg_namespace n ON n.oid = t.typnamespace LEFT JOIN pg_class c ON c.oid = t.typrelid
            WHERE {NotOwn} AND t.typcategory <> 'A' AND (t.typrelid = 0 OR c.relkind = 'c')
            UNION ALL
            SELECT 'LANGUAGE', NULL, l.lanname, NULL, l.lanowner, false, false, false, coalesce(l.lanacl, acldefault('l', l.lanowner)) FROM pg_language l
            UNION ALL
            SELECT 'LARGE OBJECT', NULL, m.oid::text, NULL, m.lomowner, false, false, false, coalesce(m.lomacl, acldefault('L', m.lomowner)) FROM pg_largeobject_metadata m
            UNION ALL
            SELECT 'FOREIGN SERVER', NULL, s.srvname, NULL, s.srvowner, false, false, false, coalesce(s.srvacl, acldefault('S', s.srvowner)) FROM pg_foreign_server s
            UNION ALL
            SELECT 'FOREIGN DATA WRAPPER', NULL, w.fdwname, NULL, w.fdwowner, false, false, false, coalesce(w.fdwacl, acldefault('F', w.fdwowner)) FROM pg_foreign_data_wrapper w
        ) q LEFT JOIN LATERAL aclexplode(q.acl) e ON true
        ORDER BY q.class, q.schema, q.name, q.detail
        """;

    /// <summary>From this release on leave is given to set parameters.</summary>
    public const int ParametersAreGiven = 150000;

    /// <summary>Parameters that something is given on.</summary>
    public static string Parameters { get; } = $"SELECT p.parname, {Entry} FROM pg_parameter_acl p LEFT JOIN LATERAL aclexplode(p.paracl) e ON true ORDER BY p.parname";

    /// <summary>
    /// The rules of sign-in, only for readers who were given them. Of their options those that say whom they let in: others hold
    /// passwords, which must never leave the server.
    /// </summary>
    public const string SignInRules = """
        SELECT type, database, user_name, coalesce(address, ''), coalesce(netmask, ''), auth_method,
            ARRAY(SELECT o FROM unnest(options) o WHERE split_part(o, '=', 1) IN ('map', 'include_realm', 'krb_realm', 'clientcert', 'ldapprefix', 'ldapsearchattribute', 'ldapsearchfilter'))
        FROM pg_hba_file_rules WHERE error IS NULL ORDER BY line_number
        """;

    /// <summary>The name map.</summary>
    public const string NameMap = "SELECT map_name, sys_name, pg_username FROM pg_ident_file_mappings WHERE error IS NULL ORDER BY line_number";

    /// <summary>The first fault in either file, with its line: the server goes by what it read before.</summary>
    public const string SignInFaults = """
        SELECT f.file, f.line_number, f.error
        FROM (SELECT 'pg_hba.conf' AS file, line_number, error FROM pg_hba_file_rules UNION ALL SELECT 'pg_ident.conf', line_number, error FROM pg_ident_file_mappings) f
        WHERE f.error IS NOT NULL ORDER BY f.file, f.line_number LIMIT 1
        """;

    private const string Entry = "CASE WHEN e.grantee = 0 THEN NULL ELSE pg_get_userbyid(e.grantee)::text END, e.privilege_type::text, coalesce(e.is_grantable, false)";
    private const string NotOwn = "(n.nspname !~ '^pg_' AND n.nspname <> 'information_schema')";

    /// <summary>
    /// Whether what is given on something of the engine's is other than what it was made with, which it keeps for its catalog.
    /// </summary>
    private static string Changed(string catalog, string oid, int column, string acl) =>
        $"(n.nspname = 'pg_catalog' AND {acl} IS NOT NULL AND {acl} IS DISTINCT FROM (SELECT i.initprivs FROM pg_init_privs i WHERE i.classoid = '{catalog}'::regclass AND i.objoid = {oid} AND i.objsubid = {column}))";
}
